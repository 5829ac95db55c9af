import { amountIn, microOf, moved, timesIn } from './chain';

test('amounts are read with a point or a comma; what is none is nothing', () => {
  expect(['0.02', '0,02', ' 1 ', '', 'x', '-1', '0'].map(microOf)).toEqual([20_000, 20_000, 1_000_000, undefined, undefined, undefined, 0]);
  expect(['30', '1,5', '', '0', 'many'].map(amountIn)).toEqual([30, 1.5, undefined, undefined, undefined]);
  expect(['2', '0,2', '900', '', 'two'].map(timesIn)).toEqual([2, 1, 64, undefined, undefined]);
});
test('an entry goes a place up or down, and no further than the ends', () => {
  expect(moved(['a', 'b', 'c'], 0, 1)).toEqual(['b', 'a', 'c']);
  expect(moved(['a', 'b', 'c'], 2, -1)).toEqual(['a', 'c', 'b']);
  expect(moved(['a', 'b'], 1, 1)).toEqual(['a', 'b']);
});
