import { answerBook } from '../../../../server/messages/answer-book';
import { AnswerBook } from '../../../../ui/messages/view/AnswerBook';
import { MessageTabs } from '../../../../ui/things/view/MessageTabs';
import { signed } from '../../../session';

export const metadata = { title: 'Answers' };

export default async function AnswersPage() {
  const { world, may } = await signed();
  const [book, now] = await Promise.all([answerBook(world), world.clock.now()]);
  return <AnswerBook book={book} now={now} mayChange={may('edit flows')} tabs={<MessageTabs on="answer" />} />;
}
