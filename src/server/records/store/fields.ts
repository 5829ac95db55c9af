import { shortHash, type Instant, type RecordKind } from '../../../core/base';
import { STANDARD_FIELDS, type FactValue, type OwnField } from '../../../core/fields';
import type { Tx } from '../../db';
import { FEEL_TYPE } from '../../../core/flow/check';
import { ownValue } from './conditions';

/** The workspace's own fields in their order, retired ones too. */
export async function listFields(tx: Tx): Promise<OwnField[]> {
  const rows = await tx<{ field: OwnField }[]>`
    select body || jsonb_build_object('record', record_kind, 'key', key) as field from field order by place, key`;
  return rows.map((row) => row.field);
}

/** Makes a field; false when there is one of that name already. */
export async function insertField(tx: Tx, { record, key, ...body }: OwnField): Promise<boolean> {
  const rows = await tx`insert into field (record_kind, key, body) values (${record}, ${key}, ${tx.json(body)})
    on conflict (record_kind, key) do nothing returning key`;
  return rows.length > 0;
}

/** Makes a field, or keeps it as it is now; its place in the order stays. */
export async function putField(tx: Tx, { record, key, ...body }: OwnField): Promise<void> {
  await tx`insert into field (record_kind, key, body) values (${record}, ${key}, ${tx.json(body)})
    on conflict (record_kind, key) do update set body = excluded.body`;
}

export async function dropField(tx: Tx, record: RecordKind, key: string): Promise<void> {
  await tx`delete from field where record_kind = ${record} and key = ${key}`;
}

/** On how many records each field of a kind has a value, by its key, and how many records there are. */
export async function filledCounts(
  tx: Tx,
  kind: RecordKind,
): Promise<{ readonly of: number; readonly byKey: Readonly<Record<string, number>> }> {
  const columns = STANDARD_FIELDS.filter((field) => field.record === kind && !field.isComputed).map((field) => field.key);
  const among = kind === 'person' || kind === 'company' ? tx`merged_into is null` : tx`true`;
  const counts = columns.reduce<ReturnType<Tx>>(
    (sofar, column) => tx`${sofar}, count(${tx(column)})::int as ${tx(column)}`,
    tx`count(*)::int as n`,
  );
  const [row] = await tx<{ n: number; standard: Record<string, number> }[]>`
    select n, to_jsonb(s) - 'n' as standard from (select ${counts} from ${tx(kind)} where ${among}) s`;
  const own = await tx<{ key: string; n: number }[]>`
    select k.key, count(*)::int as n from ${tx(kind)} r cross join lateral jsonb_object_keys(r.custom) k(key) where ${among} group by k.key`;
  return { of: row?.n ?? 0, byKey: { ...row?.standard, ...Object.fromEntries(own.map((entry) => [entry.key, entry.n])) } };
}

/** The values that facts of a field have, the most frequent first. */
export async function fieldValues(tx: Tx, kind: RecordKind, key: string): Promise<{ readonly value: FactValue; readonly n: number }[]> {
  return [
    ...(await tx<{ value: FactValue; n: number }[]>`
    select value, count(*)::int as n from fact where record_kind = ${kind} and field = ${key} group by value order by n desc, value limit 200000`),
  ];
}

export interface FieldChange {
  readonly id: number;
  readonly at: Instant;
  readonly says: string;
  readonly by: string | null;
  /** the fields as they were; null for one that was not there */
  readonly was: readonly { readonly record: RecordKind; readonly key: string; readonly field: OwnField | null }[];
}

export async function insertFieldChange(
  tx: Tx,
  change: { readonly at: Instant; readonly userId: string | null; readonly says: string; readonly was: FieldChange['was'] },
): Promise<number> {
  const [row] = await tx<{ id: number }[]>`
    insert into field_change (at, user_id, says, was) values (${change.at}, ${change.userId}, ${change.says}, ${tx.json(change.was)}) returning id`;
  return row?.id ?? 0;
}

/** The changes that can still be undone, newest first: one that was undone is not among them. */
export async function fieldChanges(tx: Tx, limit: number): Promise<FieldChange[]> {
  return [
    ...(await tx<FieldChange[]>`
    select c.id, c.at, c.says, u.name as by, c.was from field_change c left join app_user u on u.id = c.user_id
    where c.undone_at is null order by c.id desc limit ${limit}`),
  ];
}

export async function endFieldChange(tx: Tx, id: number, now: Instant): Promise<void> {
  await tx`update field_change set undone_at = ${now} where id = ${id}`;
}

/** Gives facts of a field another value or another field, keeping what they were under the change. */
export async function moveValues(
  tx: Tx,
  move: {
    readonly changeId: number;
    readonly kind: RecordKind;
    readonly key: string;
    readonly toKey: string;
    readonly values: readonly { readonly was: FactValue; readonly now: FactValue }[];
  },
): Promise<void> {
  const map = tx.json(move.values);
  await tx`with m as (select e -> 'was' as was, e -> 'now' as now from jsonb_array_elements(${map}) e),
      meant as (select f.id, f.field, f.value, m.now from fact f join m on f.value = m.was where f.record_kind = ${move.kind} and f.field = ${move.key}),
      kept as (insert into field_value_was (change_id, fact_id, field, value) select ${move.changeId}, id, field, value from meant)
    update fact f set field = ${move.toKey}, value = meant.now from meant where meant.id = f.id`;
}

/** Puts facts back as they were before a change. */
export async function returnValues(tx: Tx, changeId: number): Promise<void> {
  await tx`update fact f set field = w.field, value = w.value from field_value_was w where w.change_id = ${changeId} and f.id = w.fact_id`;
}

/** Records that have facts of a field, or had before one of the changes that can be undone. */
export async function recordsWith(tx: Tx, kind: RecordKind, keys: readonly string[]): Promise<string[]> {
  const rows = await tx<
    { id: string }[]
  >`select distinct record_id as id from fact where record_kind = ${kind} and field = any(${[...keys]}) order by 1`;
  return rows.map((row) => row.id);
}

/** Records for which sources say different things of a field. */
export async function disputed(tx: Tx, kind: RecordKind, key: string): Promise<string[]> {
  const rows = await tx<{ id: string }[]>`
    select record_id as id from fact where record_kind = ${kind} and field = ${key} and value <> 'null'::jsonb
    group by record_id having count(distinct value) > 1 order by 1`;
  return rows.map((row) => row.id);
}

const INDEX = 'own_value_';
/** The name of the index on a field's values. The database cuts names of more than 63 bytes: a long key has its hash instead of its end. */
export const indexName = ({ record, key, type }: Pick<OwnField, 'record' | 'key' | 'type'>): string =>
  `${INDEX}${record}_${key.length <= 30 ? key : `${key.slice(0, 20)}_${shortHash(key)}`}_${FEEL_TYPE[type].slice(0, 3)}`;

/** The names of the indexes that are kept on values of own fields. */
export async function ownIndexes(tx: Tx): Promise<string[]> {
  const rows = await tx<{ name: string }[]>`
    select c.relname as name from pg_class c join pg_index i on i.indexrelid = c.oid where c.relname like ${`${INDEX.replace(/_/g, '\\_')}%`} and i.indisvalid`;
  return rows.map((row) => row.name);
}

/** Makes an index on the values of a field beside the work of everybody else. Not in a transaction. */
export async function indexField(tx: Tx, field: OwnField): Promise<void> {
  const name = indexName(field);
  // One that was broken off halfway is in the way and of no use.
  await tx.unsafe(`drop index concurrently if exists ${name}`);
  // Over all records: how values are spread is not looked at by the planner where an index is of some rows only.
  await tx.unsafe(`create index concurrently ${name} on ${field.record} ((${ownValue(field, field.record)}))`);
  await tx.unsafe(`analyze ${field.record}`);
}
/** Drops indexes by their names, without stopping anybody. Not in a transaction. */
export async function dropIndexes(tx: Tx, names: readonly string[]): Promise<void> {
  for (const name of names) if (name.startsWith(INDEX) && /^\w+$/.test(name)) await tx.unsafe(`drop index concurrently if exists ${name}`);
}
/** Drops what is kept for a field, before its type changes: an index of numbers would refuse texts. In the same transaction. */
export async function dropIndexOf(tx: Tx, field: OwnField): Promise<void> {
  await tx.unsafe(`drop index if exists ${indexName(field)}`);
}
const INDEXING = 727_004;
/** Whether this connection is now the only one that keeps indexes: two at the same index would be in each other's way. */
export async function onlyOne(tx: Tx, withinMs: number): Promise<boolean> {
  await tx`select set_config('statement_timeout', ${String(withinMs)}, false)`;
  const [row] = await tx<{ ok: boolean }[]>`select pg_try_advisory_lock(${INDEXING}) as ok`;
  return row?.ok ?? false;
}
export async function letGo(tx: Tx): Promise<void> {
  await tx`select pg_advisory_unlock_all(), set_config('statement_timeout', '0', false)`;
}
