/**
 * The worker: lanes side by side, one per kind of work. Modes: starting → polling → draining → stopped. `stop` moves it to
 * draining, in which every lane finishes what it has in hand and nothing new is claimed.
 * Promises: no lane waits for another, so that one slow site or one long list holds up nothing else.
 * Refuses: deciding anything - it calls use cases.
 */
import type { Topic } from '../../api';
import { assert } from '../../core/base';
import { runChanges } from '../intake/change-intake';
import { walkClock } from '../trips/clock';
import { runClocks } from '../intake/clock-intake';
import { deliverCalls } from '../trips/deliver-calls';
import { makeDossiers } from '../research/dossiers';
import { keepFieldIndexes } from '../records/field-indexes';
import { joinCounts } from '../flows/flows';
import { releaseGathered } from '../trips/gather';
import { decideReplies } from '../messages/holding';
import { forecastImport } from '../intake/import-preview';
import { runImport } from '../intake/imports';
import { changed, tellChanged } from '../platform/live';
import { onWork } from '../platform/on-work';
import { sendDue, settleDoubts } from '../messages/send-due';
import { layOutTasks } from '../messages/tasks';
import { tellWaiting } from '../desk/telling';
import { sweep } from '../workspace/keeping';
import { lookAtDoors } from '../intake/watched';
import type { World } from '../platform/world';
import { Lane, type LaneWork } from './lane';
import { TripsInHand } from './trips-in-hand';

export type WorkerMode = 'starting' | 'polling' | 'draining' | 'stopped';

export interface WorkerOptions {
  readonly holder: string;
  readonly leaseMs: number;
  /** trips claimed at once: large batches amortise the statements; see bench/engine.ts */
  readonly batch: number;
  /** sends or calls at the same time */
  readonly calls: number;
  /** questions of trips to the outside at the same time */
  readonly outside: number;
  readonly idleMs: number;
}

export const WORKER_DEFAULTS = { leaseMs: 60_000, batch: 250, calls: 16, outside: 32, idleMs: 1_000 } as const;

/** Open pages are told of new things at most this often. */
const TELL_EVERY_MS = 1_000;
/** What happens within this time is one word. */
const SOON_MS = 100;
/** What batches have added to the line counts is joined, and indexes are looked after, at most this often. */
const KEEP_HOUSE_EVERY_MS = 20_000;

export class Worker {
  private mode: WorkerMode = 'starting';
  private going: Promise<void> = Promise.resolve();
  private readonly hand: TripsInHand;
  private readonly trips: Lane | undefined;
  private readonly lanes: readonly Lane[];
  private readonly clock: Lane;
  private telling: NodeJS.Timeout | undefined;
  private indexing: Promise<unknown> | undefined;
  private joinedAt = 0;
  private toldAt = 0;

  constructor(
    private readonly world: World,
    options: WorkerOptions,
  ) {
    this.hand = new TripsInHand(world, options, () => {
      this.trips?.call();
    });
    const lane = (what: LaneWork): Lane =>
      new Lane(what, {
        idleMs: options.idleMs,
        broke: (name, error) => {
          this.broke(name, error);
        },
        worked: (shows) => {
          this.tellSoon(shows);
        },
      });
    this.trips = lane({ name: 'trips', shows: ['trips'], work: () => this.hand.round(true) });
    this.lanes = [this.trips, ...this.works(options).map(lane)];
    this.clock = lane({ name: 'clock', shows: ['everything'], work: () => this.walk() });
  }

  get currentMode(): WorkerMode {
    return this.mode;
  }

  private works(ask: WorkerOptions): readonly LaneWork[] {
    const { world } = this;
    return [
      { name: 'lists', shows: ['counts', 'intake', 'records', 'trips', 'duplicates', 'desk'], work: () => runImport(world) },
      { name: 'counts of lists', shows: ['intake'], work: () => forecastImport(world) },
      { name: 'sends', shows: ['messages', 'desk'], work: () => sendDue(world, { ...ask, batch: 20 }) },
      { name: 'tasks', shows: ['messages', 'desk'], work: () => layOutTasks(world) },
      { name: 'telling', shows: [], work: () => tellWaiting(world) },
      { name: 'calls', shows: ['settings', 'desk'], work: () => deliverCalls(world, { ...ask, batch: 50 }) },
      { name: 'answers', shows: ['messages', 'desk'], work: () => decideReplies(world) },
      { name: 'dossiers', shows: ['dossiers', 'desk'], work: () => makeDossiers(world) },
      { name: 'mailboxes and calendars', shows: ['counts', 'intake', 'records', 'messages', 'desk'], work: () => lookAtDoors(world) },
      { name: 'gathered trips', shows: ['trips'], work: () => releaseGathered(world) },
      { name: 'changes', shows: ['trips', 'flows'], work: () => runChanges(world) },
      { name: 'flow clocks', shows: ['trips', 'flows'], work: () => runClocks(world) },
      { name: 'doubts', shows: ['messages', 'desk'], work: () => settleDoubts(world, { ...ask, batch: 20 }) },
      { name: 'housekeeping', shows: [], work: () => this.keepHouse() },
    ];
  }

  start(): void {
    assert(this.mode === 'starting', 'a worker starts once');
    this.mode = 'polling';
    this.going = this.poll();
  }

  /** Finishes what is in hand; resolves when nothing runs any more. */
  async stop(): Promise<void> {
    if (this.mode === 'polling') this.mode = 'draining';
    this.callAll();
    await this.going;
    this.mode = 'stopped';
  }

  /** Works off everything that is due now. */
  async drain(): Promise<number> {
    let total = 0;
    do {
      const done = await this.once();
      total += done;
      if (done === 0 && !(await this.hand.isWaiting())) break;
    } while (this.mode !== 'draining');
    return total;
  }

  /** A round of every lane, side by side, after the rounds under way: how much was done. */
  private async once(): Promise<number> {
    const counts = await Promise.all(this.lanes.map((lane) => lane.round()));
    return counts.reduce((sum, count) => sum + count, 0);
  }

  private async walk(): Promise<number> {
    const walked = await walkClock(
      this.world,
      async () => {
        await this.drain();
      },
      () => this.mode !== 'polling',
    );
    return Number(walked);
  }

  private async poll(): Promise<void> {
    const unlisten = await onWork(this.world, () => {
      this.callAll();
    });
    const isGoing = (): boolean => this.mode === 'polling';
    await Promise.all([...this.lanes, this.clock].map((lane) => lane.run(isGoing)));
    while (await this.hand.isWaiting()) await this.hand.round(false);
    await this.indexing;
    await unlisten();
    if (this.telling !== undefined) await this.tell();
  }

  private callAll(): void {
    for (const lane of [...this.lanes, this.clock]) lane.call();
  }

  /** Not waited for: the database makes an index only when everybody's older work is done. */
  private async keepHouse(): Promise<number> {
    if (performance.now() - this.joinedAt < KEEP_HOUSE_EVERY_MS) return 0;
    this.joinedAt = performance.now();
    await joinCounts(this.world);
    await sweep(this.world);
    if (this.mode === 'polling')
      this.indexing ??= keepFieldIndexes(this.world)
        .catch((error: unknown) => {
          this.broke('indexes of fields', error);
        })
        .finally(() => {
          this.indexing = undefined;
        });
    return 0;
  }

  /** Word to open pages; what happens in the next moment goes with it. A worker that only drains tells nobody. */
  private tellSoon(shows: readonly Topic[]): void {
    changed(this.world, ...shows);
    if (this.mode !== 'polling') return;
    const since = performance.now() - this.toldAt;
    this.telling ??= setTimeout(() => void this.tell(), Math.max(SOON_MS, TELL_EVERY_MS - since));
  }

  private async tell(): Promise<void> {
    clearTimeout(this.telling);
    this.telling = undefined;
    this.toldAt = performance.now();
    await tellChanged(this.world);
  }

  private broke(what: string, error: unknown): void {
    this.world.log.error(`${what} broke`, { error: error instanceof Error ? (error.stack ?? error.message) : String(error) });
  }
}
