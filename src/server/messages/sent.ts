/**
 * What follows from the end of a send. Promises: a trip hears of its last send once, however that ended and whoever says so.
 */
import type { Instant } from '../../core/base';
import type { PlanEnd } from '../../core/engine';
import type { Tx } from '../db';
import { openSends } from './store/effects';
import { lockThread, setMessageState, type MessageRow } from './store/messages';
import { insertHappenings } from '../records/store/timeline';
import { postEvent } from '../trips/store/trips';

/** The mail has left. */
export async function afterSent(tx: Tx, message: MessageRow, now: Instant): Promise<void> {
  await setMessageState(tx, message.id, 'sent', now);
  await writeDown(tx, message, { kind: 'sent', says: `“${message.subject}” sent` }, now);
  await endIfLast(tx, message, 'all sent', now);
}

/** The other side refuses it for good: nothing more is tried for this trip. */
export async function afterRefused(tx: Tx, message: MessageRow, why: string, now: Instant): Promise<void> {
  await setMessageState(tx, message.id, 'failed');
  await writeDown(tx, message, { kind: 'failed', says: `“${message.subject}” was not taken: ${why}` }, now);
  if (message.tripId !== null) await postEvent(tx, message.tripId, { kind: 'plan ended', how: 'refused' }, now);
}

/** It may not leave; `left out`: it need not, and the plan has gone its whole way without it. */
export async function afterDropped(tx: Tx, message: MessageRow, now: Instant, why: 'refused' | 'left out' = 'refused'): Promise<void> {
  await setMessageState(tx, message.id, 'dropped');
  await endIfLast(tx, message, why === 'left out' ? 'all sent' : 'refused', now);
}

export async function endIfLast(tx: Tx, message: MessageRow, how: PlanEnd, now: Instant): Promise<void> {
  if (message.threadId === null || message.tripId === null) return;
  await lockThread(tx, message.threadId);
  if ((await openSends(tx, message.threadId)) === 0) await postEvent(tx, message.tripId, { kind: 'plan ended', how }, now);
}

/** How it went, in what happened with its reader. */
async function writeDown(
  tx: Tx,
  message: MessageRow,
  how: { readonly kind: 'sent' | 'failed'; readonly says: string },
  now: Instant,
): Promise<void> {
  if (message.personId === null) return;
  const detail = { messageId: message.id, threadId: message.threadId, touch: message.touch };
  await insertHappenings(tx, [{ recordKind: 'person', recordId: message.personId, at: now, ...how, detail }]);
}
