import { thread } from '../../../../server/usecases/overview';
import { draftAnswer, waitingThreads } from '../../../../server/usecases/replies';
import { workspace } from '../../../../server/usecases/world';
import { Thread } from '../../../../ui/messages/view/Thread';
import { orNotFound } from '../../../not-found-or';
import { signed } from '../../../session';

export const metadata = { title: 'Conversation' };

export default async function ThreadPage({ params }: { readonly params: Promise<{ id: string }> }) {
  const { world, may, user } = await signed();
  const page = await orNotFound(thread(world, (await params).id));
  const [space, waiting] = await Promise.all([workspace(world.db), waitingThreads(world)]);
  const draft = page.thread.state === 'ended' ? null : await draftAnswer(world, { userId: user.id, name: user.name }, page.thread.id);
  return (
    <Thread thread={page.thread} messages={page.messages} zone={space.zone} mayDecide={may('decide')} draft={draft} waiting={waiting} />
  );
}
