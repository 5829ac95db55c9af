/**
 * Named things by themselves: what is wrong with one, what it says of the business, what a new one begins with, and a new name
 * in the flows that speak of it. Promises: a thing without errors does in a flow what it says. Refuses: keeping anything.
 */
export { beginningOf } from './beginning';
export { namedIn, renamedIn, stagesRenamedIn } from './names';
export { problemsOf, type ThingProblem } from './problems';
export { isThingKind, THING_KINDS, thingBody, type Thing, type ThingBody, type ThingKind } from './thing';
