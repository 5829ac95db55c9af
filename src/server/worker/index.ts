/**
 * The worker's loop. Modes: starting → polling → draining → stopped. It polls while there is work, then rests until the
 * database says that there is some, or a second has passed; `stop` moves it to draining, in which the batch in hand is
 * finished and nothing new is claimed.
 * Promises: an error in one kind of work never stops the others. Refuses: deciding anything - it calls use cases.
 */
import { assert } from '../../core/base';
import { advanceTrips } from '../usecases/advance-trips';
import { walkClock } from '../usecases/clock';
import { runChanges } from '../usecases/change-intake';
import { runClocks } from '../usecases/clock-intake';
import { joinCounts } from '../usecases/flows';
import { deliverCalls } from '../usecases/deliver-calls';
import { makeDossiers } from '../usecases/dossiers';
import { releaseGathered } from '../usecases/gather';
import { keepFieldIndexes } from '../usecases/field-indexes';
import { forecastImport } from '../usecases/import-preview';
import { runImport } from '../usecases/imports';
import { sendDue, settleDoubts } from '../usecases/send-due';
import { tellViewers } from '../usecases/live';
import { onWork } from '../usecases/on-work';
import { lookAtDoors } from '../usecases/watched';
import type { World } from '../usecases/world';

export type WorkerMode = 'starting' | 'polling' | 'draining' | 'stopped';

export interface WorkerOptions {
  readonly holder: string;
  readonly leaseMs: number;
  /** trips claimed at once: large batches amortise the statements; see bench/engine.ts */
  readonly batch: number;
  /** outside calls at the same time */
  readonly calls: number;
  readonly idleMs: number;
}

export const WORKER_DEFAULTS = { leaseMs: 60_000, batch: 250, calls: 16, idleMs: 1_000 } as const;

/** Open pages are told of new things at most this often. */
const TELL_EVERY_MS = 1_000;
/** What batches have added to the line counts is joined at most this often. */
const JOIN_EVERY_MS = 20_000;

export class Worker {
  private mode: WorkerMode = 'starting';
  private loop: Promise<void> = Promise.resolve();
  /** there was a word of work since the last rest */
  private called = false;
  private wake: () => void = () => undefined;
  /** what open pages have not been told of yet */
  private indexing: Promise<number> | undefined;
  private untold = false;
  private toldAt = 0;
  private joinedAt = 0;

  constructor(
    private readonly world: World,
    private readonly options: WorkerOptions,
  ) {}

  get currentMode(): WorkerMode {
    return this.mode;
  }

  start(): void {
    assert(this.mode === 'starting', 'a worker starts once');
    this.mode = 'polling';
    this.loop = this.poll();
  }

  /** Finishes what is in hand; resolves when nothing runs any more. */
  async stop(): Promise<void> {
    if (this.mode === 'polling') this.mode = 'draining';
    this.wake();
    await this.loop;
    this.mode = 'stopped';
  }

  /** Works off everything that is due now. */
  async drain(): Promise<number> {
    let total = 0;
    for (let done = await this.once(); done > 0 && this.mode !== 'draining'; done = await this.once()) total += done;
    return total;
  }

  private async once(): Promise<number> {
    const ask = this.options;
    const counts = await Promise.all([
      this.guarded('lists', () => runImport(this.world)),
      this.guarded('counts of lists', () => forecastImport(this.world)),
      this.guarded('trips', () => advanceTrips(this.world, ask)),
      this.guarded('sends', () => sendDue(this.world, { ...ask, batch: 20 })),
      this.guarded('calls', () => deliverCalls(this.world, { ...ask, batch: 50 })),
      this.guarded('dossiers', () => makeDossiers(this.world)),
      this.guarded('mailboxes and calendars', () => lookAtDoors(this.world)),
      this.guarded('gathered trips', () => releaseGathered(this.world)),
      this.guarded('changes', () => runChanges(this.world)),
      this.guarded('flow clocks', () => runClocks(this.world)),
      this.guarded('doubts', () => settleDoubts(this.world, { ...ask, batch: 20 })),
    ]);
    if (performance.now() - this.joinedAt >= JOIN_EVERY_MS) await this.join();
    const done = counts.reduce((sum, count) => sum + count, 0);
    this.untold ||= done > 0;
    if (this.untold && performance.now() - this.toldAt >= TELL_EVERY_MS) await this.tell();
    return done;
  }

  private async tell(): Promise<void> {
    this.untold = false;
    this.toldAt = performance.now();
    await this.guarded('word to open pages', async () => {
      await tellViewers(this.world, { kind: 'work' });
      return 0;
    });
  }

  private async join(): Promise<void> {
    this.joinedAt = performance.now();
    await this.guarded('line counts', async () => {
      await joinCounts(this.world);
      return 0;
    });
    // Not waited for: the database makes an index only when everybody's older work is done.
    if (this.mode === 'polling')
      this.indexing ??= this.guarded('indexes of fields', () => keepFieldIndexes(this.world)).finally(() => {
        this.indexing = undefined;
      });
  }

  private async guarded(what: string, work: () => Promise<number>): Promise<number> {
    try {
      return await work();
    } catch (error) {
      this.world.log.error(`${what} broke`, { error: error instanceof Error ? (error.stack ?? error.message) : String(error) });
      return 0;
    }
  }

  /** Until there is a word of work, or for `idleMs`: words can be lost, and what is due by the clock says none. */
  private async rest(): Promise<void> {
    if (!this.called && this.mode === 'polling')
      await new Promise<void>((resolve) => {
        const timer = setTimeout(resolve, this.options.idleMs);
        this.wake = () => {
          clearTimeout(timer);
          resolve();
        };
      });
    this.called = false;
    this.wake = () => undefined;
  }

  private async poll(): Promise<void> {
    const unlisten = await onWork(this.world, () => {
      this.called = true;
      this.wake();
    });
    await this.run();
    await unlisten();
  }

  private async run(): Promise<void> {
    while (this.mode === 'polling') {
      const done = await this.once();
      if (this.mode !== 'polling') break;
      const walked = await this.guarded('clock', async () =>
        Number(
          await walkClock(
            this.world,
            async () => {
              await this.drain();
            },
            () => this.mode !== 'polling',
          ),
        ),
      );
      if (done > 0 || walked > 0) continue;
      if (this.untold) await this.tell();
      await this.rest();
    }
  }
}
