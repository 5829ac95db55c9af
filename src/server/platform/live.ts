/**
 * What open pages are told. One listener on the database for each web process, however many pages are open. Promises: a
 * page that watches hears of every change made on any machine, at most a connection's loss late - after one it hears
 * `work` and asks afresh. Refuses: saying what has changed - pages ask through the usual doors, which check who asks.
 */
import { liveEventSchema, type LiveEvent } from '../../api';
import { listenForViewers, notifyViewers } from './store/live';
import type { World } from './world';

type Watcher = (event: LiveEvent) => void;

export class LiveHub {
  private readonly watchers = new Set<Watcher>();
  private listening: Promise<() => Promise<void>> | undefined;

  constructor(private readonly world: World) {}

  /** Calls back with every event until the returned function is called; the last one to leave ends the listening. */
  async watch(watcher: Watcher): Promise<() => void> {
    this.watchers.add(watcher);
    this.listening ??= listenForViewers(
      this.world.db,
      (payload) => {
        const event = liveEventSchema.safeParse(JSON.parse(payload));
        if (event.success) this.tell(event.data);
      },
      () => {
        this.tell({ kind: 'work' });
      },
    );
    try {
      await this.listening;
    } catch (error) {
      this.listening = undefined;
      this.watchers.delete(watcher);
      throw error;
    }
    return () => {
      this.watchers.delete(watcher);
      if (this.watchers.size > 0) return;
      const ending = this.listening;
      this.listening = undefined;
      void ending?.then((unlisten) => unlisten()).catch(() => undefined);
    };
  }

  private tell(event: LiveEvent): void {
    for (const watcher of this.watchers) watcher(event);
  }
}

export async function tellViewers(world: World, event: LiveEvent): Promise<void> {
  await notifyViewers(world.db, event);
}
