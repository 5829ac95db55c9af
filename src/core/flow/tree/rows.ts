import type { Span } from './tree';

export type TokenKind = 'Word' | 'String' | 'Number' | 'Op' | 'Punct' | 'Other';
export interface Token extends Span {
  readonly kind: TokenKind;
  readonly text: string;
}

/** One row of text: its column, its tokens, and the mark and comment at its end. Children are the rows indented below it. */
export interface Row extends Span {
  readonly column: number;
  readonly tokens: readonly Token[];
  readonly mark: string | undefined;
  readonly comment: string | undefined;
  readonly children: Row[];
  /** it is indented below more rows than are nested: it stands beside the deepest instead */
  readonly tooDeep: boolean;
}

/** So deep nobody nests; a text made to exhaust the stack is read all the same. */
export const DEEPEST = 60;

/** One token, wherever it begins; spaces and the ends of rows are told apart by their first character. */
const TOKEN =
  /[ \t\r\u00a0]+|\n|\/\/[^\n]*|"(?:[^"\\\n]|\\[^\n])*"?|\d+(?:\.\d+)?|[A-Za-z_\u00aa-\u2000\u2070-\uffff][A-Za-z0-9_\u00aa-\u2000\u2070-\uffff]*|#[A-Za-z0-9]+|!=|>=|<=|\*\*|\.\.|[=<>+*/,.:()[\]-]|[\s\S]/uy;
const OPS = new Set(['!=', '>=', '<=', '=', '<', '>', '+', '*', '/', '**']);
const PUNCT = new Set([',', '.', ':', '(', ')', '[', ']', '-', '..']);

type Cut = TokenKind | 'space' | 'nl' | 'Comment' | 'Mark';

/** What a piece cut by `TOKEN` is, as flow.grammar names it. */
function kindOf(text: string): Cut {
  const code = text.charCodeAt(0);
  if (code === 10) return 'nl';
  if (code === 32 || code === 9 || code === 13 || code === 0xa0) return 'space';
  if (code === 34) return 'String';
  if (code === 35 && text.length > 1) return 'Mark';
  if (code === 47 && text.length > 1) return 'Comment';
  if (code >= 48 && code <= 57) return 'Number';
  if (OPS.has(text)) return 'Op';
  if (PUNCT.has(text)) return 'Punct';
  const letter = (code >= 97 && code <= 122) || (code >= 65 && code <= 90) || code === 95;
  return letter || isWide(code, text) ? 'Word' : 'Other';
}
const isWide = (code: number, text: string): boolean =>
  (code >= 0xaa && code <= 0x2000) || (code >= 0x2070 && (code < 0xd800 || code > 0xdfff)) || (text.length > 2 && code < 0xd800);

/**
 * Cuts a text into rows and nests them by their column. Total: every text has rows. The cuts are those of flow.grammar,
 * which drives the editor; a test holds the two together. Cutting by hand is what makes ten thousand lines quick to read.
 */
export function readRows(text: string): Row[] {
  const flat: Row[] = [];
  let tokens: Token[] = [];
  let mark: string | undefined;
  let comment: string | undefined;
  let start = -1;
  let lineStart = 0;
  const finish = (): void => {
    if (start < 0) return;
    const end = comment === undefined && mark === undefined ? (tokens.at(-1)?.to ?? start) : rowEnd(text, start);
    flat.push({ from: start, to: end, column: columns(text.slice(lineStart, start)), tokens, mark, comment, children: [], tooDeep: false });
    tokens = [];
    mark = undefined;
    comment = undefined;
    start = -1;
  };
  for (let from = 0; from < text.length;) {
    // `test` moves on as `exec` does, without making an array of what it found.
    TOKEN.lastIndex = from;
    const to = TOKEN.test(text) ? TOKEN.lastIndex : from + 1;
    const code = text.charCodeAt(from);
    if (code === 32 && to === from + 1) {
      from = to;
      continue;
    }
    const piece = text.slice(from, to);
    const kind = kindOf(piece);
    if (kind === 'nl') {
      finish();
      lineStart = to;
    } else if (kind !== 'space') {
      if (start < 0) start = from;
      if (kind === 'Mark') mark = piece.slice(1);
      else if (kind === 'Comment') comment = piece.slice(2).trim();
      else tokens.push({ kind, text: piece, from, to });
    }
    from = to;
  }
  finish();
  return nest(flat);
}

const rowEnd = (text: string, from: number): number => {
  const end = text.indexOf('\n', from);
  return end < 0 ? text.length : end;
};
/** A tab counts as two. */
function columns(indent: string): number {
  let sum = 0;
  for (let i = 0; i < indent.length; i++) sum += indent.charCodeAt(i) === 9 ? 2 : 1;
  return sum;
}

function nest(flat: readonly Row[]): Row[] {
  const top: Row[] = [];
  const open: Row[] = [];
  for (const row of flat) {
    while (open.length > 0 && (open.at(-1)?.column ?? 0) >= row.column) open.pop();
    const parent = open.at(-1);
    const tooDeep = open.length >= DEEPEST;
    (parent ? parent.children : top).push(tooDeep ? { ...row, tooDeep } : row);
    if (row.tokens.length > 0 && !tooDeep) open.push(row);
  }
  return top;
}
