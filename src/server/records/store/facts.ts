import type { Instant, RecordKind, RecordRef } from '../../../core/base';
import { ownRankOf, type Fact, type FactDraft, type SourceKind } from '../../../core/facts';
import type { FactValue } from '../../../core/fields';
import type { Tx } from '../../db';

export interface FactMeta {
  readonly tripId: string | null;
  readonly mark: string | null;
  readonly userId: string | null;
}

interface FactRow {
  readonly id: number;
  readonly recordKind: RecordKind;
  readonly recordId: string;
  readonly field: string;
  readonly value: FactValue;
  readonly source: SourceKind;
  readonly sourceRef: string;
  readonly url: string | null;
  readonly quote: string | null;
  readonly confidence: number;
  readonly observedAt: Instant;
  /** the field's own order of sources */
  readonly trust: readonly string[] | null;
}

const row = (fact: FactDraft, meta: FactMeta) => ({
  record_kind: fact.record.kind,
  record_id: fact.record.id,
  field: fact.field,
  value: fact.value,
  source: fact.source,
  source_ref: fact.sourceRef,
  url: fact.url ?? null,
  quote: fact.quote ?? null,
  confidence: fact.confidence,
  observed_at: new Date(fact.observedAt).toISOString(),
  trip_id: meta.tripId,
  mark: meta.mark,
  user_id: meta.userId,
});

/** Adds facts. `null` values are kept as JSON null: looked for and not found. */
export async function insertFacts(tx: Tx, facts: readonly { readonly fact: FactDraft; readonly meta: FactMeta }[]): Promise<void> {
  if (facts.length === 0) return;
  await tx`insert into fact (record_kind, record_id, field, value, source, source_ref, url, quote, confidence, observed_at, trip_id, mark, user_id)
    select record_kind, record_id, field, coalesce(value, 'null'::jsonb), source, source_ref, url, quote, confidence, observed_at, trip_id, mark, user_id
    from jsonb_to_recordset(${tx.json(facts.map(({ fact, meta }) => row(fact, meta)))})
      as r(record_kind text, record_id uuid, field text, value jsonb, source text, source_ref text, url text, quote text, confidence real, observed_at timestamptz, trip_id uuid, mark text, user_id uuid)`;
}

export async function insertTrialFacts(tx: Tx, facts: readonly { readonly fact: FactDraft; readonly tripId: string }[]): Promise<void> {
  if (facts.length === 0) return;
  await tx`insert into trial_fact (trip_id, record_kind, record_id, field, value, source, source_ref, url, quote, confidence, observed_at)
    select trip_id, record_kind, record_id, field, coalesce(value, 'null'::jsonb), source, source_ref, url, quote, confidence, observed_at
    from jsonb_to_recordset(${tx.json(facts.map(({ fact, tripId }) => row(fact, { tripId, mark: null, userId: null })))})
      as r(trip_id uuid, record_kind text, record_id uuid, field text, value jsonb, source text, source_ref text, url text, quote text, confidence real, observed_at timestamptz)`;
}

const toFact = (found: FactRow): Fact => {
  const ownRank = found.trust === null ? undefined : ownRankOf(found.trust, found.source);
  return {
    id: String(found.id),
    record: { kind: found.recordKind, id: found.recordId },
    field: found.field,
    value: found.value,
    source: found.source,
    sourceRef: found.sourceRef,
    ...(found.url === null ? {} : { url: found.url }),
    ...(found.quote === null ? {} : { quote: found.quote }),
    confidence: found.confidence,
    observedAt: found.observedAt,
    ...(ownRank === undefined ? {} : { ownRank }),
  };
};

/** Beside a fact `f`, the field `d` by its name, where its business has chosen an order of sources for it. */
const withTrust = (tx: Tx) => tx`left join field d on d.record_kind = f.record_kind and d.key = f.field and d.body ? 'trust'`;

export async function factsOf(tx: Tx, records: readonly string[], fields?: readonly string[]): Promise<Fact[]> {
  if (records.length === 0) return [];
  const rows = await tx<
    FactRow[]
  >`select f.id, f.record_kind, f.record_id, f.field, f.value, f.source, f.source_ref, f.url, f.quote, f.confidence, f.observed_at, d.body->'trust' as trust
    from fact f ${withTrust(tx)} where f.record_id = any(${[...records]}) ${fields ? tx`and f.field = any(${[...fields]})` : tx``} order by f.id`;
  return rows.map(toFact);
}

export async function trialFactsOf(tx: Tx, tripIds: readonly string[]): Promise<(Fact & { readonly tripId: string })[]> {
  if (tripIds.length === 0) return [];
  const rows = await tx<
    (FactRow & { readonly tripId: string })[]
  >`select 0 as id, f.trip_id, f.record_kind, f.record_id, f.field, f.value, f.source, f.source_ref, f.url, f.quote, f.confidence, f.observed_at, d.body->'trust' as trust
    from trial_fact f ${withTrust(tx)} where f.trip_id = any(${[...tripIds]})`;
  return rows.map((found, i) => ({ ...toFact(found), id: `trial-${i}`, tripId: found.tripId }));
}

/** Gives a record's facts to another record; returns their ids, so that they can go back. */
export async function moveFacts(tx: Tx, from: RecordRef, into: RecordRef): Promise<number[]> {
  const rows = await tx<
    { id: number }[]
  >`update fact set record_id = ${into.id} where record_kind = ${from.kind} and record_id = ${from.id} returning id`;
  return rows.map((moved) => moved.id);
}

export async function returnFacts(tx: Tx, ids: readonly number[], to: string): Promise<void> {
  await tx`update fact set record_id = ${to} where id = any(${[...ids]}::bigint[])`;
}
