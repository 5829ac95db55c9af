/**
 * Messages: fixed text with slots, one personal line that rests on a fact, and the checks a message must pass before it
 * can leave. Promises: the personal line says only what a fact says. Refuses: sending, and any text without a template.
 */
export {
  CHANNELS,
  channelOf,
  countedChannels,
  HAND_CHANNELS,
  isByHand,
  NO_WAY,
  reachOf,
  USUAL_LENGTH,
  type Channel,
  type HandChannel,
} from './channels';
export {
  planSchema,
  templateSchema,
  textsOf,
  type FollowUpPlan,
  type LinePattern,
  type MessageTemplate,
  type Touch,
  type Wording,
} from './template';
export { composeMessage, fillSlots, slotsIn, type Composed, type UsedFact } from './compose';
export { BETTER_AT, compared, LEAST_READERS, type Comparison } from './compared';
export { ARMS, inWordsOf, pairsOf, wordingFor, type Chosen, type Tried } from './wordings';
export { neverSaidIn } from './never-said';
export type { ComposeInput } from './input';
export { personalLine, type LineFact, type PersonalLine } from './personal';
export { checkMessage, type MessageCheck } from './checks';
