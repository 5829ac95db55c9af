import { checkReply } from '../../core/answers';
import { notSayIn } from '../messages/store/answers';
import { durationMs } from '../../core/base';
import { checkMessage, type MessageTemplate } from '../../core/writer';
import { heldFirst, type HeldFirst } from '../trips/store/control';
import { decideDoubt, listDoubts } from '../messages/store/effects';
import {
  editMessage,
  findMessage,
  messagesByIds,
  holdersOf,
  messagesOfThreads,
  setMessageState,
  unhandledReplies,
  type MessageRow,
} from '../messages/store/messages';
import { isDoNotContact } from '../messages/store/do-not-contact';
import { findPerson } from '../records/store/records';
import {
  closeReview,
  decidePair as storePair,
  findPair,
  findReview,
  openPairs,
  openReviews,
  postponePair,
  postponeReview,
  tripsAskingPair,
  type PairRow,
  type ReviewRow,
} from './store/reviews';
import { insertAudit } from '../access/store/audit';
import { insertHappenings } from '../records/store/timeline';
import { postEvent } from '../trips/store/trips';
import { loadLibrary } from '../flows/library';
import { neverSaid } from '../flows/things';
import { stuckGroups, type StuckGroup } from '../trips/stuck';
import { notices } from '../trips/tell';
import type { NoticeRow } from '../trips/store/outbox';
import { merge } from '../records/merge';
import { afterSent } from '../messages/sent';
import { replan } from '../messages/touches';
import { tasksWaiting, type OpenTask } from '../messages/tasks';
import { houseOf, mustBeAsked, type House, type Whose } from './whose';
import { found, Refusal, type Actor, type World } from '../platform/world';
import { factsOf } from '../records/store/facts';
import type { Fact } from '../../core/facts';

const LATER_MS = durationMs({ amount: 4, unit: 'hour' });

export interface Desk {
  readonly reviews: readonly (ReviewRow & {
    readonly whose: Whose;
    readonly message: MessageRow;
    readonly then: readonly { readonly day: number; readonly subject: string }[];
  })[];
  readonly tasks: readonly (OpenTask & { readonly whose: Whose | null })[];
  readonly pairs: readonly (PairRow & { readonly facts: readonly Fact[] })[];
  readonly stuck: readonly StuckGroup[];
  readonly notices: readonly NoticeRow[];
  readonly firsts: readonly HeldFirst[];
  readonly doubts: Awaited<ReturnType<typeof listDoubts>>;
  readonly replies: readonly (MessageRow & {
    readonly thread: readonly MessageRow[];
    /** who has the conversation; null: everybody */
    readonly holder: string | null;
    readonly whose: Whose | null;
  })[];
}

const NOBODY: Actor = { userId: null, name: '' };

/** Everything that needs a person now; what one of them was told or asked is theirs, and who builds here sees what was asked of others. */
export async function desk(world: World, actor: Actor = NOBODY): Promise<Desk> {
  const { db } = world;
  const now = await world.clock.now();
  const house = await houseOf(world, actor);
  const [open, pairs, stuck, doubts, replies, told, firsts, byHand] = await Promise.all([
    openReviews(db, now),
    openPairs(db, now),
    stuckGroups(world),
    listDoubts(db),
    unhandledReplies(db),
    notices(world, actor),
    heldFirst(db),
    tasksWaiting(db),
  ]);
  const reviews = open.map((review) => ({ ...review, whose: house.whose(review.who) })).filter(({ whose }) => whose.yours || house.seesAll);
  const library = await loadLibrary(db);
  const messages = await messagesByIds(
    db,
    reviews.map((review) => review.messageId),
  );
  const full = reviews.map((review) => {
    const message = found(
      messages.find((entry) => entry.id === review.messageId),
      'the message',
    );
    const plan = library.plans.find((entry) => entry.touches[0]?.template === message.template);
    const then = (plan?.touches.slice(1) ?? []).map((touch) => ({ day: touch.day, subject: touch.template }));
    return { ...review, message, then };
  });
  const pairFacts = await factsOf(
    db,
    pairs.flatMap((pair) => [pair.aId, pair.bId]),
  );
  const ids = replies.flatMap(({ threadId }) => threadId ?? []);
  const [threads, holders] = await Promise.all([messagesOfThreads(db, ids), holdersOf(db, ids)]);
  const answers = replies
    .map((reply) => {
      const holder = holders.get(reply.threadId ?? '') ?? null;
      return {
        ...reply,
        thread: threads.get(reply.threadId ?? '') ?? [reply],
        holder,
        whose: holder === null ? null : house.whose(holder),
      };
    })
    .filter(({ whose }) => whose === null || whose.yours || house.seesAll);
  return {
    reviews: full,
    tasks: theirTasks(house, byHand),
    pairs: pairs.map((pair) => ({
      ...pair,
      facts: pairFacts.filter((fact) => fact.record.id === pair.aId || fact.record.id === pair.bId),
    })),
    stuck,
    notices: told,
    firsts,
    doubts,
    replies: answers,
  };
}

/** Tasks of whose record is theirs, of nobody's, and for who sees all, of everybody's. */
const theirTasks = (house: House, tasks: readonly OpenTask[]): Desk['tasks'] =>
  tasks
    .map((task) => ({ ...task, whose: task.ownerName === null ? null : house.whose(task.ownerName) }))
    .filter(({ whose }) => whose === null || whose.yours || house.seesAll);

export interface ReviewDecision {
  readonly does: 'approve' | 'refuse' | 'later';
  readonly subject?: string | undefined;
  readonly body?: string | undefined;
  /** a sentence of the reviewer's own, put before the last paragraph */
  readonly sentence?: string | undefined;
  readonly why?: string | undefined;
}

/** A person's decision on a message: as it is, with changed words, with a sentence of their own, not at all, or later. */
export async function decideReview(world: World, actor: Actor, id: string, decision: ReviewDecision): Promise<void> {
  const now = await world.clock.now();
  const review = found(await findReview(world.db, id), 'this review');
  if (review.state !== 'open') throw new Refusal('conflict', 'this message has been decided already');
  await mustBeAsked(world, actor, review.who);
  if (decision.does === 'later') {
    await postponeReview(world.db, id, now + LATER_MS);
    return;
  }
  const message = found(await findMessage(world.db, review.messageId), 'the message');
  if (decision.does === 'refuse') {
    await world.db.begin(async (tx) => {
      if (!(await closeReview(tx, id, 'refused', actor.userId, now)))
        throw new Refusal('conflict', 'this message has been decided already');
      await setMessageState(tx, message.id, 'refused');
      await postEvent(tx, review.tripId, { kind: 'decided', decision: { kind: 'refuse', by: actor.name, why: decision.why ?? '' } }, now);
      await insertHappenings(tx, [
        {
          recordKind: 'person',
          recordId: review.personId,
          at: now,
          kind: 'review',
          says: `“${message.subject}” refused by ${actor.name}`,
          detail: { why: decision.why ?? '' },
        },
      ]);
    });
    return;
  }
  const subject = decision.subject?.trim() || message.subject;
  const body = withSentence(decision.body ?? message.body, decision.sentence);
  const edited = subject !== message.subject || body !== message.body;
  const checks = edited ? await recheck(world, review, message, subject, body) : message.checks;
  const failed = checks.filter((check) => !check.ok);
  if (failed.length > 0) throw new Refusal('not valid', `the message cannot leave: ${failed.map((check) => check.says).join('; ')}`);
  await world.db.begin(async (tx) => {
    if (!(await closeReview(tx, id, 'approved', actor.userId, now))) throw new Refusal('conflict', 'this message has been decided already');
    if (edited) await editMessage(tx, message.id, { subject, body, checks });
    await setMessageState(tx, message.id, 'approved', undefined, actor.userId);
    await postEvent(tx, review.tripId, { kind: 'decided', decision: { kind: 'approve', by: actor.name, subject, body, edited } }, now);
    await insertHappenings(tx, [
      {
        recordKind: 'person',
        recordId: review.personId,
        at: now,
        kind: 'review',
        says: `“${subject}” approved by ${actor.name}${edited ? ', with changes' : ''}`,
        detail: { messageId: message.id },
      },
    ]);
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'approved a message', detail: { messageId: message.id, edited } });
  });
}

/** Puts the sentence before the closing paragraph, where a person would. */
export function withSentence(body: string, sentence: string | undefined): string {
  const own = sentence?.trim() ?? '';
  if (own === '') return body.trim();
  const parts = body.trim().split('\n\n');
  const at = parts.length > 1 ? parts.length - 1 : 1;
  return [...parts.slice(0, at), own, ...parts.slice(at)].join('\n\n');
}

/** A person may write what they know: facts and repeated lines are theirs to judge, all other checks hold for them too. */
async function recheck(world: World, review: ReviewRow, message: MessageRow, subject: string, body: string) {
  const person = await findPerson(world.db, review.personId);
  const recipient = { name: person?.name ?? '', reach: person?.email ?? null };
  const doNotContact = await isDoNotContact(world.db, recipient.reach);
  const neverSay = await neverSaid(world.db);
  // Drafted from agreed answers: what may not be said there, nobody says.
  if (message.template === null)
    return checkReply({ recipient, doNotContact, scope: {}, body, notSay: await notSayIn(world.db, message.id), loose: [], neverSay });
  const library = await loadLibrary(world.db);
  const { personal: _personal, ...template }: MessageTemplate = library.templates.find((entry) => entry.name === message.template) ?? {
    name: '',
    language: 'en',
    subject,
    body,
    maxLength: 2000,
  };
  return checkMessage({
    template,
    scope: {},
    recipient,
    facts: [],
    recentLines: [],
    doNotContact,
    neverSay,
    seed: review.personId,
    subject,
    body,
    line: undefined,
  });
}

/** Same, different, or later. "Same" joins the newer record into the older one by way of the trip that asked, or at once. */
export async function decidePair(world: World, actor: Actor, id: string, does: 'same' | 'different' | 'later'): Promise<void> {
  const now = await world.clock.now();
  const pair = found(await findPair(world.db, id), 'this pair');
  if (pair.state !== 'open') throw new Refusal('conflict', 'this pair has been decided already');
  if (does === 'later') {
    await postponePair(world.db, id, now + LATER_MS);
    return;
  }
  await world.db.begin(async (tx) => {
    if (!(await storePair(tx, id, does, actor.userId, now))) throw new Refusal('conflict', 'this pair has been decided already');
    const waiting = await tripsAskingPair(tx, id);
    for (const tripId of waiting)
      await postEvent(
        tx,
        tripId,
        {
          kind: 'decided',
          decision: does === 'same' ? { kind: 'same', by: actor.name, otherId: pair.bId } : { kind: 'different', by: actor.name },
        },
        now,
      );
    if (waiting.length === 0 && does === 'same')
      await merge(
        tx,
        { kind: pair.kind, fromId: pair.aId, intoId: pair.bId, confidence: pair.confidence, evidence: pair.evidence, by: actor.name },
        now,
      );
    await insertAudit(tx, { at: now, userId: actor.userId, what: `said ${does} of a pair`, detail: { pairId: id } });
  });
}

/** What a person knows about a send that is in doubt. */
export async function settleDoubt(world: World, actor: Actor, effectId: string, left: boolean): Promise<void> {
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    const doubt = (await listDoubts(tx)).find((entry) => entry.id === effectId);
    if (!doubt) throw new Refusal('conflict', 'this send is no longer in doubt');
    const row = await decideDoubt(tx, effectId, left, actor.name, now, now);
    if (!row) throw new Refusal('conflict', 'this send is no longer in doubt');
    if (left) await afterSent(tx, found(await findMessage(tx, row.messageId), 'this message'), now);
    else {
      await setMessageState(tx, row.messageId, 'planned');
      await replan(tx, { id: effectId, mailbox: doubt.mailbox, personId: doubt.personId }, now, now);
    }
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'settled a send in doubt', detail: { effectId, left } });
  });
}
