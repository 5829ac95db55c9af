import { answeredLately } from '../../../../../server/messages/answer-book';
import { thing } from '../../../../../server/flows/things';
import { workspace } from '../../../../../server/platform/world';
import { AnswerBench } from '../../../../../ui/things/view/AnswerBench';
import { orNotFound } from '../../../../not-found-or';
import { signed } from '../../../../session';

export const metadata = { title: 'Agreed answer' };

export default async function AnswerPage({ params }: { readonly params: Promise<{ id: string }> }) {
  const { world, may } = await signed();
  const { id } = await params;
  const [view, answered, space] = await Promise.all([
    orNotFound(thing(world, id)),
    orNotFound(answeredLately(world, id)),
    workspace(world.db),
  ]);
  return <AnswerBench key={id} first={view} answered={answered} zone={space.zone} mayChange={may('edit flows')} />;
}
