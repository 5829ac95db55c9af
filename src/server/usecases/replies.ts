/**
 * Answers to what people write. Promises: a draft says only what is agreed, stated or known; what leaves was approved by a person, is checked once
 * more, goes into their thread once, and stops what was planned there. Refuses: answering who must not be written to.
 */
import type { AnswerBookView, AnswerDraftView } from '../../api';
import type { Instant } from '../../core/base';
import {
  agreedAnswerSchema,
  candidatesFor,
  checkReply,
  draftReply,
  isObjection,
  mayNotSay,
  saidIn,
  type AgreedAnswer,
  type DraftAsk,
  type ReplyDraft,
  type Statement,
} from '../../core/answers';
import { languageOf } from '../../core/reader';
import { written, type ReplyReading } from '../../core/reply';
import type { Tx } from '../db';
import { answerCounts, answeredWith, askedSince, insertAnswerUses, insertQuestions, type AskedRow } from '../store/answers';
import { dropPlanned, insertSend, plannedOfThread } from '../store/effects';
import { factsOf } from '../store/facts';
import {
  findThread,
  handleMessage,
  insertMessage,
  isDoNotContact,
  listMailboxes,
  lockThread,
  messagesOfThread,
  setMessageState,
  setThread,
  threadRefs,
  unhandledReplies,
  type MessageRow,
  type ThreadRow,
} from '../store/messages';
import { findPerson, loadViews, pageDeals } from '../store/records';
import { findThing, listThings } from '../store/things';
import { insertAudit, insertHappenings } from '../store/timeline';
import { loadCatalogue } from './fields';
import { rfcIdOf } from './message-id';
import { currentFacts } from './requests/compose';
import { statements } from './things';
import { slotNow } from './touches';
import { found, Refusal, type Actor, type World } from './world';

interface Agreed {
  readonly id: string;
  readonly no: number;
  readonly answer: AgreedAnswer;
}
/** The answers in use. */
async function agreed(tx: Tx): Promise<readonly Agreed[]> {
  return (await listThings(tx, 'answer')).flatMap((row) => {
    const read = agreedAnswerSchema.safeParse(row.body);
    return !row.retired && read.success ? [{ id: row.id, no: row.no, answer: read.data }] : [];
  });
}

interface Standing {
  readonly thread: ThreadRow;
  readonly messages: readonly MessageRow[];
  /** their last message; undefined: none came, or it was answered */
  readonly theirs: MessageRow | undefined;
  readonly book: readonly Agreed[];
  readonly ask: Omit<DraftAsk, 'chosen'>;
}
const NOTHING_READ: Pick<ReplyReading, 'kind' | 'objection' | 'quote'> = { kind: 'unclear', objection: null, quote: null };

/** All that an answer in a conversation is made from. */
async function standing(world: World, actor: Actor, threadId: string): Promise<Standing> {
  const { db } = world;
  const thread = found(await findThread(db, threadId), 'this conversation');
  const [messages, book, said, views, person, deals, catalogue, boxes] = await Promise.all([
    messagesOfThread(db, threadId),
    agreed(db),
    statements(db),
    loadViews(db, [thread.personId]),
    findPerson(db, thread.personId),
    pageDeals(db, { search: '', before: null, limit: 1, personId: thread.personId }),
    loadCatalogue(db),
    listMailboxes(db),
  ]);
  const theirs = unanswered(messages);
  const view = found(views.get(thread.personId), 'this person');
  const facts = await factsOf(db, [thread.personId, ...(view.company ? [view.company.id] : []), ...deals.map((deal) => deal.id)]);
  const [deal] = deals;
  const signs = actor.userId === null ? (boxes.find((box) => box.name === thread.mailbox)?.displayName ?? '') : actor.name;
  const email = person?.email ?? null;
  return {
    thread,
    messages,
    theirs,
    book,
    ask: {
      words: theirs ? wordsOf(theirs, messages) : '',
      reading: theirs?.reading ?? NOTHING_READ,
      answers: book.map((entry) => entry.answer),
      statements: said,
      language: typeof view.person.language === 'string' ? view.person.language : null,
      scope: {
        ...view.person,
        company: view.company,
        deal: deal ? { title: deal.title, stage: deal.stage, amount: deal.amount, pipeline: deal.pipeline } : null,
        sender: { name: signs, first_name: signs.split(' ')[0] ?? '' },
      },
      facts: currentFacts(facts),
      fields: catalogue.own,
      recipient: { name: person?.name ?? thread.personName, email },
      doNotContact: await isDoNotContact(db, email),
    },
  };
}

const UNDER_WAY: ReadonlySet<MessageRow['state']> = new Set(['planned', 'sent', 'in doubt']);
/** Their last message, unless an answer to it has left or will. */
function unanswered(messages: readonly MessageRow[]): MessageRow | undefined {
  const theirs = messages.findLast((message) => message.direction === 'in' && message.state === 'received');
  const answer = messages.find(
    ({ direction, inReplyTo, state }) => direction === 'out' && inReplyTo === theirs?.rfcId && UNDER_WAY.has(state),
  );
  return theirs?.rfcId != null && answer ? undefined : theirs;
}

/** Refuses an answer to what is not the last any more, or has been answered since it was looked at. */
function refuseStale(messages: readonly MessageRow[], { personName }: ThreadRow, seen: string | null): void {
  const inReplyTo = unanswered(messages)?.id ?? null;
  if (inReplyTo === seen) return;
  const says = inReplyTo === null ? `${personName} has been answered already` : `${personName} has written again: read that first`;
  throw new Refusal('conflict', says, { inReplyTo });
}

/** What they wrote themselves. */
function wordsOf(theirs: MessageRow, messages: readonly MessageRow[]): string {
  const ours = messages.filter((message) => message.direction === 'out' && message.at <= theirs.at).at(-1)?.body;
  return written(theirs.body, ours === undefined ? {} : { ours }).text;
}

/** The answer that would go out in a conversation, with what it rests on, what else was agreed, and what would happen then. */
export async function draftAnswer(
  world: World,
  actor: Actor,
  threadId: string,
  ask: { readonly answer?: string | undefined } = {},
): Promise<AnswerDraftView> {
  const { thread, theirs, book, ask: draftAsk } = await standing(world, actor, threadId);
  const draft = draftReply({ ...draftAsk, chosen: ask.answer });
  const counts = new Map((await answerCounts(world.db)).map((count) => [count.itemId, count]));
  const now = await world.clock.now();
  const dueAt = await world.db.begin((tx) => slotNow(tx, thread.mailbox, thread.personId, now));
  const planned = await plannedOfThread(world.db, threadId);
  const entryOf = (name: string) => book.find((entry) => entry.answer.name === name);
  return {
    ...withoutAnswers(draft),
    inReplyTo: theirs?.id ?? null,
    mailbox: thread.mailbox,
    dueAt: dueAt === undefined ? null : new Date(dueAt).toISOString(),
    drops: planned.length,
    taken: draft.taken.map(({ said, candidates, by }) => ({
      said,
      by,
      candidates: candidates.map(({ answer, fits, isKnown }) => {
        const id = entryOf(answer.name)?.id ?? '';
        const { used = 0, led = 0 } = counts.get(id) ?? {};
        return { id, name: answer.name, when: answer.when, fits, isKnown, used, led };
      }),
    })),
  };
}
const withoutAnswers = ({ language, fallback, body, sentences, leftOut, checks }: ReplyDraft) => ({
  language,
  fallback,
  body,
  sentences: sentences.map((sentence) => ({ ...sentence, rests: [...sentence.rests] })),
  leftOut: [...leftOut],
  checks: [...checks],
});

export interface AnswerAsk {
  readonly body: string;
  /** their message that it answers, as it was seen: 409 when they have written again since */
  readonly inReplyTo: string | null;
  /** ids of the agreed answers that were taken */
  readonly answers: readonly string[];
}

/** Sends an answer into the conversation: checked, planned in the reader's next office minute, once. What was planned there goes no more. */
export async function sendAnswer(
  world: World,
  actor: Actor,
  threadId: string,
  ask: AnswerAsk,
): Promise<{ readonly id: string; readonly dueAt: Instant }> {
  const { thread, messages, theirs, book, ask: draftAsk } = await standing(world, actor, threadId);
  refuseStale(messages, thread, ask.inReplyTo);
  if (thread.state === 'ended') throw new Refusal('conflict', 'this conversation has ended: nothing goes into it any more');
  const { taken } = draftReply(draftAsk);
  const body = ask.body.trim();
  const notSay = [
    ...new Set([...mayNotSay(taken), ...book.filter(({ id }) => ask.answers.includes(id)).flatMap(({ answer }) => answer.notSay)]),
  ];
  // Words of the one who approves are their own: they are checked for all but what they rest on.
  const checks = checkReply({ ...draftAsk, body, notSay, loose: [] });
  const failed = checks.filter((check) => !check.ok);
  if (body === '' || failed.length > 0)
    throw new Refusal('not valid', body === '' ? 'nothing is written' : failed.map((check) => check.says).join('; '), { checks: failed });
  const now = await world.clock.now();
  const id = world.newId();
  const dueAt = await world.db.begin(async (tx) => {
    const slot = await slotNow(tx, thread.mailbox, thread.personId, now);
    if (slot === undefined) throw new Refusal('conflict', `there is no mailbox “${thread.mailbox}” any more`);
    await lockThread(tx, threadId);
    // Two people may approve at the same moment: the second reads what the first has planned.
    refuseStale(await messagesOfThread(tx, threadId), thread, ask.inReplyTo);
    await dropPlanned(tx, threadId, 'answered', now);
    const refs = await threadRefs(tx, threadId);
    const composed = { subject: subjectOf(thread.subject), body, personalLine: null, factsUsed: [], checks: [] };
    await insertMessage(
      tx,
      {
        id,
        threadId,
        tripId: null,
        personId: thread.personId,
        template: null,
        touch: null,
        composed,
        state: 'planned',
        rfcId: rfcIdOf(id),
        inReplyTo: theirs?.rfcId ?? refs.at(-1) ?? null,
        refs,
      },
      now,
    );
    await setMessageState(tx, id, 'planned', undefined, actor.userId);
    await insertSend(
      tx,
      {
        id: world.newId(),
        key: `send ${id}`,
        tripId: null,
        personId: thread.personId,
        messageId: id,
        mailbox: thread.mailbox,
        dueAt: slot,
      },
      now,
    );
    // The conversation goes on: what they write next is news again.
    await setThread(tx, threadId, 'open', null);
    if (theirs && theirs.handledAt === null) await handleMessage(tx, theirs.id, now);
    const used = book.filter((entry) => ask.answers.includes(entry.id));
    await insertAnswerUses(
      tx,
      used.map((entry) => ({ messageId: id, itemId: entry.id, no: entry.no, about: entry.answer.about })),
      now,
    );
    await insertHappenings(tx, [
      {
        recordKind: 'person',
        recordId: thread.personId,
        at: now,
        kind: 'review',
        says: `Answered by ${actor.name}${used.length > 0 ? `: ${used.map((entry) => entry.answer.name).join(', ')}` : ''}`,
        detail: { messageId: id, threadId },
      },
    ]);
    await insertAudit(tx, {
      at: now,
      userId: actor.userId,
      what: 'answered somebody',
      detail: { threadId, answers: used.map((entry) => entry.answer.name) },
    });
    return slot;
  });
  return { id, dueAt };
}

const subjectOf = (subject: string): string => (/^re:/i.test(subject) ? subject : `Re: ${subject}`);

/** Conversations in which something came that nobody has taken care of, the longest waiting first. */
export const waitingThreads = async (world: World): Promise<readonly string[]> => [
  ...new Set((await unhandledReplies(world.db)).flatMap((message) => message.threadId ?? [])),
];

/** Keeps the questions of a mail that came in, word for word. */
export async function keepQuestions(
  tx: Tx,
  mail: { readonly messageId: string; readonly personId: string | null; readonly words: string; readonly reading: ReplyReading },
  now: Instant,
): Promise<void> {
  const questions = saidIn(mail.words, mail.reading).filter((said) => said.kind === 'question');
  await insertQuestions(
    tx,
    mail.messageId,
    mail.personId,
    questions.map((said) => said.words.slice(0, 500)),
    now,
  );
}

const YEAR_MS = 365 * 86_400_000;
const MOST_ASKED = 2_000;

/** The book: every agreed answer with how often it was used and led on, and the questions nobody has agreed an answer to. */
export async function answerBook(world: World): Promise<AnswerBookView> {
  const now = await world.clock.now();
  const [rows, counts, asked, said] = await Promise.all([
    listThings(world.db, 'answer'),
    answerCounts(world.db),
    askedSince(world.db, now - YEAR_MS, MOST_ASKED),
    statements(world.db),
  ]);
  const byId = new Map(counts.map((count) => [count.itemId, count]));
  const items = rows.flatMap((row) => {
    const read = agreedAnswerSchema.safeParse(row.body);
    if (!read.success) return [];
    const { about, when, texts } = read.data;
    const { used = 0, led = 0 } = byId.get(row.id) ?? {};
    return [
      {
        id: row.id,
        name: row.name,
        about,
        isObjection: isObjection(about),
        when,
        first: texts[0]?.body ?? '',
        languages: texts.map((text) => text.language),
        used,
        led,
        retired: row.retired,
        savedBy: row.savedBy,
        savedAt: row.savedAt === null ? null : new Date(row.savedAt).toISOString(),
      },
    ];
  });
  const inUse = rows.flatMap((row) => (row.retired ? [] : (agreedAnswerSchema.safeParse(row.body).data ?? [])));
  return { items, waiting: waiting(asked, inUse, said) };
}

/** Questions without an agreed answer, those that are put alike together, the most asked first. */
function waiting(asked: readonly AskedRow[], answers: readonly AgreedAnswer[], said: readonly Statement[]): AnswerBookView['waiting'] {
  const groups: { words: string; key: ReadonlySet<string>; rows: AskedRow[] }[] = [];
  for (const row of asked) {
    const words = row.words.match(/[\p{L}]+/gu) ?? [];
    const language = languageOf(words.map((word) => word.toLowerCase()));
    const ask = { kind: 'question', about: null, words: row.words } as const;
    if (candidatesFor(ask, answers, { scope: {}, language }).length > 0) continue;
    const key = new Set(words.map((word) => word.toLowerCase()).filter((word) => word.length > 3));
    const group = groups.find((entry) => alike(entry.key, key));
    if (group) group.rows.push(row);
    else groups.push({ words: row.words, key, rows: [row] });
  }
  return groups
    .sort((a, b) => b.rows.length - a.rows.length)
    .map(({ words, rows }) => ({
      words,
      times: rows.length,
      from: [...new Set(rows.map((row) => row.companyName ?? row.personName ?? 'somebody'))],
      threadId: rows[0]?.threadId ?? null,
      statement: heldIn(words, said),
    }));
}
const ALIKE = 0.6;
function alike(a: ReadonlySet<string>, b: ReadonlySet<string>): boolean {
  const shared = [...a].filter((word) => b.has(word)).length;
  return shared > 0 && shared / Math.max(a.size, b.size) >= ALIKE;
}
/** The statement of ours that would answer it, if one does. */
function heldIn(words: string, said: readonly Statement[]): string | null {
  const draft = draftReply({
    words,
    reading: NOTHING_READ,
    answers: [],
    statements: said,
    language: null,
    scope: {},
    facts: [],
    fields: [],
    recipient: { name: '', email: null },
    doNotContact: false,
  });
  const by = draft.taken[0]?.by;
  return by?.kind === 'statement' ? (said.find((entry) => entry.id === by.id)?.says ?? null) : null;
}

/** The last conversations answered with an agreed answer, and what came of them. */
export async function answeredLately(world: World, id: string) {
  found(await findThing(world.db, id), 'this answer');
  return (await answeredWith(world.db, id, 20)).map((row) => ({ ...row, at: new Date(row.at).toISOString() }));
}
