import type { Instant } from '../../../core/base';
import type { RowCounts, Target } from '../../../core/intake';
import type { DayOrder } from '../../../core/fields';
import type { Tx } from '../../db';
import { assertHeld, type Lease } from '../../platform/store/lease';
import { wakeWorkers } from '../../platform/store/wake';

/** How a list was cut into rows. */
export interface ListTable {
  readonly headings: readonly string[];
  readonly headingRow: number;
  readonly encoding: string;
  readonly delimiter: string;
  /** by column, which number of a day comes first where the column tells; missing for lists taken in before that was asked */
  readonly dayOrders?: readonly (DayOrder | null)[];
  /** of a workbook or an archive: the sheets or lists in it, and which of them this is */
  readonly parts?: readonly string[];
  readonly part?: string;
}

export interface ImportRow {
  readonly id: string;
  readonly fence: number;
  readonly fileName: string;
  readonly label: string;
  readonly matching: readonly Target[];
  readonly defaultCountry: string;
  readonly flowId: string | null;
  readonly state: 'looked at' | 'queued' | 'running' | 'done' | 'failed';
  readonly total: number;
  readonly doneRows: number;
  readonly counts: Readonly<Record<string, number>>;
  readonly problem: string | null;
  readonly createdAt: Instant;
  readonly finishedAt: Instant | null;
  readonly createdBy: string | null;
  /** what somebody who brings it should know */
  readonly says: readonly string[];
  /** null while the list still lies as the file it was */
  readonly listTable: ListTable | null;
  /** what would become of all rows, counted beside; null while it is counted */
  readonly forecast: RowCounts | null;
  /** the list whose matching was taken over; null: guessed from the headings */
  readonly matchingFrom: string | null;
}

export async function insertImport(
  tx: Tx,
  made: {
    readonly id: string;
    readonly fileName: string;
    readonly label: string;
    readonly says: readonly string[];
    readonly table: ListTable;
    readonly matching: readonly Target[];
    readonly defaultCountry: string;
    readonly total: number;
    readonly userId: string | null;
    readonly flowId: string | null;
    readonly headings: string;
    readonly matchingFrom: string | null;
  },
  now: Instant,
): Promise<void> {
  await tx`insert into import (id, file_name, label, says, list_table, matching, default_country, total, created_by, flow_id, headings, matching_from, created_at) values (${made.id}, ${made.fileName}, ${made.label}, ${tx.json(made.says)}, ${tx.json(made.table as never)}, ${tx.json(made.matching)}, ${made.defaultCountry}, ${made.total}, ${made.userId}, ${made.flowId}, ${made.headings}, ${made.matchingFrom}, ${now})`;
}

const columns = (tx: Tx) =>
  tx`id, file_name, label, matching, matching_from, default_country, flow_id, state, total, done_rows, counts, says, list_table, forecast, problem, created_at, finished_at, created_by, fence::float8 as fence`;
export async function findImport(tx: Tx, id: string): Promise<ImportRow | undefined> {
  const [row] = await tx<ImportRow[]>`select ${columns(tx)} from import where id = ${id}`;
  return row;
}
export async function listImports(tx: Tx, limit: number): Promise<ImportRow[]> {
  return [...(await tx<ImportRow[]>`select ${columns(tx)} from import where state <> 'looked at' order by created_at desc limit ${limit}`)];
}
/** A list that came before lists were kept in pieces lies as the file it was. */
const AS_FILE = -1;

export async function insertPiece(tx: Tx, id: string, no: number, bytes: Uint8Array): Promise<void> {
  await tx`insert into import_piece (import_id, no, bytes) values (${id}, ${no}, ${Buffer.from(bytes)})`;
}
/** Rows of the list, JSON lines: so many of them lie in each piece as were put there. */
export async function readPiece(tx: Tx, id: string, no: number): Promise<Uint8Array | undefined> {
  const [row] = await tx<{ bytes: Uint8Array }[]>`select bytes from import_piece where import_id = ${id} and no = ${no}`;
  return row?.bytes;
}
/** The file as it came: of a workbook whose other sheets may be wanted, or from before lists were kept in pieces. */
export const keepFile = (tx: Tx, id: string, bytes: Uint8Array): Promise<void> => insertPiece(tx, id, AS_FILE, bytes);
export const oldFile = (tx: Tx, id: string): Promise<Uint8Array | undefined> => readPiece(tx, id, AS_FILE);
/** Names under which lists were taken in. */
export async function listLabels(tx: Tx): Promise<string[]> {
  const rows = await tx<{ label: string }[]>`select distinct label from import where state in ('queued', 'running', 'done') order by label`;
  return rows.map((row) => row.label);
}

/** The list is kept in pieces from now on. */
export async function putTable(tx: Tx, id: string, table: ListTable, total: number): Promise<void> {
  await tx`delete from import_piece where import_id = ${id} and no = ${AS_FILE}`;
  await tx`update import set list_table = ${tx.json(table as never)}, total = ${total} where id = ${id}`;
}
/** Another part of the file takes the place of the one that was read. False: the list is no longer only looked at. */
export async function putPart(
  tx: Tx,
  id: string,
  made: {
    readonly table: ListTable;
    readonly total: number;
    readonly says: readonly string[];
    readonly headings: string;
    readonly matching: readonly Target[];
  },
): Promise<boolean> {
  const changed =
    await tx`update import set list_table = ${tx.json(made.table as never)}, total = ${made.total}, says = ${tx.json(made.says)},
    headings = ${made.headings}, matching = ${tx.json(made.matching)}, matching_from = null, forecast = null where id = ${id} and state = 'looked at'`;
  if (changed.count === 0) return false;
  await tx`delete from import_piece where import_id = ${id} and no <> ${AS_FILE}`;
  return true;
}

/** Another matching makes other rows: what would become of them is counted again. */
export async function putMatching(
  tx: Tx,
  id: string,
  ask: { readonly matching: readonly Target[]; readonly defaultCountry: string },
): Promise<void> {
  const changed =
    await tx`update import set matching = ${tx.json(ask.matching)}, default_country = ${ask.defaultCountry}, forecast = null where id = ${id} and state = 'looked at'
      and (matching <> ${tx.json(ask.matching)} or default_country <> ${ask.defaultCountry}) returning id`;
  if (changed.length > 0) await wakeWorkers(tx);
}
/** A list whose rows are still to be counted; nobody else counts it while the lease lasts. */
export async function claimForecast(tx: Tx, rowsAbove: number, leaseMs: number): Promise<ImportRow | undefined> {
  const [row] = await tx<
    ImportRow[]
  >`update import set fence = fence + 1, lease_until = clock_timestamp() + make_interval(secs => ${leaseMs / 1000})
    where id = (select id from import where state = 'looked at' and forecast is null and list_table is not null and total > ${rowsAbove}
      and (lease_until is null or lease_until < clock_timestamp()) order by created_at desc limit 1 for update skip locked) returning ${columns(tx)}`;
  return row;
}
/** Nothing is kept when the matching has changed meanwhile. */
export async function putForecast(tx: Tx, row: ImportRow, forecast: RowCounts): Promise<void> {
  await tx`update import set forecast = case when matching = ${tx.json(row.matching)} and default_country = ${row.defaultCountry} then ${tx.json(forecast as never)}::jsonb end, lease_until = null where id = ${row.id} and fence = ${row.fence} and state = 'looked at'`;
}

/** How the columns of the last list with these headings were taken. */
export async function lastMatching(
  tx: Tx,
  headings: string,
): Promise<{ readonly matching: readonly Target[]; readonly label: string } | undefined> {
  const [row] = await tx<
    { matching: Target[]; label: string }[]
  >`select matching, label from import where headings = ${headings} and state = 'done' order by created_at desc limit 1`;
  return row;
}

export async function queueImport(
  tx: Tx,
  id: string,
  ask: { readonly matching: readonly Target[]; readonly flowId: string | null; readonly label: string; readonly defaultCountry: string },
): Promise<boolean> {
  const queued =
    (
      await tx`update import set state = 'queued', matching = ${tx.json(ask.matching)}, flow_id = ${ask.flowId}, label = ${ask.label}, default_country = ${ask.defaultCountry}, lease_until = null where id = ${id} and state in ('looked at', 'failed') returning id`
    ).length > 0;
  if (queued) await wakeWorkers(tx);
  return queued;
}

/** Takes an import to work on; one that its worker left is taken again and goes on where it stood. */
export async function claimImport(tx: Tx, leaseMs: number): Promise<ImportRow | undefined> {
  const [row] = await tx<
    ImportRow[]
  >`update import set state = 'running', fence = fence + 1, lease_until = clock_timestamp() + make_interval(secs => ${leaseMs / 1000})
    where id = (select id from import where state = 'queued' or (state = 'running' and lease_until < clock_timestamp()) order by created_at limit 1 for update skip locked) returning ${columns(tx)}`;
  return row;
}

/** Throws `LeaseLost` when somebody else works on the list by now. */
export async function progressImport(tx: Tx, lease: Lease, doneRows: number, leaseMs: number): Promise<void> {
  assertHeld(
    await tx`update import set done_rows = ${doneRows}, lease_until = clock_timestamp() + make_interval(secs => ${leaseMs / 1000}) where id = ${lease.id} and fence = ${lease.fence}`,
    'a list',
  );
}

export async function finishImport(
  tx: Tx,
  lease: Lease,
  end: { readonly state: 'done' | 'failed'; readonly counts: Readonly<Record<string, number>>; readonly problem: string | null },
  now: Instant,
): Promise<void> {
  assertHeld(
    await tx`update import set state = ${end.state}, counts = ${tx.json(end.counts)}, problem = ${end.problem}, finished_at = ${now}, lease_until = null where id = ${lease.id} and fence = ${lease.fence}`,
    'a list',
  );
}

export interface ImportedRow {
  readonly row: number;
  readonly kind: 'new' | 'known' | 'perhaps' | 'refused';
  readonly why: string;
  readonly personId: string | null;
  readonly cells: readonly string[] | null;
}
export async function insertImportRows(tx: Tx, importId: string, rows: readonly ImportedRow[]): Promise<void> {
  if (rows.length === 0) return;
  await tx`insert into import_row (import_id, row, kind, why, person_id, cells) select ${importId}::uuid, row, kind, why, person_id, cells
    from jsonb_to_recordset(${tx.json(rows.map((row) => ({ row: row.row, kind: row.kind, why: row.why, person_id: row.personId, cells: row.cells })))}) as r(row int, kind text, why text, person_id uuid, cells jsonb) on conflict do nothing`;
}
export async function importedRows(tx: Tx, importId: string, kind?: string): Promise<ImportedRow[]> {
  return [
    ...(await tx<
      ImportedRow[]
    >`select row, kind, why, person_id, cells from import_row where import_id = ${importId} ${kind === undefined ? tx`` : tx`and kind = ${kind}`} order by row`),
  ];
}
