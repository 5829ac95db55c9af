/** Companies of the directory: told apart from those the CRM has, and taken in with the directory as their source. */
import { stableId, type Instant } from '../../core/base';
import type { FactDraft } from '../../core/facts';
import { compareCompanies, companyKeys, judgeMatch } from '../../core/match';
import { checkTyped, type Catalogue, type FactValue } from '../../core/fields';
import type { Tx } from '../db';
import type { DirectoryHit } from '../../core/intake';
import { insertFacts } from '../records/store/facts';
import { companiesByKeys, insertCompanies } from '../records/store/records';
import { insertHappenings } from '../records/store/timeline';
import { recordFacts } from '../records/facts';
import { loadCatalogue } from '../records/fields';
import { BARS } from './take-in';

export interface PlannedCompany {
  readonly hit: DirectoryHit;
  readonly id: string;
  readonly kind: 'new' | 'known' | 'perhaps';
  readonly why: string;
}

/** What each hit would become; two hits of one company are one. */
export async function planCompanies(tx: Tx, hits: readonly DirectoryHit[]): Promise<readonly PlannedCompany[]> {
  const keysOf = (hit: DirectoryHit): readonly string[] => companyKeys({ name: hit.name, website: hit.host, phone: null });
  const known = await companiesByKeys(tx, [...new Set(hits.flatMap(keysOf))]);
  return hits.map((hit): PlannedCompany => {
    const me = {
      id: stableId('directory company', hit.id),
      name: hit.name,
      website: hit.host,
      phone: null,
      city: hit.place,
      country: hit.country,
    };
    if (known.some((other) => other.id === me.id)) return { hit, id: me.id, kind: 'known', why: 'taken in before' };
    const verdict = judgeMatch(
      known.map((other) => ({ ...compareCompanies(me, other), otherId: other.id })),
      BARS.askAbove,
      BARS.sameAbove,
    );
    const other = known.find((entry) => entry.id === verdict.otherId);
    if (verdict.how === 'same' && other) return { hit, id: other.id, kind: 'known', why: other.name };
    if (verdict.how === 'doubt' && other) return { hit, id: me.id, kind: 'perhaps', why: `perhaps ${other.name}` };
    return { hit, id: me.id, kind: 'new', why: 'not in the CRM' };
  });
}

/** What the directory says, as values of fields that are here; what is no value of its field is left out. */
const valuesOf = (hit: DirectoryHit, fields: Catalogue): Readonly<Record<string, FactValue>> => ({
  name: hit.name,
  website: hit.host,
  ...(hit.place !== null && { city: hit.place }),
  ...(hit.country !== null && { country: hit.country }),
  ...Object.fromEntries(
    Object.entries(hit.values).flatMap(([key, value]) => {
      const field = fields.of('company', key);
      const reading = field && !field.isRetired ? checkTyped(field, value) : undefined;
      return reading?.ok && reading.value !== null ? [[key, reading.value]] : [];
    }),
  ),
  ...(hit.employees !== null && { employees: hit.employees }),
});

/** Makes the new ones and gives the known ones what the directory says. */
export async function takeInCompanies(
  tx: Tx,
  planned: readonly PlannedCompany[],
  by: { readonly userId: string | null },
  now: Instant,
): Promise<void> {
  const fields = await loadCatalogue(tx);
  const fresh = planned.filter((entry) => entry.kind !== 'known');
  await insertCompanies(
    tx,
    fresh.map(({ hit, id }) => ({
      id,
      values: valuesOf(hit, fields),
      matchKeys: companyKeys({ name: hit.name, website: hit.host, phone: null }),
    })),
    now,
  );
  const meta = { tripId: null, mark: null, userId: by.userId };
  const factsOf = ({ hit, id }: PlannedCompany): readonly { readonly fact: FactDraft; readonly meta: typeof meta }[] =>
    Object.entries(valuesOf(hit, fields)).map(([field, value]) => ({
      fact: {
        record: { kind: 'company', id },
        field,
        value,
        source: 'directory',
        sourceRef: hit.url ?? 'directory',
        confidence: 0.8,
        observedAt: now,
        ...(hit.url !== null && { url: hit.url }),
      },
      meta,
    }));
  await insertFacts(tx, fresh.flatMap(factsOf));
  await recordFacts(tx, planned.filter((entry) => entry.kind === 'known').flatMap(factsOf));
  await insertHappenings(
    tx,
    planned.map(({ hit, id }) => ({
      recordKind: 'company' as const,
      recordId: id,
      at: now,
      kind: 'intake',
      says: 'Taken in from the directory',
      detail: { directory: hit.id },
    })),
  );
}
