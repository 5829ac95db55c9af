/** A list of any length, read as a stream: its rows go to a file, what it is comes back. */
import { once } from 'node:events';
import fs from 'node:fs';
import { finished } from 'node:stream/promises';
import { parse, type Parser } from 'csv-parse';
import { orderBy, orderTold } from '../../core/fields';
import {
  decodeTable,
  eightBitOf,
  linesBeyondAscii,
  readTable,
  rowProblem,
  shapeOf,
  TABLE_LIMITS,
  type Encoding,
  type TableShape,
  SAMPLE_BYTES,
} from '../../core/intake';
import type { BoxWork } from '../ports';
import { unpacked } from './sheet';

/** Looked at to find out delimiter, headings and width. */
const HEAD_BYTES = 256 * 1024;
/** vCards are no stream of rows: so large a file of them is read whole. */
const WHOLE_BYTES = 16 * 1024 * 1024;
const MAY_BE_DAY = /^\s*\d{1,2}[./-]\d/;
const number = (count: number): string => count.toLocaleString('en-GB');

export async function listOf({ path, rows, part }: BoxWork['list']['in']): Promise<BoxWork['list']['out']> {
  const { size } = fs.statSync(path);
  if (size === 0) return { problem: 'the file is empty' };
  if (size > TABLE_LIMITS.bytes)
    return { problem: `the file has ${Math.round(size / 1e6)} MB: at most ${TABLE_LIMITS.bytes / 1024 / 1024} MB can be taken in at once` };
  const inner = await fromArchive(path, rows, part);
  if (inner) return inner;
  const head = firstBytes(path);
  const isWide = (head[0] === 0xff && head[1] === 0xfe) || (head[0] === 0xfe && head[1] === 0xff);
  const shape = shapeOf(head, size > head.length, isWide ? undefined : await encodingOfAll(path));
  if ('problem' in shape) return { problem: shape.problem };
  if (shape.kind === 'cards') {
    if (size > WHOLE_BYTES) return { problem: `vCards of more than ${WHOLE_BYTES / 1024 / 1024} MB: bring them in parts` };
    return cards(path, rows);
  }
  return table(path, rows, shape);
}

/** A spreadsheet, or a list in an archive, is read as the text it holds. */
async function fromArchive(path: string, rows: string, part: string | undefined): Promise<BoxWork['list']['out'] | undefined> {
  const { size } = fs.statSync(path);
  if (firstBytes(path).subarray(0, 4).toString() !== 'PK\u0003\u0004') return undefined;
  if (size > WHOLE_BYTES)
    return { problem: `spreadsheets and archives of more than ${WHOLE_BYTES / 1024 / 1024} MB: bring the list as CSV` };
  const text = `${rows}.text`;
  try {
    const inner = await unpacked(fs.readFileSync(path), part);
    if (!inner) return undefined;
    fs.writeFileSync(text, inner.bytes);
    const read = await listOf({ path: text, rows });
    const { parts, part: chosen } = inner;
    return read.list ? { list: { ...read.list, parts, part: chosen, says: [...inner.says, ...read.list.says] } } : read;
  } catch (error) {
    return {
      problem:
        error instanceof Error && !/^(?:the archive is damaged)$/.test(error.message)
          ? error.message
          : 'the file is damaged: save it anew and bring it again',
    };
  } finally {
    fs.rmSync(text, { force: true });
  }
}

function firstBytes(path: string): Buffer {
  const file = fs.openSync(path, 'r');
  try {
    const bytes = Buffer.alloc(HEAD_BYTES);
    return bytes.subarray(0, fs.readSync(file, bytes, 0, HEAD_BYTES, 0));
  } finally {
    fs.closeSync(file);
  }
}

function cards(path: string, rows: string): BoxWork['list']['out'] {
  const { table: read, problem } = readTable(fs.readFileSync(path));
  if (!read) return { problem: problem?.message ?? 'it cannot be read' };
  fs.writeFileSync(rows, read.rows.map((cells, i) => `${JSON.stringify([read.rowNumbers[i] ?? 0, cells])}\n`).join(''));
  const { headings, headingRow, encoding, delimiter } = read;
  return { list: { headings, headingRow, encoding, delimiter, total: read.rows.length, dayOrders: [], says: [] } };
}

/** The encoding of a file without a byte order mark, of all of it: one that is UTF-8 in its first part only would be read wrongly from there on. */
async function encodingOfAll(path: string): Promise<Encoding> {
  const decoder = new TextDecoder('utf-8', { fatal: true });
  let isUtf8 = true;
  let sample = Buffer.alloc(0);
  for await (const chunk of fs.createReadStream(path)) {
    if (sample.length < SAMPLE_BYTES) sample = Buffer.concat([sample, linesBeyondAscii(chunk as Buffer)]);
    try {
      if (isUtf8) decoder.decode(chunk as Buffer, { stream: true });
    } catch {
      isUtf8 = false;
    }
    if (!isUtf8 && sample.length >= SAMPLE_BYTES) break;
  }
  try {
    if (isUtf8) decoder.decode();
  } catch {
    isUtf8 = false;
  }
  return isUtf8 ? 'UTF-8' : eightBitOf(sample);
}

/** Puts the text of a file into a parser as fast as that takes it. */
async function feed(parser: Parser, path: string, decoder: Pick<TextDecoder, 'decode'>): Promise<void> {
  let first = true;
  for await (const chunk of fs.createReadStream(path)) {
    let text = decoder.decode(chunk as Buffer, { stream: true });
    if (first) text = text.replace(/^\ufeff/, '');
    first = false;
    if (!parser.write(text)) await once(parser, 'drain');
  }
  parser.end(decoder.decode());
}

async function table(path: string, rows: string, shape: Extract<TableShape, { kind: 'table' }>): Promise<BoxWork['list']['out']> {
  const { encoding } = shape;
  const { delimiter, headingIndex, headings, width } = shape;
  const decoder = decodeTable(encoding, shape.bigEndian);
  const parser = parse({
    delimiter,
    relax_column_count: true,
    relax_quotes: true,
    skip_empty_lines: true,
    info: true,
    max_record_size: TABLE_LIMITS.record,
  });
  const out = fs.createWriteStream(rows);
  let total = 0;
  let at = 0;
  let before = 0;
  let headingRow = headingIndex < 0 ? 0 : 1;
  let wide = 0;
  const orders = headings.map(() => ({ 'day first': 0, 'month first': 0 }));
  const pushed = feed(parser, path, decoder);
  // A stream that ends early for a fault of its own is told by the loop below.
  pushed.catch(() => undefined);
  try {
    for await (const entry of parser as AsyncIterable<{ record: string[]; info: { lines: number } }>) {
      const line = before + 1;
      before = entry.info.lines;
      const no = at++;
      if (no === headingIndex) headingRow = line;
      if (no <= headingIndex || entry.record.every((cell) => cell.trim() === '')) continue;
      total += 1;
      if (total > TABLE_LIMITS.rows)
        return { problem: `the list has more than ${number(TABLE_LIMITS.rows)} rows: bring it in parts, so that none is lost` };
      if (entry.record.length > width) wide += 1;
      const cells = shape.fill(entry.record);
      for (const [column, cell] of cells.entries()) {
        const order = MAY_BE_DAY.test(cell) ? orderTold(cell) : undefined;
        const counts = orders[column];
        if (order && counts) counts[order]++;
      }
      if (!out.write(`${JSON.stringify([line, cells])}\n`)) await once(out, 'drain');
    }
  } catch (error) {
    return { problem: rowProblem(error) };
  } finally {
    out.end();
    await finished(out);
  }
  if (total === 0) return { problem: 'there are no rows below the headings' };
  const says =
    wide === 0
      ? []
      : [`${number(wide)} ${wide === 1 ? 'row has' : 'rows have'} more cells than there are headings: they stand in the last column`];
  const dayOrders = orders.map((counts) => orderBy(counts) ?? null);
  return { list: { headings, headingRow, encoding, delimiter, total, dayOrders, says } };
}
