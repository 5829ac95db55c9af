/**
 * Figures that a page shows and that may take long to count: the ribbon of a flow with many trips, what flows cost.
 * Promises: what is quick to count is counted every time; what is slow is given at once as it was counted last, counted
 * again beside, and open pages are told when it is there. Refuses: deciding by such a figure - it may be some seconds old.
 */
import type { z } from 'zod';
import { findFigure, putFigure } from './store/figures';
import type { Topic } from '../../api';
import { tellChanged } from './live';
import type { World } from './world';

/** Quicker than this is never kept. */
const QUICK_MS = 25;
/** A kept figure is counted again when it is older than so many times what counting took. */
const WORTH = 15;

const underWay = new WeakMap<World, Map<string, Promise<unknown>>>();

/** The figure under `key`, by `count`, shown on pages about `topic`; `schema` reads what was kept, and what no longer fits is counted anew. */
export async function figure<T>(
  world: World,
  { key, topic }: { readonly key: string; readonly topic: Topic },
  schema: z.ZodType<T>,
  count: () => Promise<T>,
): Promise<T> {
  const kept = await findFigure(world.db, key);
  const read = kept && schema.safeParse(kept.value);
  if (!kept || !read?.success || kept.tookMs < QUICK_MS) return countNow(world, key, count, kept?.tookMs ?? 0);
  if (kept.ageMs > kept.tookMs * WORTH)
    countNow(world, key, count, kept.tookMs)
      .then(() => tellChanged(world, topic))
      .catch((error: unknown) => {
        world.log.warn('a figure could not be counted', { key, error: String(error) });
      });
  return read.data;
}

/** Counts once, however many ask at the same time; a figure that is or was slow is kept with how long it took. */
function countNow<T>(world: World, key: string, count: () => Promise<T>, tookBefore: number): Promise<T> {
  const own = underWay.get(world) ?? new Map<string, Promise<unknown>>();
  underWay.set(world, own);
  const same = own.get(key) as Promise<T> | undefined;
  if (same) return same;
  const counting = (async () => {
    const begun = performance.now();
    const value = await count();
    const tookMs = performance.now() - begun;
    if (tookMs >= QUICK_MS || tookBefore >= QUICK_MS) await putFigure(world.db, key, value, tookMs);
    return value;
  })().finally(() => own.delete(key));
  own.set(key, counting);
  return counting;
}
