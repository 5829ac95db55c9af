import { parseFlow, printFlow } from '../../../core/flow/syntax';
import { deedsFor, type Deeds } from './deeds';

const text = printFlow(
  parseFlow('flow "D"\nabout person\n\ntake in from hand\nsplit\n  when email != null\n    note "a"\n    note "b"\nnote "below"\n').tree,
  { marks: true },
);
const markOf = (words: string): string => new RegExp(`${words}.* #(\\w+)`).exec(text)?.[1] ?? '';
const possible = (deeds: Deeds): string[] => Object.entries(deeds).flatMap(([name, next]) => (next === undefined ? [] : [name]));

describe('what can be done with a line', () => {
  test.each([
    ['take in', ['down', 'flip', 'remove']],
    ['note "a"', ['down', 'out', 'flip', 'remove']],
    ['note "b"', ['up', 'out', 'flip', 'remove']],
    ['note "below"', ['up', 'into', 'flip', 'remove']],
  ])('%s: only what changes something', (words, expected) => {
    expect(possible(deedsFor(text, markOf(words)))).toEqual(expected);
  });

  test('without a line nothing', () => {
    expect(possible(deedsFor(text, undefined))).toEqual([]);
    expect(possible(deedsFor(text, 'nobody'))).toEqual([]);
  });
});
