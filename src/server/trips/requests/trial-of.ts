import { trialsOf } from '../../flows/store/flows';
import type { HeldTrip } from '../store/trips';
import type { World } from '../../platform/world';

/** How the trial was begun; of a trip that is none, as if nothing were asked afresh. */
export async function trialOf(world: World, held: HeldTrip): Promise<{ readonly limitMicro: number; readonly afresh: boolean }> {
  const [trial] = held.trialId === null ? [] : await trialsOf(world.db, [held.trialId]);
  return trial ?? { limitMicro: 0, afresh: false };
}
