/**
 * The gaps of the first day's letter, as people fill them: a place, the stages of a deal, what is to be known of a company, what a
 * good one is. Promises: what is typed is understood as something that can be kept, or a sentence says what is missing. Refuses:
 * keeping anything.
 */
export { GAPS, type Gap } from './gaps';
export { readAsked, type Asked, type AskedReading } from './asked';
export { addCriterion, GOOD_CARD, readGood, type GoodReading } from './good';
export { readPlace, zonesOf, type PlaceReading } from './place';
export { readSells, sellsText, type Sells } from './sells';
export { readStages, type StagesReading } from './stages';
