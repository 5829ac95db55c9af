import { handOverTo } from '../../../../server/messages/holders';
import { thread } from '../../../../server/desk/overview';
import { draftAnswer, waitingThreads } from '../../../../server/messages/replies';
import { workspace } from '../../../../server/platform/world';
import { Thread } from '../../../../ui/messages/view/Thread';
import { orNotFound } from '../../../not-found-or';
import { signed } from '../../../session';

export const metadata = { title: 'Conversation' };

export default async function ThreadPage({ params }: { readonly params: Promise<{ id: string }> }) {
  const { world, may, user } = await signed();
  const page = await orNotFound(thread(world, (await params).id));
  const actor = { userId: user.id, name: user.name };
  const [space, waiting, hand, draft] = await Promise.all([
    workspace(world.db),
    waitingThreads(world, actor),
    handOverTo(world, actor, page.thread),
    page.thread.state === 'ended' ? null : draftAnswer(world, actor, page.thread.id),
  ]);
  return (
    <Thread
      thread={page.thread}
      messages={page.messages}
      zone={space.zone}
      mayDecide={may('decide')}
      draft={draft}
      hand={hand}
      waiting={waiting}
    />
  );
}
