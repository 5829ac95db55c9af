/**
 * Lookup chains: providers asked in order for one field, a usability check after each, the price counted. Promises: the
 * next provider is asked only when the answer before it is not usable. Refuses: calling anyone - it decides, others ask.
 */
export { chainSchema, nextProvider, usable, type Asked, type LookupChain, type UsabilityInput } from './chain';
export {
  answerIn,
  atPointer,
  callFor,
  placesIn,
  providerProblems,
  providerSchema,
  SLOTS,
  type LookupQuestion,
  type Provider,
  type ProviderCall,
} from './provider';
