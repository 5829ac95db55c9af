import fc from 'fast-check';
import { convert, leadingUnit, unitOf, UNITS } from './index';

test('every unit goes by its sign, its UCUM code and its names', () => {
  for (const unit of UNITS) {
    expect(unitOf(unit.ucum)).toBe(unit);
    for (const name of unit.names) expect(unitOf(name.replace('*', ''))?.kind).toBe(unit.kind);
  }
  expect(unitOf('horses')).toBeUndefined();
  expect(unitOf('Quadratmetern')?.sign).toBe('m²');
  expect(unitOf('square metres')?.sign).toBe('m²');
});

test('there and back is the same', () => {
  const any = fc.constantFrom(...UNITS);
  fc.assert(
    fc.property(any, any, fc.double({ min: 1e-6, max: 1e9, noNaN: true }), (from, to, value) => {
      const told = convert(value, from, to);
      if (from.kind !== to.kind) return told === undefined;
      const back = convert(told ?? Number.NaN, to, from);
      return back !== undefined && Math.abs(back - value) <= Math.abs(value) * 1e-9;
    }),
  );
});

test.each([
  [1, 'ha', 'm²', 10_000],
  [1, 'acre', 'ha', 0.40468564224],
  [2204.6226218, 'lb', 't', 1],
  [3, 't', 'kg', 3000],
  [1, 'hl', 'm³', 0.1],
  [90, 'min', 'h', 1.5],
])('%d %s in %s is %d', (value, from, to, told) => {
  expect(convert(value, unitOf(from)!, unitOf(to)!)).toBeCloseTo(told, 9);
});

test.each([
  [' m² of floor', 'area', 'm²'],
  ['ha', 'area', 'ha'],
  [' hectares and a half', 'area', 'ha'],
  [' metres', 'area', undefined],
  [' tonnes a week', 'mass', 't'],
  [' kilos', 'mass', 'kg'],
  [' most of it', 'length', undefined],
] as const)('“%s” begins with a unit of %s: %s', (text, kind, sign) => {
  expect(leadingUnit(text, kind)?.unit.sign).toBe(sign);
});
