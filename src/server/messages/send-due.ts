import { withSignature } from '../../core/sending';
import pLimit from 'p-limit';
import { createHmac, timingSafeEqual } from 'node:crypto';
import type { Instant } from '../../core/base';
import { transact, type Tx } from '../db';
import { claimDoubts, claimSends, forgetAttempt, lastOtherSend, settleSend, startSend, type HeldSend } from './store/effects';
import { answersTheirs, findMessage, findThread, keepRaw, rawOf, setMessageState, type MessageRow, type ThreadRow } from './store/messages';
import { listMailboxes, lockMailbox, mailboxRoutes } from './store/mailboxes';
import { doNotContactAmong } from './store/do-not-contact';
import { touchHolds } from './only-when';
import { waysTo } from './ways';
import { findPerson, type PersonRow } from '../records/store/records';
import type { SendOutcome } from '../ports';
import { afterDropped, afterRefused, afterSent } from './sent';
import { signerOf } from './mail-domain';
import { routeOf } from './mailboxes';
import { noteRelay } from '../desk/troubles';
import { postpone, replan, replanLate } from './touches';
import { changed } from '../platform/live';
import type { World } from '../platform/world';

export interface SendAsk {
  readonly holder: string;
  readonly leaseMs: number;
  readonly batch: number;
  readonly calls: number;
}

const DEFER_MS = 10 * 60_000;
const MAX_ATTEMPTS = 5;
/** What is later than this gets a new slot. */
const LATE_MS = 15 * 60_000;

export const unsubscribeCode = (secret: string, messageId: string): string =>
  createHmac('sha256', secret).update(messageId).digest('base64url').slice(0, 22);
export function unsubscribeCodeFits(secret: string, messageId: string, code: string): boolean {
  const want = Buffer.from(unsubscribeCode(secret, messageId));
  const got = Buffer.from(code);
  return want.length === got.length && timingSafeEqual(want, got);
}

/** Sends what is due from the ledger: rules checked at the moment of sending, bytes kept first, then handed over once. Returns how many were claimed or given another slot. */
export async function sendDue(world: World, ask: SendAsk): Promise<number> {
  const now = await world.clock.now();
  const since = now - LATE_MS;
  const moved = await replanLate(world.db, since, now);
  const held = await claimSends(world.db, { holder: ask.holder, now, since, leaseMs: ask.leaseMs, limit: ask.batch });
  const limit = pLimit(ask.calls);
  await Promise.all(
    held.map((send) =>
      limit(async () => {
        try {
          await sendOne(world, send, ask, now);
        } catch (error) {
          world.log.error('a send broke', { effect: send.id, error: String(error) });
        }
      }),
    ),
  );
  return moved + held.length;
}

async function sendOne(world: World, send: HeldSend, ask: SendAsk, now: Instant): Promise<void> {
  const { db } = world;
  const message = await findMessage(db, send.messageId);
  const thread = message?.threadId ? await findThread(db, message.threadId) : undefined;
  const person = await findPerson(db, send.personId);
  if (!message || !thread || !person) {
    await settleSend(db, send, { state: 'failed', says: 'its message is gone' }, now);
    return;
  }
  changed(world, `thread:${thread.id}`, `record:${person.id}`);
  const verdict = await mayLeave(db, send, thread, person, now);
  if (verdict.kind === 'go' && !(await touchHolds(db, message, now))) {
    const says = `left out: only when ${message.onlyWhen ?? ''}`;
    await transact(db, async (tx) => {
      if (await settleSend(tx, send, { state: 'dropped', says }, now)) await afterDropped(tx, message, now, 'left out');
    });
    return;
  }
  if (verdict.kind === 'drop') {
    await transact(db, async (tx) => {
      if (await settleSend(tx, send, { state: 'dropped', says: verdict.why }, now)) await afterDropped(tx, message, now);
    });
    return;
  }
  if (verdict.kind === 'later') {
    await transact(db, async (tx) => {
      await lockMailbox(tx, send.mailbox);
      if (await settleSend(tx, send, { state: 'planned', says: verdict.why }, now)) await postpone(tx, send, thread.id, verdict.at, now);
    });
    return;
  }
  const to = person.email ?? '';
  const raw = (await rawOf(db, message.id)) ?? (await prepare(world, message, thread, { name: person.name, address: to }, send.dueAt));
  const before = world.mail.deadline(ask.leaseMs / 2);
  if (!(await startSend(db, send, ask.holder, ask.leaseMs, now))) {
    world.log.warn('lease lost', { effect: send.id });
    return;
  }
  const from = (await listMailboxes(db)).find((box) => box.name === send.mailbox)?.address ?? '';
  const route = await routeOf(world, { name: send.mailbox });
  const outcome = await world.mail.deliver(raw, { from, to }, before, route);
  // Only the relay of this installation can be asked what it has.
  const known = outcome.kind === 'in doubt' && route === null ? await world.mail.find(message.rfcId ?? '') : undefined;
  if (known === 'taken') await settle(world, send, message, { kind: 'accepted', says: 'the relay has it' }, now);
  // A relay that does not have it may only be late: it stays as begun, and is asked again when its lease has run out.
  else if (known !== 'absent') await settle(world, send, message, outcome, now);
}

/** Rules that no flow can switch off, looked at in the moment of sending. */
async function mayLeave(
  tx: Tx,
  send: HeldSend,
  thread: ThreadRow,
  person: PersonRow,
  now: Instant,
): Promise<{ kind: 'go' } | { kind: 'drop'; why: string } | { kind: 'later'; at: Instant; why: string }> {
  if (person.email === null) return { kind: 'drop', why: 'the e-mail address is gone' };
  if ((await doNotContactAmong(tx, waysTo(person))).size > 0) return { kind: 'drop', why: 'on the do-not-contact list' };
  if (thread.state === 'answered' || thread.state === 'ended') return { kind: 'drop', why: `the conversation is ${thread.state}` };
  if (thread.state === 'paused' && thread.pausedUntil !== null && thread.pausedUntil > now)
    return { kind: 'later', at: thread.pausedUntil, why: 'out of office' };
  // Who has written is answered, whatever else they got lately.
  if (await answersTheirs(tx, send.messageId)) return { kind: 'go' };
  const gapMs = ((await listMailboxes(tx)).find((box) => box.name === send.mailbox)?.personGapDays ?? 0) * 86_400_000;
  const last = gapMs > 0 ? await lastOtherSend(tx, send.personId, thread.id, now - gapMs) : null;
  return last === null ? { kind: 'go' } : { kind: 'later', at: last + gapMs, why: 'written to in another flow lately' };
}

/** Makes the exact bytes and keeps them, before anything is handed over. */
async function prepare(
  world: World,
  message: MessageRow,
  thread: ThreadRow,
  to: { name: string; address: string },
  date: Instant,
): Promise<Uint8Array> {
  const box = (await listMailboxes(world.db)).find((entry) => entry.name === thread.mailbox);
  const from = { name: box?.displayName ?? '', address: box?.address ?? '' };
  const route = (await mailboxRoutes(world.db)).find((entry) => entry.name === thread.mailbox);
  const raw = await world.mail.compose({
    from,
    to,
    signer: signerOf(world, route),
    replyTo: route?.replyTo ?? null,
    subject: message.subject,
    text: withSignature(message.body, box?.signature ?? ''),
    messageId: message.rfcId ?? '',
    inReplyTo: message.inReplyTo,
    references: message.refs,
    date,
    unsubscribeUrl: `${world.publicUrl}/u/${message.id}/${unsubscribeCode(world.secret, message.id)}`,
  });
  await keepRaw(world.db, message.id, raw, from.address, to.address);
  return raw;
}

async function settle(world: World, send: HeldSend, message: MessageRow, outcome: SendOutcome, now: Instant): Promise<void> {
  if (outcome.kind === 'accepted' || outcome.kind === 'away') await noteRelay(world, outcome.kind === 'away' ? outcome.says : null, now);
  await transact(world.db, async (tx) => {
    // The mailbox first, then its sends: the order in which everybody locks them.
    if (outcome.kind === 'away' || outcome.kind === 'deferred') await lockMailbox(tx, send.mailbox);
    const mine = async (to: Parameters<typeof settleSend>[2]): Promise<boolean> => settleSend(tx, send, to, now);
    switch (outcome.kind) {
      case 'accepted':
        if (await mine({ state: 'done', says: 'sent' })) await afterSent(tx, message, now);
        return;
      case 'in doubt':
        if (await mine({ state: 'in doubt', says: outcome.says })) await setMessageState(tx, message.id, 'in doubt');
        return;
      case 'away':
        if (await mine({ state: 'planned', says: `the relay cannot be reached: ${outcome.says}` })) {
          await forgetAttempt(tx, send.id);
          await replan(tx, send, now + DEFER_MS, now);
        }
        return;
      case 'deferred':
        if (send.attempts + 1 < MAX_ATTEMPTS) {
          if (await mine({ state: 'planned', says: outcome.says })) await replan(tx, send, now + DEFER_MS, now);
          return;
        }
        if (await mine({ state: 'failed', says: outcome.says })) await afterRefused(tx, message, outcome.says, now);
        return;
      case 'rejected':
        if (await mine({ state: 'failed', says: outcome.says })) await afterRefused(tx, message, outcome.says, now);
        return;
    }
  });
}

/**
 * Sends that were begun and of which nobody knows the end, for one lease: the relay is asked by the message's id. Taken: it is done. Absent: it is
 * planned again. Cannot tell: it is shown to a person. Never sent again by guess.
 */
export async function settleDoubts(world: World, ask: SendAsk): Promise<number> {
  const doubts = await claimDoubts(world.db, { holder: ask.holder, leaseMs: ask.leaseMs, limit: ask.batch });
  const now = await world.clock.now();
  for (const doubt of doubts) {
    const known = (await routeOf(world, { name: doubt.mailbox })) === null ? await world.mail.find(doubt.rfcId) : 'cannot tell';
    const message = await findMessage(world.db, doubt.messageId);
    if (!message) continue;
    if (known === 'taken') await settle(world, doubt, message, { kind: 'accepted', says: 'the relay has it' }, now);
    else if (known === 'absent')
      await settleSend(world.db, doubt, { state: 'planned', says: 'the relay never had it: goes out again' }, now);
    else
      await settle(
        world,
        doubt,
        message,
        { kind: 'in doubt', says: 'the worker stopped while it was sending; the relay cannot tell whether it left' },
        now,
      );
  }
  return doubts.length;
}
