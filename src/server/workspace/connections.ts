/**
 * Calls to the outside, over all workers: each connection is paced, takes only so many at once, and is left alone while it
 * keeps failing. Promises: a call that may not be made now is put off with `HeldBack`, never refused or lost.
 */
import pLimit, { type LimitFunction } from 'p-limit';
import type { Instant } from '../../core/base';
import type { LookupChain } from '../../core/lookup';
import { WorldFailure } from '../ports';
import { freeSlot, noteCall, passGate, takeSlot } from '../trips/store/control';
import { setCallTime } from '../messages/store/effects';
import type { World } from '../platform/world';

type Provider = LookupChain['providers'][number];

/** The line may not be run before then, though nothing is wrong. */
export class HeldBack extends Error {
  constructor(
    message: string,
    readonly until: Instant,
    /** it ends by itself and within moments */
    readonly soon = false,
  ) {
    super(message);
    this.name = 'HeldBack';
  }
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

/** How the calls of one worker wait for a connection. */
interface Queue {
  readonly places: LimitFunction;
  /** one after the other: who asks while another takes the free place would find it taken and not see the one that falls free */
  readonly door: LimitFunction;
}
const queues = new WeakMap<World, Map<string, Queue>>();
function queueOf(world: World, name: string, places: number): Queue {
  const own = queues.get(world) ?? new Map<string, Queue>();
  queues.set(world, own);
  const queue = own.get(name) ?? { places: pLimit(places), door: pLimit(1) };
  own.set(name, queue);
  queue.places.concurrency = places;
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
  const { places, door } = queueOf(world, name, atOnce);
  return places(async () => {
    const by = world.newId();
    const free =
      performance.now() - queued < QUEUE_MS && (await door(() => takeSlot(world.db, { name, slots: atOnce, by, leaseMs: SLOT_LEASE_MS })));
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
