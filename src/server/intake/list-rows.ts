/** A list's rows as they are kept: cut once, when it comes, and read piece by piece after that. */
import fs from 'node:fs';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import readline from 'node:readline';
import type { Tx } from '../db';
import { WorldFailure, type ReadList } from '../ports';
import { findImport, insertPiece, oldFile, putTable, readPiece, type ImportRow, type ListTable } from './store/imports';
import { found, Refusal, type World } from '../platform/world';

/** Rows of one piece. */
export const PIECE = 500;

export interface ListRow {
  /** where it begins in the file, 1-based */
  readonly line: number;
  readonly cells: readonly string[];
}

/** Runs `work` with a folder of its own for files that are not kept. */
export async function withFolder<T>(work: (folder: string) => Promise<T>): Promise<T> {
  const folder = await mkdtemp(path.join(os.tmpdir(), 'millrace-list-'));
  try {
    return await work(folder);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Cuts the file at `file` into rows; a list that cannot be cut is refused with the reason. `keep` gets them as pieces, in order. */
export async function cutList(
  world: World,
  name: string,
  file: string,
  folder: string,
  keep: (list: ReadList, pieces: AsyncIterable<Uint8Array>) => Promise<void>,
  part?: string,
): Promise<void> {
  const rows = path.join(folder, 'rows.jsonl');
  let read;
  try {
    read = await world.box.run('list', { path: file, rows, ...(part !== undefined && { part }) });
  } catch (error) {
    if (error instanceof WorldFailure) throw new Refusal('not valid', `${name}: ${error.message}`);
    throw error;
  }
  if (!read.list) throw new Refusal('not valid', `${name}: ${read.problem ?? 'cannot be read'}`);
  await keep(read.list, piecesOf(rows));
}

async function* piecesOf(file: string): AsyncIterable<Uint8Array> {
  let lines: string[] = [];
  for await (const line of readline.createInterface({ input: fs.createReadStream(file), crlfDelay: Infinity })) {
    lines.push(line);
    if (lines.length < PIECE) continue;
    yield Buffer.from(lines.join('\n'));
    lines = [];
  }
  if (lines.length > 0) yield Buffer.from(lines.join('\n'));
}

export async function keepPieces(tx: Tx, id: string, pieces: AsyncIterable<Uint8Array>): Promise<void> {
  let no = 0;
  for await (const bytes of pieces) await insertPiece(tx, id, no++, bytes);
}

export const tableOf = ({ headings, headingRow, encoding, delimiter, dayOrders, parts, part }: ReadList): ListTable => ({
  headings,
  headingRow,
  encoding,
  delimiter,
  dayOrders,
  ...(parts !== undefined && part !== undefined && { parts, part }),
});

/** A list with its table; one from before lists were kept in pieces is cut now. */
export async function listWithTable(world: World, id: string): Promise<ImportRow & { readonly listTable: ListTable }> {
  const row = found(await findImport(world.db, id), 'this list');
  const { listTable } = row;
  if (listTable !== null) return { ...row, listTable };
  const bytes = found(await oldFile(world.db, id), 'the file of this list');
  await withFolder(async (folder) => {
    const file = path.join(folder, 'list');
    await writeFile(file, bytes);
    await cutList(world, row.fileName, file, folder, (list, pieces) =>
      world.db.begin(async (tx) => {
        await putTable(tx, id, tableOf(list), list.total);
        await keepPieces(tx, id, pieces);
      }),
    );
  });
  return listWithTable(world, id);
}

/** The rows of one piece; none behind the last. */
export async function rowsOfPiece(tx: Tx, id: string, no: number): Promise<readonly ListRow[]> {
  const bytes = await readPiece(tx, id, no);
  if (!bytes) return [];
  return Buffer.from(bytes)
    .toString('utf8')
    .split('\n')
    .map((line): ListRow => {
      const [at, cells] = JSON.parse(line) as [number, string[]];
      return { line: at, cells };
    });
}

/** The rows of several pieces together, beginning with one. */
export async function rowsFrom(tx: Tx, id: string, from: number, count: number): Promise<readonly ListRow[]> {
  const out: ListRow[] = [];
  for (let no = from; no < from + count; no++) {
    const rows = await rowsOfPiece(tx, id, no);
    if (rows.length === 0) break;
    for (const row of rows) out.push(row);
  }
  return out;
}
