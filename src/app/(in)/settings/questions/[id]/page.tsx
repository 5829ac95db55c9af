import { notFound } from 'next/navigation';
import { tryQuestion } from '../../../../../server/research/teach';
import { Refusal } from '../../../../../server/platform/world';
import { Teach } from '../../../../../ui/settings/view/Teach';
import { signed } from '../../../../session';

export const metadata = { title: 'Question' };

export default async function QuestionPage({ params }: { readonly params: Promise<{ readonly id: string }> }) {
  const { world, may } = await signed();
  const { id } = await params;
  try {
    return <Teach first={await tryQuestion(world, id, {})} mayChange={may('edit flows')} />;
  } catch (error) {
    if (error instanceof Refusal && error.kind === 'not found') notFound();
    throw error;
  }
}
