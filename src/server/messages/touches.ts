import { stableId, type Instant } from '../../core/base';
import { addWorkingDays, dayKey, intoWorkingTime, nextSlot, zoneOf, type SlotBook, type WorkingTime } from '../../core/calendar';
import type { PlannedTouch, RecordView } from '../../core/engine';
import { isByHand, type Channel, type Composed, type FollowUpPlan } from '../../core/writer';
import { transact, type Db, type Tx } from '../db';
import { insertSend, insertTask, lateMailboxes, lateSends, moveSend, plannedOfThread, takenSlots } from './store/effects';
import { insertMessage, insertThread, lastConversation, planMessage, setThread } from './store/messages';
import { lockMailbox, type MailboxRow } from './store/mailboxes';
import { loadViews } from '../records/store/records';
import { rfcIdOf } from './message-id';
import { workspace, type Workspace } from '../platform/world';

/** Minutes since midnight of `09:00`. */
export const clockMinutes = (clock: string): number => {
  const [h = 0, m = 0] = clock.split(':').map(Number);
  return h * 60 + m;
};
const OFFICE_HOURS = { from: '09:00', to: '17:00' } as const;

/** Working time of a reader: office hours in the zone of their company's country. */
export async function readerTime(tx: Tx, personId: string, hours: FollowUpPlan['hours'] = OFFICE_HOURS): Promise<WorkingTime> {
  const [space, views] = await Promise.all([workspace(tx), loadViews(tx, [personId])]);
  return timeOf(space, views.get(personId), hours);
}

/** The same, of a reader who is loaded already. */
export function timeOf(space: Workspace, view: RecordView | undefined, hours: FollowUpPlan['hours'] = OFFICE_HOURS): WorkingTime {
  const country = view?.company?.country;
  return {
    zone: zoneOf(typeof country === 'string' ? country : null, space.zone),
    fromMinute: clockMinutes(hours.from),
    toMinute: clockMinutes(hours.to),
    daysOff: new Set(space.daysOff),
  };
}

type Book = SlotBook & { readonly taken: Set<Instant>; readonly perDay: Map<string, number> };
interface OpenBook {
  readonly box: MailboxRow;
  readonly book: Book;
}

/** What a mailbox has promised from now on; whoever promises more holds its lock. */
export async function bookOf(
  tx: Tx,
  box: Pick<SlotBook, 'dailyLimit' | 'rampUp' | 'minutesApart' | 'zone'> & { readonly name: string },
  now: Instant,
): Promise<Book> {
  const slots = await takenSlots(tx, box, now - 36 * 3_600_000);
  const perDay = new Map<string, number>();
  for (const { day } of slots) perDay.set(day, (perDay.get(day) ?? 0) + 1);
  const { dailyLimit, rampUp, minutesApart, zone } = box;
  return { taken: new Set(slots.map((slot) => slot.at)), perDay, dailyLimit, rampUp, minutesApart, zone };
}
/** Read once for each transaction: its lock on the mailbox lasts as long. */
const booksOf = new WeakMap<Tx, Map<string, OpenBook>>();

/** The mailbox, locked until the transaction ends, with what it has promised from now on; undefined when there is none of this name. */
async function openBook(tx: Tx, mailbox: string, now: Instant): Promise<OpenBook | undefined> {
  const own = booksOf.get(tx) ?? new Map<string, OpenBook>();
  booksOf.set(tx, own);
  const known = own.get(mailbox);
  if (known) return known;
  const box = await lockMailbox(tx, mailbox);
  if (!box) return undefined;
  const made: OpenBook = { box, book: await bookOf(tx, box, now) };
  own.set(mailbox, made);
  return made;
}

/** The next slot that the mailbox and the reader have free; it is taken from then on. */
function takeSlot({ box, book }: OpenBook, earliest: Instant, time: WorkingTime): Instant {
  const slot = nextSlot(earliest, time, book);
  book.taken.add(slot);
  const day = dayKey(slot, box.zone);
  book.perDay.set(day, (book.perDay.get(day) ?? 0) + 1);
  return slot;
}

interface SendToMove {
  readonly id: string;
  /** null: a task, which takes no place in a mailbox's day */
  readonly mailbox: string | null;
  readonly personId: string;
}
/** A send that moves by less stays on its day: nothing behind it has to move. */
const SAME_DAY_MS = 12 * 3_600_000;

interface TouchesAsk {
  readonly threadId: string;
  readonly plan: FollowUpPlan;
  readonly touches: readonly PlannedTouch[];
  readonly tripId: string;
  readonly personId: string;
  readonly sameThread: boolean;
  /** the mail that brought the record in, by its id: what is sent answers it */
  readonly answers?: string | undefined;
}

/**
 * Gives every touch of a plan its slot: office hours of the reader, as far apart and as few a day as the mailbox
 * wants. The mailbox row's lock makes planners wait for each other; the unique index on slots is the last word.
 */
export async function planTouches(tx: Tx, ask: TouchesAsk, now: Instant): Promise<void> {
  const open = await openBook(tx, ask.plan.mailbox, now);
  if (!open) throw new Error(`broken invariant: released flow names the mailbox ${ask.plan.mailbox}, which does not exist`);
  const { box } = open;
  const time = await readerTime(tx, ask.personId, ask.plan.hours);
  const [first] = ask.touches;
  if (!first) return;
  const earlier = ask.sameThread ? await lastConversation(tx, ask.personId, box.name) : undefined;
  const threadId = earlier?.threadId ?? ask.threadId;
  if (earlier) await setThread(tx, earlier.threadId, 'open', null);
  else
    await insertThread(
      tx,
      { id: ask.threadId, personId: ask.personId, tripId: ask.tripId, mailbox: box.name, subject: first.subject },
      now,
    );
  let firstSlot = now;
  const refs: string[] = [...(earlier?.refs ?? (ask.answers === undefined ? [] : [ask.answers]))];
  for (const [i, touch] of ask.touches.entries()) {
    if (isByHand(touch.channel)) {
      await planTask(tx, ask, { touch, no: i, threadId, dueAt: intoWorkingTime(addWorkingDays(firstSlot, touch.day, time), time) }, now);
      continue;
    }
    const slot = takeSlot(open, i === 0 ? now : addWorkingDays(firstSlot, touch.day, time), time);
    if (i === 0) firstSlot = slot;
    const subject = earlier ? `Re: ${earlier.subject}` : i === 0 ? touch.subject : `Re: ${first.subject}`;
    const inReplyTo = refs.at(-1) ?? null;
    await keepTouch(tx, ask, { touch, no: i, threadId, subject, inReplyTo, refs: [...refs] }, now);
    await planMessage(tx, touch.messageId, { threadId, touch: i, subject, inReplyTo, refs: [...refs] });
    await insertSend(
      tx,
      {
        id: stableId('send', touch.messageId),
        key: `send ${touch.messageId}`,
        tripId: ask.tripId,
        personId: ask.personId,
        messageId: touch.messageId,
        mailbox: box.name,
        dueAt: slot,
      },
      now,
    );
    refs.push(rfcIdOf(touch.messageId));
  }
}

/** A mail of a plan as it was composed; what was approved is kept already. */
async function keepTouch(
  tx: Tx,
  { tripId, personId }: TouchesAsk,
  mail: {
    readonly touch: PlannedTouch;
    readonly no: number;
    readonly threadId: string;
    readonly subject: string;
    readonly inReplyTo: string | null;
    readonly refs: readonly string[];
  },
  now: Instant,
): Promise<void> {
  const { touch, no, threadId, subject, inReplyTo, refs } = mail;
  if (!touch.composed) return;
  await insertMessage(
    tx,
    {
      id: touch.messageId,
      threadId,
      tripId,
      personId,
      template: touch.template,
      touch: no,
      composed: { ...touch.composed, subject, body: touch.body },
      state: 'planned',
      rfcId: rfcIdOf(touch.messageId),
      onlyWhen: touch.when,
      inReplyTo,
      refs,
    },
    now,
  );
}

/** A touch that a person does: due in the reader's working time, in nobody's mailbox. */
async function planTask(
  tx: Tx,
  { tripId, personId }: TouchesAsk,
  task: { readonly touch: PlannedTouch; readonly no: number; readonly threadId: string; readonly dueAt: Instant },
  now: Instant,
): Promise<void> {
  const { touch, no, threadId, dueAt } = task;
  if (!touch.composed) return;
  const composed = { ...touch.composed, subject: touch.subject, body: touch.body };
  await keepTask(tx, { ...touch, composed, tripId, personId, touch: no, threadId, dueAt }, now);
}

interface TaskAsk {
  readonly messageId: string;
  readonly template: string;
  readonly channel: Channel;
  readonly composed: Composed;
  readonly tripId: string;
  readonly personId: string;
}
/** Something to do beside any plan: due at once, in the working time of whom it is about. */
export async function giveTask(tx: Tx, ask: TaskAsk, now: Instant): Promise<void> {
  const dueAt = intoWorkingTime(now, await readerTime(tx, ask.personId));
  await keepTask(tx, { ...ask, when: null, touch: null, threadId: null, dueAt }, now);
}

type KeptTask = TaskAsk & {
  readonly when: string | null;
  /** its place in a plan, and the conversation it belongs to; null: it stands by itself */
  readonly touch: number | null;
  readonly threadId: string | null;
  readonly dueAt: Instant;
};
async function keepTask(tx: Tx, task: KeptTask, now: Instant): Promise<void> {
  const { messageId, tripId, personId, template, channel, composed, touch, threadId, dueAt } = task;
  const message = { id: messageId, threadId, tripId, personId, template, touch, channel, onlyWhen: task.when, composed };
  await insertMessage(tx, { ...message, state: 'planned', rfcId: null, inReplyTo: null, refs: [] }, now);
  await insertTask(tx, { id: stableId('task', messageId), key: `task ${messageId}`, tripId, personId, messageId, dueAt }, now);
}

/** The next slot for one message to a reader now; taken only if the caller plans a send for it. */
export async function slotNow(tx: Tx, mailbox: string, personId: string, now: Instant): Promise<Instant | undefined> {
  const open = await openBook(tx, mailbox, now);
  return open && takeSlot(open, now, await readerTime(tx, personId));
}

/** How many overdue sends get new slots in one transaction. */
const LATE_BATCH = 200;

/**
 * Gives sends that should have left before then the next free slots, in their order. Returns how many. After a rest of the
 * flow or a standstill, leaving at once they would leave at night, in a burst, or on the heels of the touch before them.
 */
export async function replanLate(db: Db, before: Instant, now: Instant): Promise<number> {
  let moved = 0;
  for (const mailbox of await lateMailboxes(db, before))
    moved += await transact(db, async (tx) => {
      // The mailbox first, then its sends: the order in which everybody locks them.
      await lockMailbox(tx, mailbox);
      const late = await lateSends(tx, mailbox, before, LATE_BATCH);
      for (const send of late) await postpone(tx, send, send.threadId, now, now);
      return late.length;
    });
  return moved;
}

/**
 * Gives a planned send another slot at or after an instant. When that is another day, the touches behind it in its
 * conversation move by as much, so that they keep their distance.
 */
export async function postpone(
  tx: Tx,
  send: SendToMove & { readonly dueAt: Instant },
  threadId: string | null,
  earliest: Instant,
  now: Instant,
): Promise<void> {
  const slot = await replan(tx, send, earliest, now);
  if (threadId === null || slot - send.dueAt < SAME_DAY_MS) return;
  for (const next of await plannedOfThread(tx, threadId))
    if (next.id !== send.id && next.dueAt > send.dueAt) await replan(tx, next, next.dueAt + slot - send.dueAt, now);
}

/** Gives a planned send another slot at or after an instant. */
export async function replan(tx: Tx, send: SendToMove, earliest: Instant, now: Instant): Promise<Instant> {
  const open = send.mailbox === null ? undefined : await openBook(tx, send.mailbox, now);
  if (!open && send.mailbox !== null) return earliest;
  const time = await readerTime(tx, send.personId);
  const slot = open ? takeSlot(open, earliest, time) : intoWorkingTime(earliest, time);
  await moveSend(tx, send.id, slot);
  return slot;
}
