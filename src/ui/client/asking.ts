import { concerns, type Topic } from '../../api';

/** What is told together is asked for together. */
const SETTLE_MS = 250;
/** A server that takes its time is asked more rarely: one page takes at most a tenth of it. */
const SHARE = 10;

/** A page is asked for again at most this often, however much happens. */
export const PAGE_EVERY_MS = 2_000;
/** Counts are looked at from the side: now and then is enough. */
export const COUNTS_EVERY_MS = 3_000;
/** What the counts around every page are made of. */
export const COUNTED: readonly Topic[] = ['counts', 'desk', 'intake', 'duplicates', 'messages'];

export interface Asking {
  /** something about these was told */
  readonly heard: (topics: readonly Topic[]) => void;
  /** nothing is asked any more */
  readonly stop: () => void;
}

/**
 * When to ask again for what shows `shown`: soon after something about it was told, at most once every `everyMs`, and never
 * again before the last answer is there. `ask` that fails counts as answered: what stands on the page stays.
 */
export function asking(shown: readonly Topic[], everyMs: number, ask: () => Promise<void> | void): Asking {
  let last = Number.NEGATIVE_INFINITY;
  let took = 0;
  let isAsking = false;
  let waiting: ReturnType<typeof setTimeout> | undefined;
  let again = false;
  const askSoon = (): void => {
    again = isAsking;
    if (isAsking) return;
    waiting ??= setTimeout(() => void askNow(), Math.max(SETTLE_MS, last + Math.max(everyMs, took * SHARE) - performance.now()));
  };
  const askNow = async (): Promise<void> => {
    waiting = undefined;
    isAsking = true;
    last = performance.now();
    try {
      await ask();
    } catch {
      // The next word asks again.
    }
    took = performance.now() - last;
    isAsking = false;
    if (again) askSoon();
  };
  return {
    heard: (topics) => {
      if (concerns(topics, shown)) askSoon();
    },
    stop: () => {
      clearTimeout(waiting);
      isAsking = true;
    },
  };
}
