/** What the stations of a CV add up to: years of work, gaps. */
import type { Instant } from '../../../base';
import { plainFold } from '../lines';
import { monthsCovered, monthText, type Period } from '../periods';
import type { Station } from './stations';

/** More than this many months without work and training are a gap. */
export const GAP_MONTHS = 6;

/** Years of work of one kind, counted out of a CV: work that these words speak of, each whole or, with a `*`, as a beginning. */
export interface YearsIn {
  readonly id: string;
  readonly words: readonly string[];
}

export interface Gap {
  /** months, the end exclusive */
  readonly start: number;
  readonly end: number;
  readonly untilNow: boolean;
  /** both neighbours are said to the month */
  readonly exact: boolean;
  /** what the CV says of it */
  readonly explained: string | null;
}

const monthNow = (now: Instant): number => {
  const date = new Date(now);
  return date.getUTCFullYear() * 12 + date.getUTCMonth() + 1;
};

/** Nobody has worked in the future yet. */
export const workedMonths = (stations: readonly Station[], now: Instant): number =>
  monthsCovered(stations.map(({ period }) => ({ start: Math.min(period.start, monthNow(now)), end: Math.min(period.end, monthNow(now)) })));

const escaped = (word: string): string => word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** Finds any of the words in folded text. */
export function spokenOf(words: readonly string[]): RegExp {
  const forms = words.map((word) => {
    const folded = plainFold(word.replace(/\*$/, ''));
    return word.endsWith('*') ? `${escaped(folded)}\\p{L}*` : escaped(folded);
  });
  return forms.length === 0 ? /(?!)/ : new RegExp(`(?<![\\p{L}\\p{N}])(?:${forms.join('|')})(?![\\p{L}\\p{N}])`, 'u');
}

/** The last month a period may have reached: where only a year is said, it may have been the whole of it. */
const mayEnd = (period: Period): number => {
  if (period.ongoing || !period.last || period.last.grain !== 'year') return period.end;
  return Math.max(period.end, Math.floor(period.end / 12) * 12 + 12);
};

/** Stretches of more than six months after the first station that neither work nor training covers. */
export function gapsOf(stations: readonly Station[], now: Instant): readonly Gap[] {
  const busy = stations.filter((station) => station.kind !== 'break').sort((a, b) => a.period.start - b.period.start);
  const breaks = stations.filter((station) => station.kind === 'break');
  const today = monthNow(now);
  const out: Gap[] = [];
  const put = (start: number, end: number, exact: boolean): void => {
    if (end - start <= GAP_MONTHS) return;
    const why = breaks.find(({ period }) => period.start < end && start < period.end);
    out.push({ start, end, untilNow: end >= today, exact, explained: why ? why.title : null });
  };
  let reached: Period | undefined;
  for (const { period } of busy) {
    if (reached) {
      // Two years in a row without months leave no gap one could be sure of.
      const loose =
        (reached.last?.grain === 'year' || period.first.grain === 'year') &&
        Math.floor(period.start / 12) - Math.floor(mayEnd(reached) / 12) <= 0;
      if (!loose) put(mayEnd(reached), period.start, reached.exact && period.exact);
    }
    if (!reached || mayEnd(period) > mayEnd(reached)) reached = period;
  }
  if (reached && !reached.ongoing) put(mayEnd(reached), today, reached.exact);
  return out;
}

export const gapText = ({ start, end, untilNow, exact, explained }: Gap): string =>
  `${monthText(start, true)} – ${untilNow ? 'now' : monthText(end - 1, true)} (${exact ? '' : 'at least '}${end - start} months${explained === null ? '' : `: ${explained}`})`;
