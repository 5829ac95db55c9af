/** Teams that take turns. Promises: a turn is never given to who is away; weights are kept over every round. Refuses: storing. */
export { roundOf, turnAfter, type Member, type Turn } from './turns';
