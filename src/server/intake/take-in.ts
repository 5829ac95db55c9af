/**
 * What every door into the CRM has in common: rows read, compared with what is known, and made into records with their facts.
 * Promises: a list, a form, a webhook and a mailbox make the same records of the same values.
 */
import { stableId, type Instant, type JsonObject } from '../../core/base';
import type { FactDraft, SourceKind } from '../../core/facts';
import type { FactValue } from '../../core/fields';
import type { Known, RowPlan, RowReading } from '../../core/intake';
import { companyKeys, personKeys, reachOf } from '../../core/match';
import type { Tx } from '../db';
import { insertPair } from '../desk/store/reviews';
import { insertFacts } from '../records/store/facts';
import { companiesByKeys, insertCompanies, insertPeople, peopleByKeys, type NewCompany, type NewPerson } from '../records/store/records';
import { insertHappenings, type Happening } from '../records/store/timeline';
import { recordFacts } from '../records/facts';

/** From which confidence a row may be, and is, somebody known. */
export const BARS = { askAbove: 0.6, sameAbove: 0.95 } as const;

/** What the CRM has that shares a key with any row; records this very list has made are not among them. */
export async function knownFor(
  tx: Tx,
  importId: string,
  readings: readonly { readonly row: number; readonly reading: RowReading }[],
): Promise<Known> {
  const text = (value: unknown): string | null => (typeof value === 'string' ? value : null);
  const people = new Set<string>();
  const companies = new Set<string>();
  const own = new Set<string>();
  for (const {
    row,
    reading: { record },
  } of readings) {
    for (const key of personKeys({
      name: text(record.person.name) ?? '',
      ...reachOf(record.person),
    }))
      people.add(key);
    const name = text(record.company.name) ?? text(record.company.website);
    if (name !== null)
      for (const key of companyKeys({ name, website: text(record.company.website), phone: text(record.company.phone) })) companies.add(key);
    own.add(stableId('import', importId, String(row), 'person'));
    own.add(stableId('import', importId, String(row), 'company'));
  }
  const [foundPeople, foundCompanies] = await Promise.all([peopleByKeys(tx, [...people]), companiesByKeys(tx, [...companies])]);
  return { people: foundPeople.filter((entry) => !own.has(entry.id)), companies: foundCompanies.filter((entry) => !own.has(entry.id)) };
}

/** Which door rows come in by, and what is kept of that. */
export interface Door {
  readonly source: SourceKind;
  readonly says: string;
  readonly userId: string | null;
  /** where exactly a row came from, as it is shown beside its values */
  readonly refOf: (row: number) => string;
  readonly detailOf: (row: number) => JsonObject;
}
export interface RowToTakeIn {
  readonly plan: RowPlan;
  readonly reading: RowReading | undefined;
}

const said = (value: FactValue | undefined): string | null => (value === undefined ? null : String(value));

/** What rows become, before it is written. */
interface Made {
  readonly people: NewPerson[];
  readonly companies: NewCompany[];
  /** of new records: one fact a field */
  readonly fresh: FactDraft[];
  readonly later: FactDraft[];
  readonly happenings: Happening[];
}

const newPerson = (id: string, companyId: string | null, person: RowReading['record']['person']): NewPerson => ({
  id,
  values: { name: person.email, ...person },
  companyId,
  matchKeys: personKeys({ name: said(person.name) ?? said(person.email) ?? '', ...reachOf(person) }),
});

function newCompany(id: string, company: RowReading['record']['company']): NewCompany {
  const name = String(company.name ?? company.website ?? '');
  return {
    id,
    values: { ...company, name },
    matchKeys: companyKeys({ name, website: said(company.website), phone: said(company.phone) }),
  };
}

function addRow(made: Made, { plan, reading }: RowToTakeIn, door: Door, now: Instant): void {
  const { personId, companyId } = plan;
  if (!reading || (personId === null && companyId === null)) return;
  const { person, company, note } = reading.record;
  const isNew = plan.kind !== 'known';
  if (isNew && personId !== null) made.people.push(newPerson(personId, companyId, person));
  if (plan.newCompany && companyId !== null) made.companies.push(newCompany(companyId, company));
  const source = { source: door.source, sourceRef: door.refOf(plan.row), confidence: 0.8, observedAt: now };
  if (personId !== null)
    for (const [field, value] of Object.entries(person))
      (isNew ? made.fresh : made.later).push({ record: { kind: 'person', id: personId }, field, value, ...source });
  if (companyId !== null)
    for (const [field, value] of Object.entries(company))
      (plan.newCompany ? made.fresh : made.later).push({ record: { kind: 'company', id: companyId }, field, value, ...source });
  made.happenings.push({
    ...(personId === null ? { recordKind: 'company', recordId: companyId ?? '' } : { recordKind: 'person', recordId: personId }),
    at: now,
    kind: 'intake',
    says: door.says,
    detail: { ...door.detailOf(plan.row), note, why: plan.why },
  });
}

/** Makes records and facts of rows; those refused make nothing. */
export async function takeInRows(tx: Tx, rows: readonly RowToTakeIn[], door: Door, now: Instant): Promise<void> {
  const made: Made = { people: [], companies: [], fresh: [], later: [], happenings: [] };
  for (const row of rows) addRow(made, row, door, now);
  await insertCompanies(tx, made.companies, now);
  await insertPeople(tx, made.people, now);
  const meta = { tripId: null, mark: null, userId: door.userId };
  // A new record has one fact per field: its columns are right as inserted. Known records choose between old and new.
  await insertFacts(
    tx,
    made.fresh.map((fact) => ({ fact, meta })),
  );
  await recordFacts(
    tx,
    made.later.map((fact) => ({ fact, meta })),
  );
  await insertHappenings(tx, made.happenings);
  for (const { plan } of rows) await askAboutCompany(tx, plan, now);
}

/** A company that may be another is asked about; of people, a flow asks. */
async function askAboutCompany(tx: Tx, { doubt, companyId, otherId }: RowPlan, now: Instant): Promise<void> {
  if (!doubt || companyId === null || otherId === null) return;
  const id = stableId('pair', companyId, otherId);
  await insertPair(tx, { id, kind: 'company', aId: companyId, bId: otherId, ...doubt, tripId: null }, now);
}
