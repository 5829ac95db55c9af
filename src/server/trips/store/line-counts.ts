import type { Instant } from '../../../core/base';
import type { JournalEntry } from '../../../core/engine';
import type { Tx } from '../../db';

export interface LineCount {
  readonly mark: string;
  readonly outcome: JournalEntry['outcome'];
  readonly arm: string | null;
  readonly trips: number;
  readonly costMicro: number;
  readonly tookMs: number;
}

/**
 * The end of a statement that has put journal entries in as `made` (`trip_id, seq, mark, outcome, arm, cost_micro, took_ms`):
 * adds to the line counts what they change. A trip counts at a line once, by what happened there last, so what stood there
 * before is taken off. Trials are not counted.
 */
export const countMade = (tx: Tx): ReturnType<Tx> => tx`
  insert into line_count (flow_id, mark, outcome, arm, trips, cost_micro, took_ms)
  with stored as (
    select j.trip_id, j.seq, j.mark, j.outcome, j.detail->>'arm' as arm, j.cost_micro, j.took_ms
    from (select trip_id, array_agg(mark) as marks from made group by trip_id having min(seq) > 0) m
      join journal j on j.trip_id = m.trip_id and j.mark = any(m.marks)),
  was as (
    select distinct on (trip_id, mark) trip_id, mark, outcome, arm, sum(cost_micro) over same as cost, sum(took_ms) over same as took
    from stored window same as (partition by trip_id, mark) order by trip_id, mark, seq desc),
  is_now as (
    select distinct on (trip_id, mark) trip_id, mark, outcome, arm, sum(cost_micro) over same as cost, sum(took_ms) over same as took
    from (select * from stored union all select * from made) entries window same as (partition by trip_id, mark) order by trip_id, mark, seq desc)
  select t.flow_id, x.mark, x.outcome, x.arm, sum(x.n), sum(x.n * x.cost), sum(x.n * x.took)
  from (select 1 as n, * from is_now union all select -1 as n, * from was) x join trip t on t.id = x.trip_id and t.trial_id is null
  group by t.flow_id, x.mark, x.outcome, x.arm`;

/** How many trips of a flow got to each line, ever: sums of what was written down. */
export async function lineCounts(tx: Tx, flowId: string): Promise<LineCount[]> {
  return [
    ...(await tx<LineCount[]>`
    select mark, outcome, arm, sum(trips)::int as trips, sum(cost_micro)::bigint as cost_micro, round(sum(took_ms) / sum(trips))::int as took_ms
    from line_count where flow_id = ${flowId} group by mark, outcome, arm having sum(trips) > 0`),
  ];
}

/** Counts the lines of flows anew, from the journals that are there: after trips were taken away. */
export async function recountLines(tx: Tx, flowIds: readonly string[]): Promise<void> {
  const flows = [...flowIds];
  await tx`delete from line_count where flow_id = any(${flows}::uuid[])`;
  await tx`insert into line_count (flow_id, mark, outcome, arm, trips, cost_micro, took_ms)
    select flow_id, mark, outcome, arm, count(*), sum(cost), sum(took) from (
      select distinct on (j.trip_id, j.mark) t.flow_id, j.mark, j.outcome, j.detail->>'arm' as arm,
        sum(j.cost_micro) over same as cost, sum(j.took_ms) over same as took
      from journal j join trip t on t.id = j.trip_id where t.trial_id is null and t.flow_id = any(${flows}::uuid[])
      window same as (partition by j.trip_id, j.mark) order by j.trip_id, j.mark, j.seq desc) last
    group by flow_id, mark, outcome, arm`;
}

/** Joins the differences of flows that have more than so many. Who comes second finds them joined already. */
export async function joinLineCounts(tx: Tx, more: number): Promise<void> {
  await tx`
    with old as (delete from line_count where flow_id in (select flow_id from line_count group by flow_id having count(*) > ${more}) returning *)
    insert into line_count (flow_id, mark, outcome, arm, trips, cost_micro, took_ms)
      select flow_id, mark, outcome, arm, sum(trips), sum(cost_micro), sum(took_ms) from old group by flow_id, mark, outcome, arm
      having sum(trips) <> 0`;
}

/** The same counted from the journals: of one trial, one version, or of trips that moved since then, with their whole way. */
export async function countLines(
  tx: Tx,
  ask: {
    readonly flowId: string;
    readonly trialId?: string | undefined;
    readonly versionId?: string;
    readonly since?: Instant | undefined;
  },
): Promise<LineCount[]> {
  return [
    ...(await tx<LineCount[]>`
    select mark, outcome, arm, count(*)::int as trips, sum(cost)::bigint as cost_micro, avg(took)::int as took_ms from (
      select distinct on (j.trip_id, j.mark) j.trip_id, j.mark, j.outcome, j.detail->>'arm' as arm,
        sum(j.cost_micro) over (partition by j.trip_id, j.mark) as cost, sum(j.took_ms) over (partition by j.trip_id, j.mark) as took
      from journal j join trip t on t.id = j.trip_id
      where t.flow_id = ${ask.flowId} ${ask.trialId === undefined ? tx`and t.trial_id is null` : tx`and t.trial_id = ${ask.trialId}`}
        ${ask.versionId === undefined ? tx`` : tx`and t.version_id = ${ask.versionId}`}
        ${ask.since === undefined ? tx`` : tx`and (t.ended_at is null or t.ended_at >= ${ask.since}) and exists (select 1 from journal k where k.trip_id = t.id and k.at >= ${ask.since})`}
      order by j.trip_id, j.mark, j.seq desc) x group by mark, outcome, arm`),
  ];
}

/** Whether any trip of the flow began before then: if none did, every trip has moved since. */
export async function beganBefore(tx: Tx, flowId: string, at: Instant): Promise<boolean> {
  // The first by its index: of “one before then”, the planner would look through the table.
  const [first] = await tx<{ isBefore: boolean }[]>`
    select created_at < ${at} as is_before from trip where flow_id = ${flowId} and trial_id is null order by created_at, id limit 1`;
  return first?.isBefore ?? false;
}
