import { listenForWork } from './store/wake';
import type { World } from './world';

/** Calls back when there is work for a worker; the returned function ends that. Where listening fails, polling goes on alone. */
export async function onWork(world: World, wake: () => void): Promise<() => Promise<void>> {
  try {
    return await listenForWork(world.db, wake);
  } catch (error) {
    world.log.warn('cannot listen for work: polling alone', { error: String(error) });
    return async () => undefined;
  }
}
