import { draftReply, isCovered, subjectOf } from '../../../core/answers';
import type { Answer, RecordView, Request } from '../../../core/engine';
import { understandReply } from '../../../core/reply';
import { factsOf, trialFactsOf } from '../../records/store/facts';
import { isDoNotContact } from '../../messages/store/do-not-contact';
import { findPerson } from '../../records/store/records';
import { loadDeals, pageDeals } from '../../records/store/deals';
import type { HeldTrip } from '../store/trips';
import { madeOf, materialOf, replyScope } from '../../messages/answer-standing';
import type { World } from '../../platform/world';
import { currentFacts } from './compose';

/** An answer to what somebody wrote, drafted from the book of answers as in conversations; signed by whose record it is, else by the mailbox. */
export async function draft(
  world: World,
  held: HeldTrip,
  view: RecordView,
  { words, subject }: Extract<Request, { kind: 'draft' }>,
): Promise<Extract<Answer, { kind: 'draft' }>> {
  const { db } = world;
  const now = await world.clock.now();
  const material = await materialOf(db, now);
  const dealIds = held.trip.dealId === null ? [] : [held.trip.dealId];
  const [stored, overlay, person, deals, [deal]] = await Promise.all([
    factsOf(db, [view.person.id, ...(view.company ? [view.company.id] : []), ...dealIds]),
    held.trip.trial ? trialFactsOf(db, [held.trip.id]) : [],
    findPerson(db, view.person.id),
    loadDeals(db, dealIds, now, material.zone),
    dealIds[0] === undefined ? [] : pageDeals(db, { search: '', before: null, limit: 1, id: dealIds[0] }),
  ]);
  const email = typeof view.person.email === 'string' && view.person.email !== '' ? view.person.email : null;
  const signs = deal?.ownerName ?? person?.ownerName ?? material.mailboxes[0]?.displayName ?? '';
  const drafted = draftReply({
    words,
    reading: understandReply({ subject: subject ?? '', text: words, at: now, autoSubmitted: false }),
    answers: material.book.map((entry) => entry.answer),
    statements: material.statements,
    neverSay: material.neverSay,
    language: typeof view.person.language === 'string' ? view.person.language : null,
    scope: replyScope(view, deals.get(dealIds[0] ?? ''), signs),
    facts: currentFacts([...stored, ...overlay]),
    fields: material.fields,
    recipient: { name: view.person.name, reach: email },
    doNotContact: await isDoNotContact(db, email),
  });
  const used = madeOf(drafted, material.book);
  return {
    kind: 'draft',
    subject: subjectOf(subject, drafted.language),
    body: drafted.body,
    language: drafted.language,
    covered: isCovered(drafted),
    open: drafted.taken.filter(({ by }) => by === null).map(({ said }) => said.words),
    questions: drafted.taken.filter(({ said }) => said.kind === 'question').length,
    answers: used.map(({ answer }) => answer.name),
    checks: drafted.checks,
    uses: used.map(({ id, no, answer }) => ({ itemId: id, no, about: answer.about })),
  };
}
