import { durationMs, stableId, type Instant } from '../../core/base';
import { atClock, dayKey, nextOfMany } from '../../core/calendar';
import { parseFlow, type StepOf } from '../../core/flow/syntax';
import type { Tx } from '../db';
import { claimFlowClocks, putFlowClock, versionsOf } from '../flows/store/flows';
import { duePeople } from '../records/store/records';
import { dueDeals } from '../records/store/deals';
import { conditionPieces } from '../records/conditions';
import { beginTrips } from '../trips/start';
import { workspace, type World } from '../platform/world';

/** More than this at one stroke of the clock is left for the next. */
const MOST = 20_000;

type ClockIntake = NonNullable<StepOf<'take in'>['clock']>;
function clockOf(text: string): { readonly about: 'person' | 'deal'; readonly clock: ClockIntake } | undefined {
  const { tree } = parseFlow(text);
  const step = tree.lines.find((line) => !line.off && line.step.verb === 'take in')?.step;
  if (step?.verb !== 'take in' || !step.clock) return undefined;
  return { about: tree.about?.text === 'deal' ? 'deal' : 'person', clock: step.clock };
}

/** Sets the clock of a flow that has just been released, or takes it away. */
export async function setFlowClock(tx: Tx, flowId: string, text: string, now: Instant): Promise<void> {
  const found = clockOf(text);
  await putFlowClock(tx, flowId, found ? await nextStroke(tx, flowId, found.clock, now) : null);
}

async function nextStroke(tx: Tx, flowId: string, clock: ClockIntake, from: Instant): Promise<Instant> {
  const space = await workspace(tx);
  const time = { zone: space.zone, daysOff: new Set(space.daysOff) };
  if (clock.every) {
    const { minute } = clock.time;
    return nextOfMany(
      from,
      { from: minute, to: clock.until?.minute ?? 24 * 60 - 1, every: durationMs(clock.every.duration) / 60_000 },
      time,
      clock.workingDays,
    );
  }
  const at = atClock(from, clock.time.minute, time, clock.workingDays);
  if (!clock.within) return at;
  // Another moment every day, yet the same however often it is worked out.
  const share = Number.parseInt(stableId('stroke', flowId, dayKey(at, space.zone)).slice(0, 8), 16) / 0xffff_ffff;
  return at + Math.round((share * durationMs(clock.within.duration)) / 60_000) * 60_000;
}

/**
 * Looks for records that are due, for every live flow whose clock has struck, and starts their trips: one per record and
 * day. Returns how many clocks struck.
 */
export async function runClocks(world: World): Promise<number> {
  const now = await world.clock.now();
  return world.db.begin(async (tx) => {
    const struck = await claimFlowClocks(tx, now);
    for (const { flowId, versionId } of struck) {
      const [version] = await versionsOf(tx, [versionId]);
      const found = clockOf(version?.text ?? '');
      if (!found) {
        await putFlowClock(tx, flowId, null);
        continue;
      }
      // A stroke that was missed is made up for once, with the records that are due now.
      await takeInDue(tx, { flowId, versionId, ...found }, now);
      await putFlowClock(tx, flowId, await nextStroke(tx, flowId, found.clock, now + 60_000));
    }
    return struck.length;
  });
}

async function takeInDue(
  tx: Tx,
  ask: { readonly flowId: string; readonly versionId: string; readonly about: 'person' | 'deal'; readonly clock: ClockIntake },
  at: Instant,
): Promise<void> {
  const { zone } = await workspace(tx);
  const where = await conditionPieces(tx, ask.clock.when?.parsed.text, ask.about);
  const due =
    ask.about === 'deal'
      ? await dueDeals(tx, where, at, zone, MOST)
      : (await duePeople(tx, where, MOST)).map((personId) => ({ personId, dealId: undefined }));
  const trips = due.map(({ personId, dealId }) => ({
    personId,
    intakeKey: `clock ${dayKey(at, zone)} ${dealId ?? personId}`,
    ...(dealId !== undefined && { dealId }),
  }));
  await beginTrips(tx, { flowId: ask.flowId, versionId: ask.versionId, trips }, at);
}
