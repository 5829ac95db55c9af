import type { Instant, Json } from '../../../core/base';
import type { Tx } from '../../db';

/** A send the worker holds. */
export interface HeldSend {
  readonly id: string;
  readonly messageId: string;
  readonly mailbox: string;
  readonly tripId: string | null;
  readonly personId: string;
  readonly dueAt: Instant;
  readonly attempts: number;
  readonly fence: number;
}

export async function insertSend(
  tx: Tx,
  effect: {
    readonly id: string;
    readonly key: string;
    /** null: a person wrote it */
    readonly tripId: string | null;
    readonly personId: string;
    readonly messageId: string;
    readonly mailbox: string;
    readonly dueAt: Instant;
  },
  now: Instant,
): Promise<void> {
  await tx`insert into effect (id, kind, key, state, trip_id, person_id, message_id, mailbox, due_at, created_at)
    values (${effect.id}, 'send', ${effect.key}, 'planned', ${effect.tripId}, ${effect.personId}, ${effect.messageId}, ${effect.mailbox}, ${effect.dueAt}, ${now}) on conflict (key) do nothing`;
}

/** A touch that a person does, in the ledger beside the mails of its conversation. */
export async function insertTask(
  tx: Tx,
  effect: {
    readonly id: string;
    readonly key: string;
    readonly tripId: string;
    readonly personId: string;
    readonly messageId: string;
    readonly dueAt: Instant;
  },
  now: Instant,
): Promise<void> {
  await tx`insert into effect (id, kind, key, state, trip_id, person_id, message_id, due_at, created_at)
    values (${effect.id}, 'task', ${effect.key}, 'planned', ${effect.tripId}, ${effect.personId}, ${effect.messageId}, ${effect.dueAt}, ${now}) on conflict (key) do nothing`;
}

/** Slots of a mailbox from an instant on, with their local day: what is taken, planned or used. */
export async function takenSlots(
  tx: Tx,
  box: { readonly name: string; readonly zone: string },
  from: Instant,
): Promise<{ readonly at: Instant; readonly day: string }[]> {
  return [
    ...(await tx<{ at: Instant; day: string }[]>`
    select due_at as at, to_char(due_at at time zone ${box.zone}, 'YYYY-MM-DD') as day from effect
    where kind = 'send' and mailbox = ${box.name} and due_at >= ${from} and state in ('planned', 'started', 'done', 'in doubt')`),
  ];
}

/** Whether a due send may go: neither its flow nor its mailbox rests, no earlier touch of its conversation is still to leave, nobody holds it. */
const mayGo = (tx: Tx): ReturnType<Tx> => tx`
  not exists (select 1 from trip t join flow f on f.id = t.flow_id where t.id = effect.trip_id and f.paused_at is not null)
  and not exists (select 1 from mailbox x where x.name = effect.mailbox and x.rests_since is not null)
  and not exists (select 1 from message m join message b on b.thread_id = m.thread_id and b.trip_id = m.trip_id and b.touch < m.touch join effect o on o.message_id = b.id
    where m.id = effect.message_id and o.kind = 'send' and o.state in ('planned', 'started'))
  and (effect.lease_until is null or effect.lease_until < clock_timestamp())`;

/** Mailboxes with sends that should have left before then, and could. */
export async function lateMailboxes(tx: Tx, before: Instant): Promise<string[]> {
  const rows = await tx<
    { mailbox: string }[]
  >`select distinct mailbox from effect where kind = 'send' and state = 'planned' and due_at < ${before} and ${mayGo(tx)}`;
  return rows.map((row) => row.mailbox);
}
export interface LateSend {
  readonly id: string;
  readonly mailbox: string;
  readonly personId: string;
  readonly threadId: string | null;
  readonly dueAt: Instant;
}
/** The longest overdue of them, locked until the transaction ends. */
export async function lateSends(tx: Tx, mailbox: string, before: Instant, limit: number): Promise<LateSend[]> {
  return [
    ...(await tx<LateSend[]>`
    select effect.id, effect.mailbox, effect.person_id, own.thread_id, effect.due_at from effect join message own on own.id = effect.message_id
    where effect.kind = 'send' and effect.mailbox = ${mailbox} and effect.state = 'planned' and effect.due_at < ${before} and ${mayGo(tx)}
    order by effect.due_at limit ${limit} for update of effect skip locked`),
  ];
}

/** Takes sends that became due at or after `since` for one holder. */
export async function claimSends(
  tx: Tx,
  ask: { readonly holder: string; readonly now: Instant; readonly since: Instant; readonly leaseMs: number; readonly limit: number },
): Promise<HeldSend[]> {
  return [
    ...(await tx<HeldSend[]>`
    with due as (select id from effect where kind = 'send' and state = 'planned' and due_at between ${ask.since} and ${ask.now} and ${mayGo(tx)} order by due_at limit ${ask.limit} for update skip locked)
    update effect e set lease_by = ${ask.holder}, lease_until = clock_timestamp() + make_interval(secs => ${ask.leaseMs / 1000}), fence = e.fence + 1 from due where e.id = due.id
    returning e.id, e.message_id, e.mailbox, e.trip_id, e.person_id, e.due_at, e.attempts, e.fence`),
  ];
}

/** planned → started: from here on a crash leaves the send in doubt. False when the lease is lost. */
export async function startSend(tx: Tx, held: HeldSend, holder: string, leaseMs: number, now: Instant): Promise<boolean> {
  return (
    (
      await tx`update effect set state = 'started', attempts = attempts + 1, started_at = ${now}, lease_until = clock_timestamp() + make_interval(secs => ${leaseMs / 1000})
    where id = ${held.id} and fence = ${held.fence} and lease_by = ${holder} and state = 'planned' returning id`
    ).length > 0
  );
}

/** Ends a held send in one of the closed states, or gives it back as planned at `dueAt`. False when the lease is lost. */
export async function settleSend(
  tx: Tx,
  held: HeldSend,
  to: { readonly state: 'done' | 'failed' | 'in doubt' | 'dropped' | 'planned'; readonly says: string; readonly dueAt?: Instant },
  now: Instant,
): Promise<boolean> {
  return (
    (
      await tx`update effect set state = ${to.state}, says = ${to.says}, due_at = coalesce(${to.dueAt ?? null}::timestamptz, due_at), lease_by = null, lease_until = null, ended_at = ${to.state === 'planned' ? null : now}
    where id = ${held.id} and fence = ${held.fence} and state in ('planned', 'started') returning id`
    ).length > 0
  );
}

/** Started sends whose holder is gone: nobody knows whether they left. Taken over for asking the relay. */
export async function claimDoubts(
  tx: Tx,
  ask: { readonly holder: string; readonly leaseMs: number; readonly limit: number },
): Promise<(HeldSend & { readonly rfcId: string })[]> {
  return [
    ...(await tx<(HeldSend & { rfcId: string })[]>`
    with gone as (select id from effect where kind = 'send' and state = 'started' and lease_until < clock_timestamp() order by lease_until limit ${ask.limit} for update skip locked)
    update effect e set lease_by = ${ask.holder}, lease_until = clock_timestamp() + make_interval(secs => ${ask.leaseMs / 1000}), fence = e.fence + 1 from gone, message m where e.id = gone.id and m.id = e.message_id
    returning e.id, e.message_id, e.mailbox, e.trip_id, e.person_id, e.due_at, e.attempts, e.fence, m.rfc_id`),
  ];
}

/** Drops what has not left of a thread; returns the messages. */
export async function dropPlanned(tx: Tx, threadId: string, why: string, now: Instant): Promise<string[]> {
  const rows = await tx<
    { messageId: string }[]
  >`update effect e set state = 'dropped', says = ${why}, ended_at = ${now}, lease_by = null, lease_until = null, fence = e.fence + 1 from message m where m.id = e.message_id and m.thread_id = ${threadId} and e.state = 'planned' returning e.message_id`;
  if (rows.length > 0) await tx`update message set state = 'dropped' where id = any(${rows.map((row) => row.messageId)})`;
  return rows.map((row) => row.messageId);
}

/** Drops the mail that has not left of a flow’s trips that have come to their end. */
export async function dropOfEnded(tx: Tx, flowId: string, why: string, now: Instant): Promise<void> {
  const rows = await tx<
    { messageId: string | null }[]
  >`update effect e set state = 'dropped', says = ${why}, ended_at = ${now}, lease_by = null, lease_until = null, fence = e.fence + 1 from trip t where t.id = e.trip_id and t.flow_id = ${flowId} and t.ended_at is not null and e.kind in ('send', 'task') and e.state = 'planned' returning e.message_id`;
  const messages = rows.flatMap((row) => row.messageId ?? []);
  if (messages.length > 0) await tx`update message set state = 'dropped' where id = any(${messages})`;
}

/** Drops what has not left of a trip, whatever its kind. */
export async function dropOfTrip(tx: Tx, tripId: string, why: string, now: Instant): Promise<void> {
  const rows = await tx<
    { messageId: string | null }[]
  >`update effect set state = 'dropped', says = ${why}, ended_at = ${now}, lease_by = null, lease_until = null, fence = fence + 1 where trip_id = ${tripId} and state = 'planned' returning message_id`;
  const messages = rows.flatMap((row) => row.messageId ?? []);
  if (messages.length > 0) await tx`update message set state = 'dropped' where id = any(${messages})`;
}

export async function plannedOfThread(
  tx: Tx,
  threadId: string,
): Promise<{ readonly id: string; readonly dueAt: Instant; readonly mailbox: string | null; readonly personId: string }[]> {
  return [
    ...(await tx<
      { id: string; dueAt: Instant; mailbox: string | null; personId: string }[]
    >`select e.id, e.due_at, e.mailbox, e.person_id from effect e join message m on m.id = e.message_id where m.thread_id = ${threadId} and e.state = 'planned' order by e.due_at`),
  ];
}

/** Gives a send that has not begun another time. */
export async function moveSend(tx: Tx, id: string, dueAt: Instant): Promise<void> {
  // A task that lies on the desk is put away until then.
  await tx`update effect set due_at = ${dueAt}, started_at = case when kind = 'task' then null else started_at end where id = ${id} and state = 'planned'`;
}

/** The person's last send of another thread at or after an instant: what the frequency limit looks at. */
export async function lastOtherSend(tx: Tx, personId: string, threadId: string, since: Instant): Promise<Instant | null> {
  const [row] = await tx<
    { at: Instant | null }[]
  >`select max(e.ended_at) as at from effect e join message m on m.id = e.message_id where e.kind = 'send' and e.state = 'done' and e.person_id = ${personId} and e.ended_at >= ${since} and m.thread_id is distinct from ${threadId}`;
  return row?.at ?? null;
}

export interface DoubtRow {
  readonly id: string;
  readonly messageId: string;
  readonly mailbox: string;
  readonly personId: string;
  readonly personName: string;
  readonly subject: string;
  readonly says: string | null;
  readonly startedAt: Instant | null;
}
export async function listDoubts(tx: Tx): Promise<DoubtRow[]> {
  return [
    ...(await tx<
      DoubtRow[]
    >`select e.id, e.message_id, e.mailbox, e.person_id, p.name as person_name, m.subject, e.says, e.started_at from effect e join message m on m.id = e.message_id join person p on p.id = e.person_id where e.state = 'in doubt' order by e.started_at limit 200`),
  ];
}

/** A person's word about an in-doubt send: it did leave, or it did not and goes out again. */
export async function decideDoubt(
  tx: Tx,
  id: string,
  left: boolean,
  by: string,
  dueAt: Instant,
  now: Instant,
): Promise<{ readonly messageId: string; readonly tripId: string | null } | undefined> {
  const [row] = await tx<
    { messageId: string; tripId: string | null }[]
  >`update effect set state = ${left ? 'done' : 'planned'}, says = ${left ? `it did leave, says ${by}` : `it did not leave, says ${by}`}, due_at = ${left ? tx`due_at` : tx`${dueAt}::timestamptz`}, ended_at = ${left ? now : null}
    where id = ${id} and state = 'in doubt' returning message_id, trip_id`;
  return row;
}

/** A paid question to a provider: planned once per key. The stored answer is used when the same question comes again. */
export async function beginLookup(
  tx: Tx,
  effect: { readonly id: string; readonly key: string; readonly tripId: string | null; readonly personId: string },
  now: Instant,
): Promise<{
  readonly state: string;
  readonly answer: Json;
  readonly costMicro: number;
  readonly reserved: Json;
  readonly dueAt: Instant | null;
  /** how far the question is, at a service that answers later */
  readonly asking: Json;
}> {
  await tx`insert into effect (id, kind, key, state, trip_id, person_id, created_at, started_at) values (${effect.id}, 'look up', ${effect.key}, 'started', ${effect.tripId}, ${effect.personId}, ${now}, ${now}) on conflict (key) do nothing`;
  const [row] = await tx<
    { state: string; answer: Json; costMicro: number; reserved: Json; dueAt: Instant | null; asking: Json }[]
  >`select state, answer, cost_micro, reserved, due_at, asking from effect where key = ${effect.key}`;
  return row ?? { state: 'started', answer: null, costMicro: 0, reserved: null, dueAt: null, asking: null };
}

/** When it is a paid question's turn at its provider. */
export async function setCallTime(tx: Tx, key: string, at: Instant): Promise<void> {
  await tx`update effect set due_at = ${at} where key = ${key}`;
}

/** How far a question is at a service that answers later, and when to come again; null: it begins anew. */
export async function setAsking(tx: Tx, key: string, asking: Json, at: Instant | null): Promise<void> {
  await tx`update effect set asking = ${asking === null ? null : tx.json(asking)}, due_at = coalesce(${at}, due_at) where key = ${key}`;
}

/** What is set aside for a paid question; null when it is settled. */
export async function setReserved(tx: Tx, key: string, reserved: Json): Promise<void> {
  await tx`update effect set reserved = ${reserved === null ? null : tx.json(reserved)} where key = ${key}`;
}

export async function endLookup(
  tx: Tx,
  key: string,
  { answer, costMicro, costTold }: { readonly answer: Json; readonly costMicro: number; readonly costTold: boolean },
  now: Instant,
): Promise<void> {
  await tx`update effect set state = 'done', asking = null, answer = ${tx.json(answer)}, cost_micro = ${costMicro}, cost_told = ${costTold}, ended_at = ${now} where key = ${key} and state <> 'done'`;
}

/** What a question cost that nobody has been told yet; from now on it is told. */
export async function tellLookupCost(tx: Tx, key: string): Promise<number> {
  const [row] = await tx<
    { costMicro: number }[]
  >`update effect set cost_told = true where key = ${key} and not cost_told returning cost_micro::float8 as cost_micro`;
  return row?.costMicro ?? 0;
}

export interface ProviderFigures {
  readonly provider: string;
  readonly asked: number;
  readonly usable: number;
  readonly wrong: number;
  readonly nothing: number;
  readonly costMicro: number;
}
export async function providerFigures(tx: Tx): Promise<ProviderFigures[]> {
  return [
    ...(await tx<
      ProviderFigures[]
    >`select a->>'provider' as provider, count(*)::int as asked, count(*) filter (where a->>'outcome' = 'usable')::int as usable, count(*) filter (where a->>'outcome' = 'not usable')::int as wrong,
      count(*) filter (where a->>'outcome' in ('nothing', 'failed'))::int as nothing, sum((a->>'costMicro')::bigint)::bigint as cost_micro
    from journal j join trip t on t.id = j.trip_id cross join lateral jsonb_array_elements(j.detail->'asked') a where j.verb = 'look up' and t.trial_id is null group by 1 order by 2 desc`),
  ];
}

export interface SendDay {
  readonly hour: Instant;
  readonly sent: number;
  readonly planned: number;
  readonly held: number;
}
export async function sendsByHour(tx: Tx, from: Instant, to: Instant): Promise<SendDay[]> {
  return [
    ...(await tx<
      SendDay[]
    >`select date_trunc('hour', due_at) as hour, count(*) filter (where state = 'done')::int as sent, count(*) filter (where state in ('planned', 'started'))::int as planned, count(*) filter (where state in ('in doubt', 'failed'))::int as held
    from effect where kind = 'send' and due_at >= ${from} and due_at < ${to} group by 1 order by 1`),
  ];
}

/** When the next send is due after an instant; what is overdue then says nothing of what comes. */
export async function nextSendDue(tx: Tx, after: Instant): Promise<Instant | null> {
  const [row] = await tx<
    { at: Instant | null }[]
  >`select min(due_at) as at from effect where kind = 'send' and state = 'planned' and due_at > ${after}`;
  return row?.at ?? null;
}

export async function openSends(tx: Tx, threadId: string): Promise<number> {
  const [row] = await tx<
    { n: number }[]
  >`select count(*)::int as n from effect e join message m on m.id = e.message_id where m.thread_id = ${threadId} and e.state in ('planned', 'started', 'in doubt')`;
  return row?.n ?? 0;
}

/** A try that never got as far as the mail does not count against it. */
export async function forgetAttempt(tx: Tx, id: string): Promise<void> {
  await tx`update effect set attempts = greatest(0, attempts - 1) where id = ${id}`;
}
