import type { Instant, Json, JsonObject } from '../../../core/base';
import type { Tx } from '../../db';

/** Something told or handed over that the worker holds: a webhook call or a mail to a colleague. Safe to repeat: its id stays. */
export interface HeldCall {
  readonly id: string;
  readonly kind: 'hand over' | 'tell';
  readonly tripId: string | null;
  readonly payload: JsonObject;
  readonly attempts: number;
  readonly fence: number;
}

export async function insertCall(
  tx: Tx,
  call: {
    readonly id: string;
    readonly kind: HeldCall['kind'];
    readonly tripId: string | null;
    readonly personId: string | null;
    readonly payload: JsonObject;
  },
  now: Instant,
): Promise<void> {
  await tx`insert into effect (id, kind, key, state, trip_id, person_id, payload, due_at, created_at)
    values (${call.id}, ${call.kind}, ${`${call.kind} ${call.id}`}, 'planned', ${call.tripId}, ${call.personId}, ${tx.json(call.payload)}, ${now}, ${now}) on conflict (key) do nothing`;
}

/** Due calls, and those whose holder is gone: a call may be made again, its id tells the receiver that it is the same. */
export async function claimCalls(
  tx: Tx,
  ask: { readonly holder: string; readonly now: Instant; readonly leaseMs: number; readonly limit: number },
): Promise<HeldCall[]> {
  return [
    ...(await tx<HeldCall[]>`
    with due as (select id from effect where kind in ('hand over', 'tell') and state in ('planned', 'started') and due_at <= ${ask.now} and (lease_until is null or lease_until < clock_timestamp())
      and not exists (select 1 from trip t join flow f on f.id = t.flow_id where t.id = effect.trip_id and f.paused_at is not null) order by due_at limit ${ask.limit} for update skip locked)
    update effect e set state = 'started', attempts = e.attempts + 1, started_at = ${ask.now}, lease_by = ${ask.holder}, lease_until = clock_timestamp() + make_interval(secs => ${ask.leaseMs / 1000}), fence = e.fence + 1 from due where e.id = due.id
    returning e.id, e.kind, e.trip_id, e.payload, e.attempts, e.fence`),
  ];
}

/** False when the lease went to another holder. */
export async function settleCall(
  tx: Tx,
  held: HeldCall,
  to:
    | { readonly state: 'done' | 'failed'; readonly says: string; readonly answer: Json }
    | { readonly state: 'planned'; readonly says: string; readonly dueAt: Instant },
  now: Instant,
): Promise<boolean> {
  const again = to.state === 'planned';
  return (
    (
      await tx`update effect set state = ${to.state}, says = ${to.says}, answer = ${again ? null : tx.json(to.answer)}, due_at = ${again ? to.dueAt : tx`due_at`}, ended_at = ${again ? null : now}, lease_by = null, lease_until = null
      where id = ${held.id} and fence = ${held.fence} and state = 'started' returning id`
    ).length > 0
  );
}

/** Nothing was tried: the call is due again then, and this was no attempt. */
export async function putOff(tx: Tx, held: HeldCall, until: Instant): Promise<void> {
  await tx`update effect set state = 'planned', attempts = attempts - 1, due_at = ${until}, started_at = null, lease_by = null, lease_until = null
    where id = ${held.id} and fence = ${held.fence} and state = 'started'`;
}

/** The trip that waits for an answer to this hand-over. */
export async function tripOfCall(tx: Tx, effectId: string): Promise<string | undefined> {
  const [row] = await tx<{ tripId: string | null }[]>`select trip_id from effect where id = ${effectId} and kind = 'hand over'`;
  return row?.tripId ?? undefined;
}

export interface WebhookRow {
  readonly name: string;
  readonly url: string;
  /** sealed */
  readonly secret: string;
}
export async function putWebhook(tx: Tx, hook: WebhookRow, now: Instant): Promise<void> {
  await tx`insert into webhook (name, url, secret, created_at) values (${hook.name}, ${hook.url}, ${hook.secret}, ${now}) on conflict (name) do update set url = excluded.url, secret = excluded.secret`;
}
export async function listWebhooks(tx: Tx): Promise<WebhookRow[]> {
  return [...(await tx<WebhookRow[]>`select name, url, secret from webhook order by name`)];
}

export async function nextCallDue(tx: Tx, after: Instant): Promise<Instant | null> {
  const [row] = await tx<
    { at: Instant | null }[]
  >`select min(due_at) as at from effect where kind in ('hand over', 'tell') and state = 'planned' and due_at > ${after}`;
  return row?.at ?? null;
}

export interface NoticeRow {
  readonly id: string;
  readonly text: string;
  readonly personId: string | null;
  readonly personName: string | null;
  readonly flowName: string | null;
  readonly tripId: string | null;
  readonly at: Instant;
}
/** Whom a role, a team or a person's name stands for. */
export async function usersNamed(tx: Tx, who: string): Promise<{ readonly id: string; readonly name: string; readonly email: string }[]> {
  return [
    ...(await tx<
      { id: string; name: string; email: string }[]
    >`select distinct u.id, u.name, u.email from app_user u left join team_member m on m.user_id = u.id where u.ended_at is null and (u.role = ${who} or u.name = ${who} or m.team = ${who}) order by u.name`),
  ];
}
/** Whose the deal, the application or the person of a trip is, in that order; nobody: the owners of the workspace. */
export async function ownersOf(tx: Tx, tripId: string): Promise<{ readonly id: string; readonly name: string; readonly email: string }[]> {
  const [owner] = await tx<{ id: string; name: string; email: string }[]>`select u.id, u.name, u.email from trip t
    left join deal d on d.id = t.deal_id
    left join lateral (select owner_id from application a where a.person_id = t.person_id order by a.created_at desc limit 1) a on true
    left join person p on p.id = t.person_id
    join app_user u on u.id = coalesce(d.owner_id, a.owner_id, p.owner_id) and u.ended_at is null
    where t.id = ${tripId}`;
  return owner ? [owner] : usersNamed(tx, 'owner');
}
export async function insertNotices(
  tx: Tx,
  notices: readonly {
    readonly id: string;
    readonly userId: string;
    readonly text: string;
    /** null: no flow tells it */
    readonly tripId: string | null;
    readonly personId: string;
  }[],
  now: Instant,
): Promise<void> {
  const rows = notices.map((notice) => ({
    id: notice.id,
    user_id: notice.userId,
    text: notice.text,
    trip_id: notice.tripId,
    person_id: notice.personId,
  }));
  await tx`insert into notice (id, user_id, text, trip_id, person_id, at) select id, user_id, text, trip_id, person_id, ${now} from jsonb_to_recordset(${tx.json(rows)}) as r(id uuid, user_id uuid, text text, trip_id uuid, person_id uuid) on conflict (id) do nothing`;
}
export async function openNotices(tx: Tx, userId: string): Promise<NoticeRow[]> {
  return [
    ...(await tx<
      NoticeRow[]
    >`select n.id, n.text, n.person_id, p.name as person_name, f.name as flow_name, n.trip_id, n.at from notice n left join person p on p.id = n.person_id left join trip t on t.id = n.trip_id left join flow f on f.id = t.flow_id where n.user_id = ${userId} and n.read_at is null order by n.at desc limit 200`),
  ];
}
export async function readNotice(tx: Tx, id: string, userId: string, now: Instant): Promise<boolean> {
  return (
    (await tx`update notice set read_at = ${now} where id = ${id} and user_id = ${userId} and read_at is null returning id`).length > 0
  );
}
