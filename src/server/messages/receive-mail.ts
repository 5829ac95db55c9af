import type { Instant } from '../../core/base';
import { addWorkingDays } from '../../core/calendar';
import type { PlanEnd } from '../../core/engine';
import {
  consequenceOf,
  parseComplaint,
  parseDeliveryStatus,
  understandReply,
  written,
  type Complaint,
  type DeliveryStatus,
  type ReplyReading,
} from '../../core/reply';
import type { Tx } from '../db';
import type { IncomingMail } from '../ports';
import { examplesToReadBy } from './store/corrections';
import { dropPlanned, plannedOfThread } from './store/effects';
import { findMessage, findThread, insertReceived, lastThreadWith, messageByRfcIds, setMessageState, setThread } from './store/messages';
import { addDoNotContact } from './store/do-not-contact';
import { findPerson } from '../records/store/records';
import { insertHappenings } from '../records/store/timeline';
import { postEvent } from '../trips/store/trips';
import { keepQuestions } from './answer-book';
import { postpone, readerTime } from './touches';
import { signingSecrets } from '../workspace/keys';
import { unsubscribeCodeFits } from './send-due';
import { tellChanged } from '../platform/live';
import { restIfTooMany } from './mailbox-rest';
import { lockMailbox } from './store/mailboxes';
import { found, Refusal, type World } from '../platform/world';

const PAUSE_DAYS = 5;
export type Origin = NonNullable<Awaited<ReturnType<typeof messageByRfcIds>>>;

/** Keeps a mail that came in, finds the conversation it belongs to, understands it, and stops, pauses or ends the plan. The same mail twice does nothing. */
export async function receiveMail(world: World, mail: IncomingMail): Promise<void> {
  const now = await world.clock.now();
  const origin = await world.db.begin(async (tx) => {
    const status = mail.deliveryStatus ? parseDeliveryStatus(mail.deliveryStatus.status, mail.deliveryStatus.original) : undefined;
    const complaint = mail.feedback ? parseComplaint(mail.feedback.report, mail.feedback.original) : undefined;
    const ids = [
      ...(complaint?.originalMessageId ? [complaint.originalMessageId] : []),
      ...(status?.originalMessageId ? [status.originalMessageId] : []),
      ...(mail.inReplyTo ? [mail.inReplyTo] : []),
      ...[...mail.references].reverse(),
    ];
    const origin = (await messageByRfcIds(tx, ids)) ?? (await lastThreadWith(tx, status?.recipient ?? complaint?.recipient ?? mail.from));
    const sent = origin && (await findMessage(tx, origin.id));
    const reading = understandReply({
      ...mail,
      from: `${mail.fromName} <${mail.from}>`,
      at: mail.sentAt ?? now,
      ...(status && { status }),
      ...(complaint && { complaint }),
      ...(sent && { ours: sent.body }),
      examples: await examplesToReadBy(tx),
    });
    const consequence = consequenceOf(reading.kind);
    const id = world.newId();
    const fresh = await insertReceived(
      tx,
      {
        id,
        threadId: origin?.threadId ?? null,
        tripId: origin?.tripId ?? null,
        personId: origin?.personId ?? null,
        subject: mail.subject,
        body: mail.text,
        rfcId: mail.messageId,
        inReplyTo: mail.inReplyTo,
        refs: mail.references,
        from: mail.from,
        reading,
        handled: !consequence.wantsPerson,
      },
      now,
    );
    if (!fresh) return undefined;
    if (!origin) {
      world.log.warn('mail that belongs to no conversation', { from: mail.from });
      return undefined;
    }
    if (consequence.wantsPerson) {
      const words = written(mail.text, { from: mail.from, ...(sent && { ours: sent.body }) }).text;
      await keepQuestions(tx, { messageId: id, personId: origin.personId, words, reading }, now);
    }
    await tellTimeline(tx, origin, reading, now);
    if (reading.kind === 'bounce') await bounced(tx, origin, status, now);
    else if (complaint) await complained(tx, origin, complaint, now);
    else await answered(tx, origin, reading, mail.from, now);
    return origin;
  });
  if (origin) await tellChanged(world, 'desk', 'messages', `thread:${origin.threadId ?? '*'}`, `record:${origin.personId ?? '*'}`);
}

async function tellTimeline(tx: Tx, origin: Origin, reading: ReplyReading, now: Instant): Promise<void> {
  if (!origin.personId) return;
  const person = await findPerson(tx, origin.personId);
  const { label } = consequenceOf(reading.kind);
  const says =
    reading.kind === 'bounce'
      ? `The mail to ${person?.name ?? 'them'} bounced`
      : `${person?.firstName ?? person?.name ?? 'They'} ${label}${reading.objection ? ` to the ${reading.objection}` : ''}`;
  await insertHappenings(tx, [
    {
      recordKind: 'person',
      recordId: origin.personId,
      at: now,
      kind: 'reply',
      says,
      detail: { kind: reading.kind, objection: reading.objection, when: reading.when, quote: reading.quote, threadId: origin.threadId },
    },
  ]);
}

async function bounced(tx: Tx, origin: Origin, status: DeliveryStatus | undefined, now: Instant): Promise<void> {
  // The mailbox before its sends, as whoever plans them takes them: two that wait for each other would both be lost.
  const thread = origin.threadId ? await findThread(tx, origin.threadId) : undefined;
  if (thread) await lockMailbox(tx, thread.mailbox);
  await setMessageState(tx, origin.id, 'failed');
  const sent = await findMessage(tx, origin.id);
  const address = status?.recipient ?? sent?.toAddress;
  if (address) await addDoNotContact(tx, address, `bounced: ${status?.status ?? 'as the server wrote'}`, now);
  await endThread(tx, origin, 'ended', 'bounced', now);
  if (thread && origin.personId) await restIfTooMany(tx, thread.mailbox, origin.personId, now);
}

/** Somebody told their provider that they do not want our mail: nobody writes to them again, and two of them stop the mailbox. */
async function complained(tx: Tx, origin: Origin, complaint: Complaint, now: Instant): Promise<void> {
  const thread = origin.threadId ? await findThread(tx, origin.threadId) : undefined;
  if (thread) await lockMailbox(tx, thread.mailbox);
  const sent = await findMessage(tx, origin.id);
  // Whom we wrote to: what a report says beside that, anybody could have written.
  const address = sent?.toAddress ?? complaint.recipient;
  if (address) await addDoNotContact(tx, address, 'complained', now);
  await endThread(tx, origin, 'ended', 'unsubscribed', now);
  if (thread && origin.personId) await restIfTooMany(tx, thread.mailbox, origin.personId, now);
}

/** What an answer of its kind does to the plan, and to who is written to. */
export async function answered(tx: Tx, origin: Origin, reading: ReplyReading, from: string, now: Instant): Promise<void> {
  const { bars, wantsPerson } = consequenceOf(reading.kind);
  if (reading.plan === 'continue') return;
  if (reading.plan === 'pause') {
    await pause(tx, origin, reading, now);
    if (wantsPerson && origin.tripId) await postEvent(tx, origin.tripId, { kind: 'signal' }, now);
    return;
  }
  if (bars) {
    const sent = await findMessage(tx, origin.id);
    for (const address of new Set([from, sent?.toAddress ?? from])) await addDoNotContact(tx, address, 'unsubscribed', now);
  }
  await endThread(tx, origin, bars ? 'ended' : 'answered', bars ? 'unsubscribed' : 'answered', now);
}

/** Ends or answers a conversation: what has not left of it is dropped, and its trip hears of it. */
export async function endThread(tx: Tx, origin: Origin, state: 'answered' | 'ended', how: PlanEnd, now: Instant): Promise<void> {
  if (!origin.threadId) return;
  await setThread(tx, origin.threadId, state, null);
  await dropPlanned(tx, origin.threadId, how, now);
  if (!origin.tripId) return;
  await postEvent(tx, origin.tripId, { kind: 'plan ended', how }, now);
  // A trip that waits for a reply looks for itself what came.
  await postEvent(tx, origin.tripId, { kind: 'signal' }, now);
}

/** Out of office: what is planned moves behind the day they are back, or five working days where they do not say. */
async function pause(tx: Tx, origin: Origin, reading: ReplyReading, now: Instant): Promise<void> {
  if (!origin.threadId) return;
  const time = origin.personId ? await readerTime(tx, origin.personId) : undefined;
  const until = backOn(reading.when, now) ?? (time ? addWorkingDays(now, PAUSE_DAYS, time) : now + PAUSE_DAYS * 86_400_000);
  await setThread(tx, origin.threadId, 'paused', until);
  const [next] = await plannedOfThread(tx, origin.threadId);
  if (next && next.dueAt < until) await postpone(tx, next, origin.threadId, until, now);
}

/** The morning of the day they gave; null where they gave none, or one that has passed. */
function backOn(when: string | null, now: Instant): Instant | null {
  const at = when === null ? Number.NaN : Date.parse(`${when}T08:00:00Z`);
  return Number.isNaN(at) || at <= now ? null : at;
}

/** One-click unsubscribe (RFC 8058): the link's code says which message it came from. Done again, it changes nothing. */
export async function unsubscribe(world: World, messageId: string, code: string): Promise<void> {
  const fits = (await signingSecrets(world)).some((secret) => unsubscribeCodeFits(secret, messageId, code));
  if (!fits) throw new Refusal('not allowed', 'this link is not one of ours');
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    const message = found(await findMessage(tx, messageId), 'this message');
    const person = message.personId ? await findPerson(tx, message.personId) : undefined;
    for (const address of new Set([message.toAddress, person?.email])) if (address) await addDoNotContact(tx, address, 'unsubscribed', now);
    if (message.personId)
      await insertHappenings(tx, [
        {
          recordKind: 'person',
          recordId: message.personId,
          at: now,
          kind: 'reply',
          says: `${person?.firstName ?? 'They'} unsubscribed by the link`,
          detail: { kind: 'unsubscribe' },
        },
      ]);
    await endThread(tx, message, 'ended', 'unsubscribed', now);
  });
}
