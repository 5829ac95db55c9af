import type { Topic } from '../../api';

/**
 * One kind of work, going round by itself: while there is work it works, else it rests until it is called or a while has
 * passed. Promises: it waits for no other lane; only one round of it is under way at a time; an error ends a round, not the
 * lane. Refuses: deciding anything - it calls a use case.
 */
export interface LaneWork {
  readonly name: string;
  /** what open pages show of it */
  readonly shows: readonly Topic[];
  /** does what is due and says how much that was */
  readonly work: () => Promise<number>;
}

export class Lane {
  private underWay: Promise<number> = Promise.resolve(0);
  /** there was a word of work since the last rest */
  private called = false;
  private wake: () => void = () => undefined;

  constructor(
    private readonly what: LaneWork,
    private readonly options: {
      readonly idleMs: number;
      readonly broke: (name: string, error: unknown) => void;
      readonly worked: (shows: readonly Topic[]) => void;
    },
  ) {}

  call(): void {
    this.called = true;
    this.wake();
  }

  /** One round of its own, after the one that is under way. Returns how much was done. */
  round(): Promise<number> {
    this.underWay = this.underWay.then(() => this.work());
    return this.underWay;
  }

  /** Goes round until `isGoing` says no; the round in hand is finished. */
  async run(isGoing: () => boolean): Promise<void> {
    while (isGoing()) {
      const done = await this.round();
      if (isGoing() && done === 0) await this.rest();
    }
  }

  private async work(): Promise<number> {
    try {
      const done = await this.what.work();
      if (done > 0) this.options.worked(this.what.shows);
      return done;
    } catch (error) {
      this.options.broke(this.what.name, error);
      return 0;
    }
  }

  /** Words can be lost, and what is due by the clock says none: nobody rests longer than `idleMs`. */
  private async rest(): Promise<void> {
    if (!this.called)
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
}
