/** Thousands of seeds through a world of crashes, lost words, slow and failing effects and clock jumps. `npm run simulate -- SEED` replays one. */
import { simulate } from '../../testing/simulate';

const SEEDS = 1_000;

test(`${SEEDS} seeds: nothing lost, nothing twice, nothing after a stop, journals whole, budgets kept`, () => {
  const broken: string[] = [];
  let [crashes, delivered, inDoubt] = [0, 0, 0];
  for (let seed = 1; seed <= SEEDS; seed++) {
    const result = simulate(seed);
    if (result.broken) broken.push(`seed ${seed}: ${result.broken}`);
    crashes += result.crashes;
    delivered += result.delivered;
    inDoubt += result.inDoubt;
  }
  expect(broken).toEqual([]);
  expect(crashes).toBeGreaterThan(SEEDS);
  expect(delivered).toBeGreaterThan(SEEDS);
  expect(inDoubt).toBeGreaterThan(10);
});

test('the same seed gives the same run', () => {
  expect(simulate(42)).toEqual(simulate(42));
});
