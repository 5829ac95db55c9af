/** The ribbon of any flow with any trips through it: to scale, inside its frame, nothing drawn where nobody got. */
import fc from 'fast-check';
import { anyFlow } from '../../../testing/any-flow';
import { DEMO_LIBRARY } from '../../../testing/demo-library';
import { drawRibbon, type Ribbon } from './ribbon';
import { readScript, type RowFigures, type ScriptRow } from './script';

const LINE = 34;
const OUTCOMES = ['stopped', 'asked', 'stuck', 'waiting'] as const;

/** Trips that walk down a script: at each line some stay behind, at a split they part among its arms. */
function walk(rows: readonly ScriptRow[], trips: number, choose: (most: number) => number): ReadonlyMap<string, RowFigures> {
  const figures = new Map<string, RowFigures>();
  const put = (mark: string, reached: number, stayed: number): void => {
    const outcome = OUTCOMES[choose(OUTCOMES.length - 1)] ?? 'stopped';
    figures.set(mark, {
      reached,
      by: stayed > 0 ? { passed: reached - stayed, [outcome]: stayed } : { passed: reached },
      costMicro: 0,
      tookMs: 0,
    });
  };
  /** Rows from `from` at `depth`; how many come out below. */
  const list = (from: number, depth: number, coming: number): { readonly at: number; readonly out: number } => {
    let [at, here] = [from, coming];
    while (at < rows.length && (rows[at]?.depth ?? -1) >= depth) {
      const row = rows[at];
      if (!row || row.kind !== 'line') break;
      const stayed = row.line.step.verb === 'split' ? 0 : choose(here);
      put(row.mark, here, stayed);
      at += 1;
      if (row.line.step.verb !== 'split') {
        here -= stayed;
        continue;
      }
      let [left, out] = [here, 0];
      for (let arm = rows[at]; arm?.kind === 'arm' && arm.splitMark === row.mark; arm = rows[at]) {
        const taken = choose(left);
        left -= taken;
        put(arm.mark, taken, 0);
        const below = list(at + 1, arm.depth + 1, taken);
        out += below.out;
        at = below.at;
      }
      here = left + out;
    }
    return { at, out: here };
  };
  list(0, 0, trips);
  return figures;
}

const drawn = fc
  .tuple(anyFlow, fc.integer({ min: 0, max: 300_000 }), fc.infiniteStream(fc.double({ min: 0, max: 1, noNaN: true })), fc.boolean())
  .map(([text, trips, shares, trial]) => {
    const { rows } = readScript(text, DEMO_LIBRARY);
    const figures = walk(rows, trips, (most) => Math.floor((shares.next().value as number) * (most + 1) * 0.999));
    const tops = Array.from({ length: rows.length + 1 }, (_, i) => i * LINE);
    return { rows, figures, trips, ribbon: drawRibbon({ rows, figures, tops, lineHeight: LINE, trial }) };
  });
const numbers = (path: string): readonly number[] => [...path.matchAll(/-?\d+(?:\.\d+)?(?:e-?\d+)?/g)].map((found) => Number(found[0]));
const holds = (
  test: (given: {
    readonly rows: readonly ScriptRow[];
    readonly figures: ReadonlyMap<string, RowFigures>;
    readonly trips: number;
    readonly ribbon: Ribbon;
  }) => void,
): void => {
  fc.assert(fc.property(drawn, test), { numRuns: 120 });
};

test('every band is drawn with real numbers, inside the frame', () => {
  holds(({ ribbon }) => {
    for (const band of ribbon.bands) {
      expect(band.path).not.toMatch(/NaN|Infinity|undefined/);
      expect(numbers(band.path).filter((n) => n < -1 || n > Math.max(ribbon.width, ribbon.height) + 1)).toEqual([]);
    }
    expect(new Set(ribbon.bands.map((band) => band.key)).size).toBe(ribbon.bands.length);
  });
});

test('without trips there is no ribbon, with trips there is one', () => {
  holds(({ ribbon, trips }) => {
    expect(ribbon.bands.length > 0).toBe(trips > 0);
  });
});

test('every dot lies at its row, beside the channel, and only where trips wait, ask or are stuck', () => {
  holds(({ rows, figures, ribbon }) => {
    for (const dot of ribbon.dots) {
      const row = rows[Math.min(rows.length - 1, Math.floor(dot.y / LINE))];
      const held = row && figures.get(row.mark)?.by;
      expect(held && Object.keys(held).some((outcome) => outcome !== 'passed')).toBe(true);
      expect(dot.x).toBeGreaterThanOrEqual(0);
      expect(dot.x).toBeLessThanOrEqual(ribbon.width);
    }
    expect(new Set(ribbon.dots.map((dot) => dot.key)).size).toBe(ribbon.dots.length);
  });
});

test('the same trips give the same picture, and ten times as many the same shape', () => {
  holds(({ rows, figures, ribbon }) => {
    const tops = Array.from({ length: rows.length + 1 }, (_, i) => i * LINE);
    const again = drawRibbon({ rows, figures, tops, lineHeight: LINE, trial: false });
    const tenfold = new Map(
      [...figures].map(([mark, entry]): [string, RowFigures] => [
        mark,
        {
          ...entry,
          reached: entry.reached * 10,
          by: Object.fromEntries(Object.entries(entry.by).map(([outcome, n]) => [outcome, n * 10])),
        },
      ]),
    );
    const large = drawRibbon({ rows, figures: tenfold, tops, lineHeight: LINE, trial: false });
    expect(large.bands.length).toBe(again.bands.length);
    expect(large.width).toBeLessThanOrEqual(again.width + 40);
    expect(ribbon.height).toBe(rows.length * LINE);
  });
});
