/**
 * Whether one of two wordings is better, however often somebody looks: a sequential test. It multiplies evidence over pairs of
 * readers, one of each wording, and says “better” only where chance would do so in no more than one trial of twenty, whenever it
 * is looked at (Turner, Ly, Grünwald: Generic E-variables for exact sequential k-sample tests that allow for optional stopping, 2024;
 * Ville's inequality).
 */
import { shareInterval } from '../base';

/** Evidence from which on it is said: chance gives as much in one trial of twenty at most. */
export const BETTER_AT = 20;
/** Readers of each wording before anything is said. */
export const LEAST_READERS = 20;
/** What is thought of a share before anything is known: the Beta prior of the authors. */
const PRIOR = 0.18;

export interface Arm {
  readonly readers: number;
  readonly good: number;
  /** between what shares the true one lies, nineteen times in twenty */
  readonly range: readonly [from: number, to: number];
}
export interface Comparison {
  readonly usual: Arm;
  readonly tried: Arm;
  /** the most that the evidence has been */
  readonly evidence: number;
  readonly verdict: 'too few' | 'open' | 'usual' | 'tried';
}

/** Outcomes of the readers of two wordings, each in the order in which they were written to. */
export function compared(usual: readonly boolean[], tried: readonly boolean[]): Comparison {
  const pairs = Math.min(usual.length, tried.length);
  let [log, most, winner] = [0, 0, 'open' as Comparison['verdict']];
  let [goodUsual, goodTried] = [0, 0];
  for (let seen = 0; seen < pairs; seen += 1) {
    // What was seen before this pair says what is thought of it: that keeps the product a fair bet.
    const [a, b] = [(goodUsual + PRIOR) / (seen + 2 * PRIOR), (goodTried + PRIOR) / (seen + 2 * PRIOR)];
    const same = (a + b) / 2;
    const [x, y] = [usual[seen] === true, tried[seen] === true];
    log += Math.log(chance(a, x)) + Math.log(chance(b, y)) - Math.log(chance(same, x)) - Math.log(chance(same, y));
    goodUsual += x ? 1 : 0;
    goodTried += y ? 1 : 0;
    most = Math.max(most, log);
    if (winner === 'open' && seen + 1 >= LEAST_READERS && log >= Math.log(BETTER_AT)) winner = goodTried > goodUsual ? 'tried' : 'usual';
  }
  return {
    usual: armOf(usual),
    tried: armOf(tried),
    evidence: Math.exp(most),
    verdict: pairs < LEAST_READERS ? 'too few' : winner,
  };
}
const chance = (share: number, is: boolean): number => (is ? share : 1 - share);
const armOf = (outcomes: readonly boolean[]): Arm => {
  const good = outcomes.filter(Boolean).length;
  return { readers: outcomes.length, good, range: shareInterval(good, outcomes.length) };
};
