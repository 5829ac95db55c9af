import { threads } from '../../../server/desk/overview';
import { workspace } from '../../../server/platform/world';
import { Threads } from '../../../ui/messages/view/Threads';
import { MessageTabs } from '../../../ui/things/view/MessageTabs';
import { signed } from '../../session';

export const metadata = { title: 'Messages' };

export default async function MessagesPage() {
  const { world } = await signed();
  const [rows, now, space] = await Promise.all([threads(world), world.clock.now(), workspace(world.db)]);
  return <Threads tabs={<MessageTabs on="conversations" />} threads={rows} now={now} zone={space.zone} />;
}
