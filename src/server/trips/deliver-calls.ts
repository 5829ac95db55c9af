import { createHmac, timingSafeEqual } from 'node:crypto';
import pLimit from 'p-limit';
import { z } from 'zod';
import type { Instant, JsonObject } from '../../core/base';
import type { TripEvent } from '../../core/engine';
import { transact } from '../db';
import { WorldFailure } from '../ports';
import { claimCalls, listWebhooks, putOff, settleCall, tripOfCall, type HeldCall } from './store/outbox';
import { postEvent } from './store/trips';
import { HeldBack, inPlace } from '../workspace/connections';
import { dossierFile } from '../research/dossiers';
import { routeOf } from '../messages/mailboxes';
import { unseal } from '../platform/seal';
import { signingSecrets } from '../workspace/keys';
import { Refusal, type World } from '../platform/world';

const payloadSchema = z.union([
  z.object({
    webhook: z.string(),
    body: z.record(z.string(), z.json()),
    /** somebody waits for an answer: the body says where it goes */
    answered: z.boolean().default(false),
  }),
  z.object({
    mail: z.object({ to: z.string(), name: z.string(), from: z.string(), fromName: z.string() }),
    text: z.string(),
    dossier: z.uuid().optional(),
  }),
]);

/** Pauses of 30 s, 1, 2, 4, 8 min; a server's own Retry-After counts when it is longer. */
const TRIES = 6;
/** Calls one webhook gets at the same time, over all workers. */
const HOOK_AT_ONCE = 4;
const BASE_MS = 30_000;

export interface CallsAsk {
  readonly holder: string;
  readonly leaseMs: number;
  readonly batch: number;
  readonly calls: number;
}

/** Makes the webhook calls and sends the notices that are due. Returns how many were claimed. */
export async function deliverCalls(world: World, ask: CallsAsk): Promise<number> {
  const now = await world.clock.now();
  const held = await claimCalls(world.db, { holder: ask.holder, now, leaseMs: ask.leaseMs, limit: ask.batch });
  const limit = pLimit(ask.calls);
  await Promise.all(held.map((call) => limit(() => deliver(world, call, now))));
  return held.length;
}

async function deliver(world: World, call: HeldCall, now: Instant): Promise<void> {
  let made: { says: string; body: JsonObject | null };
  try {
    made = await make(world, call, now);
  } catch (error) {
    if (error instanceof HeldBack) {
      await putOff(world.db, call, error.until);
      return;
    }
    const failure = error instanceof WorldFailure ? error : new WorldFailure('broken', String(error), true);
    if (!failure.retryable || call.attempts >= TRIES) {
      await end(world, call, { ok: false, says: failure.message, body: null }, now);
      return;
    }
    const pause = Math.max(failure.retryAfterMs ?? 0, BASE_MS * 2 ** (call.attempts - 1));
    await settleCall(world.db, call, { state: 'planned', says: failure.message, dueAt: now + pause }, now);
    return;
  }
  await end(world, call, { ok: true, ...made }, now);
}

async function make(world: World, call: HeldCall, now: Instant): Promise<{ says: string; body: JsonObject | null }> {
  const payload = payloadSchema.parse(call.payload);
  if ('mail' in payload) {
    const { mail } = payload;
    const messageId = `<notice-${call.id}@millrace>`;
    // A worker that died on the way may have sent it.
    if (call.attempts > 1 && (await world.mail.find(messageId)) === 'taken') return { says: 'the relay has it', body: null };
    const raw = await world.mail.compose({
      from: { name: mail.fromName, address: mail.from },
      to: { name: mail.name, address: mail.to },
      subject: payload.text.split('\n')[0]?.slice(0, 120) ?? 'Millrace',
      text: payload.text,
      messageId,
      inReplyTo: null,
      references: [],
      unsubscribeUrl: null,
      ...(payload.dossier !== undefined && { attachments: [await attachment(world, payload.dossier)] }),
      date: now,
    });
    const route = await routeOf(world, { address: mail.from });
    const outcome = await world.mail.deliver(raw, { from: mail.from, to: mail.to }, world.mail.deadline(30_000), route);
    // A notice to a colleague that may have left is not sent again: one too few beats two.
    if (outcome.kind === 'accepted' || outcome.kind === 'in doubt') return { says: outcome.says, body: null };
    throw new WorldFailure('refused', outcome.says, outcome.kind === 'deferred');
  }
  const hook = (await listWebhooks(world.db)).find((entry) => entry.name === payload.webhook);
  if (!hook) throw new WorldFailure('not found', `the webhook “${payload.webhook}” is gone`, false);
  const answerTo = `${world.publicUrl}/answers/${call.id}/${answerCode(world.secret, call.id)}`;
  const { status, body } = await inPlace(world, { name: `webhook ${hook.name}`, atOnce: HOOK_AT_ONCE }, now, () =>
    world.webhooks.post({
      url: hook.url,
      secret: unseal(world.secret, hook.secret),
      id: call.id,
      at: now,
      body: payload.answered ? { ...payload.body, answer_to: answerTo } : payload.body,
    }),
  );
  return { says: `answered ${status}`, body };
}

/** A dossier as it goes with a mail. */
async function attachment(world: World, dossierId: string): Promise<{ name: string; type: string; content: Uint8Array }> {
  const file = await dossierFile(world, dossierId, 'pdf');
  return { ...file, content: Buffer.from(file.content) };
}

async function end(world: World, call: HeldCall, how: { ok: boolean; says: string; body: JsonObject | null }, now: Instant): Promise<void> {
  await transact(world.db, async (tx) => {
    const mine = await settleCall(tx, call, { state: how.ok ? 'done' : 'failed', says: how.says, answer: how.body }, now);
    if (!mine || call.kind !== 'hand over' || call.tripId === null) return;
    const event: TripEvent = { kind: 'handed over', ...how };
    await postEvent(tx, call.tripId, event, now);
  });
}

const answerCode = (secret: string, id: string): string =>
  createHmac('sha256', secret).update(`answer ${id}`).digest('base64url').slice(0, 22);

/** Takes the answer to a hand-over. The code in its address says that it comes from whom it was handed to. A second answer changes nothing. */
export async function takeAnswer(world: World, effectId: string, code: string, body: JsonObject): Promise<void> {
  const got = Buffer.from(code);
  const fits = (await signingSecrets(world)).some((secret) => {
    const want = Buffer.from(answerCode(secret, effectId));
    return want.length === got.length && timingSafeEqual(want, got);
  });
  if (!/^[0-9a-f-]{36}$/.test(effectId) || !fits) throw new Refusal('not allowed', 'this address is not one that Millrace gave out');
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    const tripId = await tripOfCall(tx, effectId);
    if (tripId !== undefined) await postEvent(tx, tripId, { kind: 'handed back', body }, now);
  });
}
