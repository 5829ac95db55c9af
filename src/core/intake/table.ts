import { parse } from 'csv-parse/sync';
import { CARD_HEADINGS, isVCard, readCards } from './vcard';

export interface Table {
  readonly headings: readonly string[];
  /** data rows, each as wide as the headings */
  readonly rows: readonly (readonly string[])[];
  /** row numbers in the file, 1-based, of the headings and of each data row's first line */
  readonly headingRow: number;
  readonly rowNumbers: readonly number[];
  readonly encoding: 'UTF-8' | 'UTF-16' | 'Windows-1252';
  readonly delimiter: string;
}

export interface TableProblem {
  readonly message: string;
}

export const TABLE_LIMITS = { bytes: 64 * 1024 * 1024, columns: 200, rows: 500_000 } as const;
const DELIMITERS = [',', ';', '\t', '|'] as const;

function decode(bytes: Uint8Array): { text: string; encoding: Table['encoding'] } {
  if ((bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff)) {
    return { text: new TextDecoder(bytes[0] === 0xff ? 'utf-16le' : 'utf-16be').decode(bytes), encoding: 'UTF-16' };
  }
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' };
  } catch {
    return { text: new TextDecoder('windows-1252').decode(bytes), encoding: 'Windows-1252' };
  }
}

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

/** Rows above the headings (titles, dates) hold few cells; the headings are the first row that is mostly filled with words. */
function headingIndex(rows: readonly (readonly string[])[], width: number): number {
  const found = rows.slice(0, 15).findIndex((row) => {
    const filled = row.filter((cell) => cell.trim() !== '');
    return filled.length >= Math.max(2, width * 0.6) && filled.every((cell) => !/@|^\d+$/.test(cell.trim()));
  });
  return Math.max(0, found);
}

function cardTable(text: string, encoding: Table['encoding']): { readonly table?: Table; readonly problem?: TableProblem } {
  const cards = readCards(text).slice(0, TABLE_LIMITS.rows);
  if (cards.length === 0) return { problem: { message: 'the file begins like a vCard, but no card in it ends' } };
  return {
    table: {
      headings: CARD_HEADINGS,
      rows: cards.map((card) => card.cells),
      headingRow: 0,
      rowNumbers: cards.map((card) => card.line),
      encoding,
      delimiter: ',',
    },
  };
}

/** Bytes of a CSV or vCard file as a table: encoding, delimiter and the row of headings are found out. Never throws. */
export function readTable(bytes: Uint8Array): { readonly table?: Table; readonly problem?: TableProblem } {
  if (bytes.length === 0) return { problem: { message: 'the file is empty' } };
  if (bytes.length > TABLE_LIMITS.bytes)
    return {
      problem: {
        message: `the file has ${Math.round(bytes.length / 1e6)} MB: at most ${TABLE_LIMITS.bytes / 1024 / 1024} MB can be taken in at once`,
      },
    };
  if (
    (bytes[0] === 0x50 && bytes[1] === 0x4b) ||
    bytes.subarray(0, 2000).some((byte, i) => byte === 0 && bytes[0] !== 0xff && bytes[0] !== 0xfe && i > 2)
  ) {
    return { problem: { message: 'this is not a text file: save the list as CSV and bring that' } };
  }
  const { text, encoding } = decode(bytes);
  const bare = text.replace(/^\ufeff/, '');
  if (isVCard(bare)) return cardTable(bare, encoding);
  const delimiter = guessDelimiter(bare);
  let parsed: { record: string[]; info: { lines: number } }[];
  try {
    parsed = parse(bare, { delimiter, relax_column_count: true, relax_quotes: true, skip_empty_lines: true, info: true }) as unknown as {
      record: string[];
      info: { lines: number };
    }[];
  } catch (error) {
    return { problem: { message: `the file could not be cut into rows: ${error instanceof Error ? error.message : 'unknown reason'}` } };
  }
  const all = parsed.map((entry) => entry.record);
  const width = Math.min(TABLE_LIMITS.columns, [...all.map((row) => row.length)].sort((a, b) => a - b)[Math.floor(all.length / 2)] ?? 0);
  if (width === 0 || all.length < 2) return { problem: { message: 'there are no rows below the headings' } };
  const at = headingIndex(all, width);
  const headings = fill(all[at] ?? [], width).map((cell, i) => cell.trim().replace(/\s+/g, ' ') || `column ${i + 1}`);
  const body = parsed
    // A record begins on the line behind the one before it: quoted line breaks make it longer than one.
    .map((entry, i) => ({ record: entry.record, line: (parsed[i - 1]?.info.lines ?? 0) + 1 }))
    .slice(at + 1)
    .filter((entry) => entry.record.some((cell) => cell.trim() !== ''))
    .slice(0, TABLE_LIMITS.rows);
  if (body.length === 0) return { problem: { message: 'there are no rows below the headings' } };
  return {
    table: {
      headings,
      rows: body.map((entry) => fill(entry.record, width)),
      headingRow: (parsed[at - 1]?.info.lines ?? 0) + 1,
      rowNumbers: body.map((entry) => entry.line),
      encoding,
      delimiter,
    },
  };
}

const fill = (row: readonly string[], width: number): string[] =>
  Array.from({ length: width }, (_, i) => (i === width - 1 && row.length > width ? row.slice(i).join(' ') : (row[i] ?? '')));
