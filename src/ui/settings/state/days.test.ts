import { longDay, readSpans, writeSpans } from './days';

test('a day is said in full, and what is no day is nothing', () => {
  expect(longDay('2026-12-25')).toBe('Fri 25 Dec 2026');
  for (const none of ['', '2026-02-30', '25.12.2026', '2026-13-01']) expect(longDay(none)).toBe('');
});

test('spans of days are read as they are written, and there and back', () => {
  expect(readSpans('2026-12-03 to 2026-12-07, 2026-12-20')).toEqual([
    { from: '2026-12-03', to: '2026-12-07' },
    { from: '2026-12-20', to: '2026-12-20' },
  ]);
  expect(readSpans('')).toEqual([]);
  expect(readSpans('2026-12-07 to 2026-12-03')).toBeUndefined();
  expect(readSpans('tomorrow')).toBeUndefined();
  const text = '2026-12-03 to 2026-12-07, 2026-12-20';
  expect(writeSpans(readSpans(text) ?? [])).toBe(text);
});
