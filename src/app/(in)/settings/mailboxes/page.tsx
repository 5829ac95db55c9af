import { mailServices, signInServices } from '../../../../server/access/sign-in-services';
import { mailboxViews } from '../../../../server/messages/mailboxes';
import { settingsIndex } from '../../../../server/workspace/settings-index';
import { workspace } from '../../../../server/platform/world';
import { Mailboxes } from '../../../../ui/settings/view/Mailboxes';
import { signed } from '../../../session';

export const metadata = { title: 'Mailboxes and sending' };

export default async function MailboxesPage() {
  const { world, may } = await signed();
  const [index, boxes, services, space, now] = await Promise.all([
    settingsIndex(world),
    mailboxViews(world),
    signInServices(world),
    workspace(world.db),
    world.clock.now(),
  ]);
  return (
    <Mailboxes
      index={index}
      first={boxes}
      services={mailServices(services)}
      zones={Intl.supportedValuesOf('timeZone')}
      space={space}
      now={now}
      mayChange={may('keep secrets')}
      mayResume={may('release')}
    />
  );
}
