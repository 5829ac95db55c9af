import { RECORD_KINDS, type RecordKind } from '../../core/base';
import { chooseCurrent, type Fact, type FactDraft } from '../../core/facts';
import type { FactValue } from '../../core/fields';
import { companyKeys, normalisePhone, personKeys, reachOf, type Reach } from '../../core/match';
import type { Tx } from '../db';
import { factsOf, insertFacts, type FactMeta } from './store/facts';
import { keyedValues, lockRecords, patchRecords, type KeyedValues } from './store/records';

/** Fields by which records are found again: when one changes, the blocking keys do. */
const KEYED = new Set(['name', 'email', 'other_email', 'phone', 'mobile', 'website']);

/** The one door through which values get on records: facts are kept, current values chosen and written, in one transaction. */
export async function recordFacts(tx: Tx, facts: readonly { readonly fact: FactDraft; readonly meta: FactMeta }[]): Promise<void> {
  if (facts.length === 0) return;
  const touched = new Map<string, { kind: RecordKind; id: string; fields: Set<string> }>();
  for (const { fact } of facts) {
    const entry = touched.get(fact.record.id) ?? { kind: fact.record.kind, id: fact.record.id, fields: new Set() };
    entry.fields.add(fact.field);
    touched.set(fact.record.id, entry);
  }
  for (const kind of RECORD_KINDS) {
    const ids = [...touched.values()].filter((entry) => entry.kind === kind).map((entry) => entry.id);
    if (ids.length > 0) await lockRecords(tx, kind, ids);
  }
  await insertFacts(tx, facts);
  await chooseValues(
    tx,
    [...touched.values()].map(({ kind, id, fields }) => ({ kind, id, fields: [...fields] })),
  );
}

/** Chooses the current values of these fields afresh from all facts and writes them to the columns. */
export async function chooseValues(
  tx: Tx,
  records: readonly { readonly kind: RecordKind; readonly id: string; readonly fields: readonly string[] }[],
): Promise<void> {
  const all = await factsOf(
    tx,
    records.map((record) => record.id),
    [...new Set(records.flatMap((record) => record.fields))],
  );
  const byField = new Map<string, Fact[]>();
  for (const fact of all) {
    const key = `${fact.record.id} ${fact.field}`;
    byField.set(key, [...(byField.get(key) ?? []), fact]);
  }
  for (const kind of RECORD_KINDS) {
    const mine = records.filter((record) => record.kind === kind);
    const patches = mine.map((record) => {
      const patch: Record<string, FactValue> = {};
      for (const field of record.fields) {
        const value = chooseCurrent(byField.get(`${record.id} ${field}`) ?? [])?.value ?? null;
        // A record always has a name: with no fact left for it the old one stays.
        if (field === 'name' && value === null) continue;
        patch[field] = value;
      }
      return { id: record.id, patch };
    });
    await patchRecords(tx, kind, kind === 'person' || kind === 'company' ? await withKeys(tx, kind, patches) : patches);
  }
}

interface Patch {
  readonly id: string;
  readonly patch: Readonly<Record<string, unknown>>;
}

/** Numbers as they are compared, whichever way they were written. */
function plainReach(values: Readonly<Record<string, unknown>>): Reach {
  const reach = reachOf(values);
  const plain = (phone: string | null): string | null => normalisePhone(phone, null) ?? phone;
  return { ...reach, phone: plain(reach.phone), mobile: plain(reach.mobile) };
}

/** Where a value changes that records are found by, their blocking keys are made afresh in the same patch. */
async function withKeys(tx: Tx, kind: 'person' | 'company', patches: readonly Patch[]): Promise<readonly Patch[]> {
  const keyed = patches.filter(({ patch }) => Object.keys(patch).some((field) => KEYED.has(field)));
  if (keyed.length === 0) return patches;
  const keyedIds = new Set(keyed.map(({ id }) => id));
  const current = new Map(
    (
      await keyedValues(
        tx,
        kind,
        keyed.map(({ id }) => id),
      )
    ).map((row) => [row.id, row]),
  );
  return patches.map((entry) => {
    const row = current.get(entry.id);
    if (!row || !keyedIds.has(entry.id)) return entry;
    const after: KeyedValues = { ...row, ...entry.patch };
    const reach = plainReach({ ...row, other_email: row.otherEmail, ...entry.patch });
    const keys = kind === 'person' ? personKeys({ name: after.name, ...reach }) : companyKeys(after);
    return { id: entry.id, patch: { ...entry.patch, match_keys: keys } };
  });
}
