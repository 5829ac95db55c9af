import { actionsOf } from '../../../server/access';
import { users } from '../../../server/usecases/access';
import { doNotContactList } from '../../../server/usecases/do-not-contact';
import { mailboxes } from '../../../server/usecases/overview';
import { researchSettings } from '../../../server/usecases/research-settings';
import { workspace } from '../../../server/usecases/world';
import { Settings } from '../../../ui/settings/view/Settings';
import { signed } from '../../session';

export const metadata = { title: 'Settings' };

export default async function SettingsPage() {
  const { world, may } = await signed();
  const [space, boxes, people, closed, research] = await Promise.all([
    workspace(world.db),
    mailboxes(world),
    users(world),
    doNotContactList(world),
    researchSettings(world),
  ]);
  return (
    <Settings
      workspace={space}
      mailboxes={boxes}
      users={people.map((user) => ({ ...user, may: actionsOf(user.role) }))}
      doNotContact={closed}
      research={research}
      mayChange={may('edit flows')}
      mayReadAudit={may('read the audit')}
    />
  );
}
