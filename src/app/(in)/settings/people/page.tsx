import type { PeopleHere as View } from '../../../../api';
import { actionsOf, ROLES } from '../../../../server/access/may';
import { toWire } from '../../../../server/http/answer';
import { peopleView } from '../../../../server/access/people-here';
import { settingsIndex } from '../../../../server/workspace/settings-index';
import { PeopleHere } from '../../../../ui/settings/view/PeopleHere';
import { signed } from '../../../session';

export const metadata = { title: 'People and roles' };

export default async function PeoplePage() {
  const { world, user, may } = await signed();
  const [index, view] = await Promise.all([settingsIndex(world), peopleView(world)]);
  return (
    <PeopleHere
      index={index}
      first={toWire(view) as View}
      roles={ROLES.map((role) => ({ role, may: actionsOf(role) }))}
      own={user.id}
      now={Date.now()}
      mayChange={may('keep secrets')}
    />
  );
}
