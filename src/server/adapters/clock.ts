import type { Clock } from '../ports';

/** The real clock, moved on by what the demo's clock has been moved on; `offset` reads that from the database. */
export function movableClock(offset: () => Promise<number>): Clock {
  return { now: async () => Date.now() + (await offset()) };
}

/** The clock of the process: outside the demo nothing moves it, and nobody is asked what time it is. */
export const realClock: Clock = { now: () => Promise.resolve(Date.now()) };
