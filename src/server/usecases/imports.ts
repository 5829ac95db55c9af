import { fold, type Instant } from '../../core/base';
import { chooseCurrent, fieldOf, type Fact, type FactDraft, type FactValue } from '../../core/facts';
import {
  guessColumns,
  planRows,
  readRow,
  readTable,
  type ColumnGuess,
  type RowPlan,
  type RowReading,
  type Table,
  type Target,
} from '../../core/intake';
import type { Tx } from '../db';
import { factsOf } from '../store/facts';
import { findFlow } from '../store/flows';
import {
  claimImport,
  findImport,
  finishImport,
  importBytes,
  importedRows,
  insertImport,
  insertImportRows,
  lastMatching,
  listImports,
  progressImport,
  queueImport,
  type ImportRow,
} from '../store/imports';
import { insertAudit } from '../store/timeline';
import { startTrips } from './start';
import { BARS, knownFor, takeInRows, type Door } from './take-in';
import { found, Refusal, workspace, type Actor, type World } from './world';

const BATCH = 500;
const LEASE_MS = 60_000;

/** Keeps an uploaded list and says what it seems to be. Nothing is created yet. */
export async function lookAtFile(
  world: World,
  actor: Actor,
  file: { readonly name: string; readonly bytes: Uint8Array; readonly flowId?: string | null },
): Promise<string> {
  const { table, problem } = readTable(file.bytes);
  if (!table) throw new Refusal('not valid', `${file.name}: ${problem?.message ?? 'cannot be read'}`);
  const guesses = guessColumns(table.headings, table.rows);
  const headings = table.headings.map((heading) => fold(heading).trim()).join('\n');
  const kept = await lastMatching(world.db, headings);
  const matching = kept?.matching ?? guesses.map((guess) => guess.target);
  const id = world.newId();
  const space = await workspace(world.db);
  await insertImport(
    world.db,
    {
      id,
      fileName: file.name,
      label: labelOf(file.name),
      bytes: file.bytes,
      matching,
      defaultCountry: space.defaultCountry,
      total: table.rows.length,
      userId: actor.userId,
      flowId: file.flowId ?? null,
      headings,
      matchingFrom: kept?.label ?? null,
    },
    await world.clock.now(),
  );
  return id;
}

const labelOf = (fileName: string): string => fileName.replace(/\.[a-z]+$/i, '').replace(/[_-]+/g, ' ');

export interface ImportPreview {
  readonly import: ImportRow;
  readonly table: Pick<Table, 'encoding' | 'delimiter' | 'headingRow'>;
  readonly columns: readonly ColumnGuess[];
  readonly rows: readonly {
    readonly row: number;
    readonly fileRow: number;
    readonly cells: readonly string[];
    readonly plan: RowPlan;
    readonly reading: RowReading;
    /** of somebody known: values that the row would change, for the first so many */
    readonly changes: readonly Change[];
  }[];
  readonly counts: {
    readonly new: number;
    readonly known: number;
    readonly perhaps: number;
    readonly refused: number;
    readonly newCompanies: number;
  };
}

/** What would happen with each row under a column matching. Reads only. */
export async function previewImport(
  world: World,
  id: string,
  ask: { readonly matching?: readonly Target[] | undefined; readonly defaultCountry?: string | undefined },
): Promise<ImportPreview> {
  const row = found(await findImport(world.db, id), 'this list');
  const { table } = readTable(found(await importBytes(world.db, id), 'this list'));
  if (!table) throw new Refusal('not valid', 'the list can no longer be read');
  const matching = checkedMatching(ask.matching ?? row.matching, table);
  const columns = guessColumns(table.headings, table.rows).map((guess, i) => ({ ...guess, target: matching[i] ?? 'leave out' }));
  const { readings, plans } = await planTable(world.db, id, table, matching, ask.defaultCountry ?? row.defaultCountry);
  const changes = await changesOf(
    world.db,
    plans.flatMap((plan, i) => (plan.kind === 'known' ? [{ plan, reading: readings[i]?.reading }] : [])),
    await world.clock.now(),
  );
  const count = (kind: RowPlan['kind']): number => plans.filter((plan) => plan.kind === kind).length;
  return {
    import: row,
    table: { encoding: table.encoding, delimiter: table.delimiter, headingRow: table.headingRow },
    columns,
    rows: plans.map((plan, i) => ({
      row: plan.row,
      fileRow: table.rowNumbers[i] ?? 0,
      cells: table.rows[i] ?? [],
      plan,
      reading: readings[i]?.reading ?? { record: { person: {}, company: {}, note: null }, remarks: [], refused: null },
      changes: changes.get(plan.row) ?? [],
    })),
    counts: {
      new: count('new'),
      known: count('known'),
      perhaps: count('perhaps'),
      refused: count('refused'),
      newCompanies: new Set(plans.filter((plan) => plan.newCompany).map((plan) => plan.companyId)).size,
    },
  };
}

export interface Change {
  /** `person.phone` */
  readonly field: string;
  readonly from: FactValue;
  readonly to: FactValue;
}

/** So many known rows are compared value by value in a preview. */
const COMPARED = 400;

/** What rows would change about people and companies that are known: where the row's value would become the current one. */
async function changesOf(
  tx: Tx,
  rows: readonly { readonly plan: RowPlan; readonly reading: RowReading | undefined }[],
  now: Instant,
): Promise<ReadonlyMap<number, readonly Change[]>> {
  const some = rows.slice(0, COMPARED);
  const ids = some.flatMap(({ plan }) => [plan.personId, plan.newCompany ? null : plan.companyId]).filter((id) => id !== null);
  const facts = new Map<string, Fact[]>();
  for (const fact of await factsOf(tx, [...new Set(ids)])) {
    const key = `${fact.record.id} ${fact.field}`;
    facts.set(key, [...(facts.get(key) ?? []), fact]);
  }
  const against = (kind: 'person' | 'company', id: string | null, values: Readonly<Record<string, FactValue>>): readonly Change[] =>
    id === null
      ? []
      : Object.entries(values).flatMap(([field, to]) => {
          // The parts of a name change with the name.
          if (field === 'first_name' || field === 'last_name') return [];
          const known = facts.get(`${id} ${field}`) ?? [];
          const from = chooseCurrent(known)?.value ?? null;
          const row: FactDraft = {
            record: { kind, id },
            field,
            value: to,
            source: 'file',
            sourceRef: '',
            confidence: 0.8,
            observedAt: now,
          };
          const wins = fieldOf(kind, field) !== undefined && chooseCurrent<FactDraft>([...known, row]) === row;
          return wins && from !== to ? [{ field: `${kind}.${field}`, from, to }] : [];
        });
  return new Map(
    some.map(({ plan, reading }) => [
      plan.row,
      [
        ...against('person', plan.personId, reading?.record.person ?? {}),
        ...against('company', plan.newCompany ? null : plan.companyId, reading?.record.company ?? {}),
      ],
    ]),
  );
}

function checkedMatching(matching: readonly Target[], table: Table): readonly Target[] {
  if (matching.length !== table.headings.length)
    throw new Refusal('not valid', `the list has ${table.headings.length} columns, the matching has ${matching.length}`);
  const twice = matching.find((target, i) => target !== 'note' && target !== 'leave out' && matching.indexOf(target) !== i);
  if (twice) throw new Refusal('not valid', `two columns are taken as ${twice}: one of them must be left out`);
  return matching;
}

async function planTable(
  tx: Tx,
  importId: string,
  table: Table,
  matching: readonly Target[],
  defaultCountry: string,
): Promise<{ readings: { row: number; reading: RowReading }[]; plans: readonly RowPlan[] }> {
  const columns = matching.map((target) => ({ target }));
  const readings = table.rows.map((cells, i) => ({ row: i + 1, reading: readRow(cells, columns, defaultCountry) }));
  return { readings, plans: planRows(readings, await knownFor(tx, importId, readings), { importId, ...BARS }) };
}

export interface StartImport {
  readonly matching?: readonly Target[] | undefined;
  readonly flowId?: string | null | undefined;
  readonly label?: string | undefined;
  readonly defaultCountry?: string | undefined;
}

/** Hands the list to the worker. */
export async function startImport(world: World, actor: Actor, id: string, ask: StartImport): Promise<ImportRow> {
  const row = found(await findImport(world.db, id), 'this list');
  const { table } = readTable(found(await importBytes(world.db, id), 'this list'));
  if (!table) throw new Refusal('not valid', 'the list can no longer be read');
  const matching = checkedMatching(ask.matching ?? row.matching, table);
  if (!matching.some((target) => target === 'person.name' || target === 'person.email' || target === 'person.last_name'))
    throw new Refusal('not valid', 'no column is taken as the person’s name or e-mail: choose one');
  const flowId = ask.flowId === undefined ? row.flowId : ask.flowId;
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

/** The refused rows as they stood in the list, with the reason in a last column, to be mended and brought again. */
export async function refusedRows(
  world: World,
  id: string,
): Promise<{ readonly name: string; readonly headings: readonly string[]; readonly rows: readonly (readonly string[])[] }> {
  const row = found(await findImport(world.db, id), 'this list');
  const { table } = readTable(found(await importBytes(world.db, id), 'this list'));
  if (!table) throw new Refusal('not valid', 'the list can no longer be read');
  const refused =
    row.state === 'done'
      ? (await importedRows(world.db, id, 'refused')).map((entry) => ({ row: entry.row, why: entry.why }))
      : (await previewImport(world, id, {})).rows
          .filter((entry) => entry.plan.kind === 'refused')
          .map((entry) => ({ row: entry.row, why: entry.plan.why }));
  return {
    name: `${row.fileName.replace(/\.[a-z]+$/i, '')}-refused.csv`,
    headings: [...table.headings, 'why refused'],
    rows: refused.map((entry) => [...(table.rows[entry.row - 1] ?? []), entry.why]),
  };
}

/** The worker's part: takes one list and works it off in batches, each in one transaction with its progress. Returns 1 when there was one. */
export async function runImport(world: World): Promise<number> {
  const row = await claimImport(world.db, LEASE_MS);
  if (!row) return 0;
  try {
    await workOff(world, row);
  } catch (error) {
    world.log.error('a list broke', { import: row.id, error: String(error) });
    await finishImport(
      world.db,
      row.id,
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

async function workOff(world: World, row: ImportRow): Promise<void> {
  const now = await world.clock.now();
  const { table } = readTable(found(await importBytes(world.db, row.id), 'this list'));
  if (!table) throw new Error('the list can no longer be read');
  const { readings, plans } = await planTable(world.db, row.id, table, row.matching, row.defaultCountry);
  const versionId = row.flowId === null ? null : ((await findFlow(world.db, row.flowId))?.liveVersionId ?? null);
  // Rows and progress are saved together: what is done is done, a list taken up again goes on behind it.
  for (let from = row.doneRows; from < plans.length; from += BATCH) {
    const slice = plans
      .slice(from, from + BATCH)
      .map((plan, i) => ({ plan, reading: readings[from + i]?.reading, cells: table.rows[from + i] ?? [] }));
    await world.db.begin(async (tx) => {
      await takeInRows(tx, slice, doorOf(row), now);
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
      await progressImport(tx, row.id, Math.min(plans.length, from + BATCH), LEASE_MS);
    });
  }
  const counts: Record<string, number> = { new: 0, known: 0, perhaps: 0, refused: 0 };
  for (const plan of plans) counts[plan.kind] = (counts[plan.kind] ?? 0) + 1;
  await finishImport(world.db, row.id, { state: 'done', counts, problem: null }, now);
}

const doorOf = (row: ImportRow): Door => ({
  source: 'file',
  says: `Taken in from file ${row.label}`,
  defaultCountry: row.defaultCountry,
  userId: row.createdBy,
  refOf: (at) => `${row.label}, row ${at}`,
  detailOf: (at) => ({ row: at, importId: row.id }),
});
