/**
 * The ground every other core folder stands on: ids that know their kind, outcomes, the never-check,
 * instants and durations, stable hashing. Promises: pure, no clock, no chance, no environment.
 * Refuses: anything that knows a domain word beyond the kinds of records.
 */
export { assert, never } from './assert';
export type { Brand, CompanyId, DealId, FactId, PersonId, RecordId, RecordKind, RecordRef, TripId } from './ids';
export { shareInterval } from './interval';
export { brandId, RECORD_KINDS, sameRecord } from './ids';
export { shortHash, stableHash, stableId } from './hash';
export type { Duration, DurationUnit, Instant } from './time';
export { DURATION_UNITS, durationMs, isWorkingUnit, printDuration } from './time';
export type { Json, JsonObject } from './json';
export { textIn } from './json';
export { decoderOf } from './decoder';
export type { DeepReadonly } from './readonly';
export { near } from './near';
export { chance, type Chance } from './random';
export { cleanJson, cleanText, cutText, DEEPEST_VALUE, isClean, TooDeep } from './clean';
export { JOB_WORDS } from './job-words';
export { clip, fold, freeName, LONGEST_PIECE, pieces, plural, words } from './text';
