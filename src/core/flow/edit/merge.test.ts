import fc from 'fast-check';
import { mergeTexts } from './index';

const BASE = ['take in from file "a"', 'keep when email != null', 'score company with "x" as fit', 'note "done"'].join('\n');
const swap = (row: number, words: string): string =>
  BASE.split('\n')
    .map((text, i) => (i === row ? words : text))
    .join('\n');

describe('two drafts that began as one', () => {
  test('keep what each side changed in rows of its own, also in neighbouring ones', () => {
    expect(mergeTexts(BASE, swap(1, 'keep when phone != null'), swap(2, 'score company with "y" as fit'))).toBe(
      swap(1, 'keep when phone != null').replace('"x"', '"y"'),
    );
  });

  test('keep what both put in at one place: mine first', () => {
    expect(mergeTexts(BASE, `${BASE}\nwait 1 day`, `${BASE}\nstop "later"`)).toBe(`${BASE}\nwait 1 day\nstop "later"`);
  });

  test('take a change both made once', () => {
    expect(mergeTexts(BASE, swap(3, 'note "x"'), swap(3, 'note "x"'))).toBe(swap(3, 'note "x"'));
  });

  test('are left to a person where both changed one row in two ways, or one took away what the other changed', () => {
    expect(mergeTexts(BASE, swap(3, 'note "mine"'), swap(3, 'note "theirs"'))).toBeUndefined();
    expect(mergeTexts(BASE, BASE.split('\n').slice(0, 3).join('\n'), swap(3, 'note "theirs"'))).toBeUndefined();
  });

  const rows = fc.array(fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f'), { maxLength: 8 }).map((list) => list.join('\n'));
  test('with one side unchanged are the other side', () => {
    fc.assert(
      fc.property(rows, rows, (base, other) => {
        expect(mergeTexts(base, base, other)).toBe(other);
        expect(mergeTexts(base, other, base)).toBe(other);
      }),
    );
  });

  test('changed in different rows give the same text from either side, with both changes in it', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 12 }), fc.nat(), fc.nat(), (size, i, j) => {
        fc.pre(i % size !== j % size);
        const base = Array.from({ length: size }, (_, n) => `row ${n}`);
        const mine = base.map((row, n) => (n === i % size ? 'mine' : row)).join('\n');
        const theirs = base.map((row, n) => (n === j % size ? 'theirs' : row)).join('\n');
        const merged = mergeTexts(base.join('\n'), mine, theirs);
        expect(merged).toBe(mergeTexts(base.join('\n'), theirs, mine));
        expect(merged?.split('\n')[i % size]).toBe('mine');
        expect(merged?.split('\n')[j % size]).toBe('theirs');
      }),
    );
  });
});
