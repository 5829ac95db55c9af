/**
 * What is known and where it came from. A value gets on a record only as a fact: value, source, quote,
 * confidence, time. The current value of a field is chosen from its facts by one trust rule; the others stay.
 * Promises: choosing is a pure function of the facts, whatever their order. Refuses: a value without a source.
 */
export type { Fact, FactDraft, SourceKind } from './fact';
export { SOURCE_KINDS, SOURCE_LABELS } from './fact';
export { byTrust, chooseCurrent, competing, ORDERABLE, ownRankOf } from './trust';
export { KEPT, KEPT_KINDS, USUAL_KEEPING, type Kept, type Keeping } from './keeping';
