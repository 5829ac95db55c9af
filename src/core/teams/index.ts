/** Teams that take turns. Promises: a turn is never given to who is away; weights are kept over every round. Refuses: storing. */
export { askedOf, type AskedOf, type Colleague } from './asked';
export { roundOf, turnAfter, type Member, type Turn } from './turns';
export { sayWaiting, type Fresh } from './waiting';
