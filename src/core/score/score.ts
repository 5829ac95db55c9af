import { compileFeel, feelPaths, parseFeel, type FeelClosure, type FeelScope } from '../feel';
import type { Scorecard } from './scorecard';

export interface CriterionWorking {
  readonly id: string;
  readonly text: string;
  readonly points: number;
  readonly of: number;
  readonly state: 'holds' | 'part' | 'fails' | 'unknown';
  /** the names it read, as paths such as `company.heated_area` */
  readonly reads: readonly string[];
}

export interface ScoreResult {
  readonly points: number;
  readonly of: number;
  /** a band's name, or `out` when a disqualifier holds */
  readonly band: string;
  readonly out: boolean;
  /** one sentence: what earned points and what is missing */
  readonly why: string;
  /** the criterion that cost most */
  readonly weakest: string;
  readonly working: readonly CriterionWorking[];
  readonly disqualifiedBy: readonly string[];
}

export type CompiledScorecard = (scope: FeelScope) => ScoreResult;

interface CompiledLevel {
  readonly holds: FeelClosure;
  readonly points: number;
}

interface CompiledCriterion {
  readonly id: string;
  readonly text: string;
  readonly whenUnknown: number;
  readonly of: number;
  readonly levels: readonly CompiledLevel[];
  readonly reads: readonly string[];
  /** what it reads, to tell a missing value from a plain no */
  readonly values: readonly FeelClosure[];
}

function condition(text: string): { closure: FeelClosure; reads: string[] } {
  const { expr } = parseFeel(text);
  return expr === undefined
    ? { closure: () => null, reads: [] }
    : { closure: compileFeel(expr), reads: feelPaths(expr).map((path) => path.join('.')) };
}

/** Compiles a scorecard once; the closure scores one record. Same inputs, same result; rounding to tenths at the end. */
export function compileScorecard(card: Scorecard): CompiledScorecard {
  const criteria = card.criteria.map((criterion): CompiledCriterion => {
    const levels = criterion.levels.map((level) => ({ ...condition(level.when), points: level.points }));
    const reads = [...new Set(levels.flatMap((level) => level.reads))];
    return {
      id: criterion.id,
      text: criterion.text,
      whenUnknown: criterion.whenUnknown,
      of: Math.max(...criterion.levels.map((level) => level.points)),
      levels: levels.map((level): CompiledLevel => ({ holds: level.closure, points: level.points })),
      reads,
      values: reads.map((read) => condition(read).closure),
    };
  });
  const disqualifiers = card.disqualifiers.map((entry) => ({ text: entry.text, holds: condition(entry.when).closure }));
  const bands = [...card.bands].sort((a, b) => b.from - a.from);
  return (scope) => {
    const working = criteria.map((criterion) => judge(criterion, scope));
    const points = Math.round(working.reduce((sum, entry) => sum + entry.points, 0) * 10) / 10;
    const disqualifiedBy = disqualifiers.filter((entry) => entry.holds(scope) === true).map((entry) => entry.text);
    const out = disqualifiedBy.length > 0;
    return {
      points,
      of: working.reduce((sum, entry) => sum + entry.of, 0),
      out,
      disqualifiedBy,
      working,
      band: out ? 'out' : (bands.find((band) => points >= band.from)?.name ?? bands.at(-1)?.name ?? 'cold'),
      weakest: weakest(working),
      why: why(working, disqualifiedBy),
    };
  };
}

/**
 * The first level that holds decides. When none does and a value it reads is missing, the criterion is unknown: in FEEL
 * `x = true` is false for a missing x, but nobody has said no.
 */
function judge(criterion: CompiledCriterion, scope: FeelScope): CriterionWorking {
  const { id, text, of, reads } = criterion;
  // Spelled out: this runs for every criterion of every record, and spreading costs ten times as much.
  for (const level of criterion.levels)
    if (level.holds(scope) === true) return { id, text, points: level.points, of, state: level.points >= of ? 'holds' : 'part', reads };
  return criterion.values.some((value) => value(scope) === null)
    ? { id, text, points: criterion.whenUnknown, of, state: 'unknown', reads }
    : { id, text, points: 0, of, state: 'fails', reads };
}

function weakest(working: readonly CriterionWorking[]): string {
  const lost = working.reduce<CriterionWorking | undefined>(
    (most, entry) => (most && most.of - most.points >= entry.of - entry.points ? most : entry),
    undefined,
  );
  if (lost === undefined || lost.points >= lost.of) return '–';
  return lost.state === 'unknown' ? `${lost.text} ?` : lost.text;
}

function why(working: readonly CriterionWorking[], disqualifiedBy: readonly string[]): string {
  if (disqualifiedBy.length > 0) return `out: ${disqualifiedBy.join(', ')}`;
  const list = (state: CriterionWorking['state']) => working.filter((entry) => entry.state === state).map((entry) => entry.text);
  const good = [...list('holds'), ...list('part').map((text) => `partly ${text}`)];
  const parts = [good.length > 0 ? good.join(', ') : 'nothing speaks for it'];
  if (list('fails').length > 0) parts.push(`not ${list('fails').join(', ')}`);
  if (list('unknown').length > 0) parts.push(`unknown: ${list('unknown').join(', ')}`);
  return parts.join('; ');
}
