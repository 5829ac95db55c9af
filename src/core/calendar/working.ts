import { DateTime } from 'luxon';
import type { Instant } from '../base';

/** When a reader may be written to. Hours are minutes since local midnight; `to` is the first minute after. */
export interface WorkingTime {
  readonly zone: string;
  readonly fromMinute: number;
  readonly toMinute: number;
  /** local days off as `2026-12-25` */
  readonly daysOff: ReadonlySet<string>;
}

const DAY_MS = 86_400_000;
const local = (at: Instant, zone: string): DateTime => DateTime.fromMillis(at, { zone });

const two = (value: number): string => (value < 10 ? `0${value}` : String(value));
const isoDay = (day: DateTime): string => `${day.year}-${two(day.month)}-${two(day.day)}`;

/** The local date of an instant, as `2026-11-24`. */
export function dayKey(at: Instant, zone: string): string {
  return isoDay(local(at, zone));
}

/** Monday to Friday, and not a day off. */
export function isWorkingDay(at: Instant, time: Pick<WorkingTime, 'zone' | 'daysOff'>): boolean {
  const day = local(at, time.zone);
  return day.weekday <= 5 && !time.daysOff.has(isoDay(day));
}

/** The same local time of day, `days` working days later. 0 leaves the instant as it is. */
export function addWorkingDays(at: Instant, days: number, time: Pick<WorkingTime, 'zone' | 'daysOff'>): Instant {
  let day = local(at, time.zone);
  for (let left = days; left > 0;) {
    day = day.plus({ days: 1 });
    if (isWorkingDay(day.toMillis(), time)) left--;
  }
  return day.toMillis();
}

/** So many working days in a row, the given one first: local dates, whatever the zone. */
export function workingDaysFrom(day: string, count: number, daysOff: ReadonlySet<string>): readonly string[] {
  const out: string[] = [];
  for (let at = Date.parse(day); out.length < count; at += DAY_MS) {
    const date = new Date(at);
    const key = date.toISOString().slice(0, 10);
    if (out.length === 0 || (date.getUTCDay() % 6 !== 0 && !daysOff.has(key))) out.push(key);
  }
  return out;
}

/** The first instant at or after `at` inside working time. */
export function intoWorkingTime(at: Instant, time: WorkingTime): Instant {
  let day = local(at, time.zone);
  for (let guard = 0; guard < 400; guard++) {
    const minute = day.hour * 60 + day.minute;
    if (isWorkingDay(day.toMillis(), time)) {
      if (minute < time.fromMinute) return day.startOf('day').plus({ minutes: time.fromMinute }).toMillis();
      if (minute < time.toMinute) return day.toMillis();
    }
    day = day.plus({ days: 1 }).startOf('day');
  }
  return day.toMillis();
}

/** The start of working time on the next working day. */
export function nextMorning(at: Instant, time: WorkingTime): Instant {
  return intoWorkingTime(local(at, time.zone).plus({ days: 1 }).startOf('day').toMillis(), time);
}

/** The next instant at which the local clock shows `minute` (since midnight); on a working day when asked. At the very minute: now. */
export function atClock(at: Instant, minute: number, time: Pick<WorkingTime, 'zone' | 'daysOff'>, workingDay: boolean): Instant {
  const start = local(at, time.zone).startOf('day');
  for (let days = 0; days < 400; days++) {
    const then = start.plus({ days }).set({ hour: Math.floor(minute / 60), minute: minute % 60 });
    if (then.toMillis() >= at && (!workingDay || isWorkingDay(then.toMillis(), time))) return then.toMillis();
  }
  return at;
}

/** The next of the strokes of a day, from minute to minute and every so many, at or after an instant; else the first of the next day. */
export function nextOfMany(
  at: Instant,
  strokes: { readonly from: number; readonly to: number; readonly every: number },
  time: Pick<WorkingTime, 'zone' | 'daysOff'>,
  workingDay: boolean,
): Instant {
  for (let minute = strokes.from; minute <= strokes.to; minute += strokes.every) {
    const then = local(at, time.zone)
      .startOf('day')
      .set({ hour: Math.floor(minute / 60), minute: minute % 60 })
      .toMillis();
    if (then >= at && (!workingDay || isWorkingDay(then, time))) return then;
  }
  return atClock(startOfLocalDay(at, time.zone, 1), strokes.from, time, workingDay);
}

/** Local midnight of the first day of the month `months` after the one an instant lies in. */
export function startOfLocalMonth(at: Instant, zone: string, months = 0): Instant {
  return local(at, zone).startOf('month').plus({ months }).toMillis();
}

/** Local midnight of the day `days` after the one an instant lies in. */
export function startOfLocalDay(at: Instant, zone: string, days = 0): Instant {
  return local(at, zone).startOf('day').plus({ days }).toMillis();
}
