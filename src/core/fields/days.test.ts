import fc from 'fast-check';
import { dayOf, orderOf } from './days';

test.each([
  ['2026-11-24', '2026-11-24'],
  ['2026/11/4', '2026-11-04'],
  ['20261124', '2026-11-24'],
  ['24.11.2026', '2026-11-24'],
  ['4/3/26', '2026-03-04'],
  ['24-11-98', '1998-11-24'],
  ['11/24/2026', '2026-11-24'],
  ['24 November 2026', '2026-11-24'],
  ['November 24, 2026', '2026-11-24'],
  ['1st March 2027', '2027-03-01'],
  ['1. März 2027', '2027-03-01'],
  ['1er mars 2027', '2027-03-01'],
  ['1 de marzo de 2027', '2027-03-01'],
  ['3 mrt. 2027', '2027-03-03'],
  ['24-Nov-26', '2026-11-24'],
  ['Tue, 24 Nov 2026 10:15', '2026-11-24'],
  ['24.11.2026 09:30:00', '2026-11-24'],
  ['2026-11-24T10:00:00Z', '2026-11-24'],
  ['46350', '2026-11-24'],
])('%s is %s', (text, day) => {
  expect(dayOf(text)).toBe(day);
});

test.each(['', 'soon', '31.02.2026', '12', '10.30', '1234567', '24.13.2026', 'March', '0'])('%s is no day', (text) => {
  expect(dayOf(text)).toBeUndefined();
});

test('which number is the day is told by the column, else it is the first', () => {
  expect(orderOf(['03/04/2026', '03/25/2026'])).toBe('month first');
  expect(orderOf(['03/04/2026', '25/03/2026'])).toBe('day first');
  expect(orderOf(['03/04/2026', '', 'x'])).toBeUndefined();
  expect([dayOf('03/04/2026'), dayOf('03/04/2026', 'month first')]).toEqual(['2026-04-03', '2026-03-04']);
});

test('every day is read back from each way of writing it', () => {
  const two = (n: number): string => String(n).padStart(2, '0');
  fc.assert(
    fc.property(fc.date({ min: new Date('1950-01-01'), max: new Date('2090-01-01'), noInvalidDate: true }), (date) => {
      const [y, m, d] = [date.getUTCFullYear(), date.getUTCMonth() + 1, date.getUTCDate()];
      const iso = `${y}-${two(m)}-${two(d)}`;
      const serial = Math.round((Date.UTC(y, m - 1, d) - Date.UTC(1899, 11, 30)) / 86_400_000);
      for (const text of [iso, `${d}.${m}.${y}`, `${two(d)}/${two(m)}/${y}`, `${y}${two(m)}${two(d)}`, String(serial)])
        expect(dayOf(text)).toBe(iso);
      for (const language of ['en-GB', 'de', 'nl', 'fr', 'es', 'it'])
        expect([
          language,
          dayOf(new Intl.DateTimeFormat(language, { dateStyle: 'long', timeZone: 'UTC' }).format(Date.UTC(y, m - 1, d))),
        ]).toEqual([language, iso]);
      expect(dayOf(`${m}/${d}/${y}`, 'month first')).toBe(iso);
    }),
  );
});
