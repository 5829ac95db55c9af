import { momentOf } from './index';

/** A Monday. */
const NOW = '2026-11-30T10:15';

test.each([
  ['tomorrow 8:30', '2026-12-01T08:30'],
  ['Tomorrow', '2026-12-01T09:00'],
  ['morgen 7.45', '2026-12-01T07:45'],
  ['demain 14:00', '2026-12-01T14:00'],
  ['14:00', '2026-11-30T14:00'],
  ['9:00', '2026-12-01T09:00'],
  ['2 pm', '2026-11-30T14:00'],
  ['12 am', '2026-12-01T00:00'],
  ['today 11:00', '2026-11-30T11:00'],
  ['Monday 9:00', '2026-12-07T09:00'],
  ['mon 10:30', '2026-11-30T10:30'],
  ['Freitag 9:00', '2026-12-04T09:00'],
  ['do 9:00', '2026-12-03T09:00'],
  ['3 Dec 9:00', '2026-12-03T09:00'],
  ['3 December 2026 at 9:00', '2026-12-03T09:00'],
  ['Thu 3 Dec 2026, 9:00', '2026-12-03T09:00'],
  ['2 Jan 9:00', '2027-01-02T09:00'],
  ['24/12 9:00', '2026-12-24T09:00'],
  ['24.12. 9:00', '2026-12-24T09:00'],
  ['24/12/2026 17:30', '2026-12-24T17:30'],
  ['2026-12-24T08:00', '2026-12-24T08:00'],
  ['2026-12-24 08:00', '2026-12-24T08:00'],
])('“%s” is %s', (text, moment) => {
  expect(momentOf(text, NOW)).toBe(moment);
});

test.each(['', 'soon', '25:00', '3 Dec 9:75', '13 pm', '31 Feb 9:00', 'when they ask'])('“%s” names none', (text) => {
  expect(momentOf(text, NOW)).toBeUndefined();
});

test('what it gives it reads again, whatever the moment', () => {
  for (let day = 1; day <= 28; day++) {
    const moment = `2027-0${1 + (day % 9)}-${String(day).padStart(2, '0')}T${String(day % 24).padStart(2, '0')}:05`;
    expect(momentOf(moment, NOW)).toBe(moment);
  }
});
