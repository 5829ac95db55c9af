/** What would happen with the rows of a list: looked at on its first rows, counted for all of them beside. */
import type { Instant } from '../../core/base';
import { chooseCurrent, ownRankOf, type Fact, type FactDraft } from '../../core/facts';
import type { Catalogue, FactValue } from '../../core/fields';
import {
  addCounts,
  countPlans,
  guessColumns,
  headingUnit,
  NOWHERE,
  readRow,
  RowPlanner,
  StandingPlanner,
  targetField,
  type ColumnGuess,
  type Places,
  type RowCounts,
  type RowPlan,
  type RowReading,
  type Target,
} from '../../core/intake';
import type { Tx } from '../db';
import { factsOf } from '../records/store/facts';
import { claimForecast, findImport, putForecast, putMatching, type ImportRow, type ListTable } from './store/imports';
import { NO_STANDING, planStanding, placesOf, type RowStanding } from './standing';
import { withoutErased } from '../workspace/erase';
import { loadCatalogue } from '../records/fields';
import { listWithTable, PIECE, rowsFrom, type ListRow } from './list-rows';
import { BARS, knownFor } from './take-in';
import { Refusal, type World } from '../platform/world';

/** Pieces that a preview looks at; a longer list is shown by its first rows. */
const SHOWN_PIECES = 2;
export const SHOWN_ROWS = SHOWN_PIECES * PIECE;
/** Pieces that are counted together: rows that are the same are found within them. */
export const CHUNK_PIECES = 40;
const LEASE_MS = 120_000;

export interface ImportPreview {
  readonly import: ImportRow;
  readonly table: Required<Pick<ListTable, 'encoding' | 'delimiter' | 'headingRow' | 'parts' | 'part'>>;
  readonly columns: readonly ColumnGuess[];
  /** the first rows */
  readonly rows: readonly {
    readonly row: number;
    readonly fileRow: number;
    readonly cells: readonly string[];
    readonly plan: RowPlan;
    readonly reading: RowReading;
    readonly standing: RowStanding;
    /** of somebody known: values that the row would change, for the first so many */
    readonly changes: readonly Change[];
  }[];
  /** of all rows; null while they are counted */
  readonly counts: RowCounts | null;
}

/** What would happen with the rows under a column matching, which is kept. Makes no records. */
export async function previewImport(
  world: World,
  id: string,
  ask: { readonly matching?: readonly Target[] | undefined; readonly defaultCountry?: string | undefined },
): Promise<ImportPreview> {
  const before = await listWithTable(world, id);
  const matching = checkedMatching(ask.matching ?? before.matching, before.listTable);
  const defaultCountry = ask.defaultCountry ?? before.defaultCountry;
  await putMatching(world.db, id, { matching, defaultCountry });
  const row = { ...((await findImport(world.db, id)) ?? before), listTable: before.listTable };
  const rows = await rowsFrom(world.db, id, 0, SHOWN_PIECES);
  const known = await knownToLists(world.db);
  const { fields, places } = known;
  const guesses = guessColumns(
    row.listTable.headings,
    rows.map((entry) => entry.cells),
    fields,
    places,
  );
  const { readings, plans, standings } = await planChunk(world.db, row, rows, 0, { matching, defaultCountry }, known);
  const changes = await changesOf(
    world.db,
    plans.flatMap((plan, i) => (plan.kind === 'known' ? [{ plan, reading: readings[i]?.reading }] : [])),
    await world.clock.now(),
    fields,
  );
  const { encoding, delimiter, headingRow, parts = [], part = '' } = row.listTable;
  return {
    import: row,
    table: { encoding, delimiter, headingRow, parts, part },
    columns: guesses.map((guess, i) => ({ ...guess, target: matching[i] ?? 'leave out' })),
    rows: plans.map((plan, i) => ({
      row: plan.row,
      fileRow: rows[i]?.line ?? 0,
      cells: rows[i]?.cells ?? [],
      plan,
      reading: readings[i]?.reading ?? { record: { person: {}, company: {}, note: null, standing: NOWHERE }, remarks: [], refused: null },
      standing: standings[i] ?? NO_STANDING,
      changes: changes.get(plan.row) ?? [],
    })),
    counts: row.total <= SHOWN_ROWS ? countsOf(plans, standings) : row.forecast && { ...countsOf([], []), ...row.forecast },
  };
}

const countsOf = (plans: readonly RowPlan[], standings: readonly RowStanding[]): RowCounts =>
  countPlans(plans.map((plan, i) => ({ plan, standing: standings[i] ?? NO_STANDING })));

/** What the rows of lists can fill and name. */
export interface KnownToLists {
  readonly fields: Catalogue;
  readonly places: Places;
}
export async function knownToLists(tx: Tx): Promise<KnownToLists> {
  const [fields, places] = await Promise.all([loadCatalogue(tx), placesOf(tx)]);
  return { fields, places };
}

/** So many rows are worked on in one go before others of this process have their turn. */
const BREATH = 10;
async function withBreaths<T, R>(items: readonly T[], work: (item: T, i: number) => R): Promise<readonly R[]> {
  const out: R[] = [];
  for (const [i, item] of items.entries()) {
    if (i % BREATH === BREATH - 1) await new Promise(setImmediate);
    out.push(work(item, i));
  }
  return out;
}

/** What remembers the rows before. */
export const plannersOf = (importId: string) => ({
  rows: new RowPlanner({ importId, ...BARS }),
  standing: new StandingPlanner(importId),
});

interface PlannedChunk {
  readonly readings: readonly { readonly row: number; readonly reading: RowReading }[];
  readonly plans: readonly RowPlan[];
  readonly standings: readonly RowStanding[];
}

/** Reads rows that lie together and decides what becomes of each; `before` rows lie in front of them. Planners that go on remember these. */
export async function planChunk(
  tx: Tx,
  row: { readonly id: string; readonly listTable: ListTable | null },
  rows: readonly ListRow[],
  before: number,
  { matching, defaultCountry }: { readonly matching: readonly Target[]; readonly defaultCountry: string },
  { fields, places }: KnownToLists,
  planners = plannersOf(row.id),
): Promise<PlannedChunk> {
  const headings = row.listTable?.headings ?? [];
  const columns = matching.map((target, i) => {
    const field = targetField(target, fields);
    return {
      target,
      unit: field?.type === 'number' && field.unit !== undefined ? headingUnit(headings[i] ?? '') : undefined,
      dayOrder: row.listTable?.dayOrders?.[i] ?? (defaultCountry === 'US' ? 'month first' : undefined),
    };
  });
  const read = await withBreaths(rows, ({ cells }, i) => ({
    row: before + i + 1,
    reading: readRow(cells, columns, defaultCountry, fields, places),
  }));
  const readings = await withoutErased(tx, read);
  planners.rows.know(await knownFor(tx, row.id, readings));
  const planned = await withBreaths(readings, ({ row: at, reading }) => ({ plan: planners.rows.plan(at, reading), reading }));
  return { readings, plans: planned.map(({ plan }) => plan), standings: await planStanding(tx, planners.standing, planned) };
}

/** The worker's part: counts what would become of all rows of a long list. Returns 1 when there was one. */
export async function forecastImport(world: World): Promise<number> {
  const row = await claimForecast(world.db, SHOWN_ROWS, LEASE_MS);
  if (!row) return 0;
  const known = await knownToLists(world.db);
  let sum = countsOf([], []);
  for (let piece = 0; piece * PIECE < row.total; piece += CHUNK_PIECES) {
    const rows = await rowsFrom(world.db, row.id, piece, CHUNK_PIECES);
    const { plans, standings } = await planChunk(world.db, row, rows, piece * PIECE, row, known);
    sum = addCounts(sum, countsOf(plans, standings));
  }
  await putForecast(world.db, row, sum);
  return 1;
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
  fields: Catalogue,
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
          const ownRank = ownRankOf(fields.of(kind, field)?.trust, 'file');
          const row: FactDraft = {
            record: { kind, id },
            field,
            value: to,
            source: 'file',
            sourceRef: '',
            confidence: 0.8,
            observedAt: now,
            ...(ownRank === undefined ? {} : { ownRank }),
          };
          const wins = fields.of(kind, field) !== undefined && chooseCurrent<FactDraft>([...known, row]) === row;
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

export function checkedMatching(matching: readonly Target[], table: ListTable): readonly Target[] {
  if (matching.length !== table.headings.length)
    throw new Refusal('not valid', `the list has ${table.headings.length} columns, the matching has ${matching.length}`);
  const twice = matching.find((target, i) => target !== 'note' && target !== 'leave out' && matching.indexOf(target) !== i);
  if (twice) throw new Refusal('not valid', `two columns are taken as ${twice}: one of them must be left out`);
  return matching;
}
