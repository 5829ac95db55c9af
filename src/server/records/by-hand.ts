/**
 * Values set by a person or sent by the API. Promises: each becomes a fact and what was known stays below it; nothing that
 * somebody else has changed meanwhile is written over. Refuses: unknown fields, unreadable values, fields kept for builders.
 */
import type { RecordKind } from '../../core/base';
import { chooseCurrent } from '../../core/facts';
import { checkTyped, labelOf, printValue, type Catalogue, type FactValue } from '../../core/fields';
import type { Tx } from '../db';
import { roleOfUser } from '../access/store/access';
import { factsOf } from './store/facts';
import { findApplication, findOpening } from '../intake/store/openings';
import { findCompany, findPerson, lockRecords } from './store/records';
import { pageDeals } from './store/deals';
import { insertAudit } from '../access/store/audit';
import { insertHappenings } from './store/timeline';
import { wakeOnChange } from '../trips/store/trips';
import { recordFacts } from './facts';
import { loadCatalogue } from './fields';
import { found, Refusal, type Actor, type World } from '../platform/world';

export type Values = Readonly<Record<string, FactValue>>;

/** Values typed by a person or sent by the API, each becoming a fact. Unknown fields and unreadable values are refused together. */
export function readValues(fields: Catalogue, kind: RecordKind, values: Values): Values {
  const out: Record<string, FactValue> = {};
  const wrong: string[] = [];
  for (const [key, raw] of Object.entries(values)) {
    const field = fields.of(kind, key);
    if (!field) {
      wrong.push(`${kind === 'opening' || kind === 'application' ? 'an' : 'a'} ${kind} has no field “${key}”`);
      continue;
    }
    if (field.isComputed || (kind === 'deal' && key === 'stage')) {
      wrong.push(`${field.label}: this is not set among the values`);
      continue;
    }
    const reading = checkTyped(field, raw);
    if (!reading.ok) wrong.push(`${field.label}: ${reading.why}`);
    else out[key] = reading.value;
  }
  if (wrong.length > 0) throw new Refusal('not valid', wrong.join('; '), { fields: wrong });
  return out;
}

/** Refuses values of fields that only builders set by hand, to whoever is none. */
export async function maySet(world: World, actor: Actor, fields: Catalogue, kind: RecordKind, keys: readonly string[]): Promise<void> {
  const kept = keys.flatMap((key) => (fields.of(kind, key)?.byHand === 'builders' ? [labelOf(fields.of(kind, key), key)] : []));
  if (kept.length === 0 || actor.userId === null) return;
  const role = await roleOfUser(world.db, actor.userId);
  if (role === 'owner' || role === 'builder') return;
  throw new Refusal('not allowed', `${kept.join(', ')}: only the owner and builders set this by hand`, { fields: kept });
}

interface Change {
  readonly kind: RecordKind;
  readonly id: string;
  readonly values: Values;
  /** the values that whoever changes them has seen: where one has changed meanwhile, nothing is written */
  readonly was?: Values | undefined;
  readonly source: 'hand' | 'api';
}

/** Refuses to write over what somebody else has changed since it was looked at, and says what stands there now. */
async function unchangedSince(tx: Tx, ask: Change): Promise<void> {
  const fields = Object.keys(ask.was ?? {});
  if (fields.length === 0) return;
  await lockRecords(tx, ask.kind, [ask.id]);
  const facts = await factsOf(tx, [ask.id], fields);
  for (const field of fields) {
    const current = chooseCurrent(facts.filter((fact) => fact.field === field));
    if (current === undefined || current.value === ask.was?.[field]) continue;
    const label = labelOf((await loadCatalogue(tx)).of(ask.kind, field), field);
    throw new Refusal('conflict', `${label} was changed meanwhile: by ${current.sourceRef} to “${printValue(current.value)}”`, {
      field,
      now: current.value,
      by: current.sourceRef,
    });
  }
}

/** Whose timeline tells of a change, and of what it tells besides the fields; an opening has no timeline: the audit has it. */
interface Subject {
  readonly tells: { readonly kind: 'person' | 'company'; readonly id: string } | null;
  readonly of: string;
}
const SUBJECT: { readonly [K in RecordKind]: (tx: Tx, id: string) => Promise<Subject> } = {
  person: async (tx, id) => ({ tells: { kind: 'person', id: found(await findPerson(tx, id), 'this person').id }, of: '' }),
  company: async (tx, id) => ({ tells: { kind: 'company', id: found(await findCompany(tx, id), 'this company').id }, of: '' }),
  deal: async (tx, id) => {
    const [deal] = await pageDeals(tx, { search: '', before: null, limit: 1, id });
    const { personId, title } = found(deal, 'this deal');
    return { tells: personId === null ? null : { kind: 'person', id: personId }, of: ` of the deal ${title}` };
  },
  opening: async (tx, id) => ({ tells: null, of: ` of the opening ${found(await findOpening(tx, id), 'this opening').name}` }),
  application: async (tx, id) => {
    const { personId, openingName } = found(await findApplication(tx, id), 'this application');
    return { tells: { kind: 'person', id: personId }, of: ` of the application for ${openingName}` };
  },
};

/** A change by hand or by the API: each value a new fact; what it was before stays below it. */
export async function changeRecord(world: World, actor: Actor, ask: Change): Promise<void> {
  const subject = await SUBJECT[ask.kind](world.db, ask.id);
  const fields = await loadCatalogue(world.db);
  const values = readValues(fields, ask.kind, ask.values);
  await maySet(world, actor, fields, ask.kind, Object.keys(values));
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    await unchangedSince(tx, ask);
    await recordFacts(
      tx,
      Object.entries(values).map(([field, value]) => ({
        fact: {
          record: { kind: ask.kind, id: ask.id },
          field,
          value,
          source: ask.source,
          sourceRef: actor.name,
          confidence: 1,
          observedAt: now,
        },
        meta: { tripId: null, mark: null, userId: actor.userId },
      })),
    );
    const labels = Object.keys(values).map((key) => labelOf(fields.of(ask.kind, key), key));
    const says = `${labels.join(', ')}${subject.of} changed by ${actor.name}`;
    if (subject.tells)
      await insertHappenings(tx, [
        { recordKind: subject.tells.kind, recordId: subject.tells.id, at: now, kind: 'change', says, detail: values },
      ]);
    else await insertAudit(tx, { at: now, userId: actor.userId, what: `changed ${labels.join(', ')}${subject.of}`, detail: values });
    await wakeOnChange(tx, [ask.id], now);
  });
}
