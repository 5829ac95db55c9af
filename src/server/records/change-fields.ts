/**
 * Fields made and changed. Promises: what a change would do to every value is shown before it is done; values that do not
 * fit are kept aside; the last change can be had back with its values. Refuses: changing a name that flows use.
 */
import { z } from 'zod';
import type { FieldEdit, FieldsView, FieldTrial } from '../../api';
import type { RecordKind } from '../../core/base';
import { chooseCurrent, ownRankOf, type Fact } from '../../core/facts';
import { ownFieldSchema, printValue, STANDARD, valueAs, type FactValue, type Field, type Figures, type OwnField } from '../../core/fields';
import type { Tx } from '../db';
import {
  disputed,
  dropField,
  dropIndexOf,
  endFieldChange,
  fieldChanges,
  fieldValues,
  filledCounts,
  insertField,
  insertFieldChange,
  moveValues,
  putField,
  recordsWith,
  returnValues,
  type FieldChange,
} from './store/fields';
import { factsOf } from './store/facts';
import { insertAudit } from '../access/store/audit';
import { chooseValues } from './facts';
import { figure } from '../platform/figures';
import { usesOf } from './field-uses';
import { loadCatalogue } from './fields';
import { Refusal, type Actor, type World } from '../platform/world';

const countsSchema = z.object({ of: z.number(), byKey: z.record(z.string(), z.number()) });

/** The fields of a kind, what uses each, and on how many records each has a value. */
export async function fieldsView(world: World, kind: RecordKind): Promise<FieldsView> {
  const catalogue = await loadCatalogue(world.db);
  const every: readonly Field[] = [
    ...catalogue.all(kind),
    ...catalogue.own.filter((field) => field.record === kind && field.isRetired && !isStandard(field)),
  ];
  const [uses, counts, [last]] = await Promise.all([
    usesOf(world.db, every),
    figure(world, { key: `fields filled ${kind}`, topic: 'settings' }, countsSchema, () => filledCounts(world.db, kind)),
    fieldChanges(world.db, 1),
  ]);
  return {
    kind,
    of: counts.of,
    undo: last ? { id: last.id, says: last.says, by: last.by, at: last.at } : null,
    fields: every.map((field: Field) => ({
      field: { ...field, isStandard: isStandard(field), isComputed: field.isComputed ?? false },
      uses: [...(uses.get(`${kind}.${field.key}`) ?? [])],
      filled: counts.byKey[field.key] ?? 0,
    })),
  };
}

const isStandard = (field: Pick<OwnField, 'record' | 'key'>): boolean => STANDARD.of(field.record, field.key) !== undefined;
const path = (field: Pick<OwnField, 'record' | 'key'>): string => `${field.record}.${field.key}`;

/** Makes a field of the workspace's own. */
export async function makeField(world: World, actor: Actor, field: OwnField): Promise<FieldsView> {
  if (isStandard(field)) throw new Refusal('conflict', `every ${field.record} has “${field.key}” already: choose another name in flows`);
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    if (!(await insertField(tx, field)))
      throw new Refusal('conflict', `there is a field ${path(field)} already: choose another name in flows`);
    await told(tx, actor, now, `made the field “${field.label}”`, [{ record: field.record, key: field.key, field: null }]);
    // Values may have come before their field did: a question asked for it, say.
    await chooseAfresh(tx, field.record, [field.key]);
  });
  return fieldsView(world, field.record);
}

interface Meant {
  readonly from: Field;
  readonly to: Field;
  readonly figures: Figures;
}
const SAMPLES = 8;
const RECORDS_AT_ONCE = 1_000;

async function meant(tx: Tx, edit: FieldEdit): Promise<Meant> {
  const catalogue = await loadCatalogue(tx);
  const known = (record: RecordKind, key: string): Field => {
    const field = catalogue.of(record, key);
    if (!field) throw new Refusal('not found', `a ${record} has no field “${key}”`);
    return field;
  };
  if (edit.does === 'change') {
    const from = known(edit.field.record, edit.field.key);
    if (from.isStandard && (edit.field.type !== from.type || edit.field.unit !== from.unit))
      throw new Refusal('not valid', `${from.label} is a field that every business has: its type and unit stay`);
    return { from, to: { ...edit.field, ...(from.isStandard && { isStandard: true }) }, figures: edit.figures };
  }
  const from = known(edit.record, edit.key);
  if (from.isStandard) throw new Refusal('not valid', `${from.label} is a field that every business has: it stays`);
  if (edit.does === 'retire') return { from, to: from, figures: 'keep' };
  if (edit.into === edit.key) throw new Refusal('not valid', 'a field is not joined with itself');
  const to = known(edit.record, edit.into);
  if (to.isComputed) throw new Refusal('not valid', `${to.label} is worked out, never written`);
  return { from, to, figures: 'convert' };
}

interface Mapped {
  readonly was: FactValue;
  readonly now: FactValue | undefined;
  readonly n: number;
}
async function mapped(tx: Tx, { from, to, figures }: Meant): Promise<readonly Mapped[]> {
  return (await fieldValues(tx, from.record, from.key)).map(({ value, n }) => ({ was: value, now: valueAs(from, to, value, figures), n }));
}

const sum = (rows: readonly Mapped[]): number => rows.reduce((total, row) => total + row.n, 0);

/** What an edit would do to every value; nothing is changed. */
export async function tryField(world: World, edit: FieldEdit): Promise<FieldTrial> {
  const plan = await meant(world.db, edit);
  const uses = [...((await usesOf(world.db, [plan.from])).get(path(plan.from)) ?? [])];
  const values = await mapped(world.db, plan);
  const aside = values.filter((row) => row.now === undefined);
  const changed = values.filter((row) => row.now !== undefined && (row.now !== row.was || plan.from.key !== plan.to.key));
  const rechosen = await rechosenBy(world.db, plan);
  const shown = [...aside, ...changed]
    .sort((a, b) => Number(a.now !== undefined) - Number(b.now !== undefined) || b.n - a.n)
    .slice(0, SAMPLES);
  return {
    rechosen,
    facts: sum(values),
    same: sum(values) - sum(aside) - sum(changed),
    changed: sum(changed),
    aside: sum(aside),
    samples: shown.map(({ was, now, n }) => ({
      from: printValue(was, plan.from.unit),
      to: now === undefined ? null : printValue(now, plan.to.unit),
      n,
    })),
    uses,
  };
}

/** On how many records another value would count, by the order of sources that a field is to have. */
async function rechosenBy(tx: Tx, { from, to }: Meant): Promise<number> {
  if (from.key !== to.key || JSON.stringify(from.trust ?? []) === JSON.stringify(to.trust ?? [])) return 0;
  const ids = await disputed(tx, from.record, from.key);
  let changed = 0;
  for (let i = 0; i < ids.length; i += RECORDS_AT_ONCE) {
    const byRecord = new Map<string, Fact[]>();
    for (const fact of await factsOf(tx, ids.slice(i, i + RECORDS_AT_ONCE), [from.key]))
      byRecord.set(fact.record.id, [...(byRecord.get(fact.record.id) ?? []), fact]);
    for (const facts of byRecord.values()) {
      const now = chooseCurrent(facts)?.value;
      const then = chooseCurrent(facts.map(({ ownRank: _was, ...fact }) => trusting(to, fact)))?.value;
      if (now !== then) changed += 1;
    }
  }
  return changed;
}
function trusting(field: Field, fact: Omit<Fact, 'ownRank'>): Fact {
  const ownRank = ownRankOf(field.trust, fact.source);
  return ownRank === undefined ? fact : { ...fact, ownRank };
}

function saysOf(edit: FieldEdit, { from, to }: Meant): string {
  const field = `the field “${from.label}”`;
  if (edit.does === 'join') return `joined ${field} with “${to.label}”`;
  if (edit.does === 'change') return `changed ${field}`;
  return `${edit.isRetired ? 'retired' : 'took back'} ${field}`;
}

const asideOf = (key: string): string => `${key}, aside`;
const AT_ONCE = 5_000;

/** Does it: values that fit are told anew, the others put aside under the field's name and “, aside”. */
export async function editField(world: World, actor: Actor, edit: FieldEdit): Promise<FieldsView> {
  const now = await world.clock.now();
  const record = edit.does === 'change' ? edit.field.record : edit.record;
  await world.db.begin(async (tx) => {
    const plan = await meant(tx, edit);
    const { from, to } = plan;
    const catalogue = await loadCatalogue(tx);
    const kept = (key: string): OwnField | null => catalogue.own.find((field) => field.record === record && field.key === key) ?? null;
    const touched = from.key === to.key ? [from.key] : [from.key, to.key];
    const changeId = await told(
      tx,
      actor,
      now,
      saysOf(edit, plan),
      touched.map((key) => ({ record, key, field: kept(key) })),
    );
    if (edit.does === 'retire') {
      await putField(tx, { ...ownOf(from), isRetired: edit.isRetired });
      return;
    }
    if (edit.does === 'change') {
      await dropIndexOf(tx, ownOf(from));
      await putField(tx, ownOf(to));
    }
    if (edit.does === 'join') await putField(tx, { ...ownOf(from), isRetired: true });
    const moving = (await mapped(tx, plan)).filter((row) => row.now !== row.was || from.key !== to.key);
    const fits = moving.flatMap(({ was, now: value }) => (value === undefined ? [] : [{ was, now: value }]));
    const aside = moving.flatMap(({ was, now: value }) => (value === undefined ? [{ was, now: was }] : []));
    for (const [values, toKey] of [
      [fits, to.key],
      [aside, asideOf(from.key)],
    ] as const)
      for (let i = 0; i < values.length; i += AT_ONCE)
        await moveValues(tx, { changeId, kind: record, key: from.key, toKey, values: values.slice(i, i + AT_ONCE) });
    await chooseAfresh(tx, record, touched, [asideOf(from.key)]);
  });
  return fieldsView(world, record);
}

/** Takes the last change back: the field and its values are as they were. */
export async function undoFieldChange(world: World, actor: Actor, id: number): Promise<FieldsView> {
  const now = await world.clock.now();
  let record: RecordKind = 'company';
  await world.db.begin(async (tx) => {
    const [last] = await fieldChanges(tx, 1);
    if (last?.id !== id) throw new Refusal('conflict', 'something was changed since: only the last change can be had back');
    for (const { record: kind, key, field } of last.was) {
      record = kind;
      const present = (await loadCatalogue(tx)).own.find((entry) => entry.record === kind && entry.key === key);
      if (present) await dropIndexOf(tx, present);
      if (field) await putField(tx, field);
      else await dropField(tx, kind, key);
    }
    await returnValues(tx, id);
    await endFieldChange(tx, id, now);
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'took back a change of a field', detail: { says: last.says } });
    await chooseAfresh(
      tx,
      record,
      last.was.map((entry) => entry.key),
    );
  });
  return fieldsView(world, record);
}

const ownOf = (field: Field): OwnField => ownFieldSchema.parse(field);

async function told(tx: Tx, actor: Actor, at: number, says: string, was: FieldChange['was']): Promise<number> {
  await insertAudit(tx, { at, userId: actor.userId, what: says, detail: { fields: was.map((entry) => `${entry.record}.${entry.key}`) } });
  return insertFieldChange(tx, { at, userId: actor.userId, says, was });
}

/** Chooses the values of these fields again on every record that has facts of one of them, or of `besides`. */
async function chooseAfresh(tx: Tx, kind: RecordKind, fields: readonly string[], besides: readonly string[] = []): Promise<void> {
  const ids = await recordsWith(tx, kind, [...fields, ...besides]);
  for (let i = 0; i < ids.length; i += RECORDS_AT_ONCE)
    await chooseValues(
      tx,
      ids.slice(i, i + RECORDS_AT_ONCE).map((id) => ({ kind, id, fields })),
    );
}
