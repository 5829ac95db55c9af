import { actionsOf, ROLES } from '../../../../server/access/may';
import { peopleView } from '../../../../server/access/people-here';
import { workspace } from '../../../../server/platform/world';
import { settingsIndex } from '../../../../server/workspace/settings-index';
import { PeopleHere } from '../../../../ui/settings/view/PeopleHere';
import { signed } from '../../../session';

export const metadata = { title: 'People and roles' };

export default async function PeoplePage() {
  const { world, user, may } = await signed();
  const [index, view, { zone }] = await Promise.all([settingsIndex(world), peopleView(world), workspace(world.db)]);
  return (
    <PeopleHere
      index={index}
      first={view}
      roles={ROLES.map((role) => ({ role, may: actionsOf(role) }))}
      own={user.id}
      now={Date.now()}
      zone={zone}
      mayChange={may('keep secrets')}
    />
  );
}
