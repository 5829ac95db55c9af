import fc from 'fast-check';
import {
  addWorkingDays,
  dayKey,
  isWorkingDay,
  limitOn,
  nextOfMany,
  nextSlot,
  SLOT_MS,
  workingDaysFrom,
  zoneOf,
  type SlotBook,
  type WorkingTime,
} from './index';

const at = (iso: string): number => Date.parse(iso);
const london: WorkingTime = {
  zone: 'Europe/London',
  fromMinute: 9 * 60,
  toMinute: 17 * 60,
  daysOff: new Set(['2026-12-25', '2026-12-28']),
};
const empty: SlotBook = { taken: new Set(), perDay: new Map(), dailyLimit: 60, rampUp: null, minutesApart: 2, zone: 'Europe/London' };

describe('working days', () => {
  test.each([
    ['2026-11-24T10:00:00Z', true],
    ['2026-11-28T10:00:00Z', false],
    ['2026-12-25T10:00:00Z', false],
  ])('%s', (iso, working) => {
    expect(isWorkingDay(at(iso), london)).toBe(working);
  });

  test.each([
    ['three over a weekend', '2026-11-26T09:30:00Z', 3, '2026-12-01T09:30:00Z'],
    ['over Christmas', '2026-12-24T09:30:00Z', 1, '2026-12-29T09:30:00Z'],
    ['none leaves the instant', '2026-11-28T09:30:00Z', 0, '2026-11-28T09:30:00Z'],
    ['the local hour stays when the clocks change', '2027-03-26T09:30:00Z', 1, '2027-03-29T08:30:00Z'],
  ])('%s', (_name, from, days, to) => {
    expect(new Date(addWorkingDays(at(from), days, london)).toISOString()).toBe(new Date(to).toISOString());
  });
});

describe('strokes of a day', () => {
  const time = { zone: 'Europe/London', daysOff: new Set(['2026-12-25']) };
  const strokes = { from: 8 * 60, to: 18 * 60, every: 45 };
  const next = (at: string, workingDay = true): string =>
    new Date(nextOfMany(Date.parse(at), strokes, time, workingDay)).toISOString().slice(0, 16);

  test.each([
    ['2026-11-24T07:10:00Z', '2026-11-24T08:00'],
    ['2026-11-24T08:00:00Z', '2026-11-24T08:00'],
    ['2026-11-24T08:01:00Z', '2026-11-24T08:45'],
    ['2026-11-24T17:59:00Z', '2026-11-25T08:00'],
    ['2026-11-27T17:59:00Z', '2026-11-30T08:00'],
    ['2026-12-24T19:00:00Z', '2026-12-28T08:00'],
  ])('after %s comes %s', (at, then) => {
    expect(next(at)).toBe(then);
  });

  test('on any day the next one is tomorrow', () => {
    expect(next('2026-11-27T17:59:00Z', false)).toBe('2026-11-28T08:00');
  });
});

describe('a new mailbox', () => {
  const book = { dailyLimit: 40, rampUp: { from: 10, step: 5, since: '2026-11-26' } };
  test.each([
    ['before it began', '2026-11-20', 10],
    ['on its first day, a Thursday', '2026-11-26', 10],
    ['on Friday', '2026-11-27', 15],
    ['over the weekend nothing is added', '2026-11-29', 15],
    ['on Monday', '2026-11-30', 20],
    ['a week later', '2026-12-03', 35],
    ['never over its limit', '2027-06-01', 40],
  ])('%s', (_, day, limit) => {
    expect(limitOn(day, book)).toBe(limit);
    expect(limitOn(day, { ...book, rampUp: null })).toBe(40);
  });
});

describe('the next slot', () => {
  test.each([
    ['inside hours: the next two-minute step', '2026-11-24T10:00:30Z', '2026-11-24T10:02:00Z'],
    ['before hours: when they begin', '2026-11-24T05:00:00Z', '2026-11-24T09:00:00Z'],
    ['after hours: the next morning', '2026-11-24T17:00:00Z', '2026-11-25T09:00:00Z'],
    ['on Friday evening: Monday', '2026-11-27T18:00:00Z', '2026-11-30T09:00:00Z'],
  ])('%s', (_name, earliest, slot) => {
    expect(new Date(nextSlot(at(earliest), london, empty)).toISOString()).toBe(new Date(slot).toISOString());
  });

  test('is in the reader’s office hours, not the sender’s', () => {
    const vicar = { ...london, zone: 'Europe/Madrid' };
    expect(new Date(nextSlot(at('2026-11-24T06:00:00Z'), vicar, empty)).toISOString()).toBe('2026-11-24T08:00:00.000Z');
  });

  test('a full day moves to the next one', () => {
    const full = { ...empty, perDay: new Map([['2026-11-24', 60]]) };
    expect(dayKey(nextSlot(at('2026-11-24T10:00:00Z'), london, full), 'Europe/London')).toBe('2026-11-25');
  });

  const zones = ['Europe/London', 'Europe/Madrid', 'America/New_York', 'Asia/Kolkata', 'Pacific/Auckland'];
  test('planning hundreds of sends breaks no rule: hours, working days, spacing, daily limit', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({ hours: fc.integer({ min: 0, max: 24 * 9 }), zone: fc.constantFrom(...zones), from: fc.integer({ min: 6, max: 11 }) }),
          { minLength: 20, maxLength: 120 },
        ),
        fc.integer({ min: 3, max: 25 }),
        fc.constantFrom(2, 3, 10, 45),
        fc.constantFrom(null, { from: 1, step: 2, since: '2026-12-22' }),
        (asks, dailyLimit, minutesApart, rampUp) => {
          const book = { dailyLimit, rampUp, minutesApart, zone: 'Europe/London' };
          const taken = new Set<number>();
          const perDay = new Map<string, number>();
          for (const ask of asks) {
            const reader: WorkingTime = {
              zone: ask.zone,
              fromMinute: ask.from * 60,
              toMinute: (ask.from + 7) * 60,
              daysOff: london.daysOff,
            };
            const earliest = at('2026-12-21T00:00:00Z') + ask.hours * 3_600_000;
            const slot = nextSlot(earliest, reader, { taken, perDay, ...book });
            expect(slot).toBeGreaterThanOrEqual(earliest);
            expect(slot % SLOT_MS).toBe(0);
            expect([...taken].every((other) => Math.abs(other - slot) >= minutesApart * 60_000)).toBe(true);
            expect(isWorkingDay(slot, reader)).toBe(true);
            const local = new Intl.DateTimeFormat('en-GB', {
              timeZone: ask.zone,
              hour: '2-digit',
              minute: '2-digit',
              hour12: false,
            }).format(slot);
            const minute = Number(local.slice(0, 2)) * 60 + Number(local.slice(3));
            expect(minute).toBeGreaterThanOrEqual(reader.fromMinute);
            expect(minute).toBeLessThan(reader.toMinute);
            taken.add(slot);
            const day = dayKey(slot, 'Europe/London');
            perDay.set(day, (perDay.get(day) ?? 0) + 1);
            expect(perDay.get(day)).toBeLessThanOrEqual(limitOn(day, book));
          }
        },
      ),
      { numRuns: 40 },
    );
  });
});

test('working days in a row are those that come by adding one at a time, in every zone', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: Date.parse('2026-01-01'), max: Date.parse('2027-12-31') }),
      fc.constantFrom('Europe/London', 'America/Los_Angeles', 'Pacific/Auckland'),
      fc.uniqueArray(fc.integer({ min: 0, max: 90 }), { maxLength: 6 }),
      (from, zone, off) => {
        const daysOff = new Set(off.map((days) => dayKey(from + days * 86_400_000, zone)));
        const first = addWorkingDays(from, 1, { zone, daysOff });
        const stepped: string[] = [];
        for (let day = first; stepped.length < 40; day = addWorkingDays(day, 1, { zone, daysOff })) stepped.push(dayKey(day, zone));
        expect(workingDaysFrom(dayKey(first, zone), 40, daysOff)).toEqual(stepped);
      },
    ),
    { numRuns: 30 },
  );
});

describe('zones', () => {
  test.each([
    ['ES', 'Europe/Madrid'],
    ['nl', 'Europe/Amsterdam'],
    ['XX', 'Europe/London'],
    [null, 'Europe/London'],
  ])('%j', (country, zone) => {
    expect(zoneOf(country, 'Europe/London')).toBe(zone);
  });
});
