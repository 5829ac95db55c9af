import type { BatchMember } from '../../core/engine';
import { gatherGroups, lockGatherGroup, postEvent } from './store/trips';
import type { World } from '../platform/world';

/** Lets trips go on together where enough have gathered, or the first has waited long enough. Returns how many go on. */
export async function releaseGathered(world: World): Promise<number> {
  const now = await world.clock.now();
  let released = 0;
  for (const group of await gatherGroups(world.db)) {
    if (group.waiting < group.count && group.limit > now) continue;
    released += await world.db.begin(async (tx) => {
      const trips = await lockGatherGroup(tx, group);
      // Another worker may have taken some meanwhile: what is left waits on.
      if (trips.length === 0 || (trips.length < group.count && group.limit > now)) return 0;
      const batch = world.newId();
      const members: BatchMember[] = trips.map(({ id, name, says }) => ({ id, name, says }));
      for (const [place, trip] of trips.entries())
        await postEvent(
          tx,
          trip.id,
          { kind: 'gathered', batch, place, members: place === 0 ? members : members.map((member) => ({ ...member, says: '' })) },
          now,
        );
      return trips.length;
    });
  }
  return released;
}
