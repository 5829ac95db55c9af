import { actionsOf } from '../../../server/access';
import { users } from '../../../server/usecases/access';
import { doNotContact, mailboxes } from '../../../server/usecases/overview';
import { workspace } from '../../../server/usecases/world';
import { Settings } from '../../../ui/settings/view/Settings';
import { signed } from '../../session';

export const metadata = { title: 'Settings' };

export default async function SettingsPage() {
  const { world } = await signed();
  const [space, boxes, people, closed] = await Promise.all([workspace(world.db), mailboxes(world), users(world), doNotContact(world)]);
  return (
    <Settings
      workspace={space}
      mailboxes={boxes}
      users={people.map((user) => ({ ...user, may: actionsOf(user.role) }))}
      doNotContact={closed}
    />
  );
}
