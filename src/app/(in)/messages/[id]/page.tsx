import { thread } from '../../../../server/usecases/overview';
import { workspace } from '../../../../server/usecases/world';
import { Thread } from '../../../../ui/messages/view/Thread';
import { orNotFound } from '../../../not-found-or';
import { signed } from '../../../session';

export const metadata = { title: 'Conversation' };

export default async function ThreadPage({ params }: { readonly params: Promise<{ id: string }> }) {
  const { world, may } = await signed();
  const page = await orNotFound(thread(world, (await params).id));
  const space = await workspace(world.db);
  return <Thread thread={page.thread} messages={page.messages} zone={space.zone} mayDecide={may('decide')} />;
}
