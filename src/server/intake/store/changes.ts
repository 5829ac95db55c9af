import type { RecordKind } from '../../../core/base';
import type { Tx } from '../../db';

export interface Watched {
  readonly kind: RecordKind;
  /** a column, or `record` for one that is new */
  readonly field: string;
}

/** Replaces what a flow is told of; nothing ends it. */
export async function watchChanges(tx: Tx, flowId: string, watched: readonly Watched[]): Promise<void> {
  await tx`delete from change_watch where flow_id = ${flowId}`;
  if (watched.length === 0) {
    await tx`delete from record_change where flow_id = ${flowId}`;
    return;
  }
  const rows = watched.map(({ kind, field }) => ({ flow_id: flowId, record_kind: kind, field }));
  await tx`insert into change_watch select * from jsonb_populate_recordset(null::change_watch, ${tx.json(rows)}) on conflict do nothing`;
}

export interface ChangeRow {
  readonly id: string;
  readonly flowId: string;
  readonly versionId: string | null;
  readonly kind: RecordKind;
  readonly recordId: string;
  readonly field: string;
}
/** Takes the oldest changes; they are gone once the transaction is kept. */
export async function takeChanges(tx: Tx, limit: number): Promise<ChangeRow[]> {
  return [
    ...(await tx<ChangeRow[]>`
      with oldest as materialized (select id from record_change order by id limit ${limit} for update skip locked),
        taken as (delete from record_change c using oldest o where c.id = o.id returning c.*)
      select t.id::text, t.flow_id, f.live_version_id as version_id, t.record_kind as kind, t.record_id, t.field from taken t join flow f on f.id = t.flow_id order by t.id`),
  ];
}

/** Whether the flow itself made this change last: by a fact of one of its trips, or by moving the deal. */
export async function isOwnChange(tx: Tx, change: ChangeRow): Promise<boolean> {
  const [row] = await tx<{ own: boolean }[]>`select coalesce(
      (select t.flow_id = ${change.flowId} from fact x left join trip t on t.id = x.trip_id
        where x.record_id = ${change.recordId} and x.field = ${change.field} order by x.id desc limit 1), false)
    or exists (select from deal d join timeline h on h.record_id = d.person_id and h.at = d.stage_since and h.kind = 'deal' and h.detail ->> 'dealId' = d.id::text
        join trip t on t.id::text = h.detail ->> 'tripId' where d.id = ${change.recordId} and ${change.field} = 'stage' and t.flow_id = ${change.flowId}) as own`;
  return row?.own ?? false;
}

/** Whose trips a change may begin: people, or deals with their people, that a condition can be put to. */
export async function subjectsOfChange(
  tx: Tx,
  about: 'person' | 'deal',
  change: Pick<ChangeRow, 'kind' | 'recordId'>,
  limit: number,
): Promise<{ readonly personId: string; readonly dealId: string | null }[]> {
  const { kind, recordId } = change;
  if (about === 'person')
    return [
      ...(await tx<{ personId: string; dealId: null }[]>`select p.id as person_id, null as deal_id from person p
        where p.merged_into is null and (case ${kind} when 'person' then p.id when 'company' then p.company_id end) = ${recordId} order by p.created_at, p.id limit ${limit}`),
    ];
  return [
    ...(await tx<{ personId: string; dealId: string }[]>`select d.person_id, d.id as deal_id from deal d
      where d.person_id is not null and (case ${kind} when 'deal' then d.id when 'person' then d.person_id when 'company' then d.company_id end) = ${recordId} order by d.created_at, d.id limit ${limit}`),
  ];
}

/** Of these records those that are on their way through the flow. */
export async function underWay(tx: Tx, flowId: string, about: 'person' | 'deal', ids: readonly string[]): Promise<Set<string>> {
  const column = about === 'deal' ? tx`deal_id` : tx`person_id`;
  const rows = await tx<{ id: string }[]>`select distinct ${column} as id from trip
    where flow_id = ${flowId} and trial_id is null and state not in ('done', 'stopped') and ${column} = any(${[...ids]}::uuid[])`;
  return new Set(rows.map((row) => row.id));
}
