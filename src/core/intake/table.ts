import { parse } from 'csv-parse/sync';
import { cleanText } from '../base';
import { decodeTable, encodingOf, type Encoding } from './encoding';
import { CARD_HEADINGS, isVCard, readCards } from './vcard';

export interface Table {
  readonly headings: readonly string[];
  /** data rows, each as wide as the headings */
  readonly rows: readonly (readonly string[])[];
  /** row numbers in the file, 1-based, of the headings (0: there are none) and of each data row's first line */
  readonly headingRow: number;
  readonly rowNumbers: readonly number[];
  readonly encoding: Encoding;
  readonly delimiter: string;
}

export interface TableProblem {
  readonly message: string;
}

export const TABLE_LIMITS = { bytes: 100 * 1024 * 1024, columns: 200, rows: 500_000, record: 1024 * 1024 } as const;
const DELIMITERS = [',', ';', '\t', '|'] as const;

/** The delimiter that cuts the first lines into the most even columns; quoted parts do not count. */
function guessDelimiter(text: string): string {
  const lines = text
    .slice(0, 20_000)
    .replace(/"(?:[^"]|"")*"/g, 'q')
    .split(/\r?\n/)
    .filter((line) => line.trim() !== '')
    .slice(0, 30);
  const scored = DELIMITERS.map((delimiter) => {
    const counts = lines.map((line) => line.split(delimiter).length - 1);
    const usual = [...counts].sort((a, b) => a - b)[Math.floor(counts.length / 2)] ?? 0;
    return { delimiter, score: usual * counts.filter((count) => count === usual).length };
  });
  return scored.sort((a, b) => b.score - a.score)[0]?.delimiter ?? ',';
}

/** What stands in records and never in headings: addresses, numbers to call, days, figures with their unit, sites. */
const DATA =
  /^(?:[^\s@]+@[^\s@]+|\+?\(?\d[\d ()/.-]{6,}|\d{1,4}[-./]\d{1,2}[-./]\d{1,4}|\d[\d.,]* ?(?:ha|m2|m²|km|kg|t|%|€)|https?:\/\/\S+|www\.\S+)$/i;
const NONE = -1;

/**
 * Rows above the headings (titles, dates) hold few cells; the headings are the first row that is mostly filled with words. A row
 * of values that comes before says that there are none: then nothing is taken for headings, and nobody is lost as one.
 */
function headingIndex(rows: readonly (readonly string[])[], width: number): number {
  const first = rows.slice(0, 15);
  for (const [i, row] of first.entries()) {
    const filled = row.map((cell) => cell.trim()).filter((cell) => cell !== '');
    if (filled.length < Math.max(2, width * 0.4)) continue;
    if (filled.some((cell) => DATA.test(cell))) return NONE;
    if (filled.length >= Math.max(2, width * 0.6) && filled.every((cell) => !/@|^\d+$/.test(cell))) return i;
  }
  return 0;
}

function cardTable(text: string, encoding: Table['encoding']): { readonly table?: Table; readonly problem?: TableProblem } {
  const cards = readCards(text);
  if (cards.length === 0) return { problem: { message: 'the file begins like a vCard, but no card in it ends' } };
  return {
    table: {
      headings: CARD_HEADINGS,
      rows: cards.map((card) => card.cells.map(cleanText)),
      headingRow: 0,
      rowNumbers: cards.map((card) => card.line),
      encoding,
      delimiter: ',',
    },
  };
}

/** What the first part of a list tells of all of it. */
export type TableShape =
  | {
      readonly kind: 'table';
      readonly encoding: Table['encoding'];
      readonly bigEndian: boolean;
      readonly delimiter: string;
      /** which record holds the headings, from 0; -1: none does */
      readonly headingIndex: number;
      readonly headings: readonly string[];
      readonly width: number;
      /** a record as wide as the headings, its cells as clean text */
      readonly fill: (record: readonly string[]) => string[];
    }
  | { readonly kind: 'cards'; readonly encoding: Table['encoding'] };

const CSV = { relax_column_count: true, relax_quotes: true, skip_empty_lines: true, max_record_size: TABLE_LIMITS.record } as const;

/** Rows that tell how wide a list is. */
const SAMPLE_ROWS = 1_000;

/** Encoding, delimiter and headings of a list by its first part. `cut`: the file goes on behind it. Never throws. */
export function shapeOf(bytes: Uint8Array, cut: boolean, known?: Encoding): TableShape | { readonly problem: string } {
  const isWide = bytes[0] === 0xff || bytes[0] === 0xfe;
  if ((bytes[0] === 0x50 && bytes[1] === 0x4b) || (!isWide && bytes.subarray(0, 2000).includes(0)))
    return { problem: 'this is not a text file: save the list as CSV and bring that' };
  const { encoding, bigEndian } = known === undefined ? encodingOf(bytes, cut) : { encoding: known, bigEndian: false };
  const text = decodeTable(encoding, bigEndian)
    .decode(bytes, { stream: cut })
    .replace(/^\ufeff/, '');
  if (isVCard(text)) return { kind: 'cards', encoding };
  const delimiter = guessDelimiter(text);
  const records: string[][] = [];
  try {
    parse(text, {
      ...CSV,
      delimiter,
      to: SAMPLE_ROWS,
      on_record: (record: string[]) => {
        records.push(record);
        return null;
      },
    });
  } catch (error) {
    // The first part of a file may end inside a cell; what lies before it is enough.
    if (!cut || records.length < 2) return { problem: rowProblem(error) };
  }
  if (cut && records.length < SAMPLE_ROWS && records.length > 2) records.pop();
  const width = records.map((row) => row.length).sort((a, b) => a - b)[Math.floor(records.length / 2)] ?? 0;
  if (width === 0 || records.length === 0) return { problem: 'there are no rows below the headings' };
  if (width > TABLE_LIMITS.columns)
    return { problem: `the list has ${width} columns: at most ${TABLE_LIMITS.columns} are read. Leave those out that are not needed` };
  const at = headingIndex(records, width);
  if (records.length < 2 && at !== NONE) return { problem: 'there are no rows below the headings' };
  const headings = fill(records[at] ?? [], width).map((cell, i) => cell.trim().replace(/\s+/g, ' ') || `column ${i + 1}`);
  return { kind: 'table', encoding, bigEndian, delimiter, headingIndex: at, headings, width, fill: (record) => fill(record, width) };
}

/** Why a file could not be cut into rows, in words. */
export function rowProblem(error: unknown): string {
  if (!(error instanceof Error)) return 'the file could not be cut into rows';
  const { code, lines } = error as { readonly code?: unknown; readonly lines?: unknown };
  if (code === 'CSV_QUOTE_NOT_CLOSED') return 'a quotation mark is opened and never closed: all behind it would be one cell';
  if (code === 'CSV_MAX_RECORD_SIZE')
    return `a row is longer than ${TABLE_LIMITS.record / 1024 / 1024} MB${typeof lines === 'number' ? `, before line ${lines}` : ''}: a quotation mark is probably not closed`;
  return `the file could not be cut into rows: ${error.message}`;
}

/** Bytes of a CSV or vCard file as a table: encoding, delimiter and the row of headings are found out. Never throws. */
export function readTable(bytes: Uint8Array): { readonly table?: Table; readonly problem?: TableProblem } {
  if (bytes.length === 0) return { problem: { message: 'the file is empty' } };
  const shape = shapeOf(bytes, false);
  if ('problem' in shape) return { problem: { message: shape.problem } };
  const text = decodeTable(shape.encoding, 'bigEndian' in shape && shape.bigEndian)
    .decode(bytes)
    .replace(/^\ufeff/, '');
  if (shape.kind === 'cards') return cardTable(text, shape.encoding);
  let parsed: { record: string[]; info: { lines: number } }[];
  try {
    parsed = parse(text, { ...CSV, delimiter: shape.delimiter, info: true }) as unknown as typeof parsed;
  } catch (error) {
    return { problem: { message: rowProblem(error) } };
  }
  const body = parsed
    // A record begins on the line behind the one before it: quoted line breaks make it longer than one.
    .map((entry, i) => ({ record: entry.record, line: (parsed[i - 1]?.info.lines ?? 0) + 1 }))
    .slice(shape.headingIndex + 1)
    .filter((entry) => entry.record.some((cell) => cell.trim() !== ''));
  if (body.length === 0) return { problem: { message: 'there are no rows below the headings' } };
  if (body.length > TABLE_LIMITS.rows)
    return {
      problem: {
        message: `the list has more than ${TABLE_LIMITS.rows.toLocaleString('en-GB')} rows: bring it in parts, so that none is lost`,
      },
    };
  const { headings, encoding, delimiter } = shape;
  return {
    table: {
      headings,
      rows: body.map((entry) => shape.fill(entry.record)),
      headingRow: shape.headingIndex === NONE ? 0 : (parsed[shape.headingIndex - 1]?.info.lines ?? 0) + 1,
      rowNumbers: body.map((entry) => entry.line),
      encoding,
      delimiter,
    },
  };
}

const fill = (row: readonly string[], width: number): string[] =>
  Array.from({ length: width }, (_, i) => cleanText(i === width - 1 && row.length > width ? row.slice(i).join(' ') : (row[i] ?? '')));
