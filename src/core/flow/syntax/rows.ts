import { parser } from './grammar.gen';
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
}

const KINDS: ReadonlySet<string> = new Set(['Word', 'String', 'Number', 'Op', 'Punct', 'Other']);

function isTokenKind(name: string): name is TokenKind {
  return KINDS.has(name);
}

/** Cuts a text into rows and nests them by their column. Total: every text has rows. */
export function readRows(text: string): Row[] {
  const flat: Row[] = [];
  const cursor = parser.parse(text).cursor();
  let tokens: Token[] = [];
  let mark: string | undefined;
  let comment: string | undefined;
  let start = -1;
  const finish = (): void => {
    if (start < 0) return;
    const lineStart = text.lastIndexOf('\n', start - 1) + 1;
    const end = comment === undefined && mark === undefined ? (tokens.at(-1)?.to ?? start) : rowEnd(text, start);
    flat.push({ from: start, to: end, column: columns(text.slice(lineStart, start)), tokens, mark, comment, children: [] });
    tokens = [];
    mark = undefined;
    comment = undefined;
    start = -1;
  };
  do {
    const { name, from, to } = cursor;
    if (name === 'Line') {
      finish();
      start = from;
    } else if (name === 'Mark') mark = text.slice(from + 1, to);
    else if (name === 'Comment') comment = text.slice(from + 2, to).trim();
    else if (isTokenKind(name)) tokens.push({ kind: name, text: text.slice(from, to), from, to });
  } while (cursor.next());
  finish();
  return nest(flat);
}

const rowEnd = (text: string, from: number): number => {
  const end = text.indexOf('\n', from);
  return end < 0 ? text.length : end;
};
const columns = (indent: string): number => [...indent].reduce((sum, c) => sum + (c === '\t' ? 2 : 1), 0);

function nest(flat: readonly Row[]): Row[] {
  const top: Row[] = [];
  const open: Row[] = [];
  for (const row of flat) {
    while (open.length > 0 && (open.at(-1)?.column ?? 0) >= row.column) open.pop();
    const parent = open.at(-1);
    (parent ? parent.children : top).push(row);
    if (row.tokens.length > 0) open.push(row);
  }
  return top;
}
