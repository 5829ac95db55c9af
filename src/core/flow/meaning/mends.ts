import { assert } from '../../base';
import type { Line, Span } from '../tree/tree';
import type { Mend } from './finding';

const rowStart = (text: string, at: number): number => text.lastIndexOf('\n', at - 1) + 1;

/** Puts a line of its own above another, at the same depth. */
export function insertAbove(text: string, line: Line, typed: string, label: string): Mend {
  const from = rowStart(text, line.from);
  return { label, edits: [{ from, to: from, insert: `${text.slice(from, line.from)}${typed}\n` }] };
}

/** Takes rows out, with everything between their beginning and end. */
export function takeOut(text: string, span: Span, label: string): Mend {
  const from = rowStart(text, span.from);
  const end = text.indexOf('\n', span.to);
  return { label, edits: [{ from, to: end < 0 ? text.length : end + 1, insert: '' }] };
}

const AREA: Readonly<Record<string, number>> = { ha: 10_000, 'm²': 1, m2: 1 };

/** A figure in another unit of the same kind is written in the field's own; undefined where no factor is known. */
export function putUnit(text: string, span: Span, message: string): Mend | undefined {
  const written = /^(\d+(?:\.\d+)?)\s+(\S+)$/.exec(text.slice(span.from, span.to));
  const wanted = /write it in (\S+)/.exec(message)?.[1];
  const [from, to] = [AREA[written?.[2] ?? ''], AREA[wanted ?? '']];
  if (!written || wanted === undefined || from === undefined || to === undefined) return undefined;
  const value = (Number(written[1]) * from) / to;
  assert(Number.isFinite(value), 'a figure times a factor is a figure');
  const insert = `${value} ${wanted}`;
  return { label: `write ${insert}`, edits: [{ from: span.from, to: span.to, insert }] };
}
