import type { Instant, Json } from '../../../core/base';
import type { Tx } from '../../db';
import type { PageText } from '../../../core/formats';
import type { SourceKind } from '../../../core/facts';
import type { FactValue } from '../../../core/fields';

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

export interface SiteRow {
  readonly companyId: string;
  readonly name: string;
  readonly host: string;
  /** what people say, not what was read on a site; null where nobody does */
  readonly known: FactValue;
  readonly knownFrom: SourceKind | null;
  /** what was last read on the site for the field */
  readonly read: FactValue;
}

/** Who is believed about what a site should be read to say: people, and what they told us themselves. Lists grow old unseen. */
const KEY: readonly SourceKind[] = ['hand', 'confirmed', 'reply', 'form'];

/** Companies whose site was read before, with what is known of the field; those whose answer is known first. */
export async function sitesRead(tx: Tx, field: string, limit: number): Promise<readonly SiteRow[]> {
  return tx<SiteRow[]>`
    select c.id as company_id, c.name, h.host, k.value as known, k.source as known_from, r.value as read
    from (select distinct split_part(url, '/', 3) as host from page) h
    join company c on c.website in (h.host, regexp_replace(h.host, '^www\.', '')) and c.merged_into is null
    left join lateral (select f.value, f.source from fact f where f.record_id = c.id and f.field = ${field} and f.value <> 'null'::jsonb
      and f.source = any(${[...KEY]}) order by (f.source = 'hand') desc, (f.source = 'confirmed') desc, f.observed_at desc limit 1) k on true
    left join lateral (select f.value from fact f where f.record_id = c.id and f.field = ${field} and f.source = 'site' order by f.observed_at desc limit 1) r on true
    order by (k.value is null), c.name limit ${limit}`;
}

/** Companies whose site nobody has read yet, those whose answer is known first. */
export async function sitesUnread(
  tx: Tx,
  field: string,
  limit: number,
): Promise<readonly { readonly id: string; readonly name: string; readonly isKnown: boolean }[]> {
  return tx<{ id: string; name: string; isKnown: boolean }[]>`
    select c.id, c.name, k.known as is_known from company c
    cross join lateral (select exists (select 1 from fact f where f.record_id = c.id and f.field = ${field} and f.value <> 'null'::jsonb and f.source = any(${[...KEY]})) as known) k
    where c.website is not null and c.merged_into is null
      and not exists (select 1 from page p where split_part(p.url, '/', 3) in (c.website, 'www.' || c.website))
    order by (not k.known), c.name limit ${limit}`;
}
