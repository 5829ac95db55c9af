import { scalarText, ago, clockText, dayText, dayTimeText, euro, sameDay, tookText } from './format';

const NOW = Date.parse('2026-11-24T10:00:00Z');
const back = (minutes: number): string => ago(NOW - minutes * 60_000, NOW);

test.each([
  [0, 'now'],
  [40, '40 min'],
  [16 * 60, '16 h'],
  [3 * 1440, '3 d'],
  [210 * 1440, '7 mo'],
  [800 * 1440, '2 y'],
])('%d minutes ago is %s', (minutes, words) => {
  expect(back(minutes)).toBe(words);
});

test('a moment that lies ahead is now', () => {
  expect(ago(NOW + 60_000, NOW)).toBe('now');
});

test.each([
  [0, '0.00 €'],
  [20_000, '0.02 €'],
  [1_840_000, '1.84 €'],
])('%d millionths are %s', (micro, words) => {
  expect(euro(micro)).toBe(words);
});

test.each([
  [40, '40 ms'],
  [3100, '3.1 s'],
  [240_000, '4 min'],
])('%d ms took %s', (ms, words) => {
  expect(tookText(ms)).toBe(words);
});

test('times are told in the zone asked for, over the change of clocks too', () => {
  expect(clockText(NOW, 'Europe/London')).toBe('10:00');
  expect(clockText(NOW, 'Europe/Madrid')).toBe('11:00');
  expect(clockText(Date.parse('2026-07-24T10:00:00Z'), 'Europe/London')).toBe('11:00');
  expect(dayText(NOW, 'Europe/London')).toBe('Tue 24 Nov');
  expect(dayTimeText(NOW, 'Asia/Kolkata')).toBe('Tue 24 Nov 15:30');
  expect([sameDay(NOW, NOW + 3_600_000, 'Europe/London'), sameDay(NOW, NOW + 15 * 3_600_000, 'Europe/London')]).toEqual([true, false]);
});

test('a detail with parts is not printed as one', () => {
  expect([scalarText('hot'), scalarText(62), scalarText(false), scalarText(null), scalarText({ a: 1 }), scalarText(['a'])]).toEqual([
    'hot',
    '62',
    'false',
    '',
    '',
    '',
  ]);
});
