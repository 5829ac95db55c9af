import { compileFeel, feelPaths, parseFeel, type FeelClosure, type FeelScope } from '../feel';
import type { Scorecard } from './scorecard';

export interface CriterionWorking {
  readonly id: string;
  readonly text: string;
  readonly points: number;
  readonly of: number;
  readonly state: 'holds' | 'part' | 'fails' | 'unknown';
  /** the names it read, as paths such as `company.founded` */
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
  const most = criteria.reduce((sum, criterion) => sum + criterion.of, 0);
  return (scope) => {
    const verdicts = criteria.map((criterion) => judge(criterion, scope));
    let sum = 0;
    for (let i = 0; i < criteria.length; i++) sum += pointsOf(criteria[i], verdicts[i] ?? FAILS);
    const points = Math.round(sum * 10) / 10;
    const disqualifiedBy =
      disqualifiers.length === 0 ? NOBODY : disqualifiers.filter((entry) => entry.holds(scope) === true).map((entry) => entry.text);
    const band = disqualifiedBy.length > 0 ? 'out' : (bands.find((entry) => points >= entry.from)?.name ?? bands.at(-1)?.name ?? 'cold');
    return new Scored(points, most, band, disqualifiedBy, criteria, verdicts);
  };
}

const NOBODY: readonly string[] = [];

/** A score whose reasons are put into words only where somebody looks at them: scoring a list by its points does not. */
class Scored implements ScoreResult {
  private made: readonly CriterionWorking[] | undefined;

  constructor(
    readonly points: number,
    readonly of: number,
    readonly band: string,
    readonly disqualifiedBy: readonly string[],
    private readonly criteria: readonly CompiledCriterion[],
    private readonly verdicts: readonly Verdict[],
  ) {}

  get out(): boolean {
    return this.disqualifiedBy.length > 0;
  }
  get working(): readonly CriterionWorking[] {
    return (this.made ??= this.criteria.map((criterion, i) => workingOf(criterion, this.verdicts[i] ?? FAILS)));
  }
  get weakest(): string {
    return weakest(this.working);
  }
  get why(): string {
    return why(this.working, this.disqualifiedBy);
  }
}

/** Which level of a criterion holds, by its place; or that none does, or that it cannot be told. */
type Verdict = number;
const FAILS: Verdict = -1;
const UNKNOWN: Verdict = -2;

/**
 * The first level that holds decides. When none does and a value it reads is missing, the criterion is unknown: in FEEL
 * `x = true` is false for a missing x, but nobody has said no.
 */
function judge(criterion: CompiledCriterion, scope: FeelScope): Verdict {
  const { levels, values } = criterion;
  for (let i = 0; i < levels.length; i++) if (levels[i]?.holds(scope) === true) return i;
  for (const value of values) if (value(scope) === null) return UNKNOWN;
  return FAILS;
}

const pointsOf = (criterion: CompiledCriterion | undefined, verdict: Verdict): number =>
  verdict >= 0 ? (criterion?.levels[verdict]?.points ?? 0) : verdict === UNKNOWN ? (criterion?.whenUnknown ?? 0) : 0;

function workingOf(criterion: CompiledCriterion, verdict: Verdict): CriterionWorking {
  const { id, text, of, reads } = criterion;
  const points = pointsOf(criterion, verdict);
  const state = verdict === UNKNOWN ? 'unknown' : verdict === FAILS ? 'fails' : points >= of ? 'holds' : 'part';
  return { id, text, points, of, state, reads };
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
