import { assert, chance, type Chance, type Instant } from '../base';
import { dayKey, intoWorkingTime, workingDaysFrom, type WorkingTime } from '../calendar';
import { END, type Instruction, type Plan } from '../flow/plan';
import { verbOf } from '../flow/syntax';

/** Middle and the range in which nine of ten runs lie. */
export interface Range {
  readonly low: number;
  readonly mid: number;
  readonly high: number;
}

/** What was seen at one line, in a trial or in history. */
export interface LineSeen {
  readonly mark: string;
  /** trips that went on behind the line */
  readonly passed: number;
  /** that ended or were stuck there */
  readonly ended: number;
  /** by arm, for a split; a null mark: no arm held */
  readonly arms: readonly { readonly mark: string | null; readonly trips: number }[];
  /** of those that passed or ended: what they cost in all */
  readonly costMicro: number;
}

export interface ForecastAsk {
  readonly records: number;
  readonly seen: readonly LineSeen[];
  /** answered and not, of the follow-ups so far */
  readonly replies: { readonly answered: number; readonly silent: number };
  readonly from: Instant;
  readonly time: WorkingTime;
  /** messages a mailbox may send a day */
  readonly sendsPerDay: number;
  /** trips that may begin a day; undefined: all at once */
  readonly beginPerDay?: number;
  readonly runs?: number;
  readonly seed?: number;
}

export interface LineForecast {
  readonly mark: string;
  /** records that get to the line */
  readonly reach: Range;
  readonly costMicro: Range;
  /** nothing has been seen at this line: what happens there is a guess */
  readonly guessed: boolean;
}
export interface ForecastDay {
  readonly day: string;
  readonly sends: Range;
}
export interface Forecast {
  readonly records: number;
  readonly lines: readonly LineForecast[];
  /** records that come to the end of the flow without being stopped */
  readonly through: Range;
  readonly costMicro: Range;
  readonly sends: Range;
  readonly days: readonly ForecastDay[];
  /** the day of the first and of the last message; null when there are none */
  readonly firstDay: string | null;
  readonly lastDay: string | null;
}

const RUNS = 400;
/** A plan that drags on longer than this is cut: the chart would say nothing. */
const MOST_DAYS = 260;
/** How much a line that rarely ends a trip is believed to pass on before anything was seen there: Beta(passed, ended). */
const EASY: readonly [number, number] = [40, 0.4];
const OPEN: readonly [number, number] = [1, 1];
/** One in ten answers, before any answer was seen. */
const REPLIES: readonly [number, number] = [1, 9];

interface Run {
  readonly reach: number[];
  readonly cost: number[];
  readonly perDay: number[];
  through: number;
}

/** Simulates the release many times: rates are drawn from what was seen (Beta, Dirichlet), then records by those rates. */
export function forecast(plan: Plan, ask: ForecastAsk): Forecast {
  assert(ask.records >= 0 && Number.isInteger(ask.records), 'a forecast is for a whole number of records');
  const seen = new Map(ask.seen.map((line) => [line.mark, line]));
  const draw = chance(ask.seed ?? 1);
  const days = workingDaysFrom(dayKey(intoWorkingTime(ask.from, ask.time), ask.time.zone), MOST_DAYS, ask.time.daysOff);
  const runs = Array.from({ length: ask.runs ?? RUNS }, () => oneRun(plan, ask, seen, draw));
  const needed = Math.max(...runs.map((run) => run.perDay.length), 0);
  const busy = days.slice(0, needed).map((day, i) => ({ day, sends: range(runs.map((run) => run.perDay[i] ?? 0)) }));
  const last = busy.findLastIndex((entry) => entry.sends.high > 0);
  const first = busy.findIndex((entry) => entry.sends.high > 0);
  return {
    records: ask.records,
    lines: plan.instructions.map((line) => ({
      mark: line.mark,
      reach: range(runs.map((run) => run.reach[line.at] ?? 0)),
      costMicro: range(runs.map((run) => run.cost[line.at] ?? 0)),
      guessed: !line.off && verbOf(line.step).weighs.isGuess && seenAt(seen.get(line.mark)) === 0,
    })),
    through: range(runs.map((run) => run.through)),
    costMicro: range(runs.map((run) => run.cost.reduce((sum, cost) => sum + cost, 0))),
    sends: range(runs.map((run) => run.perDay.reduce((sum, sends) => sum + sends, 0))),
    days: first < 0 ? [] : busy.slice(0, last + 1),
    firstDay: busy[first]?.day ?? null,
    lastDay: busy[last]?.day ?? null,
  };
}

const seenAt = (line: LineSeen | undefined): number => (line ? line.passed + line.ended : 0);

function oneRun(plan: Plan, ask: ForecastAsk, seen: ReadonlyMap<string, LineSeen>, draw: Chance): Run {
  const run: Run = { reach: plan.instructions.map(() => 0), cost: plan.instructions.map(() => 0), perDay: [], through: 0 };
  const arrive = (at: number, trips: number): void => {
    if (at === END) run.through += trips;
    else run.reach[at] = (run.reach[at] ?? 0) + trips;
  };
  const touches: { readonly day: number; readonly trips: number }[] = [];
  const reply = draw.beta(REPLIES[0] + ask.replies.answered, REPLIES[1] + ask.replies.silent);
  arrive(plan.instructions.length > 0 ? 0 : END, ask.records);
  // Lines lead only forward, so that one pass in reading order sees every arrival.
  for (const line of plan.instructions) {
    const here = run.reach[line.at] ?? 0;
    if (here === 0) continue;
    const known = seen.get(line.mark);
    const on = line.off ? here : here - draw.binomial(here, 1 - passRate(line, known, draw));
    run.cost[line.at] = line.off ? 0 : costOf(here, known, draw);
    const verb = verbOf(line.step);
    if (!line.off)
      (verb.sends?.(line.step, plan.library) ?? []).forEach((day, i) => {
        touches.push({ day, trips: draw.binomial(on, (1 - reply) ** i) });
      });
    if (line.arms.length > 0 && !line.off) part(line, on, known, draw, arrive);
    else if (!verb.ends || line.off) arrive(line.next, on);
  }
  spread(run, touches, ask);
  return run;
}

function passRate(line: Instruction, known: LineSeen | undefined, draw: Chance): number {
  const { loses } = verbOf(line.step).weighs;
  if (loses === 'none') return 1;
  const [a, b] = loses === 'unknown' ? OPEN : EASY;
  return draw.beta(a + (known?.passed ?? 0), b + (known?.ended ?? 0));
}

/** The mean cost of a record at the line, as unsure as the number of records it was seen on lets it be. */
function costOf(here: number, known: LineSeen | undefined, draw: Chance): number {
  const n = seenAt(known);
  if (!known || n === 0 || known.costMicro === 0) return 0;
  const mean = known.costMicro / n;
  return Math.max(0, here * mean * (1 + (0.6 / Math.sqrt(n)) * draw.normal()));
}

/** Shares the records over the arms by a Dirichlet draw (gammas by way of betas, one arm after the other). */
function part(
  line: Instruction,
  trips: number,
  known: LineSeen | undefined,
  draw: Chance,
  arrive: (at: number, trips: number) => void,
): void {
  const hasElse = line.arms.some((arm) => arm.when === undefined);
  const ways = [
    ...line.arms.map((arm) => ({ mark: arm.mark, target: arm.target })),
    ...(hasElse ? [] : [{ mark: null, target: line.next }]),
  ];
  const weights = ways.map((way) => 0.5 + (known?.arms ?? []).reduce((sum, arm) => sum + (arm.mark === way.mark ? arm.trips : 0), 0));
  let [left, rest] = [trips, weights.reduce((sum, weight) => sum + weight, 0)];
  ways.forEach((way, i) => {
    const weight = weights[i] ?? 0;
    rest -= weight;
    const share = i === ways.length - 1 ? 1 : draw.beta(weight, rest);
    const taken = draw.binomial(left, share);
    left -= taken;
    arrive(way.target, taken);
  });
}

/** Puts the messages on working days: as many a day as may begin and may be sent, the others wait. */
function spread(run: Run, touches: readonly { readonly day: number; readonly trips: number }[], ask: ForecastAsk): void {
  const due: number[] = [];
  const share = ask.beginPerDay !== undefined && ask.records > 0 ? Math.min(1, ask.beginPerDay / ask.records) : 1;
  for (const touch of touches) {
    let left = touch.trips;
    for (let day = touch.day; day < MOST_DAYS && left > 0; day++) {
      const begun = Math.min(left, Math.max(1, Math.round(touch.trips * share)));
      due[day] = (due[day] ?? 0) + begun;
      left -= begun;
    }
  }
  let waiting = 0;
  for (let day = 0; day < MOST_DAYS && (waiting > 0 || day < due.length); day++) {
    waiting += due[day] ?? 0;
    const sent = Math.min(waiting, ask.sendsPerDay);
    run.perDay.push(sent);
    waiting -= sent;
  }
}

function range(values: readonly number[]): Range {
  const sorted = Float64Array.from(values).sort();
  const at = (share: number): number => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? 0;
  return { low: at(0.05), mid: at(0.5), high: at(0.95) };
}
