/** Two wordings tried against each other: chance is not called better however often somebody looks, and what is better is found. */
import { chance } from '../base';
import { BETTER_AT, compared, LEAST_READERS } from './compared';

const trial = (seed: number, readers: number, usual: number, tried: number) => {
  const source = chance(seed);
  const roll = (): number => source.next();
  const outcomes = Array.from({ length: readers }, () => [roll() < usual, roll() < tried] as const);
  return compared(
    outcomes.map(([x]) => x),
    outcomes.map(([, y]) => y),
  );
};

test.each([0.02, 0.1, 0.4])(
  'of 400 trials of wordings that are alike (%d), looked at after every reader, hardly any calls one better',
  (share) => {
    const wrong = Array.from({ length: 400 }, (_, seed) => trial(seed + 1, 500, share, share)).filter(
      ({ verdict }) => verdict === 'usual' || verdict === 'tried',
    );
    expect(wrong.length).toBeLessThanOrEqual(400 * 0.05);
  },
);

test('what is truly better is found, and the better one is named', () => {
  const found = Array.from({ length: 100 }, (_, seed) => trial(seed + 1, 400, 0.1, 0.3));
  expect(found.filter(({ verdict }) => verdict === 'tried').length).toBeGreaterThan(95);
  expect(found.filter(({ verdict }) => verdict === 'usual')).toHaveLength(0);
  expect(trial(7, 400, 0.3, 0.1).verdict).toBe('usual');
});

test('before enough readers nothing is said, however clear it looks', () => {
  const all = (n: number, is: boolean): boolean[] => Array.from({ length: n }, () => is);
  const few = compared(all(LEAST_READERS - 1, false), all(LEAST_READERS - 1, true));
  expect(few.verdict).toBe('too few');
  expect(few.evidence).toBeGreaterThan(BETTER_AT);
  expect(compared(all(LEAST_READERS, false), all(LEAST_READERS, true)).verdict).toBe('tried');
  expect(compared([], [])).toMatchObject({ verdict: 'too few', evidence: 1, usual: { readers: 0, good: 0 } });
});

test('readers beyond the last pair are counted in the shares, and add no evidence', () => {
  const [a, b] = [Array.from({ length: 60 }, (_, i) => i % 3 === 0), Array.from({ length: 30 }, (_, i) => i % 3 === 0)];
  expect(compared(a, b)).toMatchObject({ verdict: 'open', usual: { readers: 60, good: 20 }, tried: { readers: 30, good: 10 } });
  expect(compared(a, b).evidence).toBe(compared(a.slice(0, 30), b).evidence);
});
