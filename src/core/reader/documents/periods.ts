import type { Instant } from '../../base';
import { datesIn, isoOf, monthNamed, type When } from '../skills/dates';

/** A stretch of months somebody names, “03/2019 – present”. Months count from year 0: `year × 12 + month`, the end exclusive. */
export interface Period {
  readonly start: number;
  readonly end: number;
  /** goes on on the day of reading */
  readonly ongoing: boolean;
  /** both ends are said to the month */
  readonly exact: boolean;
  readonly from: number;
  readonly to: number;
  readonly first: When;
  /** null: it goes on */
  readonly last: When | null;
}

/** A time as exactly as it was said: `2021-03`, `2019`, `2022-spring`. */
export type Moment = string;

const NOW =
  "(?:present(?: day)?|now|today|to date|date|current(?:ly)?|ongoing|onwards?|still there|heute|jetzt|dato|laufend|aktuell|heden|nu|vandaag|actualidad|la actualidad|actualmente|hoy|presente|a ce jour|aujourd'hui|ce jour|actuellement|en cours|maintenant)";
const SEPARATOR =
  /^\s*(?:[-–—]|to|until|till|through|bis(?: zum?| einschliesslich)?|tot(?: en met)?|t\/m|t\.e\.m\.|a|hasta|al|jusqu'(?:a|en)|au|à|en)\s*(?:la |l'|el )?$/;
const SINCE = /(?:since|from|seit|ab|sinds|vanaf|desde|depuis|as of)\s*$/;
const SHORT_END = /^\s*[-–—/]\s*['’]?(\d\d)(?![\d./])/;
const FROM = /(?:from|between|von|van|de|desde|du|entre)\s+$/;

const monthOf = (at: Instant): number => {
  const date = new Date(at);
  return date.getUTCFullYear() * 12 + date.getUTCMonth();
};
const exactly = (when: When): boolean => when.grain === 'day' || when.grain === 'month';

const SEASON_NAMES: Readonly<Record<number, string>> = { 2: 'spring', 5: 'summer', 8: 'autumn', 11: 'winter' };
export const momentOf = (when: When): Moment =>
  when.grain === 'season'
    ? `${new Date(when.start).getUTCFullYear()}-${SEASON_NAMES[new Date(when.start).getUTCMonth()] ?? ''}`
    : isoOf(when).slice(0, 7);

/** “05.2020” as “05/2020”, “2019-03” and “2019/03” as “03/2019”; nothing changes its place. */
const slashed = (folded: string): string =>
  folded
    .replace(/(?<![\d./])(0?[1-9]|1[0-2])[.-](19[5-9]\d|20\d\d)(?![\d])/g, '$1/$2')
    .replace(/(?<![\d./-])(19[5-9]\d|20\d\d)[-/.](0[1-9]|1[0-2])(?![\d-])/g, '$2/$1');

/** Years said by two digits: “03/19”, “sept '19”; none is more than a year ahead. */
function shortDates(folded: string, now: Instant): readonly When[] {
  const year = (short: string): number => {
    const of = 2000 + Number(short);
    return of > new Date(now).getUTCFullYear() + 1 ? of - 100 : of;
  };
  const out: When[] = [];
  for (const found of folded.matchAll(
    /(?<![\d./-])(0?[1-9]|1[0-2])[/.]['’]?(\d\d)(?![\d./])|(?<!\p{L})(\p{L}{3,10})\.? ?['’]?(\d\d)(?!\d|[.:,]\d)/gu,
  )) {
    const month = found[1] === undefined ? monthNamed(found[3] ?? '') : Number(found[1]) - 1;
    if (month < 0) continue;
    const of = year(found[2] ?? found[4] ?? '');
    out.push({
      start: Date.UTC(of, month),
      end: Date.UTC(of, month + 1),
      from: found.index,
      to: found.index + found[0].length,
      grain: 'month',
    });
  }
  return out;
}

/** “March – June 2019”: the year of the end is that of the beginning too. */
function withoutYear(folded: string, dates: readonly When[]): readonly When[] {
  return dates.flatMap((date) => {
    if (date.grain !== 'month') return [];
    const before = /(?<!\p{L})(\p{L}{3,10})\.?\s*(?:[-–—]|to|bis|tot|a|au)\s*$/u.exec(folded.slice(Math.max(0, date.from - 24), date.from));
    const month = before ? monthNamed(before[1] ?? '') : -1;
    if (!before || month < 0) return [];
    const year = new Date(date.start).getUTCFullYear() - (month > new Date(date.start).getUTCMonth() ? 1 : 0);
    const from = Math.max(0, date.from - 24) + before.index;
    return [
      { start: Date.UTC(year, month), end: Date.UTC(year, month + 1), from, to: from + (before[1]?.length ?? 0), grain: 'month' as const },
    ];
  });
}

function datesOf(text: string, now: Instant): { readonly folded: string; readonly dates: readonly When[] } {
  const folded = slashed(text);
  const whole = datesIn(folded, now).filter(
    (date) => date.grain !== 'season' || SEASON_NAMES[new Date(date.start).getUTCMonth()] !== undefined,
  );
  const free = (date: When): boolean => !whole.some((other) => other.from < date.to && date.from < other.to);
  const dates = [...whole, ...withoutYear(folded, whole).filter(free), ...shortDates(folded, now).filter(free)];
  return { folded, dates: dates.sort((a, b) => a.from - b.from) };
}

/** Every stretch of time in folded text, in order. A single year is none. */
export function periodsIn(text: string, now: Instant): readonly Period[] {
  const { folded, dates } = datesOf(text, now);
  const thisMonth = monthOf(now) + 1;
  const out: Period[] = [];
  let taken = -1;
  for (const [i, date] of dates.entries()) {
    if (date.from < taken) continue;
    const put = (end: number, last: When | null, exact: boolean, to: number): void => {
      const start = monthOf(date.start);
      if (end < start) return;
      const before = folded.slice(0, date.from);
      const since = (SINCE.exec(before) ?? FROM.exec(before))?.index ?? date.from;
      out.push({
        start,
        end: Math.max(end, start + 1),
        ongoing: last === null,
        exact: exact && exactly(date),
        from: since,
        to,
        first: date,
        last,
      });
      taken = to;
    };
    const rest = folded.slice(date.to);
    const open = new RegExp(
      `^\\s{0,4}(?:(?:[-–—]|to|until|till|bis|tot|a|hasta|jusqu'a|à|until the)\\s{0,4})?(?:la |l')?${NOW}(?!\\p{L})`,
      'u',
    ).exec(rest);
    if (open && /^\s*\S/.test(open[0])) {
      put(thisMonth, null, true, date.to + open[0].length);
      continue;
    }
    const next = dates[i + 1];
    if (next && SEPARATOR.test(folded.slice(date.to, next.from))) {
      // “2015 – 2018” says no months: it is counted from year to year.
      put(next.grain === 'year' ? monthOf(next.start) : monthOf(next.end), next, exactly(next), next.to);
      continue;
    }
    const short = SHORT_END.exec(rest);
    if (short && date.grain === 'year') {
      const year = Math.floor(monthOf(date.start) / 1200) * 100 + Number(short[1]);
      const last: When = {
        start: Date.UTC(year, 0),
        end: Date.UTC(year + 1, 0),
        from: date.to,
        to: date.to + short[0].length,
        grain: 'year',
      };
      put(year * 12, last, false, last.to);
      continue;
    }
    if (SINCE.test(folded.slice(0, date.from))) put(thisMonth, null, true, date.to);
    else if (/^\s*[-–—]\s*(?:$|[:|\t])/.test(rest)) put(thisMonth, null, true, date.to + (/^\s*[-–—]/.exec(rest)?.[0].length ?? 0));
  }
  return out;
}

/** Single times, “2014: diploma”, as stretches that begin and end with them. */
export function singleIn(text: string, now: Instant): readonly Period[] {
  const { dates } = datesOf(text, now);
  return dates
    .filter((date) => date.start <= now)
    .map((date) => ({
      start: monthOf(date.start),
      end: Math.max(monthOf(date.end), monthOf(date.start) + 1),
      ongoing: false,
      exact: exactly(date),
      from: date.from,
      to: date.to,
      first: date,
      last: date,
    }));
}

/** Months covered by any of the periods. */
export function monthsCovered(periods: readonly Pick<Period, 'start' | 'end'>[]): number {
  let covered = 0;
  let reached = Number.NEGATIVE_INFINITY;
  for (const { start, end } of [...periods].sort((a, b) => a.start - b.start)) {
    covered += Math.max(0, end - Math.max(start, reached));
    reached = Math.max(reached, end);
  }
  return covered;
}

/** `2019-03`, or `2019` when no month was said. */
export const monthText = (month: number, exact: boolean): string =>
  exact ? `${Math.floor(month / 12)}-${String((month % 12) + 1).padStart(2, '0')}` : String(Math.floor(month / 12));

/** `2019-03 – now` */
export const periodText = ({ first, last }: Period): string => `${momentOf(first)} – ${last === null ? 'now' : momentOf(last)}`;
