/**
 * How the reader learns: weights from keyed sites, words for a question from examples, and what that changes on sites read before.
 * Promises: the same examples teach the same; what is learnt never lowers the score of what taught it.
 */
export { answerFrom } from '../answer';
export type { Lexicon } from '../language';
export { formOf, STANDINGS, type Learnt } from '../asked';
export { featuresOf } from '../features';
export { familyOf, sharesOf, type Model, type Weights } from '../model';
export { saidIn, type Said } from '../said';
export { sceneOf } from '../scene';
export { MODEL } from '../weights';
export { fitOf, learn, type Example } from './teach';
export { calibrate, fit, PRIORS, type Case, type Told } from './train';
export { alike, tryOut, type KnownSite, type Outcome, type Place, type Shown, type SiteTried, type Tried } from './tried';
