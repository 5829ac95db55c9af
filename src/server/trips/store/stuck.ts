import type { Instant } from '../../../core/base';
import type { TripEvent } from '../../../core/engine';
import type { Tx } from '../../db';
import { wakeWorkers } from '../../platform/store/wake';

/** Trips of one version that are stuck at one line for one reason. */
export interface StuckRow {
  readonly flowId: string;
  readonly flowName: string;
  readonly versionId: string | null;
  /** which instruction of the plan */
  readonly at: number;
  readonly why: string;
  readonly held: boolean;
  readonly trips: number;
  /** those that came first, at most `SHOWN` */
  readonly firstIds: readonly string[];
}

const SHOWN = 6;

/** Stuck trips counted by flow, version, line and reason. */
export async function stuckRows(tx: Tx, flowId?: string): Promise<StuckRow[]> {
  return [
    ...(await tx<StuckRow[]>`
    select t.flow_id, f.name as flow_name, t.version_id, t.at, t.state_detail->>'why' as why, coalesce(bool_or((t.state_detail->>'held')::boolean), false) as held,
      count(*)::int as trips, (array_agg(t.id order by t.created_at, t.id))[1:${SHOWN}] as first_ids
    from trip t join flow f on f.id = t.flow_id
    where t.state = 'stuck' and t.trial_id is null ${flowId === undefined ? tx`` : tx`and t.flow_id = ${flowId}`}
    group by t.flow_id, f.name, t.version_id, t.at, t.state_detail->>'why'`),
  ];
}

export interface StuckTrip {
  readonly id: string;
  readonly flowId: string;
  readonly versionId: string | null;
  readonly trialId: string | null;
  readonly at: number;
  readonly why: string;
  readonly personId: string;
  readonly personName: string;
  readonly companyName: string | null;
  readonly since: Instant;
}

/** Those of the trips that are stuck, with whom they are about and since when. */
export async function stuckTrips(tx: Tx, ids: readonly string[]): Promise<StuckTrip[]> {
  if (ids.length === 0) return [];
  return [
    ...(await tx<StuckTrip[]>`
    select t.id, t.flow_id, t.version_id, t.trial_id, t.at, t.state_detail->>'why' as why, t.person_id, p.name as person_name, c.name as company_name,
      coalesce((select j.at from journal j where j.trip_id = t.id order by j.seq desc limit 1), t.created_at) as since
    from trip t join person p on p.id = t.person_id left join company c on c.id = p.company_id
    where t.id = any(${[...ids]}::uuid[]) and t.state = 'stuck' and t.trial_id is null order by since, t.id`),
  ];
}

/** Puts an event before every trip of one row and makes them due; how many they were. */
export async function postToStuck(
  tx: Tx,
  row: { readonly flowId: string; readonly versionId: string | null; readonly at: number; readonly why: string },
  event: TripEvent,
  now: Instant,
): Promise<number> {
  const posted = await tx`
    with chosen as (
      update trip set due_at = ${now} where state = 'stuck' and trial_id is null and flow_id = ${row.flowId} and version_id is not distinct from ${row.versionId}
        and at = ${row.at} and state_detail->>'why' = ${row.why} returning id)
    insert into trip_event (trip_id, event, at) select id, ${tx.json(event as never)}, ${now} from chosen returning 1`;
  await wakeWorkers(tx);
  return posted.length;
}
