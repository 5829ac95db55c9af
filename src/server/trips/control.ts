import type { TripState } from '../../core/engine';
import { instructionOf, type Plan } from '../../core/flow/plan';
import type { Tx } from '../db';
import { letGoOn, lockStarts, moveToVersion, openTripsOf, postToOpen, setPaused, type MarkMove } from './store/control';
import { dropOfEnded } from '../messages/store/effects';
import { findFlow, flowVersions } from '../flows/store/flows';
import { insertAudit } from '../access/store/audit';
import { loadPlans } from '../flows/library';
import { found, Refusal, type Actor, type World } from '../platform/world';

/** Rests a flow: nothing of it is worked off or sent until it goes on. Records may still be taken in; they wait too. */
export async function pauseFlow(world: World, actor: Actor, flowId: string, rest: boolean): Promise<{ readonly trips: number }> {
  const now = await world.clock.now();
  found(await findFlow(world.db, flowId), 'this flow');
  const trips = await world.db.begin(async (tx) => {
    await lockStarts(tx, flowId);
    const touched = await setPaused(tx, flowId, rest ? now : null);
    await insertAudit(tx, { at: now, userId: actor.userId, what: rest ? 'rested a flow' : 'let a flow go on', detail: { flowId } });
    return touched;
  });
  return { trips };
}

/** Ends every open trip of a flow: what is asked is closed, what has not left is dropped. */
export async function endAll(world: World, actor: Actor, flowId: string): Promise<{ readonly trips: number }> {
  const now = await world.clock.now();
  found(await findFlow(world.db, flowId), 'this flow');
  const trips = await world.db.begin(async (tx) => {
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'ended all trips of a flow', detail: { flowId } });
    await dropOfEnded(tx, flowId, `ended by ${actor.name}`, now);
    return postToOpen(tx, flowId, { kind: 'ended', by: actor.name }, now);
  });
  return { trips };
}

/** At a line of another verb nothing can be waited for or answered: only trips that have yet to run it may be there. */
const ANYWHERE: readonly TripState['kind'][] = ['ready', 'waiting', 'asking', 'following', 'stuck'];
const NOT_BEGUN: readonly TripState['kind'][] = ['ready'];

function matching(from: Plan, to: Plan): readonly MarkMove[] {
  return from.instructions.flatMap((line) => {
    const other = instructionOf(to, line.mark);
    if (!other) return [];
    return [{ from: line.at, to: other.at, states: other.step.verb === line.step.verb ? ANYWHERE : NOT_BEGUN }];
  });
}

export interface Moved {
  readonly moved: number;
  /** whose line the new version does not have: they finish on theirs */
  readonly stayed: number;
}

/** Has trips under way on older versions go on with the live one, where its lines have their marks. */
export async function moveTrips(world: World, actor: Actor, flowId: string): Promise<Moved> {
  const flow = found(await findFlow(world.db, flowId), 'this flow');
  const to = flow.liveVersionId;
  if (to === null) throw new Refusal('conflict', 'this flow is not live: there is no version to move to');
  const older = (await flowVersions(world.db, flowId)).filter((version) => version.id !== to);
  const planOf = await loadPlans(
    world.db,
    [to, ...older.map((version) => version.id)].map((versionId) => ({ versionId, trialId: null })),
  );
  const target = planOf({ versionId: to, trialId: null });
  const now = await world.clock.now();
  return world.db.begin(async (tx: Tx) => {
    let [moved, stayed] = [0, 0];
    for (const version of older) {
      const plan = planOf({ versionId: version.id, trialId: null });
      if (!plan || !target) continue;
      moved += await moveToVersion(tx, version.id, to, matching(plan, target));
      stayed += await openTripsOf(tx, version.id);
    }
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'moved trips to the live version', detail: { flowId, moved, stayed } });
    return { moved, stayed };
  });
}

/** The first ones of a release have been seen to fare well: the others follow. */
export async function goOn(world: World, actor: Actor, versionId: string): Promise<{ readonly trips: number }> {
  const now = await world.clock.now();
  const trips = await world.db.begin(async (tx) => {
    const gone = await letGoOn(tx, versionId);
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'let a release go on', detail: { versionId, trips: gone } });
    return gone;
  });
  if (trips === 0) throw new Refusal('conflict', 'nobody waits behind this release any more');
  return { trips };
}
