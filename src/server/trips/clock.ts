import type { Instant } from '../../core/base';
import { clockOffset, clockTarget, lockClockWalk, moveClockOffset, putSetting } from '../platform/store/settings';
import { nextSendDue } from '../messages/store/effects';
import { nextFlowClock } from '../flows/store/flows';
import { nextLookDue } from '../intake/store/intakes';
import { nextCallDue } from './store/outbox';
import { wakeWorkers } from '../platform/store/wake';
import { nextGatherDue, nextTripDue } from './store/trips';
import { Refusal, type World } from '../platform/world';

/** Waiting moments after the last thing was due, so that answers by SMTP arrive before the clock goes on. */
const MAX_STEPS = 5_000;

export interface ClockView {
  readonly now: Instant;
  readonly target: Instant | null;
  readonly movable: boolean;
}

export async function readClock(world: World): Promise<ClockView> {
  return { now: await world.clock.now(), target: await clockTarget(world.db), movable: world.isDemo };
}

/** Asks the demo's clock to go on; the worker walks it there, due thing by due thing, so that pacing stays what it is. */
export async function moveClock(world: World, byMs: number): Promise<ClockView> {
  if (!world.isDemo) throw new Refusal('not allowed', 'only the demo has a clock that can be moved');
  if (byMs <= 0 || byMs > 60 * 86_400_000) throw new Refusal('not valid', 'the clock moves forward, by at most 60 days at once');
  const now = await world.clock.now();
  await putSetting(world.db, 'clock target', Math.max((await clockTarget(world.db)) ?? now, now) + byMs);
  await wakeWorkers(world.db);
  return readClock(world);
}

/**
 * Walks the clock to its target: to the next due trip, send or answer, one after the other, letting `drain` work off what
 * is due at each. One walker at a time: at each step it reads its target over the connection that holds its lock, so that a
 * walker whose connection was lost stops there. Returns whether there was anything to walk.
 */
export async function walkClock(world: World, drain: () => Promise<void>, isStopping: () => boolean): Promise<boolean> {
  if (!world.isDemo || (await clockTarget(world.db)) === null) return false;
  await world.db.begin(async (tx) => {
    if (!(await lockClockWalk(tx))) return;
    for (let step = 0; step < MAX_STEPS && !isStopping(); step++) {
      const target = await clockTarget(tx);
      if (target === null) return;
      await drain();
      let now = await world.clock.now();
      const answers = await world.demo.tick(now);
      await drain();
      now = await world.clock.now();
      const due = await Promise.all(
        [nextTripDue, nextSendDue, nextCallDue, nextGatherDue, nextFlowClock, nextLookDue].map((of) => of(world.db, now)),
      );
      const next = [...due, answers]
        .filter((at) => at !== null && at > now)
        .reduce<number>((least, at) => Math.min(least, at ?? least), target);
      if (now >= target) {
        await putSetting(world.db, 'clock target', null);
        return;
      }
      const offset = await clockOffset(tx);
      if (!(await moveClockOffset(world.db, offset, offset + Math.max(0, Math.min(next, target) - now)))) return;
    }
  });
  return true;
}
