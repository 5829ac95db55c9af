import fc from 'fast-check';
import {
  assert as invariant,
  clip,
  durationMs,
  fold,
  never,
  plural,
  printDuration,
  sameRecord,
  stableHash,
  stableId,
  textIn,
  words,
} from './index';

describe('stable ids', () => {
  test('are the same for the same parts, and shaped like a UUID', () => {
    expect(stableId('trip', 'a', 'b')).toBe(stableId('trip', 'a', 'b'));
    expect(stableId('trip', 'a')).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-8[0-9a-f]{3}-a[0-9a-f]{3}-[0-9a-f]{12}$/);
  });

  test('tell parts apart that would read the same when joined', () => {
    expect(stableId('ab', 'c')).not.toBe(stableId('a', 'bc'));
  });

  test('do not collide on many short texts', () => {
    const seen = new Set(Array.from({ length: 50_000 }, (_, i) => stableHash(`row ${i}`)));
    expect(seen.size).toBe(50_000);
  });
});

describe('text', () => {
  test.each([
    ['Gärtnerei Voßbruch', 'gartnerei vossbruch'],
    ['Zielony Dach Łódź', 'zielony dach lodz'],
    ['Nørgård æble', 'norgard aeble'],
    ['ÁLVARO', 'alvaro'],
  ])('fold(%j) compares across keyboards', (text, folded) => {
    expect(fold(text)).toBe(folded);
  });

  test('words are folded and split at anything that is no letter or digit', () => {
    expect(words('4,2 ha – heated glass!')).toEqual(['4', '2', 'ha', 'heated', 'glass']);
  });

  test('clip never exceeds its length and marks what was cut', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 300 }), fc.integer({ min: 2, max: 120 }), (text, length) => {
        const cut = clip(text, length);
        expect(cut.length).toBeLessThanOrEqual(length);
        if (text.length > length) expect(cut.endsWith('…')).toBe(true);
        else expect(cut).toBe(text);
      }),
    );
  });

  test.each([
    [0, '0 trips'],
    [1, '1 trip'],
    [1240, '1,240 trips'],
  ])('plural(%d)', (count, says) => {
    expect(plural(count, 'trip')).toBe(says);
  });

  test('plural takes a form of its own', () => {
    expect(plural(3, 'person', 'people')).toBe('3 people');
  });
});

describe('durations', () => {
  test.each([
    [{ amount: 2, unit: 'minute' as const }, 120_000, '2 minutes'],
    [{ amount: 1, unit: 'hour' as const }, 3_600_000, '1 hour'],
    [{ amount: 3, unit: 'working day' as const }, 259_200_000, '3 working days'],
    [{ amount: 1, unit: 'week' as const }, 604_800_000, '1 week'],
  ])('%j', (duration, ms, says) => {
    expect(durationMs(duration)).toBe(ms);
    expect(printDuration(duration)).toBe(says);
  });
});

describe('ids and invariants', () => {
  test('records are the same by kind and id', () => {
    expect(sameRecord({ kind: 'person', id: '1' }, { kind: 'person', id: '1' })).toBe(true);
    expect(sameRecord({ kind: 'person', id: '1' }, { kind: 'company', id: '1' })).toBe(false);
  });

  test('a broken invariant and an unexpected case throw, and say what', () => {
    expect(() => {
      invariant(false, 'a worker starts once');
    }).toThrow('broken invariant: a worker starts once');
    expect(() => never('x' as never)).toThrow('unexpected case: "x"');
  });

  test('textIn reads only texts', () => {
    expect([textIn('a'), textIn(3), textIn(null), textIn(undefined)]).toEqual(['a', '', '', '']);
  });
});
