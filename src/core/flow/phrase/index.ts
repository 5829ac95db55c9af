/**
 * Looser phrases, turned into flow text before they are accepted. Promises: what it gives is canonical text that parses;
 * ambiguous phrases give every reading; what may not be done is refused with its reason. Refuses: guessing in silence.
 */
export { readCondition as readLoosely, type ConditionReadings } from '../parts/conditions';
export { readPhrase, type PhraseReading } from './phrase';
