import { diffArrays } from 'diff';

/** A stretch of rows of the base text, `from` up to but not including `to`, and the rows one side has in its place. */
interface Stretch {
  readonly from: number;
  readonly to: number;
  readonly rows: readonly string[];
}

/**
 * Joins two texts that both began as `base`, row by row: what only one side changed is taken from it, rows that both put
 * in at one place all stay (first `mine`, then `theirs`). Undefined when both changed the same row in different ways: that
 * is for a person to settle. Three-way merge after Khanna, Kunal and Pierce, "A Formal Investigation of Diff3" (2007).
 */
export function mergeTexts(base: string, mine: string, theirs: string): string | undefined {
  if (base === mine) return theirs;
  if (base === theirs || mine === theirs) return mine;
  const rows = base.split('\n');
  const all = joined(stretches(rows, mine.split('\n')), stretches(rows, theirs.split('\n')));
  if (!all) return undefined;
  const out: string[] = [];
  let at = 0;
  for (const stretch of all) {
    out.push(...rows.slice(at, stretch.from), ...stretch.rows);
    at = stretch.to;
  }
  return [...out, ...rows.slice(at)].join('\n');
}

function stretches(before: string[], after: string[]): readonly Stretch[] {
  const out: Stretch[] = [];
  let at = 0;
  let open = false;
  for (const part of diffArrays(before, after)) {
    if (!part.added && !part.removed) {
      at += part.value.length;
      open = false;
      continue;
    }
    const last = open ? out.pop() : undefined;
    const from = last?.from ?? at;
    if (part.removed) at += part.value.length;
    out.push({ from, to: at, rows: [...(last?.rows ?? []), ...(part.added ? part.value : [])] });
    open = true;
  }
  return out;
}

/** Both sides' stretches in order, or undefined where two lie over each other and differ. */
function joined(mine: readonly Stretch[], theirs: readonly Stretch[]): readonly Stretch[] | undefined {
  const same = (a: Stretch, b: Stretch): boolean => a.from === b.from && a.to === b.to && a.rows.join('\n') === b.rows.join('\n');
  const others = theirs.filter((their) => !mine.some((my) => same(my, their)));
  const clash = others.some((their) =>
    mine.some((my) => my.from < their.to && their.from < my.to && my.from !== my.to && their.from !== their.to),
  );
  const inside = (inner: Stretch, outer: Stretch): boolean => inner.from === inner.to && inner.from > outer.from && inner.from < outer.to;
  if (clash || others.some((their) => mine.some((my) => inside(my, their) || inside(their, my)))) return undefined;
  return [...mine.map((stretch) => ({ stretch, side: 0 })), ...others.map((stretch) => ({ stretch, side: 1 }))]
    .sort((a, b) => a.stretch.from - b.stretch.from || a.stretch.to - b.stretch.to || a.side - b.side)
    .map(({ stretch }) => stretch);
}
