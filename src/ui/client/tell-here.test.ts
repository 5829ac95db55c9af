import { waitingWords } from './tell-here';

test.each([
  [3, 3, undefined],
  [3, 2, undefined],
  [0, 1, '1 thing waits on your desk'],
  [2, 5, '5 things wait on your desk, 3 of them new'],
])('from %d to %d: %s', (before, now, words) => {
  expect(waitingWords(before, now)).toBe(words);
});
