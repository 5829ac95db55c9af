/**
 * The trips a worker has in hand. Promises: those whose lines ask for nothing slow never wait for those that do; the number in
 * hand is bounded; a lease is renewed while an answer is waited for, and a trip whose lease was lost is dropped unsaved.
 */
import pLimit from 'p-limit';
import type { RecordView, Request, WorkspaceTime } from '../../core/engine';
import {
  beginBeside,
  claimGoing,
  moveAll,
  outcomeOf,
  renewGoing,
  viewOf,
  viewsFor,
  type Going,
  type WorkerAsk,
} from '../trips/advance-trips';
import { workspace, type World } from '../platform/world';

export interface HandAsk extends WorkerAsk {
  /** questions to the outside at the same time */
  readonly outside: number;
}

/** So long a batch waits for its answers; what comes later goes on by itself. */
const MOMENT_MS = 200;
/** Batches in hand at most, those that wait for the outside counted. */
const BATCHES = 4;

/** A trip whose question is out. */
interface Asking {
  readonly entry: Going;
  readonly answered: Promise<void>;
}

const nameOf = ({ trip }: Going, request: Request): string => `${trip.id} ${JSON.stringify(request)}`;

export class TripsInHand {
  /** in the order in which they were asked */
  private readonly asking = new Map<string, Asking>();
  /** what lines below the present ones will ask and is under way, by its name */
  private readonly begun = new Map<string, Promise<void>>();
  private renewedAt = performance.now();
  private readonly limit;

  constructor(
    private readonly world: World,
    private readonly ask: HandAsk,
    /** called when an answer has come */
    private readonly onAnswer: () => void,
  ) {
    this.limit = pLimit(ask.outside);
  }

  /** Whether an answer is waited for; comes back when there is one, or after a moment. */
  async isWaiting(): Promise<boolean> {
    const waiting = [...this.asking.values()];
    await this.moment(waiting);
    return waiting.length > 0;
  }

  /**
   * Takes due trips (unless `claims` is false) and moves all in hand as far as they go: load together, decide each in core,
   * save together, ask, and round again. Returns how many were taken or went on.
   */
  async round(claims: boolean): Promise<number> {
    const now = await this.world.clock.now();
    await this.renew();
    const room = Math.min(this.ask.batch, BATCHES * this.ask.batch - this.asking.size);
    const begun = [...(claims && room > 0 ? await claimGoing(this.world, this.ask, room, now) : []), ...this.answered()];
    if (begun.length === 0) return 0;
    const space = await workspace(this.world.db);
    const time: WorkspaceTime = { zone: space.zone, daysOff: new Set(space.daysOff) };
    for (let going = begun; going.length > 0;) {
      const views = await viewsFor(this.world.db, going, now, time.zone);
      const moved = await moveAll(this.world, this.ask, { now, time }, going, views);
      await this.moment(moved.flatMap((entry) => this.put(entry, views) ?? []));
      going = [...moved.filter((entry) => entry.request === undefined), ...this.answered()];
      await this.renew();
    }
    return begun.length;
  }

  private put(entry: Going, views: Awaited<ReturnType<typeof viewsFor>>): Asking | undefined {
    const view = viewOf(views, entry);
    const { request } = entry;
    if (request === undefined || view === undefined) return undefined;
    const ask = (): Promise<void> =>
      this.limit(async () => {
        entry.next = await outcomeOf(this.world, entry, view, request);
        this.onAnswer();
      });
    // It may have been begun beside a line above; in most flows nothing ever is.
    const begun = this.begun.size === 0 ? undefined : this.begun.get(nameOf(entry, request));
    const answered = begun === undefined ? ask() : begun.then(ask);
    for (const beside of entry.beside) this.begin(entry, view, beside);
    const asking = { entry, answered };
    this.asking.set(entry.trip.id, asking);
    return asking;
  }

  /** Begins what a line below will ask; once, as long as it is under way. */
  private begin(entry: Going, view: RecordView, request: Request): void {
    const name = nameOf(entry, request);
    if (entry.begun.has(name) || this.begun.has(name)) return;
    entry.begun.add(name);
    const begun = this.limit(() => beginBeside(this.world, entry, view, request));
    this.begun.set(name, begun);
    void begun.finally(() => this.begun.delete(name));
  }

  /** Waits until all of these have their answers, but not longer than a moment. */
  private async moment(asked: readonly Asking[]): Promise<void> {
    if (asked.length === 0) return;
    let timer: NodeJS.Timeout | undefined;
    const enough = new Promise<void>((resolve) => {
      timer = setTimeout(resolve, MOMENT_MS);
    });
    await Promise.race([Promise.all(asked.map((one) => one.answered)), enough]);
    clearTimeout(timer);
  }

  private answered(): Going[] {
    const done = [...this.asking.values()].flatMap(({ entry }) => (entry.next === undefined ? [] : [entry]));
    for (const entry of done) this.asking.delete(entry.trip.id);
    return done;
  }

  /** Keeps the leases of those that wait; one that was lost is somebody else’s by now. */
  private async renew(): Promise<void> {
    if (this.asking.size === 0 || performance.now() - this.renewedAt < this.ask.leaseMs / 3) return;
    this.renewedAt = performance.now();
    const held = [...this.asking.values()].map(({ entry }) => entry);
    const ours = await renewGoing(this.world, held, this.ask);
    for (const { trip } of held)
      if (!ours.has(trip.id)) {
        this.world.log.warn('lease lost', { trip: trip.id });
        this.asking.delete(trip.id);
      }
  }
}
