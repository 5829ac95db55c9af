/**
 * All that an answer in a conversation is made from: what they wrote last and nobody has answered, what is agreed and stated, what is
 * known of them, and who signs.
 */
import type { Instant } from '../../core/base';
import { agreedAnswerSchema, type AgreedAnswer, type DraftAsk, type ReplyDraft, type Statement } from '../../core/answers';
import type { RecordView } from '../../core/engine';
import type { OwnField } from '../../core/fields';
import { written, type ReplyReading } from '../../core/reply';
import type { Tx } from '../db';
import { factsOf } from '../records/store/facts';
import { findThread, messagesOfThread, type MessageRow, type ThreadRow } from './store/messages';
import { listMailboxes, type MailboxRow } from './store/mailboxes';
import { isDoNotContact } from './store/do-not-contact';
import { findPerson, loadViews } from '../records/store/records';
import { loadDeals, pageDeals } from '../records/store/deals';
import { listThings } from '../flows/store/things';
import { loadCatalogue } from '../records/fields';
import { currentFacts } from '../trips/requests/compose';
import { neverSaid, statements } from '../flows/things';
import { found, Refusal, workspace, type Actor } from '../platform/world';

export interface Agreed {
  readonly id: string;
  readonly no: number;
  readonly answer: AgreedAnswer;
}
/** What is the same for every answer of a workspace. */
export interface Material {
  readonly book: readonly Agreed[];
  readonly statements: readonly Statement[];
  /** what the business never says */
  readonly neverSay: readonly string[];
  readonly fields: readonly OwnField[];
  readonly mailboxes: readonly MailboxRow[];
  /** deals count their days in this zone, as of now */
  readonly zone: string;
  readonly now: Instant;
}
export async function materialOf(tx: Tx, now: Instant): Promise<Material> {
  const [rows, said, catalogue, mailboxes, space, neverSay] = await Promise.all([
    listThings(tx, 'answer'),
    statements(tx),
    loadCatalogue(tx),
    listMailboxes(tx),
    workspace(tx),
    neverSaid(tx),
  ]);
  const book = rows.flatMap((row) => {
    const read = agreedAnswerSchema.safeParse(row.body);
    return !row.retired && read.success ? [{ id: row.id, no: row.no, answer: read.data }] : [];
  });
  return { book, statements: said, neverSay, fields: catalogue.own, mailboxes, zone: space.zone, now };
}

/** The agreed answers that a draft is made of. */
export function madeOf({ taken }: Pick<ReplyDraft, 'taken'>, book: readonly Agreed[]): readonly Agreed[] {
  const names = new Set(taken.flatMap(({ by }) => (by?.kind === 'agreed' ? [by.name] : [])));
  return book.filter(({ answer }) => names.has(answer.name));
}

export interface Standing {
  readonly thread: ThreadRow;
  readonly messages: readonly MessageRow[];
  /** their last message; undefined: none came, or it was answered */
  readonly theirs: MessageRow | undefined;
  readonly book: readonly Agreed[];
  readonly ask: Omit<DraftAsk, 'chosen'>;
}
/** A conversation in which something of theirs waits for an answer. */
export type Awaiting = Standing & { readonly theirs: MessageRow };
export const isAwaiting = (stands: Standing): stands is Awaiting => stands.theirs !== undefined;

export const NOTHING_READ: Pick<ReplyReading, 'kind' | 'objection' | 'quote'> = { kind: 'unclear', objection: null, quote: null };

/** Nobody: what goes alone, in the name of the mailbox. */
export const BY_RULE: Actor = { userId: null, name: 'a rule' };

/** How a conversation stands; `messageId`: as if that mail of theirs were the last, answered or not. */
export async function standing(tx: Tx, material: Material, actor: Actor, threadId: string, messageId?: string): Promise<Standing> {
  const thread = found(await findThread(tx, threadId), 'this conversation');
  const [messages, views, person, deals] = await Promise.all([
    messagesOfThread(tx, threadId),
    loadViews(tx, [thread.personId]),
    findPerson(tx, thread.personId),
    pageDeals(tx, { search: '', before: null, limit: 1, personId: thread.personId }),
  ]);
  const theirs = messageId === undefined ? unanswered(messages) : messages.find(({ id }) => id === messageId);
  const view = found(views.get(thread.personId), 'this person');
  const dealIds = deals.map((deal) => deal.id);
  const [facts, dealViews] = await Promise.all([
    factsOf(tx, [thread.personId, ...(view.company ? [view.company.id] : []), ...dealIds]),
    loadDeals(tx, dealIds, material.now, material.zone),
  ]);
  const signs = actor.userId === null ? (material.mailboxes.find((box) => box.name === thread.mailbox)?.displayName ?? '') : actor.name;
  const email = person?.email ?? null;
  return {
    thread,
    messages,
    theirs,
    book: material.book,
    ask: {
      words: theirs ? wordsOf(theirs, messages) : '',
      reading: theirs?.reading ?? NOTHING_READ,
      answers: material.book.map((entry) => entry.answer),
      statements: material.statements,
      neverSay: material.neverSay,
      language: typeof view.person.language === 'string' ? view.person.language : null,
      scope: replyScope(view, dealViews.get(dealIds[0] ?? ''), signs),
      facts: currentFacts(facts),
      fields: material.fields,
      recipient: { name: person?.name ?? thread.personName, reach: email },
      doNotContact: await isDoNotContact(tx, email),
    },
  };
}

/** What conditions and slots of an answer see: the person at the top, company, deal and who signs below. */
export const replyScope = (view: RecordView, deal: RecordView['deal'] | undefined, signs: string): DraftAsk['scope'] => ({
  ...view.person,
  company: view.company,
  deal: deal ?? null,
  sender: { name: signs, first_name: signs.split(' ')[0] ?? '' },
});

const UNDER_WAY: ReadonlySet<MessageRow['state']> = new Set(['planned', 'sent', 'in doubt']);
/** Their last message, unless an answer to it has left or will. */
export function unanswered(messages: readonly MessageRow[]): MessageRow | undefined {
  const theirs = messages.findLast((message) => message.direction === 'in' && message.state === 'received');
  const answer = messages.find(
    ({ direction, inReplyTo, state }) => direction === 'out' && inReplyTo === theirs?.rfcId && UNDER_WAY.has(state),
  );
  return theirs?.rfcId != null && answer ? undefined : theirs;
}

/** Refuses an answer to what is not the last any more, or has been answered since it was looked at. */
export function refuseStale(messages: readonly MessageRow[], { personName }: ThreadRow, seen: string | null): void {
  const inReplyTo = unanswered(messages)?.id ?? null;
  if (inReplyTo === seen) return;
  const says = inReplyTo === null ? `${personName} has been answered already` : `${personName} has written again: read that first`;
  throw new Refusal('conflict', says, { inReplyTo });
}

/** What they wrote themselves. */
export function wordsOf(theirs: MessageRow, messages: readonly MessageRow[]): string {
  const ours = messages.filter((message) => message.direction === 'out' && message.at <= theirs.at).at(-1)?.body;
  return written(theirs.body, ours === undefined ? {} : { ours }).text;
}
