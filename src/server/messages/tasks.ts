/**
 * Touches that a person does: calls, notes on profiles, letters. Promises: a task is laid out when it is due and what speaks against it has been
 * looked at; it is done once, and the trip goes on from what came of it. Refuses: doing what is done, or somebody else's without taking over.
 */
import type { Instant } from '../../core/base';
import { addWorkingDays, intoWorkingTime, nextMorning } from '../../core/calendar';
import { MOST_TRIES, outcomeOf, type TaskOutcome } from '../../core/sending';
import { reachOf, type HandChannel } from '../../core/writer';
import { transact, type Tx } from '../db';
import { insertAudit } from '../access/store/audit';
import type { FileAnswer } from '../../api';
import { mustBeAsked } from '../desk/whose';
import { findPerson, loadViews } from '../records/store/records';
import { insertHappenings } from '../records/store/timeline';
import { postEvent } from '../trips/store/trips';
import { changed } from '../platform/live';
import { found, Refusal, workspace, type Actor, type World } from '../platform/world';
import { addDoNotContact, doNotContactAmong } from './store/do-not-contact';
import { moveSend } from './store/effects';
import { findMessage, findThread, setMessageState, type MessageRow } from './store/messages';
import { listMailboxes } from './store/mailboxes';
import { dueTasks, findTask, layOut, lockTask, openTasks, settleTask, tryAgain, type TaskRow } from './store/tasks';
import { isEnoughToday } from './hand-limits';
import { touchHolds } from './only-when';
import { endThread } from './receive-mail';
import { afterDropped, endIfLast } from './sent';
import { readerTime, timeOf } from './touches';
import { waysTo } from './ways';

const AT_ONCE = 50;

export interface OpenTask extends Omit<TaskRow, 'onlyWhen'> {
  /** the number, the lines of the envelope, the name; null: nothing is known any more */
  readonly reach: string | null;
  /** the reader's zone: when it is a good time to call */
  readonly zone: string;
}

/** What waits for somebody to do it, longest due first. */
export async function tasksWaiting(tx: Tx): Promise<readonly OpenTask[]> {
  const [rows, space] = await Promise.all([openTasks(tx), workspace(tx)]);
  const views = await loadViews(
    tx,
    rows.map(({ personId }) => personId),
  );
  return rows.map(({ onlyWhen: _, ...row }) => {
    const view = views.get(row.personId);
    return { ...row, reach: view ? reachOf(row.channel, view.person, view.company) : null, zone: timeOf(space, view).zone };
  });
}

/** Lays out what is due; what may not or need not be done any more is dropped, with why. Returns how many were looked at. */
export async function layOutTasks(world: World): Promise<number> {
  const now = await world.clock.now();
  const seen = await transact(world.db, async (tx) => {
    const due = await dueTasks(tx, now, AT_ONCE);
    for (const task of due) await layOutOne(tx, task, now);
    return due;
  });
  for (const task of seen)
    changed(world, `record:${task.personId}`, ...(task.threadId === null ? [] : [`thread:${task.threadId}` as const]));
  return seen.length;
}

async function layOutOne(tx: Tx, task: TaskRow, now: Instant): Promise<void> {
  const [person, thread, message] = [
    await findPerson(tx, task.personId),
    task.threadId === null ? undefined : await findThread(tx, task.threadId),
    await findMessage(tx, task.messageId),
  ];
  const drop = async (says: string, why: 'refused' | 'left out' = 'refused'): Promise<void> => {
    await settleTask(tx, task.id, { state: 'dropped', says }, now);
    if (message) await afterDropped(tx, message, now, why);
    await tellTrip(tx, task, { done: false, outcome: 'dropped', words: says }, now);
  };
  if (!person || !message || (task.threadId !== null && !thread)) return drop('its message is gone');
  if ((await doNotContactAmong(tx, waysTo(person))).size > 0) return drop('on the do-not-contact list');
  if (thread?.state === 'answered' || thread?.state === 'ended') return drop(`the conversation is ${thread.state}`);
  if (thread?.state === 'paused' && thread.pausedUntil !== null && thread.pausedUntil > now) {
    await moveSend(tx, task.id, intoWorkingTime(thread.pausedUntil, await readerTime(tx, person.id)));
    return;
  }
  if (!(await touchHolds(tx, task, now))) return drop(`left out: only when ${task.onlyWhen ?? ''}`, 'left out');
  if (await isEnoughToday(tx, task, now)) {
    await moveSend(tx, task.id, nextMorning(now, await readerTime(tx, person.id)));
    return;
  }
  await layOut(tx, task.id, now);
}

/** A letter as it is printed and posted. */
export async function taskLetter(world: World, id: string): Promise<FileAnswer> {
  const { db } = world;
  const task = found(await findTask(db, id), 'this task');
  if (task.channel !== 'letter') throw new Refusal('not valid', `a ${task.channel} is not printed`);
  const [views, thread, boxes, { zone }, now] = await Promise.all([
    loadViews(db, [task.personId]),
    task.threadId === null ? undefined : findThread(db, task.threadId),
    listMailboxes(db),
    workspace(db),
    world.clock.now(),
  ]);
  const view = views.get(task.personId);
  const to = view && reachOf('letter', view.person, view.company);
  if (to === undefined || to === null) throw new Refusal('conflict', 'no street and place are known any more');
  // One that a line gave stands in no conversation: it comes from where the workspace writes.
  const box = boxes.find(({ name }) => name === thread?.mailbox) ?? boxes[0];
  const letter = {
    from: (box?.signature ?? '') === '' ? [box?.displayName ?? ''] : (box?.signature ?? '').split('\n'),
    to: to.split('\n'),
    date: new Intl.DateTimeFormat('en-GB', { dateStyle: 'long', timeZone: zone }).format(now),
    subject: task.subject,
    body: task.body,
  };
  return {
    name: `Letter to ${task.personName.replace(/[^\p{L}\p{N} ,.-]/gu, '')}.pdf`,
    type: 'application/pdf',
    content: await world.papers.letter(letter),
  };
}

export interface TaskDone {
  readonly outcome: string;
  /** what was said or is to be remembered */
  readonly words?: string | undefined;
}

/** A person's word on how a task went. */
export async function endTask(world: World, actor: Actor, id: string, done: TaskDone): Promise<void> {
  const now = await world.clock.now();
  const words = done.words?.trim() ?? '';
  await transact(world.db, async (tx) => {
    const task = await lockTask(tx, id);
    if (!task) {
      found(await findTask(tx, id), 'this task');
      throw new Refusal('conflict', 'this is done already, or nobody need do it any more');
    }
    const outcome = outcomeOf(task.channel, done.outcome);
    if (!outcome) throw new Refusal('not valid', `a ${task.channel} does not end in “${done.outcome}”`);
    if (task.ownerName !== null) await mustBeAsked(world, actor, task.ownerName);
    const message = found(await findMessage(tx, task.messageId), 'its message');
    await insertHappenings(tx, [
      {
        recordKind: 'person',
        recordId: task.personId,
        at: now,
        kind: 'task',
        says: `${sayTask(task.channel, outcome)}, ${actor.name}${words === '' ? '' : `: ${words}`}`,
        detail: { messageId: message.id, threadId: message.threadId, touch: message.touch, outcome: outcome.id },
      },
    ]);
    await insertAudit(tx, {
      at: now,
      userId: actor.userId,
      what: `did a ${task.channel}`,
      detail: { messageId: message.id, outcome: outcome.id },
    });
    await follow(tx, task, message, { outcome, words, says: `${outcome.says}${words === '' ? '' : `: ${words}`}`, by: actor }, now);
    changed(world, `record:${task.personId}`, ...(task.threadId === null ? [] : [`thread:${task.threadId}` as const]));
  });
}

const sayTask = (channel: HandChannel, outcome: TaskOutcome): string =>
  channel === 'call' && outcome.then === 'failed' ? `Called: ${outcome.says}` : outcome.says.replace(/^./, (first) => first.toUpperCase());

/** What follows for the task, its conversation and its trip. */
async function follow(
  tx: Tx,
  task: TaskRow,
  message: MessageRow,
  { outcome, words, says, by }: { readonly outcome: TaskOutcome; readonly words: string; readonly says: string; readonly by: Actor },
  now: Instant,
): Promise<void> {
  if (outcome.then === 'again' && task.attempts + 1 < MOST_TRIES) {
    const time = await readerTime(tx, task.personId);
    await tryAgain(tx, task.id, says, intoWorkingTime(addWorkingDays(now, 1, time), time));
    return;
  }
  const failed = outcome.then === 'failed';
  await settleTask(tx, task.id, { state: failed ? 'failed' : 'done', says }, now);
  await tellTrip(tx, task, { done: !failed, outcome: outcome.id, words }, now);
  await setMessageState(tx, message.id, failed ? 'failed' : 'sent', failed ? undefined : now, by.userId);
  if (outcome.then === 'barred') {
    const person = await findPerson(tx, task.personId);
    for (const way of person ? waysTo(person) : []) await addDoNotContact(tx, way, 'unsubscribed', now);
    await endThread(tx, message, 'ended', 'unsubscribed', now);
  } else if (outcome.then === 'answered') await endThread(tx, message, 'answered', 'answered', now);
  else await endIfLast(tx, message, 'all sent', now);
}

/** The trip whose line gave the task hears of its end; one of a plan hears of the plan's. */
async function tellTrip(
  tx: Tx,
  task: TaskRow,
  end: { readonly done: boolean; readonly outcome: string; readonly words: string },
  now: Instant,
): Promise<void> {
  if (task.threadId === null && task.tripId !== null)
    await postEvent(tx, task.tripId, { kind: 'task ended', messageId: task.messageId, ...end }, now);
}
