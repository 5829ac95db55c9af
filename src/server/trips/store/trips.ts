import type { Instant, JsonObject } from '../../../core/base';
import type { JournalEntry, Trip, TripEvent, TripState } from '../../../core/engine';
import type { Tx } from '../../db';
import { countMade } from './line-counts';
import { wakeWorkers } from '../../platform/store/wake';

/** A trip as the worker holds it: the engine's trip, which plan it runs on, and the lease that lets it be written. */
export interface HeldTrip {
  readonly trip: Trip;
  readonly flowId: string;
  readonly versionId: string | null;
  readonly trialId: string | null;
  readonly fence: number;
  readonly createdAt: Instant;
}

interface TripRow {
  readonly id: string;
  readonly flowId: string;
  readonly versionId: string | null;
  readonly trialId: string | null;
  readonly personId: string;
  readonly state: TripState['kind'];
  readonly stateDetail: JsonObject;
  readonly at: number;
  readonly part: number;
  readonly vars: Trip['vars'];
  readonly seq: number;
  readonly tries: number;
  readonly dealId: string | null;
  readonly fence: number;
  readonly createdAt: Instant;
}

const toHeld = (row: TripRow): HeldTrip => ({
  trip: {
    id: row.id,
    trial: row.trialId !== null,
    record: { kind: 'person', id: row.personId },
    at: row.at,
    part: row.part,
    state: { ...row.stateDetail, kind: row.state } as TripState,
    vars: row.vars,
    seq: row.seq,
    tries: row.tries,
    dealId: row.dealId,
  },
  flowId: row.flowId,
  versionId: row.versionId,
  trialId: row.trialId,
  fence: row.fence,
  createdAt: row.createdAt,
});

const stateDetail = (state: TripState): JsonObject => {
  const { kind: _, ...detail } = state;
  return detail;
};

/** When the worker has something to do with a trip in that state, or null. */
export function dueOf(state: TripState, now: Instant): Instant | null {
  switch (state.kind) {
    case 'ready':
      return now;
    case 'waiting':
      return state.until;
    case 'asking':
      return state.until;
    case 'following':
    case 'stuck':
    case 'done':
    case 'stopped':
      return null;
  }
}

export interface NewTrip {
  readonly id: string;
  readonly flowId: string;
  readonly versionId: string | null;
  readonly trialId: string | null;
  readonly personId: string;
  readonly intakeKey: string;
  /** for flows about deals */
  readonly dealId?: string;
  /** begins later than now */
  readonly dueAt?: Instant;
  readonly hold?: 'paused' | 'first';
  /** results it begins with: what came in with the record */
  readonly vars?: JsonObject;
}

/** Starts trips; a record that has one already for this flow and intake key gets no second. Returns the ids that are new. */
export async function insertTrips(tx: Tx, trips: readonly NewTrip[], now: Instant): Promise<string[]> {
  if (trips.length === 0) return [];
  const rows = trips.map((trip) => ({
    id: trip.id,
    flow_id: trip.flowId,
    version_id: trip.versionId,
    trial_id: trip.trialId,
    person_id: trip.personId,
    intake_key: trip.intakeKey,
    deal_id: trip.dealId ?? null,
    due_at: new Date(trip.dueAt ?? now).toISOString(),
    hold: trip.hold ?? null,
    vars: trip.vars ?? {},
  }));
  const made = await tx<
    { id: string }[]
  >`insert into trip (id, flow_id, version_id, trial_id, person_id, intake_key, deal_id, hold, state, due_at, vars, created_at)
    select id, flow_id, version_id, trial_id, person_id, intake_key, deal_id, hold, 'ready', due_at, vars, ${now} from jsonb_to_recordset(${tx.json(rows)})
      as r(id uuid, flow_id uuid, version_id uuid, trial_id uuid, person_id uuid, intake_key text, deal_id uuid, due_at timestamptz, hold text, vars jsonb) on conflict do nothing returning id`;
  if (made.length > 0) await wakeWorkers(tx);
  return made.map((row) => row.id);
}

export async function existingTrips(tx: Tx, ids: readonly string[]): Promise<string[]> {
  return (await tx<{ id: string }[]>`select id from trip where id = any(${[...ids]}::uuid[])`).map((row) => row.id);
}

/** Which of these people have a trip in the flow, ended or not. */
export async function peopleInFlow(tx: Tx, flowId: string, personIds: readonly string[]): Promise<string[]> {
  const rows = await tx<
    { personId: string }[]
  >`select distinct person_id from trip where flow_id = ${flowId} and trial_id is null and person_id = any(${[...personIds]})`;
  return rows.map((row) => row.personId);
}

/**
 * Ends those of the trips whose person has another trip in the same flow: after a merge one of two goes on. The fence moves
 * on, so that a worker that holds such a trip can no longer write it.
 */
export async function endTwins(tx: Tx, tripIds: readonly string[], why: string, now: Instant): Promise<void> {
  await tx`
    with twin as (
      update trip t set state = 'stopped', state_detail = ${tx.json({ why })}, ended_at = ${now}, due_at = null, lease_by = null, lease_until = null, fence = t.fence + 1, seq = t.seq + 1
      where t.id = any(${[...tripIds]}::uuid[]) and t.ended_at is null and t.trial_id is null
        and exists (select 1 from trip o where o.flow_id = t.flow_id and o.person_id = t.person_id and o.id <> t.id and o.trial_id is null and not (o.id = any(${[...tripIds]}::uuid[])))
      returning t.id, t.seq - 1 as seq),
    made as (
      insert into journal (trip_id, seq, mark, verb, outcome, says, detail, at)
      select twin.id, twin.seq, coalesce((select mark from journal j where j.trip_id = twin.id order by seq desc limit 1), ''), 'match', 'stopped', ${why}, '{}', ${now} from twin
      returning trip_id, seq, mark, outcome, detail->>'arm' as arm, cost_micro, took_ms)
    ${countMade(tx)}`;
}

/** Takes due trips for one holder. Leases run in the database's real time, so that a demo's moved clock does not break them. */
export async function claimTrips(
  tx: Tx,
  ask: { readonly holder: string; readonly now: Instant; readonly leaseMs: number; readonly limit: number },
): Promise<HeldTrip[]> {
  const rows = await tx<TripRow[]>`
    with due as (
      select id from trip where due_at <= ${ask.now} and hold is null and (lease_until is null or lease_until < clock_timestamp()) order by due_at, id limit ${ask.limit} for update skip locked)
    update trip t set lease_by = ${ask.holder}, lease_until = clock_timestamp() + make_interval(secs => ${ask.leaseMs / 1000}), fence = t.fence + 1 from due where t.id = due.id
    returning t.id, t.flow_id, t.version_id, t.trial_id, t.person_id, t.state, t.state_detail, t.at, t.part, t.vars, t.seq, t.tries, t.deal_id, t.fence, t.created_at`;
  return rows.map(toHeld);
}

/** Which of the trips in hand have been put to rest or called meanwhile. */
export async function interrupted(tx: Tx, tripIds: readonly string[]): Promise<Set<string>> {
  if (tripIds.length === 0) return new Set();
  const rows = await tx<{ id: string }[]>`
    select t.id from trip t where t.id = any(${[...tripIds]}::uuid[]) and (t.hold is not null or exists (select 1 from trip_event e where e.trip_id = t.id))`;
  return new Set(rows.map((row) => row.id));
}

/** The first event before each of the trips that has any. */
export async function firstEvents(
  tx: Tx,
  tripIds: readonly string[],
): Promise<{ readonly id: number; readonly tripId: string; readonly event: TripEvent }[]> {
  return [
    ...(await tx<
      { id: number; tripId: string; event: TripEvent }[]
    >`select distinct on (trip_id) id, trip_id, event from trip_event where trip_id = any(${[...tripIds]}) order by trip_id, id`),
  ];
}

/** Puts an event before a trip and makes it due. */
export async function postEvent(tx: Tx, tripId: string, event: TripEvent, now: Instant): Promise<void> {
  await tx`insert into trip_event (trip_id, event, at) values (${tripId}, ${tx.json(event as never)}, ${now})`;
  await tx`update trip set due_at = ${now} where id = ${tripId} and ended_at is null`;
  await wakeWorkers(tx);
}

/**
 * Wakes trips that wait for something about these people, companies or deals to hold. A trip whose worker looked before the
 * change and writes after it is not among them; it looks again by itself within the hour.
 */
export async function wakeOnChange(tx: Tx, recordIds: readonly string[], now: Instant): Promise<void> {
  if (recordIds.length === 0) return;
  const ids = [...new Set(recordIds)];
  await tx`
    with woken as (
      update trip t set due_at = ${now} where t.state = 'waiting' and t.state_detail->>'on' = 'change'
        and t.person_id in (select id from person where id = any(${ids}::uuid[]) or company_id = any(${ids}::uuid[]) union select person_id from deal where id = any(${ids}::uuid[])) returning t.id)
    insert into trip_event (trip_id, event, at) select id, '{"kind":"signal"}', ${now} from woken`;
}

export interface GatherGroup {
  readonly versionId: string;
  readonly at: number;
  readonly count: number;
  readonly waiting: number;
  /** when the one who has waited longest goes on all the same */
  readonly limit: Instant;
}
/** Trips that are gathered at a line and have not been called on yet. */
export async function gatherGroups(tx: Tx): Promise<GatherGroup[]> {
  return [
    ...(await tx<GatherGroup[]>`
    select t.version_id, t.at, min((t.state_detail->'batch'->>'count')::int) as count, count(*)::int as waiting, min((t.state_detail->'batch'->>'limit')::float8) as limit
    from trip t where t.state = 'waiting' and t.state_detail->>'on' = 'batch' and t.due_at is null and t.hold is null group by 1, 2`),
  ];
}
/** Takes the trips of a group that are free, longest waiting first. */
export async function lockGatherGroup(
  tx: Tx,
  group: GatherGroup,
): Promise<{ readonly id: string; readonly name: string; readonly says: string }[]> {
  return [
    ...(await tx<{ id: string; name: string; says: string }[]>`
    select t.id, p.name, t.state_detail->'batch'->>'says' as says from trip t join person p on p.id = t.person_id
    where t.version_id = ${group.versionId} and t.at = ${group.at} and t.state = 'waiting' and t.state_detail->>'on' = 'batch' and t.due_at is null
    order by (t.state_detail->'batch'->>'limit')::float8, t.id limit ${group.count} for update of t skip locked`),
  ];
}
/** When the next gathered trip has waited long enough. */
export async function nextGatherDue(tx: Tx, after: Instant): Promise<Instant | null> {
  const limits = (await gatherGroups(tx)).map((group) => group.limit).filter((limit) => limit > after);
  return limits.length === 0 ? null : Math.min(...limits);
}

export async function deleteEvents(tx: Tx, ids: readonly number[]): Promise<void> {
  if (ids.length > 0) await tx`delete from trip_event where id = any(${[...ids]}::bigint[])`;
}

/**
 * Writes trips back. Only rows whose fence is still the holder's are touched; the others' ids are missing from the
 * result: their lease is lost and nothing of theirs may be written. `keep` renews the lease, else it is given back, as is
 * that of a trip that has been put to rest meanwhile. The result says by id whether the lease is still held.
 */
export async function saveTrips(
  tx: Tx,
  trips: readonly { readonly held: HeldTrip; readonly trip: Trip; readonly keep: boolean }[],
  ask: { readonly holder: string; readonly now: Instant; readonly leaseMs: number },
): Promise<Map<string, boolean>> {
  if (trips.length === 0) return new Map();
  const iso = (at: Instant | null): string | null => (at === null ? null : new Date(at).toISOString());
  const rows = trips.map(({ held, trip, keep }) => ({
    id: trip.id,
    fence: held.fence,
    person_id: trip.record.id,
    state: trip.state.kind,
    state_detail: stateDetail(trip.state),
    at: trip.at,
    part: trip.part,
    vars: trip.vars,
    seq: trip.seq,
    tries: trip.tries,
    deal_id: trip.dealId,
    due_at: iso(dueOf(trip.state, ask.now)),
    keep,
    ended: trip.state.kind === 'done' || trip.state.kind === 'stopped',
  }));
  const saved = await tx<{ id: string; held: boolean }[]>`
    update trip t set person_id = r.person_id, state = r.state, state_detail = r.state_detail, at = r.at, part = r.part, vars = r.vars, seq = r.seq, tries = r.tries, deal_id = r.deal_id,
      due_at = case when not r.ended then r.due_at end,
      ended_at = case when r.ended then ${ask.now}::timestamptz end,
      lease_by = case when r.keep and t.hold is null then t.lease_by end,
      lease_until = case when r.keep and t.hold is null then clock_timestamp() + make_interval(secs => ${ask.leaseMs / 1000}) end
    from jsonb_to_recordset(${tx.json(rows)}) as r(id uuid, fence bigint, person_id uuid, state text, state_detail jsonb, at int, part int, vars jsonb, seq int, tries int, deal_id uuid, due_at timestamptz, keep boolean, ended boolean)
    where t.id = r.id and t.fence = r.fence and t.lease_by = ${ask.holder} returning t.id, t.lease_by is not null as held`;
  return new Map(saved.map((row) => [row.id, row.held]));
}

/** Renews the leases of trips whose answers are waited for. Returns those that are still the holder's. */
export async function renewTrips(
  tx: Tx,
  held: readonly { readonly id: string; readonly fence: number }[],
  ask: { readonly holder: string; readonly leaseMs: number },
): Promise<Set<string>> {
  const rows = await tx<{ id: string }[]>`
    update trip t set lease_until = clock_timestamp() + make_interval(secs => ${ask.leaseMs / 1000})
    from jsonb_to_recordset(${tx.json(held)}) as r(id uuid, fence bigint)
    where t.id = r.id and t.fence = r.fence and t.lease_by = ${ask.holder} returning t.id`;
  return new Set(rows.map((row) => row.id));
}

/**
 * Makes trips due that have events before them, and gives their leases back, so that the event comes before the next line.
 * Returns which they are. Comes after `saveTrips` in its transaction, as a statement of its own: an event that was posted
 * while `saveTrips` waited for the row is not in what that statement sees, but has to be in this one's.
 */
export async function dueWhereCalled(tx: Tx, tripIds: readonly string[], now: Instant): Promise<string[]> {
  if (tripIds.length === 0) return [];
  const rows = await tx<{ id: string }[]>`
    update trip t set due_at = ${now}, lease_by = null, lease_until = null
    from (select distinct trip_id from trip_event where trip_id = any(${[...tripIds]}::uuid[])) e
    where t.id = e.trip_id and t.ended_at is null returning t.id`;
  return rows.map((row) => row.id);
}

export async function insertJournal(tx: Tx, entries: readonly { readonly tripId: string; readonly entry: JournalEntry }[]): Promise<void> {
  if (entries.length === 0) return;
  const rows = entries.map(({ tripId, entry }) => ({
    trip_id: tripId,
    seq: entry.seq,
    mark: entry.mark,
    verb: entry.verb,
    outcome: entry.outcome,
    says: entry.says,
    detail: entry.detail,
    cost_micro: entry.costMicro,
    took_ms: Math.round(entry.tookMs),
    at: new Date(entry.at).toISOString(),
  }));
  await tx`
    with made as (
      insert into journal (trip_id, seq, mark, verb, outcome, says, detail, cost_micro, took_ms, at)
      select trip_id, seq, mark, verb, outcome, says, detail, cost_micro, took_ms, at from jsonb_to_recordset(${tx.json(rows)})
        as r(trip_id uuid, seq int, mark text, verb text, outcome text, says text, detail jsonb, cost_micro bigint, took_ms int, at timestamptz)
      returning trip_id, seq, mark, outcome, detail->>'arm' as arm, cost_micro, took_ms)
    ${countMade(tx)}`;
}

export async function addJournalDetail(tx: Tx, tripId: string, seq: number, says: string, detail: JsonObject): Promise<void> {
  await tx`update journal set says = ${says}, detail = detail || ${tx.json(detail)} where trip_id = ${tripId} and seq = ${seq}`;
}

export type StoredEntry = JournalEntry & { readonly tripId: string };
export async function journalOf(tx: Tx, tripIds: readonly string[]): Promise<StoredEntry[]> {
  if (tripIds.length === 0) return [];
  return [
    ...(await tx<
      StoredEntry[]
    >`select trip_id, seq, mark, verb, outcome, says, detail, cost_micro, took_ms, at from journal where trip_id = any(${[...tripIds]}) order by trip_id, seq`),
  ];
}

export interface RecentTrip {
  readonly trip: Trip;
  readonly personName: string;
  readonly companyName: string | null;
  readonly companyId: string | null;
}
/** The last trips of a flow that have got anywhere, newest first. */
export async function recentTrips(tx: Tx, flowId: string, limit: number): Promise<RecentTrip[]> {
  const rows = await tx<(TripRow & { personName: string; companyName: string | null; companyId: string | null })[]>`
    select t.id, t.flow_id, t.version_id, t.trial_id, t.person_id, t.state, t.state_detail, t.at, t.part, t.vars, t.seq, t.tries, t.deal_id, t.fence, t.created_at, p.name as person_name, p.company_id, c.name as company_name
    from trip t join person p on p.id = t.person_id left join company c on c.id = p.company_id
    where t.flow_id = ${flowId} and t.trial_id is null and t.seq > 0 order by t.created_at desc, t.id limit ${limit}`;
  return rows.map((row) => ({
    trip: toHeld(row).trip,
    personName: row.personName,
    companyName: row.companyName,
    companyId: row.companyId,
  }));
}

export async function nextTripDue(tx: Tx, after: Instant): Promise<Instant | null> {
  const [row] = await tx<{ at: Instant | null }[]>`select min(due_at) as at from trip where due_at > ${after} and hold is null`;
  return row?.at ?? null;
}

export async function moveTrips(tx: Tx, fromPerson: string, intoPerson: string): Promise<string[]> {
  const rows = await tx<{ id: string }[]>`update trip set person_id = ${intoPerson} where person_id = ${fromPerson} returning id`;
  return rows.map((row) => row.id);
}
