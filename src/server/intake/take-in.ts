/**
 * What every door into the CRM has in common: rows read, compared with what is known, and made into records with their facts.
 * Promises: a list, a form, a webhook and a mailbox make the same records of the same values.
 */
import { stableId, type Instant, type JsonObject } from '../../core/base';
import type { FactDraft, SourceKind } from '../../core/facts';
import type { FactValue } from '../../core/fields';
import type { Known, RowPlan, RowReading } from '../../core/intake';
import { companyKeys, personKeys } from '../../core/match';
import type { Tx } from '../db';
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
      email: text(record.person.email),
      phone: text(record.person.phone),
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

/** Makes records and facts of rows; those refused make nothing. */
export async function takeInRows(tx: Tx, rows: readonly RowToTakeIn[], door: Door, now: Instant): Promise<void> {
  const people: NewPerson[] = [];
  const companies: NewCompany[] = [];
  const fresh: FactDraft[] = [];
  const later: FactDraft[] = [];
  const happenings: Happening[] = [];
  for (const { plan, reading } of rows) {
    if (!reading || plan.personId === null) continue;
    const { person, company, note } = reading.record;
    const isNew = plan.kind !== 'known';
    if (isNew)
      people.push({
        id: plan.personId,
        values: { name: person.email, ...person },
        companyId: plan.companyId,
        matchKeys: personKeys({
          name: said(person.name) ?? said(person.email) ?? '',
          email: said(person.email),
          phone: said(person.phone),
        }),
      });
    if (plan.newCompany && plan.companyId !== null) {
      const name = String(company.name ?? company.website ?? '');
      companies.push({
        id: plan.companyId,
        values: { ...company, name },
        matchKeys: companyKeys({ name, website: said(company.website), phone: said(company.phone) }),
      });
    }
    const source = { source: door.source, sourceRef: door.refOf(plan.row), confidence: 0.8, observedAt: now };
    for (const [field, value] of Object.entries(person))
      (isNew ? fresh : later).push({ record: { kind: 'person', id: plan.personId }, field, value, ...source });
    if (plan.companyId !== null)
      for (const [field, value] of Object.entries(company))
        (plan.newCompany ? fresh : later).push({ record: { kind: 'company', id: plan.companyId }, field, value, ...source });
    happenings.push({
      recordKind: 'person',
      recordId: plan.personId,
      at: now,
      kind: 'intake',
      says: door.says,
      detail: { ...door.detailOf(plan.row), note, why: plan.why },
    });
  }
  await insertCompanies(tx, companies, now);
  await insertPeople(tx, people, now);
  const meta = { tripId: null, mark: null, userId: door.userId };
  // A new record has one fact per field: its columns are right as inserted. Known records choose between old and new.
  await insertFacts(
    tx,
    fresh.map((fact) => ({ fact, meta })),
  );
  await recordFacts(
    tx,
    later.map((fact) => ({ fact, meta })),
  );
  await insertHappenings(tx, happenings);
}
