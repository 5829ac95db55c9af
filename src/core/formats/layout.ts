import type { Block } from './block';

/** A piece of writing on a page: points from its upper left corner, `y` the line it stands on. */
export interface PrintedRun {
  readonly text: string;
  readonly page: number;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  /** height of the letters, in points */
  readonly size: number;
  readonly bold: boolean;
}

/** Pieces of one line that stand close together: words, or one cell of a table. */
interface Piece extends PrintedRun {
  readonly right: number;
}
interface Row {
  readonly y: number;
  readonly pieces: readonly Piece[];
}
interface Line {
  readonly text: string;
  readonly x: number;
  readonly right: number;
  readonly y: number;
  readonly size: number;
  readonly bold: boolean;
  readonly page: number;
  readonly cells: number;
  /** how far lines of its column reach */
  readonly edge: number;
}

/** Wider than this, in heights of letters, a gap parts cells instead of words. */
const CELL_GAP = 1.3;
/** Narrower than this it is no gap between words. */
const WORD_GAP = 0.14;
/** Two columns have this much empty space between them, in points, over at least so many lines each. */
const GUTTER = 9;
const COLUMN_LINES = 3;
/** Of the shorter side's lines so many on the lines of the other: cells of a table, not columns of text. */
const ALIGNED = 0.8;
/** Heights of letters without any writing, on the left or on the right. */
const BAND_GAP = 5;
/** A page of more lines than this is none that people print: it is read line by line. */
const ROWS_MAX = 200;
const LEADING = 1.75;
/** A column of fewer letters than this. */
const NARROW = 50;
const BULLET = /^(?:[-–—•·*▪◦‣►●○✓]|\(?\d{1,3}(?:\.\d{1,2})*[.)]|\(?[a-z][.)])\s+\S/;
/** A column of times is the first of a table. */
const TIME = /(?:\d{4}|\d{1,2}[./]\d{2})(?!\d)/;
/** What begins a line of its own: a stretch of time, a label, an address. */
const OWN_LINE =
  /^(?:(?:since|from|seit|ab|sinds|vanaf|desde|depuis|von|van|de)\s)?(?:\p{L}{3,10}\.?\s+|\d{1,2}[./])?(?:19|20)\d\d\s*(?:[-–—:]|to\b|bis\b|tot\b|à|a\s|$)|^(?:since|seit|sinds|desde|depuis)\s.{0,24}\d{4}$|^\p{Lu}[\p{L} -]{1,24}:\s|^\S{1,60}@\S/u;
/** “Brightwater-” at the end of a line. */
const COMPOUND = /\p{L}[-‐]$/u;
/** A word parted at the end of a line; not “in- und ausländische”. */
const PARTED = /\p{Ll}[-‐­]$/u;
const JOINS = /^(?:and|or|und|oder|bzw|en|of|y|e|o|et|ou)\b/;

/**
 * The writing of printed pages as blocks in reading order: columns one after the other, tables row by row (cells parted by a
 * tab), lines that were broken by the width of the page put together, heads and feet that repeat on later pages left out.
 */
export function printedBlocks(runs: readonly PrintedRun[]): readonly Block[] {
  const pages = new Map<number, PrintedRun[]>();
  for (const run of runs) {
    if (run.text.trim() === '') continue;
    const page = pages.get(run.page);
    if (page) page.push(run);
    else pages.set(run.page, [run]);
  }

  const lines = withoutRepeats(
    [...pages.values()].map((page) => bandsOf(rowsOf(page)).flatMap((band, _, bands) => inOrder(band, rightOf(bands.flat())))),
  );
  const body = usualSize(lines);
  const out: Block[] = [];
  let under = '';
  for (const paragraph of paragraphsOf(lines)) {
    const [first] = paragraph;
    if (!first) continue;
    const text = parted(joined(paragraph));
    const isHeading =
      first.cells === 1 &&
      text.length <= 90 &&
      paragraph.length <= 2 &&
      !BULLET.test(text) &&
      (first.bold || first.size > body * 1.12) &&
      /\p{L}/u.test(text);
    const kind = isHeading ? 'heading' : first.cells > 1 ? 'row' : BULLET.test(text) ? 'item' : 'text';
    out.push({ kind, text, under, date: null });
    if (isHeading) under = text;
  }
  return out;
}

function rowsOf(runs: readonly PrintedRun[]): readonly Row[] {
  const rows: { y: number; runs: PrintedRun[] }[] = [];
  for (const run of [...runs].sort((a, b) => a.y - b.y || a.x - b.x)) {
    const row = rows.at(-1);
    if (row && Math.abs(run.y - row.y) <= Math.max(1.5, 0.35 * run.size)) row.runs.push(run);
    else rows.push({ y: run.y, runs: [run] });
  }
  return rows.map(({ y, runs: own }) => ({ y, pieces: piecesOf(own.sort((a, b) => a.x - b.x)) }));
}

function piecesOf(runs: readonly PrintedRun[]): readonly Piece[] {
  const out: Piece[] = [];
  for (const run of runs) {
    const last = out.at(-1);
    const gap = last ? run.x - last.right : 0;
    const size = Math.max(run.size, last?.size ?? 0);
    if (!last || gap > CELL_GAP * size) out.push({ ...run, right: run.x + run.width });
    else {
      const space = gap > WORD_GAP * size && !/\s$/.test(last.text) && !/^\s/.test(run.text) ? ' ' : '';
      out[out.length - 1] = {
        ...last,
        text: `${last.text}${space}${run.text}`,
        right: Math.max(last.right, run.x + run.width),
        width: Math.max(last.right, run.x + run.width) - last.x,
        size: run.text.trim() === '' ? last.size : size,
        bold: last.bold && (run.bold || run.text.trim() === ''),
      };
    }
  }
  return out.map((piece) => ({ ...piece, text: piece.text.replace(/\s+/g, ' ').trim() })).filter((piece) => piece.text !== '');
}

/** Rows with much empty paper between them have nothing to do with one another. */
function bandsOf(rows: readonly Row[]): readonly (readonly Row[])[] {
  const out: Row[][] = [];
  for (const row of rows) {
    const last = out.at(-1)?.at(-1);
    const size = Math.max(...row.pieces.map((piece) => piece.size), ...(last?.pieces.map((piece) => piece.size) ?? []));
    if (last && row.y - last.y <= BAND_GAP * size) out.at(-1)?.push(row);
    else out.push([row]);
  }
  return out;
}

/** Lines in the order they are read in: above the columns, the columns, below them. */
function inOrder(rows: readonly Row[], edge = rightOf(rows), depth = 0): readonly Line[] {
  if (rows.length === 0) return [];
  const columns = depth < 4 && rows.length <= ROWS_MAX ? widestColumns(rows) : undefined;
  if (!columns) return asLines(rows, edge);
  const { from, to, at } = columns;
  const side = (left: boolean): readonly Row[] =>
    rows
      .slice(from, to)
      .map((row) => ({ y: row.y, pieces: row.pieces.filter((piece) => piece.x < at === left) }))
      .filter((row) => row.pieces.length > 0);
  return [
    ...inOrder(rows.slice(0, from), edge, depth + 1),
    ...inOrder(side(true), rightOf(side(true)), depth + 1),
    ...inOrder(side(false), rightOf(side(false)), depth + 1),
    ...inOrder(rows.slice(to), edge, depth + 1),
  ];
}

/** The longest stretch of rows with the same empty strip down through them, both sides of it texts of their own. */
function widestColumns(rows: readonly Row[]): { readonly from: number; readonly to: number; readonly at: number } | undefined {
  let best: { readonly from: number; readonly to: number; readonly at: number } | undefined;
  for (let from = 0; from < rows.length; from++) {
    let taken: readonly (readonly [number, number])[] = [];
    for (let to = from + 1; to <= rows.length; to++) {
      taken = union(taken, rows[to - 1]?.pieces ?? []);
      if (taken.length < 2 || (best && to - from <= best.to - best.from)) continue;
      const at = taken.slice(1).flatMap(([start], i) => (start - (taken[i]?.[1] ?? 0) >= GUTTER ? [start - GUTTER / 2] : []));
      const cut = at.find((x) => areColumns(rows.slice(from, to), x));
      if (cut !== undefined) best = { from, to, at: cut };
    }
  }
  return best;
}

function union(taken: readonly (readonly [number, number])[], pieces: readonly Piece[]): readonly (readonly [number, number])[] {
  const out: [number, number][] = [];
  for (const [start, end] of [...taken, ...pieces.map((piece) => [piece.x, piece.right] as const)].sort((a, b) => a[0] - b[0])) {
    const last = out.at(-1);
    if (last && start < last[1] + GUTTER) last[1] = Math.max(last[1], end);
    else out.push([start, end]);
  }
  return out;
}

function areColumns(rows: readonly Row[], at: number): boolean {
  const left = rows.flatMap((row) => row.pieces.filter((piece) => piece.x < at));
  const right = rows.flatMap((row) => row.pieces.filter((piece) => piece.x >= at));
  // A heading across the page stands at its left edge too: it belongs to neither side.
  const sides = rows.map((row) => [
    row.pieces.some((piece) => piece.x < at && !(piece.bold && row.pieces.length === 1)),
    row.pieces.some((piece) => piece.x >= at && !(piece.bold && row.pieces.length === 1)),
  ]);
  const few = Math.min(sides.filter(([one]) => one).length, sides.filter(([, other]) => other).length);
  if (few < COLUMN_LINES) return false;
  const plain = left.filter((piece) => !piece.bold);
  if (plain.filter((piece) => TIME.test(piece.text)).length > plain.length * 0.6) return false;
  const both = sides.filter(([one, other]) => one && other).length;
  if (both / few < ALIGNED) return true;
  // On the same lines by chance: texts of their own have headings of their own, at different heights.
  const heads = (side: readonly Piece[]): readonly number[] =>
    side.filter((piece) => piece.bold && piece.text.length < 40).map((piece) => piece.y);
  const [l, r] = [heads(left), heads(right)];
  const apart = (a: readonly number[], b: readonly number[]): boolean =>
    a.filter((y) => !b.some((other) => Math.abs(y - other) < 3)).length >= 1;
  return l.length >= 2 && r.length >= 2 && l.length < left.length / 2 && r.length < right.length / 2 && apart(l, r) && apart(r, l);
}

const rightOf = (rows: readonly Row[]): number => rows.reduce((far, row) => Math.max(far, ...row.pieces.map((piece) => piece.right)), 0);

function asLines(rows: readonly Row[], edge: number): readonly Line[] {
  return rows.flatMap((row): Line[] => {
    const [first] = row.pieces;
    const last = row.pieces.at(-1);
    if (!first || !last) return [];
    return [
      {
        text: row.pieces.map((piece) => piece.text).join('\t'),
        x: first.x,
        right: last.right,
        y: row.y,
        size: first.size,
        bold: row.pieces.every((piece) => piece.bold),
        page: first.page,
        cells: row.pieces.length,
        edge,
      },
    ];
  });
}

/** What stands at the same height of several pages with the same words, but for numbers, is said once. */
function withoutRepeats(pages: readonly (readonly Line[])[]): readonly Line[] {
  const seen = new Set<string>();
  return pages.flatMap((lines) => {
    const keys = lines.map((line) => `${Math.round(line.y / 3)} ${line.text.replace(/\d+/g, '#')}`);
    const kept = lines.filter((_, i) => !seen.has(keys[i] ?? '') || pages.length === 1);
    for (const [i, line] of lines.entries()) if (isMargin(line, lines)) seen.add(keys[i] ?? '');
    return kept;
  });
}

/** Among the first or last lines of its page. */
function isMargin(line: Line, lines: readonly Line[]): boolean {
  const heights = [...new Set(lines.map((other) => other.y))].sort((a, b) => a - b);
  const at = heights.indexOf(line.y);
  return at < 3 || at >= heights.length - 3;
}

/** The size most of the letters have. */
function usualSize(lines: readonly Line[]): number {
  const letters = new Map<number, number>();
  for (const line of lines) {
    const size = Math.round(line.size * 2) / 2;
    letters.set(size, (letters.get(size) ?? 0) + line.text.length);
  }
  return [...letters].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 10;
}

function paragraphsOf(lines: readonly Line[]): readonly (readonly Line[])[] {
  const out: Line[][] = [];
  for (const line of lines) {
    const paragraph = out.at(-1);
    const last = paragraph?.at(-1);
    if (paragraph && last && goesOn(paragraph[0] ?? last, last, line)) paragraph.push(line);
    else out.push([line]);
  }
  return out;
}

/** Whether a line was broken there because its next word had no room left. */
function goesOn(first: Line, last: Line, next: Line): boolean {
  if (last.cells > 1 || next.cells > 1 || last.page !== next.page || next.edge !== last.edge) return false;
  if (Math.abs(last.size - next.size) > 0.6 || last.bold !== next.bold || BULLET.test(next.text) || OWN_LINE.test(next.text)) return false;
  const gap = next.y - last.y;
  if (gap <= 0 || gap > LEADING * last.size) return false;
  const indent = next.x - first.x;
  if (indent < -2 && !(first === last && indent > -40)) return false;
  // One or two words by themselves are a heading sooner than the end of a sentence that has none.
  if (/^\p{Lu}[\p{L}’'-]*(?: \p{L}[\p{L}’'-]*)?$/u.test(next.text) && !last.bold && !/[,;-]$/.test(last.text)) return false;
  const word = next.text.split(' ')[0] ?? '';
  const perLetter = (next.right - next.x) / Math.max(1, next.text.length);
  // In a narrow column an entry of a list fills its line as often as not.
  if (/^\p{Lu}/u.test(next.text) && !last.bold && (last.edge - first.x) / perLetter < NARROW && !/[,;]$/.test(last.text)) return false;
  return last.right + (word.length + 1) * perLetter > last.edge - 1;
}

function joined(lines: readonly Line[]): string {
  let out = '';
  for (const { text } of lines) {
    if (out === '') out = text;
    else if (COMPOUND.test(out) && /^\p{Lu}/u.test(text)) out = `${out}${text}`;
    else if (PARTED.test(out) && /^\p{Ll}/u.test(text) && !JOINS.test(text)) out = `${out.replace(/[‐­]$/, '')}${text}`;
    else out = `${out} ${text}`;
  }
  return out;
}

/** Letters that are printed as one, “ﬁ”, as the letters they are. */
const parted = (text: string): string => text.replace(/[\uFB00-\uFB06]/g, (letters) => letters.normalize('NFKC'));
