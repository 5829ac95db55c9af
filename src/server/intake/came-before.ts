/** People who came by the intake a flow names before it was released: they stay as they are, or are taken in with the release. */
import { peopleCameBefore } from './store/came-before';
import { intakeOf, lastVars } from './entries';
import { startTrips } from '../trips/start';
import { wakeWorkers } from '../platform/store/wake';
import type { Tx } from '../db';
import type { World } from '../platform/world';

/** So many begin in one transaction. */
const AT_ONCE = 500;

export interface CameBefore {
  /** what the first line names: `form “Project enquiry”` */
  readonly by: string;
  readonly people: number;
}

/** Who came by the intake that the flow's first line names and is in the flow in no way; null when it names none that keeps people. */
export async function cameBefore(tx: Tx, flowId: string, text: string): Promise<CameBefore | null> {
  const intake = intakeOf(text);
  if (!intake) return null;
  return { by: `${intake.kind} “${intake.name}”`, people: (await peopleCameBefore(tx, flowId, intake)).length };
}

/** Begins the version for them, those who have waited longest first; who is in the flow by then is not taken twice. Returns how many began. */
export async function takeInCameBefore(
  world: World,
  { flowId, versionId, text }: { readonly flowId: string; readonly versionId: string; readonly text: string },
): Promise<number> {
  const intake = intakeOf(text);
  if (!intake) return 0;
  const people = await peopleCameBefore(world.db, flowId, intake);
  const now = await world.clock.now();
  let begun = 0;
  for (let from = 0; from < people.length; from += AT_ONCE) {
    const some = people.slice(from, from + AT_ONCE);
    const vars = await lastVars(world.db, text, some);
    begun += await world.db.begin(async (tx) => {
      const plain = some.filter((id) => !vars.has(id));
      let made = await startTrips(tx, { flowId, versionId, intake: `before ${intake.name}`, personIds: plain }, now);
      for (const [personId, brought] of vars)
        made += await startTrips(tx, { flowId, versionId, intake: `before ${intake.name}`, personIds: [personId], vars: brought }, now);
      return made;
    });
  }
  await wakeWorkers(world.db);
  return begun;
}
