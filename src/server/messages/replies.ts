/**
 * Answers to what people write. Promises: a draft says only what is agreed, stated or known; what leaves was approved by a person or let
 * go by a rule, is checked once more, goes into their thread once, and stops what was planned there. Refuses: answering who must not be
 * written to.
 */
import type { AnswerDraftView } from '../../api';
import type { Instant } from '../../core/base';
import { checkReply, draftReply, mayNotSay, subjectOf, type ReplyDraft } from '../../core/answers';
import type { Tx } from '../db';
import { answerCounts, insertAnswerUses } from './store/answers';
import { dropPlanned, insertSend, plannedOfThread } from './store/effects';
import type { Outcome } from './store/holding';
import {
  handleMessage,
  holdersOf,
  insertMessage,
  lockThread,
  messagesOfThread,
  setMessageState,
  setThread,
  threadRefs,
  unhandledReplies,
} from './store/messages';
import { insertAudit } from '../access/store/audit';
import { insertHappenings } from '../records/store/timeline';
import { materialOf, refuseStale, standing, type Agreed, type Standing } from './answer-standing';
import { mustHave } from './holders';
import { decisionFor, personDecided } from './hold-decisions';
import { rfcIdOf } from './message-id';
import { slotNow } from './touches';
import { houseOf } from '../desk/whose';
import { Refusal, type Actor, type World } from '../platform/world';

/** The answer that would go out in a conversation, with what it rests on, what else was agreed, what decided that it waits, and what would happen then. */
export async function draftAnswer(
  world: World,
  actor: Actor,
  threadId: string,
  ask: { readonly answer?: string | undefined } = {},
): Promise<AnswerDraftView> {
  const now = await world.clock.now();
  const stands = await standing(world.db, await materialOf(world.db, now), actor, threadId);
  const { thread, theirs, book } = stands;
  const draft = draftReply({ ...stands.ask, chosen: ask.answer });
  const counts = new Map((await answerCounts(world.db)).map((count) => [count.itemId, count]));
  const dueAt = await world.db.begin((tx) => slotNow(tx, thread.mailbox, thread.personId, now));
  const planned = await plannedOfThread(world.db, threadId);
  const entryOf = (name: string) => book.find((entry) => entry.answer.name === name);
  return {
    ...withoutAnswers(draft),
    inReplyTo: theirs?.id ?? null,
    mailbox: thread.mailbox,
    dueAt: dueAt ?? null,
    drops: planned.length,
    held: theirs ? await decisionFor(world.db, stands) : null,
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
interface Planned {
  readonly id: string;
  readonly dueAt: Instant;
}

/** Sends an answer into the conversation: checked, planned in the reader's next office minute, once. What was planned there goes no more. */
export async function sendAnswer(world: World, actor: Actor, threadId: string, ask: AnswerAsk): Promise<Planned> {
  const now = await world.clock.now();
  const stands = await standing(world.db, await materialOf(world.db, now), actor, threadId);
  const { thread, messages, theirs, book, ask: draftAsk } = stands;
  await mustHave(world, actor, thread);
  refuseStale(messages, thread, ask.inReplyTo);
  if (thread.state === 'ended') throw new Refusal('conflict', 'this conversation has ended: nothing goes into it any more');
  const drafted = draftReply(draftAsk);
  const body = ask.body.trim();
  const used = book.filter(({ id }) => ask.answers.includes(id));
  const notSay = [...new Set([...mayNotSay(drafted.taken), ...used.flatMap(({ answer }) => answer.notSay)])];
  // Words of the one who approves are their own: they are checked for all but what they rest on.
  const checks = checkReply({ ...draftAsk, body, notSay, loose: [] });
  const failed = checks.filter((check) => !check.ok);
  if (body === '' || failed.length > 0)
    throw new Refusal('not valid', body === '' ? 'nothing is written' : failed.map((check) => check.says).join('; '), { checks: failed });
  return world.db.begin(async (tx) => {
    const planned = await planAnswer(tx, world, stands, { actor, body, used, earliest: now, now });
    if (theirs) await personDecided(tx, stands, { actor, answerId: planned.id, outcome: outcomeOf(drafted, body, used) }, now);
    return planned;
  });
}

/** Whether a draft went out as it stood. */
function outcomeOf(drafted: ReplyDraft, body: string, used: readonly Agreed[]): Outcome {
  if (body === drafted.body) return 'unchanged';
  const names = new Set(drafted.taken.flatMap(({ by }) => (by?.kind === 'agreed' ? [by.name] : [])));
  return used.some(({ answer }) => !names.has(answer.name)) ? 'other' : 'changed';
}

export interface Approved {
  readonly actor: Actor;
  readonly body: string;
  /** the agreed answers it is made of */
  readonly used: readonly Agreed[];
  /** it leaves no sooner */
  readonly earliest: Instant;
  readonly now: Instant;
}

/** Plans an answer into its conversation, once: refused where somebody has answered, or they have written again, since it was looked at. */
export async function planAnswer(tx: Tx, world: World, { thread, theirs }: Standing, approved: Approved): Promise<Planned> {
  const { actor, body, used, earliest, now } = approved;
  const slot = await slotNow(tx, thread.mailbox, thread.personId, earliest);
  if (slot === undefined) throw new Refusal('conflict', `there is no mailbox “${thread.mailbox}” any more`);
  await lockThread(tx, thread.id);
  // Two people may approve at the same moment: the second reads what the first has planned.
  refuseStale(await messagesOfThread(tx, thread.id), thread, theirs?.id ?? null);
  await dropPlanned(tx, thread.id, 'answered', now);
  const refs = await threadRefs(tx, thread.id);
  const id = world.newId();
  await insertMessage(
    tx,
    {
      id,
      threadId: thread.id,
      tripId: null,
      personId: thread.personId,
      template: null,
      touch: null,
      composed: { subject: subjectOf(thread.subject, 'en'), body, personalLine: null, factsUsed: [], checks: [] },
      state: 'planned',
      rfcId: rfcIdOf(id),
      inReplyTo: theirs?.rfcId ?? refs.at(-1) ?? null,
      refs,
    },
    now,
  );
  await setMessageState(tx, id, 'planned', undefined, actor.userId);
  const send = { id: world.newId(), key: `send ${id}`, tripId: null, personId: thread.personId, messageId: id, mailbox: thread.mailbox };
  await insertSend(tx, { ...send, dueAt: slot }, now);
  // The conversation goes on: what they write next is news again.
  await setThread(tx, thread.id, 'open', null);
  if (theirs && theirs.handledAt === null) await handleMessage(tx, theirs.id, now);
  await insertAnswerUses(
    tx,
    used.map((entry) => ({ messageId: id, itemId: entry.id, no: entry.no, about: entry.answer.about })),
    now,
  );
  const names = used.map((entry) => entry.answer.name);
  await insertHappenings(tx, [
    {
      recordKind: 'person',
      recordId: thread.personId,
      at: now,
      kind: 'review',
      says: `Answered by ${actor.name}${names.length > 0 ? `: ${names.join(', ')}` : ''}`,
      detail: { messageId: id, threadId: thread.id },
    },
  ]);
  await insertAudit(tx, { at: now, userId: actor.userId, what: 'answered somebody', detail: { threadId: thread.id, answers: names } });
  return { id, dueAt: slot };
}

/** Conversations in which something came that nobody has taken care of and no colleague has, the longest waiting first. */
export async function waitingThreads(world: World, actor: Actor): Promise<readonly string[]> {
  const ids = [...new Set((await unhandledReplies(world.db)).flatMap((message) => message.threadId ?? []))];
  const [holders, house] = await Promise.all([holdersOf(world.db, ids), houseOf(world, actor)]);
  return ids.filter((id) => {
    const holder = holders.get(id);
    return holder === undefined || house.whose(holder).yours;
  });
}
