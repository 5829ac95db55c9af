/** A day with a time as somebody types it: “tomorrow 8:30”, “Mon 9:00”, “30 Nov 14.15”, “30/11/2026 at 9 am”. */
import { fold } from '../base';
import { dayOf } from './days';

const LANGUAGES = ['en', 'de', 'nl', 'fr', 'es', 'it'] as const;
const DAY_MS = 86_400_000;
const TIME = /(?:^|[ T,]|\bat )(?:(\d{1,2})[:.](\d{2}) ?([ap])?\.?m?\.?|(\d{1,2}) ?([ap])\.?m\.?)$/i;
/** Where no time is said. */
const MORNING = '09:00';

const plus = (day: string, days: number): string => new Date(Date.parse(`${day}T00:00:00Z`) + days * DAY_MS).toISOString().slice(0, 10);
const weekdayOf = (day: string): number => new Date(`${day}T00:00:00Z`).getUTCDay();

/** In how many days a word says: today, tomorrow. */
const ahead = new Map<string, number>(
  LANGUAGES.flatMap((language) =>
    [0, 1].map((days) => [fold(new Intl.RelativeTimeFormat(language, { numeric: 'auto' }).format(days, 'day')), days] as const),
  ),
);
/** Names of the days of a week, Sunday 0. */
const weekdays = new Map<string, number>(
  LANGUAGES.flatMap((language) =>
    (['long', 'short'] as const).flatMap((weekday) =>
      [0, 1, 2, 3, 4, 5, 6].map((day) => {
        // The 4th of January 1970 was a Sunday.
        const name = new Intl.DateTimeFormat(language, { weekday, timeZone: 'UTC' }).format((3 + day) * DAY_MS);
        return [fold(name).replace(/\.$/, ''), day] as const;
      }),
    ),
  ),
);

function timeOf(match: RegExpExecArray): string | undefined {
  const half = (match[3] ?? match[5])?.toLowerCase();
  const hour = Number(match[1] ?? match[4]);
  if (half !== undefined && (hour < 1 || hour > 12)) return undefined;
  const hours = half === undefined ? hour : (hour % 12) + (half === 'p' ? 12 : 0);
  const minutes = Number(match[2] ?? 0);
  return hours < 24 && minutes < 60 ? `${String(hours).padStart(2, '0')}:${String(minutes).padStart(2, '0')}` : undefined;
}

/** The next day that a text names, from `today` on: a day of the week is the next such one, a day without a year is of this one or the next. */
function dayNamed(text: string, today: string, isPast: (day: string) => boolean): string | undefined {
  const word = fold(text).replace(/[.,]$/, '');
  const days = ahead.get(word);
  if (days !== undefined) return plus(today, days);
  const weekday = weekdays.get(word);
  if (weekday !== undefined) {
    const next = plus(today, (weekday - weekdayOf(today) + 7) % 7);
    return isPast(next) ? plus(next, 7) : next;
  }
  const whole = dayOf(text);
  if (whole !== undefined) return whole;
  const year = Number(today.slice(0, 4));
  const bare = text.replace(/[./,]$/, '');
  const sep = /^\d{1,2}([./-])\d{1,2}$/.exec(bare)?.[1] ?? ' ';
  return [year, year + 1].map((candidate) => dayOf(`${bare}${sep}${candidate}`)).find((day) => day !== undefined && !isPast(day));
}

/**
 * The moment a text names, as local ISO 8601 to the minute; undefined when it names none.
 * @param now the present where it is typed, in the same form: `2026-11-30T08:15`
 */
export function momentOf(raw: string, now: string): string | undefined {
  const text = raw.trim().replace(/\s+/g, ' ');
  const match = TIME.exec(text);
  const time = match ? timeOf(match) : MORNING;
  if (text === '' || time === undefined) return undefined;
  const rest = (match ? text.slice(0, match.index) : text).trim().replace(/\bat$/, '').trim().replace(/,$/, '');
  const today = now.slice(0, 10);
  const isPast = (day: string): boolean => `${day}T${time}` <= now;
  const day = rest === '' ? (isPast(today) ? plus(today, 1) : today) : dayNamed(rest, today, isPast);
  return day === undefined ? undefined : `${day}T${time}`;
}
