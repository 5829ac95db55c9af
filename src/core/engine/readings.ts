import type { Answer, JournalEntry } from './types';

/** What was found out on an earlier trip, to be answered with again. */
export interface Readings {
  /** detail of each journal line by its verb, in the order they were written */
  readonly journal: readonly Pick<JournalEntry, 'verb' | 'detail' | 'costMicro'>[];
  readonly compose: Extract<Answer, { kind: 'compose' }>;
}
