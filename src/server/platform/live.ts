/**
 * What open pages are told. One listener on the database for each web process, however many pages are open. Promises: a
 * page that watches hears of every change made on any machine, at most a connection's loss late - after one it hears of
 * `everything` and asks afresh. Refuses: saying more than topics - pages ask through the usual doors, which check who asks.
 */
import { liveEventSchema, told, type LiveEvent, type Topic } from '../../api';
import { listenForViewers, notifyViewers } from './store/live';
import type { World } from './world';

type Watcher = (event: LiveEvent) => void;

/** So long ago a page may have been made that opens its stream now: what was told since is told to it too. */
const PAGE_MS = 30_000;

export class LiveHub {
  private readonly watchers = new Set<Watcher>();
  private listening: Promise<() => Promise<void>> | undefined;
  /** since when every word was heard, of this process's own clock */
  private hearingSince = Number.POSITIVE_INFINITY;
  private recent: { readonly at: number; readonly topics: readonly Topic[] }[] = [];

  constructor(
    private readonly world: World,
    private readonly pageMs = PAGE_MS,
  ) {}

  /**
   * Calls back with every event until the returned function is called; first with what was told while the page was on its
   * way. The last one to leave ends the listening.
   */
  async watch(watcher: Watcher): Promise<() => void> {
    this.watchers.add(watcher);
    this.listening ??= this.listen();
    try {
      await this.listening;
    } catch (error) {
      this.listening = undefined;
      this.watchers.delete(watcher);
      throw error;
    }
    const missed = this.missed();
    if (missed.length > 0) watcher({ kind: 'new', topics: [...missed] });
    return () => {
      this.watchers.delete(watcher);
      if (this.watchers.size > 0) return;
      const ending = this.listening;
      this.listening = undefined;
      this.hearingSince = Number.POSITIVE_INFINITY;
      void ending?.then((unlisten) => unlisten()).catch(() => undefined);
    };
  }

  private listen(): Promise<() => Promise<void>> {
    return listenForViewers(
      this.world.db,
      (payload) => {
        const event = liveEventSchema.safeParse(JSON.parse(payload));
        if (event.success) this.tell(event.data);
      },
      () => {
        // Nobody knows what was said while the line was down.
        const isFirst = this.hearingSince === Number.POSITIVE_INFINITY;
        this.hearingSince = performance.now();
        if (!isFirst) this.tell({ kind: 'new', topics: ['everything'] });
      },
    );
  }

  private missed(): readonly Topic[] {
    const since = performance.now() - this.pageMs;
    if (this.hearingSince > since) return ['everything'];
    return told(this.recent.filter(({ at }) => at > since).flatMap(({ topics }) => topics));
  }

  private tell(event: LiveEvent): void {
    if (event.kind === 'new') {
      const since = performance.now() - this.pageMs;
      this.recent = [...this.recent.filter(({ at }) => at > since), { at: performance.now(), topics: event.topics }];
    }
    for (const watcher of this.watchers) watcher(event);
  }
}

export async function tellViewers(world: World, event: LiveEvent): Promise<void> {
  await notifyViewers(world.db, event);
}

/** Changed since the last word, of each database. */
const untold = new WeakMap<World['db'], Set<Topic>>();

/** Names what was changed; open pages hear of it with the next `tellChanged`. */
export function changed(world: Pick<World, 'db'>, ...topics: readonly Topic[]): void {
  const waiting = untold.get(world.db) ?? new Set<Topic>();
  untold.set(world.db, waiting);
  for (const topic of topics) waiting.add(topic);
}

/** One word about everything that was named since the last. It is a courtesy: where it cannot be said, work goes on. */
export async function tellChanged(world: World, ...topics: readonly Topic[]): Promise<void> {
  changed(world, ...topics);
  const waiting = untold.get(world.db);
  if (!waiting || waiting.size === 0) return;
  const word: LiveEvent = { kind: 'new', topics: [...told(waiting)] };
  waiting.clear();
  await tellViewers(world, word).catch((error: unknown) => {
    world.log.warn('open pages could not be told', { error: String(error) });
  });
}
