import type { Instant } from '../../base';
import { datesIn, type When } from '../skills/dates';

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
}

const NOW =
  "(?:present|now|today|to date|current(?:ly)?|ongoing|heute|jetzt|laufend|aktuell|heden|nu|vandaag|actualidad|la actualidad|actualmente|hoy|presente|a ce jour|aujourd'hui|ce jour|present day|actuellement|en cours)";
const SEPARATOR = /^\s*(?:[-–—]|to|until|till|through|bis(?: zum?)?|tot(?: en met)?|t\/m|a|hasta|al|jusqu'a|au|à)\s*(?:la |l')?$/;
const SINCE = /(?:since|from|seit|ab|sinds|vanaf|desde|depuis)\s*$/;
const SHORT_END = /^\s*[-–—/]\s*(\d\d)(?!\d)/;

const monthOf = (at: Instant): number => {
  const date = new Date(at);
  return date.getUTCFullYear() * 12 + date.getUTCMonth();
};
const exactly = (when: When): boolean => when.grain === 'day' || when.grain === 'month';

/** “05.2020” as “05/2020”, “2019-03” and “2019/03” as “03/2019”; nothing changes its place. */
const slashed = (folded: string): string =>
  folded
    .replace(/(?<![\d./])(0?[1-9]|1[0-2])[.-](19[5-9]\d|20\d\d)(?![\d])/g, '$1/$2')
    .replace(/(?<![\d./-])(19[5-9]\d|20\d\d)[-/.](0[1-9]|1[0-2])(?![\d-])/g, '$2/$1');

/** Every stretch of time in folded text, in order. A single year is none. */
export function periodsIn(text: string, now: Instant): readonly Period[] {
  const folded = slashed(text);
  const dates = datesIn(folded, now).filter((date) => exactly(date) || date.grain === 'year');
  const thisMonth = monthOf(now) + 1;
  const out: Period[] = [];
  let taken = -1;
  for (const [i, date] of dates.entries()) {
    if (date.from < taken) continue;
    const put = (end: number, ongoing: boolean, exact: boolean, to: number): void => {
      const start = monthOf(date.start);
      if (end < start) return;
      const since = SINCE.exec(folded.slice(0, date.from));
      out.push({ start, end: Math.max(end, start + 1), ongoing, exact: exact && exactly(date), from: since?.index ?? date.from, to });
      taken = to;
    };
    const rest = folded.slice(date.to);
    const open = new RegExp(`^\\s{0,4}(?:(?:[-–—]|to|until|bis|tot|a|hasta|jusqu'a|à)\\s{0,4})?(?:la )?${NOW}(?!\\p{L})`, 'u').exec(rest);
    if (open && /^\s*\S/.test(open[0])) {
      put(thisMonth, true, true, date.to + open[0].length);
      continue;
    }
    const next = dates[i + 1];
    if (next && SEPARATOR.test(folded.slice(date.to, next.from))) {
      // “2015 – 2018” says no months: it is counted from year to year.
      put(exactly(next) ? monthOf(next.end) : monthOf(next.start), false, exactly(next), next.to);
      continue;
    }
    const short = SHORT_END.exec(rest);
    if (short && date.grain === 'year') {
      const century = Math.floor(monthOf(date.start) / 1200) * 100;
      put((century + Number(short[1])) * 12, false, false, date.to + short[0].length);
      continue;
    }
    if (SINCE.test(folded.slice(0, date.from))) put(thisMonth, true, true, date.to);
    else if (/^\s*[-–—]\s*$/.test(rest)) put(thisMonth, true, true, folded.length);
  }
  return out;
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
export function periodText(period: Period): string {
  const last = period.exact ? period.end - 1 : period.end;
  return `${monthText(period.start, period.exact)} – ${period.ongoing ? 'now' : monthText(last, period.exact)}`;
}
