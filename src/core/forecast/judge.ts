import type { Forecast } from './forecast';

/** One line of a forecast against what really happened. */
export interface Judged {
  readonly mark: string;
  readonly low: number;
  readonly high: number;
  readonly mid: number;
  readonly real: number;
  /** what came about lies inside the range */
  readonly held: boolean;
}

/**
 * Sets a forecast against what has happened so far. The forecast is for its own number of records: its figures are scaled
 * to the number that has really come, so that they can be compared while the flow still runs.
 */
export function judge(
  expected: Pick<Forecast, 'records' | 'lines'>,
  real: { readonly records: number; readonly reach: ReadonlyMap<string, number> },
): readonly Judged[] {
  const scale = expected.records === 0 ? 0 : real.records / expected.records;
  return expected.lines.map((line) => {
    const [low, mid, high] = [line.reach.low, line.reach.mid, line.reach.high].map((value) => value * scale) as [number, number, number];
    const came = real.reach.get(line.mark) ?? 0;
    // Half a record of rounding is no miss.
    return { mark: line.mark, low, mid, high, real: came, held: came >= low - 0.5 && came <= high + 0.5 };
  });
}
