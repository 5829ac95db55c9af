import fc from 'fast-check';
import { byTrust, chooseCurrent, competing, ownRankOf, SOURCE_KINDS, type Fact, type SourceKind } from './index';

const fact = (more: Partial<Fact>): Fact => ({
  id: '1',
  record: { kind: 'company', id: 'c' },
  field: 'heated_area',
  value: 4.2,
  source: 'site',
  sourceRef: 'oakmere-glass.example',
  confidence: 0.9,
  observedAt: 1000,
  ...more,
});

describe('the trust rule', () => {
  test.each([
    ['by hand beats everything', { source: 'hand', observedAt: 1 }, { source: 'confirmed', observedAt: 9 }],
    ['what was found beats what was told', { source: 'site', observedAt: 1 }, { source: 'file', observedAt: 9 }],
    ['newer beats older among sources of one rank', { source: 'file', observedAt: 9 }, { source: 'crm', observedAt: 1 }],
    ['a doubtful fact gives way to a surer one of lower rank', { source: 'file', confidence: 0.8 }, { source: 'site', confidence: 0.4 }],
    ['any value beats “not found”', { source: 'flow', value: 1 }, { source: 'hand', value: null }],
  ] as const)('%s', (_name, better, worse) => {
    const [a, b] = [fact({ id: 'a', ...better }), fact({ id: 'b', ...worse })];
    expect(chooseCurrent([b, a])).toBe(a);
    expect(chooseCurrent([a, b])).toBe(a);
  });

  test('nothing with a value: nothing is chosen', () => {
    expect(chooseCurrent([fact({ value: null })])).toBeUndefined();
    expect(chooseCurrent([])).toBeUndefined();
  });

  const anyFact = fc.record({
    id: fc.uuid(),
    value: fc.option(fc.integer({ min: 0, max: 5 })),
    source: fc.constantFrom(...SOURCE_KINDS),
    confidence: fc.double({ min: 0, max: 1, noNaN: true }),
    observedAt: fc.integer({ min: 0, max: 10 }),
  });

  test('the choice does not depend on the order of the facts', () => {
    fc.assert(
      fc.property(fc.uniqueArray(anyFact, { selector: (entry) => entry.id, maxLength: 12 }), fc.integer(), (entries, seed) => {
        const facts = entries.map((entry) => fact(entry));
        const shuffled = [...facts].sort((a, b) => ((a.id.charCodeAt(0) * 31 + seed) % 7) - ((b.id.charCodeAt(0) * 31 + seed) % 7));
        expect(chooseCurrent(shuffled)?.id).toBe(chooseCurrent(facts)?.id);
      }),
    );
  });

  test('byTrust is a strict order: the chosen fact comes first', () => {
    fc.assert(
      fc.property(fc.uniqueArray(anyFact, { selector: (entry) => entry.id, minLength: 1, maxLength: 12 }), (entries) => {
        const facts = entries.map((entry) => fact(entry));
        const [first] = [...facts].sort(byTrust);
        if (first?.value !== null) expect(chooseCurrent(facts)?.id).toBe(first?.id);
      }),
    );
  });

  test('competing values are those that say something else, never those that agree', () => {
    const facts = [
      fact({ id: 'a' }),
      fact({ id: 'b', source: 'file', value: 3.8 }),
      fact({ id: 'c', source: 'crm', value: 4.2 }),
      fact({ id: 'd', value: null }),
    ];
    expect(competing(facts).map((entry) => entry.id)).toEqual(['b']);
  });
});

describe('a field’s own order of sources', () => {
  const ranked = (source: SourceKind, order: readonly string[], value: number): Fact => {
    const ownRank = ownRankOf(order, source);
    return fact({ id: source, source, value, ...(ownRank === undefined ? {} : { ownRank }) });
  };
  test('stands right behind people and before all that is not in it', () => {
    const order = ['crm', 'file', 'hand'];
    const facts = [ranked('site', order, 1), ranked('file', order, 2), ranked('crm', order, 3)];
    expect(chooseCurrent(facts)?.value).toBe(3);
    expect(chooseCurrent([...facts, ranked('hand', order, 4)])?.value).toBe(4);
    expect(chooseCurrent([...facts, ranked('confirmed', order, 5)])?.value).toBe(5);
    expect(chooseCurrent(facts.filter(({ source }) => source !== 'crm'))?.value).toBe(2);
  });
  test('of what nobody knows is none', () => {
    expect(ownRankOf(['crystal ball'], 'crm')).toBeUndefined();
    expect(ownRankOf(undefined, 'crm')).toBeUndefined();
    expect(ownRankOf(['hand'], 'hand')).toBeUndefined();
  });
});
