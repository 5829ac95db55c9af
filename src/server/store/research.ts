import type { Instant, Json } from '../../core/base';
import type { Tx } from '../db';
import type { PageText } from '../../core/formats';

export interface ResearchJob {
  readonly key: string;
  readonly source: string;
  readonly job: string | null;
  readonly state: 'new' | 'working' | 'done' | 'failed';
  readonly documents: readonly (PageText & { readonly url: string })[];
  readonly says: string;
  readonly costMicro: number;
  readonly reserved: Json;
  readonly startedAt: Instant;
  readonly askAt: Instant;
}

/** The search of that key; one older than `since` is begun anew. */
export async function beginResearch(
  tx: Tx,
  ask: { readonly key: string; readonly source: string; readonly recordId: string },
  since: Instant,
  now: Instant,
): Promise<ResearchJob> {
  await tx`insert into research_job (key, source, record_id, started_at, ask_at) values (${ask.key}, ${ask.source}, ${ask.recordId}, ${now}, ${now})
    on conflict (key) do update set state = 'new', job = null, documents = '[]', says = '', cost_micro = 0, cost_told = false, reserved = null,
      started_at = excluded.started_at, ask_at = excluded.ask_at where research_job.started_at < ${since}`;
  const [row] = await tx<
    ResearchJob[]
  >`select key, source, job, state, documents, says, cost_micro, reserved, started_at, ask_at from research_job where key = ${ask.key}`;
  if (!row) throw new Error(`the search ${ask.key} is gone`);
  return row;
}

export async function saveResearch(
  tx: Tx,
  key: string,
  change: Pick<ResearchJob, 'state' | 'says' | 'askAt' | 'costMicro'> & {
    readonly job: string | null;
    readonly documents: ResearchJob['documents'];
  },
): Promise<void> {
  await tx`update research_job set state = ${change.state}, job = ${change.job}, says = ${change.says}, ask_at = ${change.askAt}, cost_micro = ${change.costMicro},
    documents = ${tx.json(change.documents as never)} where key = ${key}`;
}

export async function reserveResearch(tx: Tx, key: string, reserved: Json): Promise<void> {
  await tx`update research_job set reserved = ${reserved === null ? null : tx.json(reserved)} where key = ${key}`;
}

/** What searches about a record found, by source, newest search first. */
export async function documentsOf(tx: Tx, recordIds: readonly string[]): Promise<Pick<ResearchJob, 'source' | 'documents'>[]> {
  return [
    ...(await tx<
      Pick<ResearchJob, 'source' | 'documents'>[]
    >`select source, documents from research_job where state = 'done' and record_id = any(${[...recordIds]}) order by started_at desc`),
  ];
}

/** What these searches cost and nobody has been told yet; from now on it is told. */
export async function tellCosts(tx: Tx, keys: readonly string[]): Promise<number> {
  const rows = await tx<
    { costMicro: number }[]
  >`update research_job set cost_told = true where key = any(${[...keys]}) and not cost_told returning cost_micro::float8 as cost_micro`;
  return rows.reduce((sum, row) => sum + row.costMicro, 0);
}

/** What was seen about a record before an instant. */
export async function seenSince(tx: Tx, recordId: string, before: Instant): Promise<ReadonlySet<string>> {
  const rows = await tx<
    { document: string }[]
  >`select document from research_seen where record_id = ${recordId} and first_seen_at < ${before}`;
  return new Set(rows.map((row) => row.document));
}
export async function keepSeen(tx: Tx, recordId: string, documents: readonly string[], now: Instant): Promise<void> {
  await tx`insert into research_seen (record_id, document, first_seen_at) select ${recordId}::uuid, d, ${now} from unnest(${[...documents]}::text[]) d on conflict do nothing`;
}
