import { readFile, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { cleanText, cutText, fold, type Instant } from '../../core/base';
import { isOfCompanies, guessColumns, type Target } from '../../core/intake';
import { findFlow } from '../flows/store/flows';
import {
  claimImport,
  findImport,
  finishImport,
  importedRows,
  insertImport,
  insertImportRows,
  lastMatching,
  listImports,
  progressImport,
  keepFile,
  oldFile,
  putMatching,
  putPart,
  queueImport,
  type ImportRow,
} from './store/imports';
import type { ReadList } from '../ports';
import { LeaseLost } from '../platform/store/lease';
import { insertAudit } from '../access/store/audit';
import { checkedMatching, CHUNK_PIECES, knownToLists, planChunk, plannersOf, type KnownToLists } from './import-preview';
import { cutList, keepPieces, listWithTable, PIECE, rowsFrom, tableOf, withFolder, type ListRow } from './list-rows';
import { startTrips } from '../trips/start';
import { NO_STANDING, takeInStanding } from './standing';
import { takeInRows, type Door } from './take-in';
import { found, Refusal, workspace, type Actor, type World } from '../platform/world';

const LEASE_MS = 60_000;
const NAME_MAX = 200;
/** Pieces that are planned together: rows that are the same are found within them at once, and in what is known after that. */
const STEP_PIECES = 4;

/** Keeps an uploaded list and says what it seems to be. Nothing is created yet. `file`: its bytes, or the path where they lie. */
export async function lookAtFile(
  world: World,
  actor: Actor,
  file: { readonly name: string; readonly flowId?: string | null } & ({ readonly bytes: Uint8Array } | { readonly path: string }),
): Promise<string> {
  const name = cutText(cleanText(file.name).trim(), NAME_MAX) || 'list.csv';
  const id = world.newId();
  const space = await workspace(world.db);
  const now = await world.clock.now();
  await withFolder(async (folder) => {
    let at = path.join(folder, 'list');
    if ('bytes' in file) await writeFile(at, file.bytes);
    else at = file.path;
    await cutList(world, name, at, folder, (list, pieces) =>
      world.db.begin(async (tx) => {
        const headings = headingsOf(list);
        // Without headings nothing tells that two lists are alike.
        const kept = list.headingRow === 0 ? undefined : await lastMatching(tx, headings);
        await insertImport(
          tx,
          {
            id,
            fileName: name,
            label: labelOf(name),
            says: list.says,
            table: tableOf(list),
            matching: kept?.matching ?? [],
            defaultCountry: space.defaultCountry,
            total: list.total,
            userId: actor.userId,
            flowId: file.flowId ?? null,
            headings,
            matchingFrom: kept?.label ?? null,
          },
          now,
        );
        await keepPieces(tx, id, pieces);
        if ((list.parts?.length ?? 0) > 1) await keepFile(tx, id, await readFile(at));
        if (kept) return;
        const sample = (await rowsFrom(tx, id, 0, 2)).map((row) => row.cells);
        await putMatching(tx, id, {
          matching: guessedFor(await knownToLists(tx), list, sample),
          defaultCountry: space.defaultCountry,
        });
      }),
    );
  });
  return id;
}

const guessedFor = (
  { fields, places }: KnownToLists,
  { headings }: { readonly headings: readonly string[] },
  sample: readonly (readonly string[])[],
): readonly Target[] => guessColumns(headings, sample, fields, places).map((guess) => guess.target);

/** Lists with the same headings are alike. */
const headingsOf = (list: { readonly headings: readonly string[] }): string =>
  list.headings.map((heading) => fold(heading).trim()).join('\n');

/** Reads another sheet of a workbook, or another list of an archive, in place of the one that was read; its columns are guessed anew. */
export async function choosePart(world: World, id: string, part: string): Promise<void> {
  const row = await listWithTable(world, id);
  if (row.listTable.part === part) return;
  if (!row.listTable.parts?.includes(part)) throw new Refusal('not valid', `there is no “${part}” in ${row.fileName}`);
  const bytes = found(await oldFile(world.db, id), 'the file of this list');
  await withFolder(async (folder) => {
    const file = path.join(folder, 'list');
    await writeFile(file, bytes);
    const keep = (list: ReadList, pieces: AsyncIterable<Uint8Array>): Promise<void> =>
      world.db.begin(async (tx) => {
        const made = { table: tableOf(list), total: list.total, says: list.says, headings: headingsOf(list), matching: [] };
        if (!(await putPart(tx, id, made))) throw new Refusal('conflict', 'this list has been taken in already');
        await keepPieces(tx, id, pieces);
        const sample = (await rowsFrom(tx, id, 0, 2)).map((entry) => entry.cells);
        const matching = guessedFor(await knownToLists(tx), list, sample);
        await putMatching(tx, id, { matching, defaultCountry: row.defaultCountry });
      });
    await cutList(world, row.fileName, file, folder, keep, part);
  });
}

const labelOf = (fileName: string): string => fileName.replace(/\.[a-z]+$/i, '').replace(/[_-]+/g, ' ');

export interface StartImport {
  readonly matching?: readonly Target[] | undefined;
  readonly flowId?: string | null | undefined;
  readonly label?: string | undefined;
  readonly defaultCountry?: string | undefined;
}

/** Hands the list to the worker. */
export async function startImport(world: World, actor: Actor, id: string, ask: StartImport): Promise<ImportRow> {
  const row = await listWithTable(world, id);
  const matching = checkedMatching(ask.matching ?? row.matching, row.listTable);
  const ofCompanies = isOfCompanies(matching);
  if (!ofCompanies && !matching.some((target) => target === 'person.name' || target === 'person.email' || target === 'person.last_name'))
    throw new Refusal('not valid', 'no column is taken as the person’s name or e-mail, nor as the company’s name or site: choose one');
  const flowId = ask.flowId === undefined ? row.flowId : ask.flowId;
  if (flowId !== null && ofCompanies)
    throw new Refusal(
      'not valid',
      'this list names companies and nobody who works there, and flows are about people: take it in without one',
    );
  if (flowId !== null) {
    const flow = found(await findFlow(world.db, flowId), 'the flow');
    if (flow.liveVersionId === null)
      throw new Refusal('conflict', `${flow.name} has no live version: release it first, or take the list in without it`);
  }
  const ok = await queueImport(world.db, id, {
    matching,
    flowId,
    label: ask.label ?? row.label,
    defaultCountry: ask.defaultCountry ?? row.defaultCountry,
  });
  if (!ok) throw new Refusal('conflict', 'this list has been taken in already');
  await insertAudit(world.db, {
    at: await world.clock.now(),
    userId: actor.userId,
    what: 'took in a list',
    detail: { importId: id, fileName: row.fileName },
  });
  return found(await findImport(world.db, id), 'this list');
}

export async function importStatus(world: World, id: string): Promise<ImportRow> {
  return found(await findImport(world.db, id), 'this list');
}
export async function imports(world: World): Promise<readonly ImportRow[]> {
  return listImports(world.db, 50);
}

/** Rows of a list that is not taken in yet, of which the refused ones are given at most. */
const REFUSED_MAX = 100_000;

/** The refused rows as they stood in the list, with the reason in a last column, to be mended and brought again. */
export async function refusedRows(
  world: World,
  id: string,
): Promise<{ readonly name: string; readonly headings: readonly string[]; readonly rows: readonly (readonly string[])[] }> {
  const row = await listWithTable(world, id);
  const rows =
    row.state === 'done'
      ? (await importedRows(world.db, id, 'refused')).map((entry) => [...(entry.cells ?? []), entry.why])
      : await refusedYet(world, row);
  return {
    name: `${row.fileName.replace(/\.[a-z]+$/i, '')}-refused.csv`,
    headings: [...row.listTable.headings, 'why refused'],
    rows,
  };
}

async function refusedYet(world: World, row: ImportRow): Promise<readonly (readonly string[])[]> {
  const out: (readonly string[])[] = [];
  const known = await knownToLists(world.db);
  for (let piece = 0; piece * PIECE < row.total && out.length < REFUSED_MAX; piece += CHUNK_PIECES) {
    const rows = await rowsFrom(world.db, row.id, piece, CHUNK_PIECES);
    const { plans } = await planChunk(world.db, row, rows, piece * PIECE, row, known);
    plans.forEach((plan, i) => {
      if (plan.kind === 'refused') out.push([...(rows[i]?.cells ?? []), plan.why]);
    });
  }
  return out;
}

/** The worker's part: takes one list and works it off in batches, each in one transaction with its progress. Returns 1 when there was one. */
export async function runImport(world: World): Promise<number> {
  const row = await claimImport(world.db, LEASE_MS);
  if (!row) return 0;
  try {
    await workOff(world, row);
  } catch (error) {
    if (error instanceof LeaseLost) throw error;
    world.log.error('a list broke', { import: row.id, error: String(error) });
    await finishImport(
      world.db,
      row,
      {
        state: 'failed',
        counts: {},
        problem: 'something broke while the list was taken in; what was taken in before stays, taking it in again goes on',
      },
      await world.clock.now(),
    );
  }
  return 1;
}

/**
 * Rows and progress are saved together, piece by piece: what is done is done, a list taken up again goes on behind it. While a
 * step is written the next one is planned.
 */
async function workOff(world: World, claimed: ImportRow): Promise<void> {
  const now = await world.clock.now();
  const row = await listWithTable(world, claimed.id);
  const versionId = row.flowId === null ? null : ((await findFlow(world.db, row.flowId))?.liveVersionId ?? null);
  const known = await knownToLists(world.db);
  const planners = plannersOf(row.id);
  const counts: Record<string, number> = { new: 0, known: 0, perhaps: 0, refused: 0 };
  const count = (name: string, many = 1): void => {
    if (many > 0) counts[name] = (counts[name] ?? 0) + many;
  };
  let written: Promise<unknown> = Promise.resolve();
  for (let piece = 0; piece * PIECE < row.total; piece += STEP_PIECES) {
    const rows = await rowsFrom(world.db, row.id, piece, STEP_PIECES);
    const before = piece * PIECE;
    const planned = await Promise.all([written, planChunk(world.db, row, rows, before, row, known, planners)]);
    for (const plan of planned[1].plans) count(plan.kind);
    count('newDeals', planned[1].standings.filter(({ deal }) => deal?.isNew).length);
    count('newApplications', planned[1].standings.filter(({ application }) => application?.isNew).length);
    written = writeStep(world, { row: { ...row, fence: claimed.fence }, versionId, before, rows, ...planned[1] }, now);
    // What breaks there is told where it is waited for.
    written.catch(() => undefined);
  }
  await written;
  await finishImport(world.db, claimed, { state: 'done', counts, problem: null }, now);
}

interface Step extends Awaited<ReturnType<typeof planChunk>> {
  readonly row: ImportRow;
  readonly versionId: string | null;
  /** rows in front of it */
  readonly before: number;
  readonly rows: readonly ListRow[];
}

async function writeStep(world: World, { row, versionId, before, rows, readings, plans, standings }: Step, now: Instant): Promise<void> {
  for (let from = Math.max(0, row.doneRows - before); from < plans.length; from += PIECE) {
    const slice = plans.slice(from, from + PIECE).map((plan, i) => ({
      plan,
      reading: readings[from + i]?.reading,
      standing: standings[from + i] ?? NO_STANDING,
      cells: rows[from + i]?.cells ?? [],
    }));
    await world.db.begin(async (tx) => {
      await takeInRows(tx, slice, doorOf(row), now);
      await takeInStanding(tx, slice, doorOf(row), now);
      await insertImportRows(
        tx,
        row.id,
        slice.map(({ plan, cells }) => ({
          row: plan.row,
          kind: plan.kind,
          why: plan.why,
          personId: plan.personId,
          cells: plan.kind === 'refused' ? cells : null,
        })),
      );
      if (versionId !== null && row.flowId !== null)
        await startTrips(
          tx,
          {
            flowId: row.flowId,
            versionId,
            intake: row.id,
            personIds: slice.flatMap(({ plan }) => (plan.personId === null ? [] : [plan.personId])),
          },
          now,
        );
      await progressImport(tx, row, before + Math.min(plans.length, from + PIECE), LEASE_MS);
    });
  }
}

const doorOf = (row: ImportRow): Door => ({
  source: 'file',
  says: `Taken in from file ${row.label}`,
  userId: row.createdBy,
  refOf: (at) => `${row.label}, row ${at}`,
  detailOf: (at) => ({ row: at, importId: row.id }),
});
