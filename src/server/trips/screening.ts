import { z } from 'zod';
import { ENTRY } from '../../core/flow/check';
import { SCREENS } from '../../core/flow/syntax';
import { endedTrip, keepExamples } from './store/screening';
import { insertAudit } from '../access/store/audit';
import { insertHappenings } from '../records/store/timeline';
import { journalOf } from './store/trips';
import { wakeWorkers } from '../platform/store/wake';
import { beginTrips } from './start';
import { found, Refusal, type Actor, type World } from '../platform/world';

const verdictsSchema = z.object({ verdicts: z.array(z.object({ screen: z.enum(SCREENS), says: z.string(), about: z.string() })).min(1) });

/**
 * Lets a record through that was screened out: it begins the flow again with what it came with, and what spoke against it is
 * remembered as an example that speaks against nobody any more.
 */
export async function letThrough(world: World, actor: Actor, tripId: string): Promise<{ readonly started: number }> {
  const trip = found(await endedTrip(world.db, tripId), 'this trip');
  const last = (await journalOf(world.db, [tripId])).at(-1);
  const read = verdictsSchema.safeParse(last?.detail);
  if (trip.state !== 'stopped' || !read.success) throw new Refusal('conflict', 'this trip was not screened out');
  const { versionId, personId, dealId, flowId } = trip;
  if (versionId === null) throw new Refusal('conflict', 'the flow is not live');
  const now = await world.clock.now();
  const started = await world.db.begin(async (tx) => {
    await keepExamples(tx, read.data.verdicts, { tripId, userId: actor.userId }, now);
    const says = read.data.verdicts.map((verdict) => verdict.screen).join(', ');
    await insertHappenings(tx, [
      {
        recordKind: 'person',
        recordId: personId,
        at: now,
        kind: 'change',
        says: `Let through by ${actor.name} in spite of: ${says}`,
        detail: { tripId },
      },
    ]);
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'let through what was screened out', detail: { tripId, says } });
    const begun = await beginTrips(
      tx,
      {
        flowId,
        versionId,
        trips: [
          {
            personId,
            intakeKey: `let through ${tripId}`,
            ...(dealId !== null && { dealId }),
            ...(trip.entry !== null && { vars: { [ENTRY]: trip.entry } }),
          },
        ],
      },
      now,
    );
    await wakeWorkers(tx);
    return begun;
  });
  if (started === 0) throw new Refusal('conflict', 'it has been let through already');
  return { started };
}
