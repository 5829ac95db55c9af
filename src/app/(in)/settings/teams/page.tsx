import { users } from '../../../../server/access/access';
import { settingsIndex } from '../../../../server/workspace/settings-index';
import { teams } from '../../../../server/workspace/teams';
import { Teams } from '../../../../ui/settings/view/Teams';
import { signed } from '../../../session';

export const metadata = { title: 'Teams and turns' };

export default async function TeamsPage() {
  const { world, may } = await signed();
  const [index, items, everybody] = await Promise.all([settingsIndex(world), teams(world), users(world)]);
  const people = everybody.filter((person) => person.endedAt == null).map(({ id, name }) => ({ id, name }));
  return <Teams index={index} first={items} people={people} mayChange={may('edit flows')} />;
}
