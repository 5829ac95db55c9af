import pLimit, { type LimitFunction } from 'p-limit';
import { z } from 'zod';
import { stableId, type Instant, type Json } from '../../../core/base';
import { dayKey, startOfLocalDay } from '../../../core/calendar';
import type { LookupChain } from '../../../core/lookup';
import type { Tx } from '../../db';
import { freeSlot, noteCall, passGate, reserve, settleSpend, takeSlot } from '../../store/control';
import { setCallTime, setReserved } from '../../store/effects';
import { versionsOf } from '../../store/flows';
import { insertNotices, usersNamed } from '../../store/outbox';
import type { HeldTrip } from '../../store/trips';
import { WorldFailure } from '../../ports';
import { workspace, type World } from '../world';
import { trialOf } from './trial';

/** The line may not be run before then, though nothing is wrong. */
export class HeldBack extends Error {
  constructor(
    message: string,
    readonly until: Instant,
  ) {
    super(message);
    this.name = 'HeldBack';
  }
}

type Provider = LookupChain['providers'][number];
interface Budget {
  readonly name: string;
  readonly says: string;
  readonly limitMicro: number;
}
/** Failures in a row that shut a connection, and for how long at first. */
const BREAKER = { failures: 5, shutMs: 30_000 } as const;

/** Waits for its turn at a provider: paced across all workers, and shut while it fails. Throws `HeldBack`. */
export async function inTurn(world: World, provider: Provider, key: string, placeAt: Instant | null, now: Instant): Promise<void> {
  if (placeAt !== null) {
    if (placeAt > now) throw new HeldBack(`waits for its turn at ${provider.name}`, placeAt);
    return;
  }
  const gate = await passGate(world.db, provider.name, provider.perMinute === undefined ? 0 : 60_000 / provider.perMinute);
  if (gate.shut) throw new HeldBack(`${provider.name} keeps failing and is left alone for a while`, now + gate.waitMs);
  if (gate.waitMs === 0) return;
  await setCallTime(world.db, key, now + gate.waitMs);
  throw new HeldBack(`waits for its turn at ${provider.name}`, now + gate.waitMs);
}

/** No call takes as long; a place whose worker died is free again after it. */
const SLOT_LEASE_MS = 120_000;
/** Whoever finds every place taken by other workers comes again after about so long. */
const SLOT_WAIT_MS = 400;
/** In one worker calls queue for a place up to so long; then they make room for other work. */
const QUEUE_MS = 2_000;
const queues = new WeakMap<World, Map<string, LimitFunction>>();
function queueOf(world: World, name: string, places: number): LimitFunction {
  const own = queues.get(world) ?? new Map<string, LimitFunction>();
  queues.set(world, own);
  const queue = own.get(name) ?? pLimit(places);
  own.set(name, queue);
  queue.concurrency = places;
  return queue;
}

/** Makes a call while it holds one of the connection's places; throws `HeldBack` when all are taken. No number, no limit. */
export async function inPlace<T>(
  world: World,
  connection: { readonly name: string; readonly atOnce: number | undefined },
  now: Instant,
  call: () => Promise<T>,
): Promise<T> {
  const { name, atOnce } = connection;
  if (atOnce === undefined) return call();
  const queued = performance.now();
  return queueOf(
    world,
    name,
    atOnce,
  )(async () => {
    const by = world.newId();
    const free = performance.now() - queued < QUEUE_MS && (await takeSlot(world.db, { name, slots: atOnce, by, leaseMs: SLOT_LEASE_MS }));
    if (!free) throw new HeldBack(`waits for a free place at ${name}`, now + SLOT_WAIT_MS);
    try {
      return await call();
    } finally {
      await freeSlot(world.db, name, by);
    }
  });
}

/** Makes a call and counts how it went; what the other side refuses for good is no sign that it is down. */
export async function counted<T>(world: World, name: string, call: () => Promise<T>): Promise<T> {
  try {
    const answer = await call();
    await noteCall(world.db, name, true, BREAKER.failures, BREAKER.shutMs);
    return answer;
  } catch (error) {
    if (error instanceof WorldFailure && error.retryable && error.code !== 'busy')
      await noteCall(world.db, name, false, BREAKER.failures, BREAKER.shutMs);
    throw error;
  }
}

async function budgetsOf(world: World, held: HeldTrip, provider: Provider): Promise<readonly Budget[]> {
  const of = (name: string, says: string, limitMicro: number | null | undefined): readonly Budget[] =>
    limitMicro === null || limitMicro === undefined ? [] : [{ name, says, limitMicro }];
  if (held.trialId !== null) return of(`trial ${held.trialId}`, 'what a trial may spend', (await trialOf(world, held)).limitMicro);
  const [version] = held.versionId === null ? [] : await versionsOf(world.db, [held.versionId]);
  return [
    ...of(`flow ${held.flowId}`, 'the flow’s budget for today', version?.dayBudgetMicro),
    ...of(`provider ${provider.name}`, `today’s budget for ${provider.name}`, provider.dayBudgetMicro),
  ];
}

const reservationSchema = z.object({ day: z.string(), budgets: z.array(z.string()), micro: z.number() });
/** Money set aside before a paid call: in which budgets, and on which local day. It stands with the call in the ledger. */
export type Reservation = z.infer<typeof reservationSchema>;

/**
 * Sets the price aside in every budget that the call counts against, all or none. When one is used up the owner is told,
 * once a day, and `HeldBack` until tomorrow is thrown. What was set aside before a crash is not set aside again.
 */
export async function setAside(
  world: World,
  held: HeldTrip,
  provider: Provider,
  ledger: { readonly key: string; readonly reserved: Json },
  now: Instant,
): Promise<Reservation | undefined> {
  const before = reservationSchema.safeParse(ledger.reserved);
  if (before.success) return before.data;
  const { zone } = await workspace(world.db);
  const day = dayKey(now, zone);
  const budgets = await budgetsOf(world, held, provider);
  if (provider.priceMicro === 0 || budgets.length === 0) return undefined;
  const reservation: Reservation = { day, budgets: budgets.map((budget) => budget.name), micro: provider.priceMicro };
  const full = await world.db
    .begin(async (tx) => {
      for (const budget of budgets)
        if (!(await reserve(tx, budget.name, day, provider.priceMicro, budget.limitMicro))) throw new Full(budget);
      await setReserved(tx, ledger.key, reservation);
      return undefined;
    })
    .catch((error: unknown) => {
      if (error instanceof Full) return error.budget;
      throw error;
    });
  if (!full) return reservation;
  await tellOwner(world, held, full, day, now);
  throw new HeldBack(`${full.says} is used up`, startOfLocalDay(now, zone, 1));
}

class Full extends Error {
  constructor(readonly budget: Budget) {
    super(budget.name);
  }
}

/** Counts what was spent and gives back the rest. */
export async function settleReservation(tx: Tx, key: string, reservation: Reservation | undefined, spentMicro: number): Promise<void> {
  if (!reservation) return;
  for (const budget of reservation.budgets) await settleSpend(tx, budget, reservation.day, reservation.micro, spentMicro);
  await setReserved(tx, key, null);
}

async function tellOwner(world: World, held: HeldTrip, budget: Budget, day: string, now: Instant): Promise<void> {
  if (held.trialId !== null) return;
  const owners = await usersNamed(world.db, 'owner');
  await insertNotices(
    world.db,
    owners.map((owner) => ({
      id: stableId('budget', budget.name, day, owner.id),
      userId: owner.id,
      text: `${budget.says} is used up: trips wait until tomorrow and nothing is lost`,
      tripId: held.trip.id,
      personId: held.trip.record.id,
    })),
    now,
  );
}
