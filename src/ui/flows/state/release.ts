import type { Difference, DifferenceKind } from '../../../core/engine';
import { momentOf } from '../../../core/fields';
import type { Forecast, Range } from '../../../core/forecast';
import type { ScriptRow } from './script';

/** One place of the forecast's ribbon: a line that most records get to, with how many do. */
export interface Station {
  readonly mark: string;
  readonly label: string;
  readonly reach: Range;
  readonly guessed: boolean;
}

const MOST_STATIONS = 10;
/** Lines at which nobody is lost and nothing is spent say nothing in a forecast. */
const QUIET: ReadonlySet<string> = new Set(['set', 'note', 'assign', 'open', 'move', 'tell', 'wait', 'sort', 'pick out', 'gather']);

/** The way most records take: top lines, and below a split the arm with most of them. */
export function stations(rows: readonly ScriptRow[], forecast: Pick<Forecast, 'lines'>): readonly Station[] {
  const of = new Map(forecast.lines.map((line) => [line.mark, line]));
  const firstBelow = (at: number, depth: number): Range | undefined => {
    const row = rows[at + 1];
    return row?.kind === 'line' && row.depth >= depth ? of.get(row.mark)?.reach : undefined;
  };
  const out: Station[] = [];
  const walk = (from: number, to: number, depth: number): void => {
    for (let i = from; i < to; i++) {
      const row = rows[i];
      if (row?.kind !== 'line' || row.depth !== depth) continue;
      const line = of.get(row.mark);
      const isSplit = row.line.step.verb === 'split';
      if (line && !isSplit && !QUIET.has(row.line.step.verb) && !row.line.off)
        out.push({ mark: row.mark, label: labelOf(row), reach: line.reach, guessed: line.guessed });
      if (!isSplit) continue;
      const arms = rows.flatMap((other, at) => (other.kind === 'arm' && other.splitMark === row.mark ? [{ at, arm: other }] : []));
      const best = arms
        .map(({ at, arm }) => ({ at, arm, reach: firstBelow(at, arm.depth) }))
        .filter((entry) => entry.reach !== undefined && !stops(rows, entry.at))
        .sort((a, b) => (b.reach?.mid ?? 0) - (a.reach?.mid ?? 0))[0];
      if (best) walk(best.at + 1, nextArm(rows, best.at), best.arm.depth);
    }
  };
  walk(0, rows.length, 0);
  return out.length <= MOST_STATIONS ? out : out.filter((_, i) => i === 0 || i >= out.length - MOST_STATIONS + 1);
}

/** An arm that only ends trips leads nowhere. */
const stops = (rows: readonly ScriptRow[], at: number): boolean => {
  const row = rows[at + 1];
  return row?.kind === 'line' && row.line.step.verb === 'stop';
};
function nextArm(rows: readonly ScriptRow[], at: number): number {
  const depth = rows[at]?.depth ?? 0;
  const next = rows.findIndex((row, i) => i > at && (row.depth < depth || (row.kind === 'arm' && row.depth === depth)));
  return next < 0 ? rows.length : next;
}
const labelOf = (row: ScriptRow): string => {
  const verb = row.kind === 'line' ? row.line.step.verb : '';
  return verb.charAt(0).toUpperCase() + verb.slice(1);
};

export interface RibbonBands {
  /** paths from the widest to the narrowest: nine of ten runs, the middle, what is almost sure */
  readonly high: string;
  readonly mid: string;
  readonly low: string;
  readonly at: readonly number[];
}

/** The ribbon of a forecast, from left to right: as wide at each station as records get there. Pixels; y grows downwards. */
export function forecastRibbon(reach: readonly Range[], width: number, height: number): RibbonBands {
  const most = Math.max(1, ...reach.map((range) => range.high));
  const step = reach.length > 1 ? width / (reach.length - 1) : width;
  const at = reach.map((_, i) => Math.round(i * step));
  const path = (pick: (range: Range) => number): string => {
    const half = reach.map((range) => (pick(range) / most) * (height / 2));
    const edge = (side: 1 | -1): readonly string[] =>
      half.flatMap((h, i) => {
        const [x, y] = [at[i] ?? 0, height / 2 + side * h];
        if (i === 0) return [`${x} ${y.toFixed(1)}`];
        const [px, py] = [at[i - 1] ?? 0, height / 2 + side * (half[i - 1] ?? 0)];
        const bend = (x - px) / 2;
        return [`C${(px + bend).toFixed(1)} ${py.toFixed(1)} ${(x - bend).toFixed(1)} ${y.toFixed(1)} ${x} ${y.toFixed(1)}`];
      });
    const upper = edge(-1);
    // The lower edge is drawn back from right to left.
    const lower = half.map((h, i) => ({ x: at[i] ?? 0, y: height / 2 + h })).reverse();
    const back = lower.map((point, i) => {
      const before = lower[i - 1];
      if (!before) return `L${point.x} ${point.y.toFixed(1)}`;
      const bend = (before.x - point.x) / 2;
      return `C${(before.x - bend).toFixed(1)} ${before.y.toFixed(1)} ${(point.x + bend).toFixed(1)} ${point.y.toFixed(1)} ${point.x} ${point.y.toFixed(1)}`;
    });
    return `M${upper.join(' ')} ${back.join(' ')} Z`;
  };
  return { high: path((range) => range.high), mid: path((range) => range.mid), low: path((range) => range.low), at };
}

export type ChangedTrip = Difference & {
  readonly tripId: string;
  readonly personId: string;
  readonly personName: string;
  readonly companyName: string | null;
};
export interface ChangeGroup {
  readonly kind: DifferenceKind;
  readonly trips: readonly ChangedTrip[];
  /** where the two part, most often first */
  readonly reasons: readonly { readonly mark: string | null; readonly trips: number }[];
}

const ORDER: readonly DifferenceKind[] = ['written to', 'not written to', 'up a band', 'down a band', 'other way', 'other lines', 'same'];

/** Differences of one kind together, in the order a person asks for them; kinds that do not occur are left out. */
export function changeGroups(trips: readonly ChangedTrip[]): readonly ChangeGroup[] {
  return ORDER.flatMap((kind) => {
    const mine = trips.filter((trip) => trip.kind === kind);
    if (mine.length === 0) return [];
    const marks = [...new Set(mine.map((trip) => trip.mark))];
    const reasons = marks
      .map((mark) => ({ mark, trips: mine.filter((trip) => trip.mark === mark).length }))
      .sort((a, b) => b.trips - a.trips);
    return [{ kind, trips: mine, reasons: kind === 'same' ? [] : reasons }];
  });
}

/** What a release is limited to, as it is typed: an empty text sets no limit. */
export interface Limits {
  readonly firstN: string;
  readonly dailyLimit: string;
  readonly budget: string;
  readonly startAt: string;
  readonly underWay: 'finish' | 'move';
  readonly cameBefore: 'leave' | 'take in';
}
export const FIRST_LIMITS: Limits = { firstN: '10', dailyLimit: '', budget: '', startAt: '', underWay: 'finish', cameBefore: 'leave' };

export interface ReadLimits {
  readonly problems: Readonly<Partial<Record<keyof Limits, string>>>;
  readonly ask: {
    readonly firstN?: number;
    readonly dailyLimit?: number;
    readonly dayBudgetMicro?: number;
    readonly startAt?: string;
    readonly underWay: 'finish' | 'move';
    readonly cameBefore: 'leave' | 'take in';
  };
}

/** Reads typed limits; what cannot be read is named and not sent. `now`: local, as `2026-11-30T08:15`. */
export function readLimits(limits: Limits, now: string): ReadLimits {
  const problems: Partial<Record<keyof Limits, string>> = {};
  const whole = (key: 'firstN' | 'dailyLimit'): number | undefined => {
    const text = limits[key].trim();
    if (text === '') return undefined;
    if (/^[1-9]\d{0,5}$/.test(text)) return Number(text);
    problems[key] = 'a whole number above 0, or nothing';
    return undefined;
  };
  const budget = limits.budget.trim().replace(',', '.');
  const euros = /^\d+(?:\.\d{1,2})?$/.test(budget) ? Number(budget) : undefined;
  if (budget !== '' && euros === undefined) problems.budget = 'an amount in euros such as 25 or 2.50, or nothing';
  const startAt = momentOf(limits.startAt, now);
  if (limits.startAt.trim() !== '' && startAt === undefined) problems.startAt = 'a day and a time such as “tomorrow 8:30” or “3 Dec 9:00”';
  if (startAt !== undefined && startAt < now) problems.startAt = 'that has passed';
  const [firstN, dailyLimit] = [whole('firstN'), whole('dailyLimit')];
  return {
    problems,
    ask: {
      ...(firstN !== undefined && { firstN }),
      ...(dailyLimit !== undefined && { dailyLimit }),
      ...(euros !== undefined && { dayBudgetMicro: Math.round(euros * 1_000_000) }),
      ...(startAt !== undefined && problems.startAt === undefined && { startAt }),
      underWay: limits.underWay,
      cameBefore: limits.cameBefore,
    },
  };
}
