/**
 * The engine: a trip moves only by `advance(plan, trip, event, now, view)`. Promises: pure and replayable; a trip stops
 * at most once and no line runs after that; whatever it wants done comes back as commands and one request. Refuses: I/O.
 */
export { advance, fieldByHand } from './advance';
export { cameTo, difference, DIFFERENCES, type CameTo, type Difference, type DifferenceKind } from './difference';
export { replay, type Replayed } from './replay';
export type { Readings } from './readings';
export { OUTCOMES, type Outcome } from './outcome';
export { RETRY, type WorkspaceTime } from './run';
export { factsFound, unitOf } from './stated';
export { stuckKey } from './stuck';
export type * from './types';
export { addRun, PLAIN, readDetail, type Details, type RunOf } from './verbs';
