/** The writing of a PDF with what a reader of it sees and does not see. */
import type { PrintedRun } from '../../core/formats';

/** An affine matrix as in PDF 32000-1, 8.3.3: [a b c d e f]. */
type Matrix = readonly [number, number, number, number, number, number];
type Box = readonly [number, number, number, number];

/** What of PDF.js is used: its operators by name, a page's list of them, its fonts. */
export interface PdfPage {
  readonly view: readonly number[];
  getOperatorList(): Promise<{ readonly fnArray: readonly number[]; readonly argsArray: readonly unknown[] }>;
  readonly commonObjs: { has(name: string): boolean; get(name: string): unknown };
}
type Operators = Readonly<Record<string, number>>;

export type Unseen = 'in the colour of the paper' | 'in letters too small to read' | 'off the page' | 'behind a picture' | 'transparent';
export interface SeenRun extends PrintedRun {
  readonly unseen: Unseen | null;
}

interface State {
  ctm: Matrix;
  fill: string;
  alpha: number;
  font: string;
  size: number;
  charSpacing: number;
  wordSpacing: number;
  scale: number;
  leading: number;
  rise: number;
  mode: number;
}

/** Letters lower than this many points cannot be read on paper. */
const TINY = 3.5;
/** Contrast (WCAG 2.2, 1.4.3) below this is no contrast. */
const FAINT = 1.25;
const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];
const START: State = {
  ctm: IDENTITY,
  fill: '#000000',
  alpha: 1,
  font: '',
  size: 0,
  charSpacing: 0,
  wordSpacing: 0,
  scale: 1,
  leading: 0,
  rise: 0,
  mode: 0,
};

const times = (m: Matrix, n: Matrix): Matrix => [
  m[0] * n[0] + m[2] * n[1],
  m[1] * n[0] + m[3] * n[1],
  m[0] * n[2] + m[2] * n[3],
  m[1] * n[2] + m[3] * n[3],
  m[0] * n[4] + m[2] * n[5] + m[4],
  m[1] * n[4] + m[3] * n[5] + m[5],
];
const apply = (m: Matrix, x: number, y: number): readonly [number, number] => [m[0] * x + m[2] * y + m[4], m[1] * x + m[3] * y + m[5]];

function boxOf(m: Matrix, [x1, y1, x2, y2]: Box): Box {
  const corners = [apply(m, x1, y1), apply(m, x2, y1), apply(m, x1, y2), apply(m, x2, y2)];
  const xs = corners.map(([x]) => x);
  const ys = corners.map(([, y]) => y);
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
}
const holds = (box: Box, x: number, y: number): boolean => x >= box[0] - 0.5 && x <= box[2] + 0.5 && y >= box[1] - 0.5 && y <= box[3] + 0.5;

interface Painted {
  readonly box: Box;
  /** null: a picture */
  readonly colour: string | null;
  readonly at: number;
}
interface Shown {
  readonly text: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly size: number;
  readonly font: string;
  readonly colour: string;
  readonly alpha: number;
  readonly mode: number;
  readonly at: number;
}

/** Everything written on a page, in points from its upper left corner. */
export async function runsOf(page: PdfPage, no: number, operators: Operators): Promise<readonly SeenRun[]> {
  const { fnArray, argsArray } = await page.getOperatorList();
  const names = new Map(Object.entries(operators).map(([name, fn]) => [fn, name]));
  const sheet = new Sheet();
  for (const [at, fn] of fnArray.entries()) sheet.do(names.get(fn) ?? '', Array.isArray(argsArray[at]) ? argsArray[at] : [], at);
  const [left = 0, bottom = 0, right = 0, top = 0] = page.view;
  const paper: Box = [left, bottom, right, top];
  return sheet.shown.map((run) => ({
    text: isMarked(run, sheet) ? `• ${run.text}` : run.text,
    page: no,
    x: run.x - left,
    y: top - run.y,
    width: run.width,
    size: run.size,
    bold: isBold(page, run.font),
    unseen: unseenWhy(run, sheet.painted, paper),
  }));
}

/** Bullets are drawn as often as they are written: a small spot before the first word of a line. */
function isMarked(run: Shown, { painted, shown }: Sheet): boolean {
  const spot = painted.some(({ box: [x1, y1, x2, y2], colour }) => {
    const [width, height] = [x2 - x1, y2 - y1];
    const isSmall = width < run.size * 0.6 && height < run.size * 0.6 && width > run.size * 0.12 && height > run.size * 0.12;
    const before = run.x - x2;
    return colour !== null && isSmall && before > 0 && before < run.size * 2.2 && y1 > run.y - run.size * 0.2 && y2 < run.y + run.size;
  });
  return (
    spot && !shown.some((other) => other !== run && Math.abs(other.y - run.y) < 1 && other.x < run.x && run.x - other.x < run.size * 2.5)
  );
}

function isBold(page: PdfPage, font: string): boolean {
  if (!page.commonObjs.has(font)) return false;
  const known = page.commonObjs.get(font) as { readonly name?: unknown; readonly bold?: unknown; readonly black?: unknown } | null;
  return (
    known?.bold === true ||
    known?.black === true ||
    /bold|black|heavy|semibold|demi/i.test(typeof known?.name === 'string' ? known.name : '')
  );
}

function unseenWhy(run: Shown, painted: readonly Painted[], paper: Box): Unseen | null {
  const [x, y] = [run.x + run.width / 2, run.y + run.size * 0.3];
  if (!holds(paper, x, y)) return 'off the page';
  if (run.mode === 3 || run.mode === 7 || run.alpha < 0.1) return 'transparent';
  if (run.size < TINY) return 'in letters too small to read';
  const there = painted.filter(({ box }) => holds(box, x, y));
  if (there.some(({ at }) => at > run.at)) return 'behind a picture';
  const under = there.filter(({ at }) => at < run.at).at(-1);
  // What a picture shows where the words stand is not known: words on it are taken as seen.
  if (under?.colour === null) return null;
  return contrast(run.colour, under?.colour ?? '#ffffff') < FAINT ? 'in the colour of the paper' : null;
}

function luminance(colour: string): number {
  const [r = 0, g = 0, b = 0] = [1, 3, 5].map((at) => {
    const part = Number.parseInt(colour.slice(at, at + 2), 16) / 255;
    return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}
/** Contrast of two colours, 1 to 21, by WCAG 2.2. */
export function contrast(one: string, other: string): number {
  const [light, dark] = [luminance(one), luminance(other)].sort((a, b) => b - a);
  return ((light ?? 0) + 0.05) / ((dark ?? 0) + 0.05);
}

const number = (value: unknown): number => (typeof value === 'number' ? value : 0);
const numbers = (value: unknown): readonly number[] =>
  Array.isArray(value) || ArrayBuffer.isView(value) ? Array.from(value as Float32Array) : [];
/** Given as one list or as six arguments. */
const matrixOf = (args: readonly unknown[]): Matrix => {
  const list = typeof args[0] === 'number' ? args : numbers(args[0]);
  const [a = 1, b = 0, c = 0, d = 1, e = 0, f = 0] = list.map(number);
  return [a, b, c, d, e, f];
};

/** Follows the operators of a page (PDF 32000-1, annex A) as far as words and what covers them are concerned. */
class Sheet {
  readonly shown: Shown[] = [];
  readonly painted: Painted[] = [];
  private state: State = { ...START };
  private readonly stack: State[] = [];
  private text: Matrix = IDENTITY;
  private line: Matrix = IDENTITY;

  do(name: string, args: readonly unknown[], at: number): void {
    this.operations[name]?.(args, at);
  }

  private readonly operations: Readonly<Record<string, (args: readonly unknown[], at: number) => void>> = {
    save: () => this.stack.push({ ...this.state }),
    restore: () => {
      this.state = this.stack.pop() ?? this.state;
    },
    transform: (args) => {
      this.state.ctm = times(this.state.ctm, matrixOf(args));
    },
    paintFormXObjectBegin: ([matrix]) => {
      this.stack.push({ ...this.state });
      if (matrix) this.state.ctm = times(this.state.ctm, matrixOf([matrix]));
    },
    paintFormXObjectEnd: () => {
      this.state = this.stack.pop() ?? this.state;
    },
    setFillRGBColor: ([colour]) => {
      if (typeof colour === 'string') this.state.fill = colour;
    },
    setFillTransparent: () => {
      this.state.alpha = 0;
    },
    setGState: ([pairs]) => {
      for (const [key, value] of (Array.isArray(pairs) ? pairs : []) as readonly (readonly [string, unknown])[])
        if (key === 'ca') this.state.alpha = number(value);
        else if (key === 'Font' && Array.isArray(value)) [this.state.font, this.state.size] = [String(value[0]), number(value[1])];
    },
    beginText: () => {
      this.text = this.line = IDENTITY;
    },
    setFont: ([font, size]) => {
      [this.state.font, this.state.size] = [String(font), number(size)];
    },
    setTextMatrix: (args) => {
      this.text = this.line = matrixOf(args);
    },
    moveText: ([x, y]) => this.move(number(x), number(y)),
    setLeadingMoveText: ([x, y]) => {
      this.state.leading = number(y);
      this.move(number(x), number(y));
    },
    nextLine: () => this.move(0, this.state.leading),
    setLeading: ([leading]) => {
      this.state.leading = -number(leading);
    },
    setCharSpacing: ([space]) => {
      this.state.charSpacing = number(space);
    },
    setWordSpacing: ([space]) => {
      this.state.wordSpacing = number(space);
    },
    setHScale: ([scale]) => {
      this.state.scale = number(scale) / 100;
    },
    setTextRise: ([rise]) => {
      this.state.rise = number(rise);
    },
    setTextRenderingMode: ([mode]) => {
      this.state.mode = number(mode);
    },
    showText: ([glyphs], at) => this.show(Array.isArray(glyphs) ? glyphs : [], at),
    showSpacedText: ([glyphs], at) => this.show(Array.isArray(glyphs) ? glyphs : [], at),
    nextLineShowText: ([glyphs], at) => {
      this.move(0, this.state.leading);
      this.show(Array.isArray(glyphs) ? glyphs : [], at);
    },
    constructPath: ([paint, , extent], at) => this.fillPath(number(paint), numbers(extent), at),
    paintImageXObject: (_, at) => this.picture(at),
    paintInlineImageXObject: (_, at) => this.picture(at),
    paintImageXObjectRepeat: (_, at) => this.picture(at),
  };

  private move(x: number, y: number): void {
    this.text = this.line = times(this.line, [1, 0, 0, 1, x, y]);
  }

  private picture(at: number): void {
    this.painted.push({ box: boxOf(this.state.ctm, [0, 0, 1, 1]), colour: null, at });
  }

  /** PDF.js gives a path with how it is painted and how far it reaches. 22 to 27 fill it. */
  private fillPath(paint: number, extent: readonly number[], at: number): void {
    const [x1 = 0, y1 = 0, x2 = 0, y2 = 0] = extent;
    if (paint < 22 || paint > 27 || this.state.alpha < 0.5 || ![x1, y1, x2, y2].every(Number.isFinite)) return;
    this.painted.push({ box: boxOf(this.state.ctm, [x1, y1, x2, y2]), colour: this.state.fill, at });
  }

  private show(glyphs: readonly unknown[], at: number): void {
    const { size, charSpacing, wordSpacing, scale, rise } = this.state;
    let text = '';
    let width = 0;
    const begin = times(this.state.ctm, times(this.text, [scale, 0, 0, 1, 0, rise]));
    for (const glyph of glyphs) {
      if (typeof glyph === 'number') {
        const gap = (-glyph * size) / 1000;
        if (gap > 0.18 * Math.abs(size) && text !== '' && !text.endsWith(' ')) text += ' ';
        width += gap;
        continue;
      }
      if (typeof glyph !== 'object' || glyph === null) continue;
      const { unicode, width: advance, isSpace } = glyph as { unicode?: unknown; width?: unknown; isSpace?: unknown };
      text += typeof unicode === 'string' ? unicode : '';
      width += (number(advance) * size) / 1000 + charSpacing + (isSpace === true ? wordSpacing : 0);
    }
    const [x, y] = apply(begin, 0, 0);
    const [endX] = apply(begin, width, 0);
    const height = Math.hypot(begin[2], begin[3]) * Math.abs(size);
    if (text !== '')
      this.shown.push({
        text,
        x: Math.min(x, endX),
        y,
        width: Math.abs(endX - x),
        size: height,
        font: this.state.font,
        colour: this.state.fill,
        alpha: this.state.alpha,
        mode: this.state.mode,
        at,
      });
    this.text = times(this.text, [1, 0, 0, 1, width * scale, 0]);
  }
}
