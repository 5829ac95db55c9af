import type { RowFigures, ScriptRow } from './script';

/**
 * The ribbon: a channel drawn to scale beside the script. Its width at a row is how many trips get there; it parts at
 * splits, thins where trips stop or are held, and joins again below. Pure geometry in pixels; y grows downwards.
 */
export interface Band {
  readonly key: string;
  readonly path: string;
  readonly tone: 'main' | 'aside';
}
export interface Dot {
  readonly key: string;
  readonly x: number;
  readonly y: number;
  readonly kind: 'stop' | 'ask' | 'stuck';
}
export interface Ribbon {
  readonly width: number;
  readonly height: number;
  readonly bands: readonly Band[];
  readonly dots: readonly Dot[];
}

export interface RibbonAsk {
  readonly rows: readonly ScriptRow[];
  readonly figures: ReadonlyMap<string, RowFigures>;
  /** where each row begins, and behind the last where it ends: one number more than rows */
  readonly tops: readonly number[];
  /** height of a row's own line; what is below it (findings, an open editor) only lengthens the channel */
  readonly lineHeight: number;
  /** in a trial nobody waits for a person: what would be asked goes on */
  readonly trial: boolean;
}

/** A share of a channel above that flows on. */
interface Source {
  readonly key: string;
  readonly count: number;
}
interface Channel {
  readonly key: string;
  readonly x: number;
  /** trips at the top and at the bottom of the row */
  readonly top: number;
  readonly bottom: number;
  readonly tone: Band['tone'];
  readonly from: readonly Source[];
}
/** Where a list of lines runs: its left edge, and what runs beside it meanwhile. */
interface Place {
  readonly x: number;
  readonly key: string;
  readonly left: readonly { readonly key: string; readonly count: number; readonly x: number }[];
  readonly right: { readonly key: string; readonly count: number } | undefined;
}
interface Placed {
  readonly next: number;
  readonly from: readonly Source[];
}

/** Width of the row with most trips. */
const FULL = 44;
const GAP = 5;
/** However few they are, trips can be seen. */
const THIN = 1.5;
/** A bend takes this much of the row above and of the row below. */
const BEND = 11;
const TIP = 7;

/** Draws the ribbon. Scale: the row with most trips is 44 px wide; a row without trips has no channel. */
export function drawRibbon(ask: RibbonAsk): Ribbon {
  const layout = new Layout(ask);
  const rows = layout.place();
  const top = (i: number): number => ask.tops[i] ?? ask.tops.at(-1) ?? 0;
  const links = rows.map((row, i) => joints(rows[i - 1] ?? [], row, layout, top(i)));
  const bodies = rows.flatMap((row, i) =>
    row.map((channel) =>
      body(channel, layout, top(i), top(i + 1) - top(i), {
        bentIn: links[i]?.some((link) => link.to === channel.key) ?? false,
        bentOut: links[i + 1]?.some((link) => link.from === channel.key) ?? false,
        ends: !rows[i + 1]?.some((below) => below.from.some((source) => source.key === channel.key)),
        row: i,
      }),
    ),
  );
  const right = Math.max(FULL, ...rows.flat().map((channel) => channel.x + layout.width(Math.max(channel.top, channel.bottom))));
  return {
    width: Math.ceil(right) + 14,
    height: top(rows.length),
    bands: [...bodies, ...links.flat().map((link) => link.band)].filter((band) => band.path !== ''),
    dots: layout.dots(rows),
  };
}

class Layout {
  private readonly most: number;

  constructor(private readonly ask: RibbonAsk) {
    this.most = Math.max(1, ...ask.rows.map((row) => this.reached(row.mark)));
  }

  width(count: number): number {
    return count <= 0 ? 0 : Math.max(THIN, (count / this.most) * FULL);
  }

  private reached(mark: string): number {
    return this.ask.figures.get(mark)?.reached ?? 0;
  }

  /** Trips that go on below the row. */
  private leaving(row: ScriptRow): number {
    const figures = this.ask.figures.get(row.mark);
    if (!figures || row.kind === 'arm') return figures?.reached ?? 0;
    const { by } = figures;
    const held = this.ask.trial ? 0 : (by.asked ?? 0) + (by.waiting ?? 0);
    return Math.max(0, figures.reached - (by.stopped ?? 0) - (by.stuck ?? 0) - (by.retry ?? 0) - held);
  }

  place(): readonly (readonly Channel[])[] {
    const out: Channel[][] = [];
    this.list(0, 0, { x: 0, key: 'main', left: [], right: undefined }, [], out);
    return out;
  }

  /** The lines of one list from row `at` on. */
  private list(at: number, depth: number, place: Place, entry: readonly Source[], out: Channel[][]): Placed {
    let from = entry;
    let i = at;
    for (let row = this.ask.rows[i]; row?.kind === 'line' && row.depth === depth; row = this.ask.rows[i]) {
      const leaving = this.leaving(row);
      this.push(out, place, { key: place.key, x: place.x, top: this.reached(row.mark), bottom: leaving, tone: 'main', from });
      from = [{ key: place.key, count: leaving }];
      i += 1;
      const inner = this.ask.rows[i];
      if (inner?.kind === 'arm' && inner.depth === depth + 1)
        ({ next: i, from } = this.arms(i, inner.splitMark, depth + 1, place, leaving, out));
    }
    return { next: i, from };
  }

  /** The arms of a split: each runs right of those still to come and left of those that have gone through theirs. */
  private arms(at: number, splitMark: string, depth: number, place: Place, entering: number, out: Channel[][]): Placed {
    let rest: Source = { key: place.key, count: entering };
    let through: readonly Source[] = [];
    let i = at;
    for (const arm of this.ask.rows) {
      if (arm.kind !== 'arm' || arm.splitMark !== splitMark) continue;
      const taken = this.reached(arm.mark);
      const left = { key: `rest ${arm.mark}`, count: Math.max(0, rest.count - taken), x: place.x };
      const passed = through.reduce((sum, source) => sum + source.count, 0);
      const key = `arm ${arm.mark}`;
      const inner: Place = {
        key,
        x: place.x + this.width(left.count) + (left.count > 0 ? GAP : 0),
        left: left.count > 0 ? [...place.left, left] : place.left,
        right: passed > 0 ? { key: `on ${arm.mark}`, count: passed } : place.right,
      };
      const sources = new Map<string, readonly Source[]>([[left.key, [{ key: rest.key, count: left.count }]]]);
      if (passed > 0) sources.set(`on ${arm.mark}`, through);
      this.push(out, inner, { key, x: inner.x, top: taken, bottom: taken, tone: 'main', from: [{ key: rest.key, count: taken }] }, sources);
      const done = this.list(i + 1, depth, inner, [{ key, count: taken }], out);
      through = [...done.from, ...(passed > 0 ? [{ key: `on ${arm.mark}`, count: passed }] : [])].filter((source) => source.count > 0);
      rest = left;
      i = done.next;
    }
    return { next: i, from: [...(rest.count > 0 ? [rest] : []), ...through] };
  }

  private push(out: Channel[][], place: Place, main: Channel, sources: ReadonlyMap<string, readonly Source[]> = new Map()): void {
    const beside = (key: string, count: number, x: number): Channel => ({
      key,
      x,
      top: count,
      bottom: count,
      tone: 'aside',
      from: sources.get(key) ?? [{ key, count }],
    });
    const rightOf = main.x + this.width(Math.max(main.top, main.bottom)) + GAP;
    out.push([
      ...place.left.map((aside) => beside(aside.key, aside.count, aside.x)),
      main,
      ...(place.right ? [beside(place.right.key, place.right.count, rightOf)] : []),
    ]);
  }

  /** Marks at the channel's edge: a dot where trips stop, a ring where they ask, a square where they are stuck. */
  dots(rows: readonly (readonly Channel[])[]): readonly Dot[] {
    const height = this.ask.lineHeight;
    return this.ask.rows.flatMap((row, i): Dot[] => {
      const main = rows[i]?.find((channel) => channel.tone === 'main');
      const by = this.ask.figures.get(row.mark)?.by ?? {};
      if (!main || row.kind === 'arm') return [];
      const edge = main.x + this.width(Math.max(main.top, main.bottom)) + 7;
      const y = this.ask.tops[i] ?? 0;
      const middle = y + height / 2;
      const dot = (kind: Dot['kind'], x: number, y: number): Dot => ({ key: `${row.mark} ${kind}`, kind, x, y });
      return [
        ...((by.stopped ?? 0) > 0
          ? [main.bottom > 0 ? dot('stop', edge, middle + 8) : dot('stop', main.x + this.width(main.top) / 2, y + height - TIP)]
          : []),
        ...((by.asked ?? 0) > 0 ? [dot('ask', edge, middle - 1)] : []),
        ...((by.stuck ?? 0) > 0 ? [dot('stuck', edge, middle - ((by.asked ?? 0) > 0 ? 11 : 1))] : []),
      ];
    });
  }
}

const n = (value: number): string => String(Math.round(value * 10) / 10);

interface Ends {
  readonly bentIn: boolean;
  readonly bentOut: boolean;
  readonly ends: boolean;
  readonly row: number;
}

/** One row's channel: as wide as what arrives, narrowing to what leaves; it tapers where trips stop and is pointed where they are done. */
function body(channel: Channel, layout: Layout, y: number, height: number, at: Ends): Band {
  const [top, bottom] = [layout.width(channel.top), layout.width(channel.bottom)];
  const { x } = channel;
  const key = `${at.row} ${channel.key}`;
  if (top <= 0) return { key, tone: channel.tone, path: '' };
  const from = y + (at.bentIn ? BEND : 0);
  const to = y + height - (at.bentOut ? BEND : 0);
  const [turn, low] = [from + (to - from) * 0.35, from + (to - from) * 0.75];
  const end = at.ends ? to - TIP : to;
  const tip = at.ends ? `L${n(x + bottom / 2)} ${n(to)}L${n(x)} ${n(end)}` : `L${n(x)} ${n(end)}`;
  const right = `H${n(x + top)}V${n(turn)}C${n(x + top)} ${n(low)} ${n(x + bottom)} ${n(turn)} ${n(x + bottom)} ${n(low)}V${n(end)}`;
  return { key, tone: channel.tone, path: `M${n(x)} ${n(from)}${right}${tip}Z` };
}

interface Joint {
  readonly from: string;
  readonly to: string;
  readonly band: Band;
}

/** The bends between two rows: each channel below is fed by slices of the channels above, from left to right. */
function joints(above: readonly Channel[], below: readonly Channel[], layout: Layout, y: number): Joint[] {
  const used = new Map<string, number>();
  const out: (Joint & { readonly straight: boolean })[] = [];
  for (const channel of [...below].sort((a, b) => a.x - b.x)) {
    let into = channel.x;
    for (const source of channel.from) {
      const parent = above.find((entry) => entry.key === source.key);
      const width = Math.min(layout.width(source.count), layout.width(channel.top));
      if (!parent || width <= 0) continue;
      const taken = used.get(source.key) ?? 0;
      used.set(source.key, taken + width);
      const start = parent.x + Math.min(taken, Math.max(0, layout.width(parent.bottom) - width));
      const [a, b] = [y - BEND, y + BEND];
      const path = `M${n(start)} ${n(a)}C${n(start)} ${n(y)} ${n(into)} ${n(y)} ${n(into)} ${n(b)}H${n(into + width)}C${n(into + width)} ${n(y)} ${n(start + width)} ${n(y)} ${n(start + width)} ${n(a)}Z`;
      out.push({
        from: source.key,
        to: channel.key,
        straight: Math.abs(start - into) < 0.05,
        band: { key: `${y} ${source.key} ${channel.key}`, tone: channel.tone, path },
      });
      into += width;
    }
  }
  // A channel that goes straight on needs no bend, unless another one leaves it or joins it here.
  const bent = out.filter((joint) => !joint.straight);
  return out.filter((joint) => !joint.straight || bent.some((other) => other.from === joint.from || other.to === joint.to));
}
