import type { Instant } from '../../../core/base';
import type { Tx } from '../../db';
import { wakeWorkers } from '../../platform/store/wake';

/** Whoever begins trips of a flow, or rests it, does so alone until the transaction ends: what was counted stays true. */
export async function lockStarts(tx: Tx, flowId: string): Promise<void> {
  await tx`select pg_advisory_xact_lock(727003, hashtext(${flowId}))`;
}

/** Rests a flow or lets it go on: its trips are not worked off meanwhile. Returns how many trips that touched. */
export async function setPaused(tx: Tx, flowId: string, at: Instant | null): Promise<number> {
  await tx`update flow set paused_at = ${at} where id = ${flowId}`;
  const rows =
    at === null
      ? await tx`update trip set hold = null where flow_id = ${flowId} and hold = 'paused' and ended_at is null returning id`
      : await tx`update trip set hold = 'paused' where flow_id = ${flowId} and hold is null and ended_at is null and trial_id is null returning id`;
  await wakeWorkers(tx);
  return rows.length;
}

/** Posts one event to every open trip of a flow, in one statement. */
export async function postToOpen(tx: Tx, flowId: string, event: object, now: Instant): Promise<number> {
  const rows = await tx`
    with open as (update trip set due_at = ${now}, hold = null where flow_id = ${flowId} and ended_at is null and trial_id is null returning id)
    insert into trip_event (trip_id, event, at) select id, ${tx.json(event as never)}, ${now} from open returning id`;
  await wakeWorkers(tx);
  return rows.length;
}

export interface MarkMove {
  readonly from: number;
  readonly to: number;
  /** states in which a trip at that line may be moved */
  readonly states: readonly string[];
}
/** Moves open trips of one version to another where the lines match. The fence goes on, so that a worker that holds one drops it. */
export async function moveToVersion(tx: Tx, fromVersion: string, toVersion: string, moves: readonly MarkMove[]): Promise<number> {
  const rows = await tx`
    update trip t set version_id = ${toVersion}, at = m.to_at, fence = t.fence + 1, lease_by = null, lease_until = null
    from jsonb_to_recordset(${tx.json(moves.map(({ from, to, states }) => ({ from_at: from, to_at: to, states })))}) as m(from_at int, to_at int, states jsonb)
    where t.version_id = ${fromVersion} and t.at = m.from_at and t.ended_at is null and m.states ? t.state returning t.id`;
  return rows.length;
}

export async function openTripsOf(tx: Tx, versionId: string): Promise<number> {
  const [row] = await tx<{ n: number }[]>`select count(*)::int as n from trip where version_id = ${versionId} and ended_at is null`;
  return row?.n ?? 0;
}

/** Trips of a version so far, and of them those begun since an instant: what limits on how many begin count. */
export async function begunOf(tx: Tx, versionId: string, since: Instant): Promise<{ readonly all: number; readonly since: number }> {
  const [row] = await tx<
    { all: number; since: number }[]
  >`select count(*)::int as all, count(*) filter (where coalesce(due_at, created_at) >= ${since})::int as since from trip where version_id = ${versionId}`;
  return row ?? { all: 0, since: 0 };
}

export interface HeldFirst {
  readonly flowId: string;
  readonly flowName: string;
  readonly versionId: string;
  readonly firstN: number;
  readonly held: number;
  readonly open: number;
  readonly done: number;
  readonly stopped: number;
  readonly stuck: number;
  readonly since: Instant;
}
/** Releases whose first trips are on their way while the others wait for a word. */
export async function heldFirst(tx: Tx): Promise<HeldFirst[]> {
  return [
    ...(await tx<HeldFirst[]>`
    select f.id as flow_id, f.name as flow_name, v.id as version_id, v.first_n, v.released_at as since,
      count(*) filter (where t.hold = 'first')::int as held,
      count(*) filter (where t.hold is null and t.ended_at is null)::int as open,
      count(*) filter (where t.state = 'done')::int as done, count(*) filter (where t.state = 'stopped')::int as stopped, count(*) filter (where t.state = 'stuck')::int as stuck
    from flow f join flow_version v on v.flow_id = f.id join trip t on t.version_id = v.id
    where v.first_n is not null and exists (select 1 from trip h where h.flow_id = f.id and h.version_id = v.id and h.hold = 'first' and h.ended_at is null)
    group by f.id, v.id order by v.released_at`),
  ];
}
export async function letGoOn(tx: Tx, versionId: string): Promise<number> {
  await tx`update flow_version set first_n = null where id = ${versionId}`;
  return (await tx`update trip set hold = null where version_id = ${versionId} and hold = 'first' and ended_at is null returning id`)
    .length;
}

/** Sets money of a budget aside if it still fits under the limit (null: there is none), and gives what is gone of it then; undefined when it does not fit. */
export async function reserve(
  tx: Tx,
  budget: string,
  day: string,
  amountMicro: number,
  limitMicro: number | null,
): Promise<number | undefined> {
  if (limitMicro !== null && amountMicro > limitMicro) return undefined;
  const [row] = await tx<{ gone: number }[]>`insert into spend (budget, day, reserved_micro) values (${budget}, ${day}, ${amountMicro})
    on conflict (budget, day) do update set reserved_micro = spend.reserved_micro + excluded.reserved_micro
    where ${limitMicro}::bigint is null or spend.reserved_micro + spend.spent_micro + excluded.reserved_micro <= ${limitMicro}
    returning (reserved_micro + spent_micro)::bigint as gone`;
  return row?.gone;
}
export async function settleSpend(tx: Tx, budget: string, day: string, reservedMicro: number, spentMicro: number): Promise<void> {
  await tx`update spend set reserved_micro = greatest(0, reserved_micro - ${reservedMicro}), spent_micro = spent_micro + ${spentMicro} where budget = ${budget} and day = ${day}`;
}
/** What is gone of every budget of a day: spent, and set aside for calls under way. */
export async function spending(
  tx: Tx,
  day: string,
): Promise<{ readonly budget: string; readonly spentMicro: number; readonly reservedMicro: number }[]> {
  return [
    ...(await tx<{ budget: string; spentMicro: number; reservedMicro: number }[]>`
      select budget, spent_micro::bigint as spent_micro, reserved_micro::bigint as reserved_micro from spend where day = ${day} order by budget`),
  ];
}
export async function spentOn(tx: Tx, budget: string, day: string): Promise<number> {
  const [row] = await tx<
    { n: number }[]
  >`select (reserved_micro + spent_micro)::bigint as n from spend where budget = ${budget} and day = ${day}`;
  return row?.n ?? 0;
}

export interface Gate {
  /** milliseconds until a call may be made; 0: now */
  readonly waitMs: number;
  readonly shut: boolean;
}
/** Takes the next place in a connection's pace (`gapMs` apart), unless it is shut. In real time, across all workers. */
export async function passGate(tx: Tx, name: string, gapMs: number): Promise<Gate> {
  await tx`insert into connection_state (name) values (${name}) on conflict do nothing`;
  const [row] = await tx<{ shutMs: number | null; waitMs: number | null }[]>`
    update connection_state set next_at = case when shut_until > clock_timestamp() then next_at else greatest(coalesce(next_at, clock_timestamp()), clock_timestamp()) + make_interval(secs => ${gapMs / 1000}) end
    where name = ${name}
    returning (extract(epoch from shut_until - clock_timestamp()) * 1000)::float8 as shut_ms, (extract(epoch from next_at - clock_timestamp()) * 1000 - ${gapMs})::float8 as wait_ms`;
  if ((row?.shutMs ?? 0) > 0) return { waitMs: Math.ceil(row?.shutMs ?? 0), shut: true };
  return { waitMs: Math.max(0, Math.ceil(row?.waitMs ?? 0)), shut: false };
}
/**
 * Takes one of a connection's places for a call, for at most `leaseMs`; false when all are taken. The free place is chosen in a
 * materialized part: inside the join it may be asked for again for each row, passes over what was just taken, and takes them all.
 */
export async function takeSlot(
  tx: Tx,
  ask: { readonly name: string; readonly slots: number; readonly by: string; readonly leaseMs: number },
): Promise<boolean> {
  await tx`insert into connection_slot (name, slot) select ${ask.name}, n from generate_series(1, ${ask.slots}) n on conflict do nothing`;
  const rows = await tx`
    with free as materialized (
      select slot from connection_slot where name = ${ask.name} and slot <= ${ask.slots} and held_until < clock_timestamp() order by slot limit 1 for update skip locked)
    update connection_slot s set held_by = ${ask.by}, held_until = clock_timestamp() + make_interval(secs => ${ask.leaseMs / 1000}) from free
    where s.name = ${ask.name} and s.slot = free.slot returning s.slot`;
  return rows.length > 0;
}
export async function freeSlot(tx: Tx, name: string, by: string): Promise<void> {
  await tx`update connection_slot set held_by = null, held_until = '-infinity' where name = ${name} and held_by = ${by}`;
}

/** Counts a failure; after `many` in a row the connection is shut for `shutMs`, twice as long each further time. A success opens it. */
export async function noteCall(tx: Tx, name: string, ok: boolean, many: number, shutMs: number): Promise<void> {
  if (ok) await tx`update connection_state set failures = 0, shut_until = null where name = ${name} and failures > 0`;
  else
    await tx`update connection_state set failures = failures + 1,
      shut_until = case when failures + 1 >= ${many} then clock_timestamp() + make_interval(secs => ${shutMs / 1000} * least(32, power(2, failures + 1 - ${many}))) else shut_until end where name = ${name}`;
}
/** Of the conversations a flow has begun and ended: how many were answered, how many stayed silent. */
export async function repliesSoFar(tx: Tx, flowId: string): Promise<{ readonly answered: number; readonly silent: number }> {
  const [row] = await tx<{ answered: number; silent: number }[]>`
    select count(*) filter (where h.state = 'answered')::int as answered, count(*) filter (where h.state <> 'answered' and t.ended_at is not null)::int as silent
    from thread h join trip t on t.id = h.trip_id where t.flow_id = ${flowId}`;
  return row ?? { answered: 0, silent: 0 };
}
