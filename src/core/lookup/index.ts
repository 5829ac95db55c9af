/**
 * Lookup chains: providers asked in order for one field, a usability check after each, the price counted. Promises: the
 * next provider is asked only when the answer before it is not usable. Refuses: calling anyone - it decides, others ask.
 */
export { chainSchema, nextProvider, usable, type Asked, type LookupChain, type UsabilityInput } from './chain';
export { NEARLY_SPENT } from './budget';
export { beginning, cameBack, nextCall, progressSchema, type Came, type Progress, type Question } from './asking';
export { readOpenApi, type OpenApiCall, type OpenApiReading } from './openapi';
export { atPointer, inList, placesIn, textAt, WHOLE, type Place } from './pointer';
export {
  answerIn,
  callFor,
  doorOf,
  entriesIn,
  isPointedAt,
  lookupValues,
  providerProblems,
  providerSchema,
  searchValues,
  slotsOf,
  type LookupQuestion,
  type Provider,
  type ProviderCall,
  type ProviderProblem,
  type SearchQuestion,
  type SlotValues,
} from './provider';
