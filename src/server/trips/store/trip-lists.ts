import type { Instant, JsonObject } from '../../../core/base';
import type { Trip, TripState } from '../../../core/engine';
import type { Tx } from '../../db';

export interface TripListRow {
  readonly id: string;
  readonly flowId: string;
  readonly flowName: string;
  readonly versionId: string | null;
  readonly versionNo: number | null;
  readonly personId: string;
  readonly personName: string;
  readonly companyName: string | null;
  readonly state: TripState['kind'];
  readonly stateDetail: JsonObject;
  readonly mark: string | null;
  readonly verb: string | null;
  readonly says: string | null;
  readonly dueAt: Instant | null;
  readonly createdAt: Instant;
  readonly endedAt: Instant | null;
  readonly costMicro: number;
  readonly at: number;
}

/** Trips of a flow or a person, newest first, each with its last journal entry. */
export async function listTrips(
  tx: Tx,
  ask: {
    readonly flowId?: string | undefined;
    readonly personIds?: readonly string[] | undefined;
    readonly state?: string | undefined;
    /** trips that got to this line */
    readonly mark?: string | undefined;
    readonly id?: string | undefined;
    readonly before?: { readonly at: Instant; readonly id: string } | null;
    readonly limit: number;
  },
): Promise<TripListRow[]> {
  return [
    ...(await tx<TripListRow[]>`
    select t.id, t.flow_id, f.name as flow_name, t.version_id, v.no as version_no, t.person_id, p.name as person_name, c.name as company_name, t.state, t.state_detail, j.mark, j.verb, j.says, t.due_at, t.created_at, t.ended_at, t.at,
      (select coalesce(sum(cost_micro), 0)::bigint from journal k where k.trip_id = t.id) as cost_micro
    from trip t join flow f on f.id = t.flow_id left join flow_version v on v.id = t.version_id join person p on p.id = t.person_id left join company c on c.id = p.company_id
      left join lateral (select mark, verb, says from journal k where k.trip_id = t.id order by seq desc limit 1) j on true
    where t.trial_id is null
      ${ask.flowId === undefined ? tx`` : tx`and t.flow_id = ${ask.flowId}`}
      ${ask.personIds === undefined ? tx`` : tx`and t.person_id = any(${[...ask.personIds]})`}
      ${ask.state === undefined ? tx`` : tx`and t.state = ${ask.state}`}
      ${ask.mark === undefined ? tx`` : tx`and exists (select 1 from journal k where k.trip_id = t.id and k.mark = ${ask.mark})`}
      ${ask.id === undefined ? tx`` : tx`and t.id = ${ask.id}`}
      ${ask.before ? tx`and (t.created_at, t.id) < (${ask.before.at}::timestamptz, ${ask.before.id}::uuid)` : tx``}
    order by t.created_at desc, t.id desc limit ${ask.limit}`),
  ];
}

export interface FlowCounts {
  readonly flowId: string;
  readonly underWay: number;
  readonly asking: number;
  readonly stuck: number;
  readonly done: number;
  readonly stopped: number;
  readonly costMicro: number;
}
export async function countTrips(tx: Tx, since: Instant): Promise<FlowCounts[]> {
  return [
    ...(await tx<FlowCounts[]>`
    select f.id as flow_id, count(t.id) filter (where t.ended_at is null)::int as under_way, count(t.id) filter (where t.state = 'asking')::int as asking, count(t.id) filter (where t.state = 'stuck')::int as stuck,
      count(t.id) filter (where t.state = 'done')::int as done, count(t.id) filter (where t.state = 'stopped')::int as stopped,
      coalesce(max(paid.cost), 0)::bigint as cost_micro
    from flow f left join trip t on t.flow_id = f.id and t.trial_id is null
      left join (select x.flow_id, sum(j.cost_micro) as cost from journal j join trip x on x.id = j.trip_id where j.cost_micro > 0 and j.at >= ${since} and x.trial_id is null group by x.flow_id) paid on paid.flow_id = f.id
    group by f.id`),
  ];
}

export async function countStates(
  tx: Tx,
  flowId: string,
): Promise<{ readonly state: TripState['kind']; readonly versionId: string | null; readonly trips: number }[]> {
  return [
    ...(await tx<
      { state: TripState['kind']; versionId: string | null; trips: number }[]
    >`select state, version_id, count(*)::int as trips from trip where flow_id = ${flowId} and trial_id is null group by state, version_id`),
  ];
}

export async function trialTrips(
  tx: Tx,
  trialId: string,
): Promise<
  {
    readonly id: string;
    readonly personId: string;
    readonly personName: string;
    readonly companyName: string | null;
    readonly companyId: string | null;
    readonly dealId: string | null;
    readonly dealTitle: string | null;
    readonly state: TripState['kind'];
    readonly stateDetail: JsonObject;
    readonly vars: Trip['vars'];
  }[]
> {
  return [
    ...(await tx<
      {
        id: string;
        personId: string;
        personName: string;
        companyName: string | null;
        companyId: string | null;
        dealId: string | null;
        dealTitle: string | null;
        state: TripState['kind'];
        stateDetail: JsonObject;
        vars: Trip['vars'];
      }[]
    >`
    select t.id, t.person_id, p.name as person_name, c.name as company_name, p.company_id, t.deal_id, d.title as deal_title, t.state, t.state_detail, t.vars from trip t join person p on p.id = t.person_id left join company c on c.id = p.company_id left join deal d on d.id = t.deal_id
    where t.trial_id = ${trialId} order by t.intake_key`),
  ];
}
