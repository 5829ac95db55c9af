import type { Instant, JsonObject } from '../../../core/base';
import { consequenceOf, REPLY_KINDS, type ReplyReading } from '../../../core/reply';
import type { Channel, Composed, MessageCheck, Tried, UsedFact } from '../../../core/writer';
import type { Tx } from '../../db';

export async function insertThread(
  tx: Tx,
  thread: {
    readonly id: string;
    readonly personId: string;
    readonly tripId: string | null;
    readonly mailbox: string;
    readonly subject: string;
  },
  now: Instant,
): Promise<void> {
  await tx`insert into thread (id, person_id, trip_id, mailbox, subject, created_at) values (${thread.id}, ${thread.personId}, ${thread.tripId}, ${thread.mailbox}, ${thread.subject}, ${now}) on conflict (id) do nothing`;
}

export interface ThreadRow {
  readonly id: string;
  readonly personId: string;
  readonly personName: string;
  readonly companyName: string | null;
  readonly tripId: string | null;
  readonly mailbox: string;
  readonly subject: string;
  readonly state: 'open' | 'answered' | 'paused' | 'ended';
  readonly pausedUntil: Instant | null;
  readonly createdAt: Instant;
  readonly lastAt: Instant | null;
  readonly count: number;
  readonly lastKind: string | null;
  /** who has it; null: nobody in particular */
  readonly holderId: string | null;
  readonly holderName: string | null;
}
const threadRows = (tx: Tx, where: ReturnType<Tx>) => tx<ThreadRow[]>`
  select h.id, h.person_id, p.name as person_name, c.name as company_name, h.trip_id, h.mailbox, h.subject, h.state, h.paused_until, h.created_at, m.last_at, coalesce(m.count, 0)::int as count, m.last_kind, h.holder_id, u.name as holder_name
  from thread h join person p on p.id = h.person_id left join app_user u on u.id = h.holder_id left join company c on c.id = p.company_id
    left join lateral (select max(at) filter (where state in ('sent', 'received')) as last_at, count(*) filter (where state in ('sent', 'received')) as count, (array_agg(reading->>'kind' order by at desc) filter (where direction = 'in'))[1] as last_kind from message x where x.thread_id = h.id) m on true
  ${where}`;
export async function findThread(tx: Tx, id: string): Promise<ThreadRow | undefined> {
  const [row] = await threadRows(tx, tx`where h.id = ${id}`);
  return row;
}
export async function setHolder(tx: Tx, id: string, userId: string | null): Promise<void> {
  await tx`update thread set holder_id = ${userId} where id = ${id}`;
}
/** Who has which of these conversations: names by conversation. */
export async function holdersOf(tx: Tx, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const rows = await tx<
    { id: string; name: string }[]
  >`select h.id, u.name from thread h join app_user u on u.id = h.holder_id where h.id = any(${[...ids]}::uuid[])`;
  return new Map(rows.map(({ id, name }) => [id, name]));
}
/** Two sends of one conversation that end at the same moment wait for each other here. */
export async function lockThread(tx: Tx, id: string): Promise<void> {
  await tx`select 1 from thread where id = ${id} for update`;
}
export async function listThreads(tx: Tx, limit: number): Promise<ThreadRow[]> {
  return [...(await threadRows(tx, tx`order by coalesce(m.last_at, h.created_at) desc, h.id limit ${limit}`))];
}

/** The last conversation with a person from a mailbox in which something was sent: its subject and every id it refers to. */
export async function lastConversation(
  tx: Tx,
  personId: string,
  mailbox: string,
): Promise<{ readonly threadId: string; readonly subject: string; readonly refs: readonly string[] } | undefined> {
  const [row] = await tx<{ threadId: string; subject: string; refs: string[] }[]>`
    select h.id as thread_id, h.subject, array_agg(m.rfc_id order by m.at) as refs from thread h join message m on m.thread_id = h.id
    where h.person_id = ${personId} and h.mailbox = ${mailbox} and m.state in ('sent', 'received') and m.rfc_id is not null
    group by h.id order by max(m.at) desc limit 1`;
  return row;
}

export interface ReplyRow {
  readonly kind: string;
  readonly text: string;
  readonly quote: string | null;
}
/** Kinds that a machine sends: nobody has answered. */
const BY_MACHINES = REPLY_KINDS.filter((kind) => !consequenceOf(kind).wantsPerson && !consequenceOf(kind).bars);
/** The first answer to a message; what a machine sent is none. */
export async function answerTo(tx: Tx, messageId: string): Promise<ReplyRow | undefined> {
  const [row] = await tx<ReplyRow[]>`
    select r.reading->>'kind' as kind, r.body as text, r.reading->>'quote' as quote from message m join message r on r.thread_id = m.thread_id and r.direction = 'in' and r.at >= m.at
    where m.id = ${messageId} and m.state = 'sent' and not (coalesce(r.reading->>'kind', '') = any(${BY_MACHINES})) order by r.at limit 1`;
  return row;
}

export async function setThread(tx: Tx, id: string, state: ThreadRow['state'], pausedUntil: Instant | null): Promise<void> {
  await tx`update thread set state = ${state}, paused_until = ${pausedUntil} where id = ${id}`;
}

export interface MessageRow {
  readonly id: string;
  readonly threadId: string | null;
  readonly tripId: string | null;
  readonly personId: string | null;
  readonly personName: string | null;
  readonly direction: 'out' | 'in';
  readonly template: string | null;
  readonly touch: number | null;
  readonly channel: Channel;
  /** FEEL, looked at when it is due; null: always */
  readonly onlyWhen: string | null;
  readonly subject: string;
  readonly body: string;
  readonly personalLine: string | null;
  /** null: nobody knows; of what came in, what was written by hand, and what is from before this was kept */
  readonly language: string | null;
  /** why it is not in the reader's language */
  readonly fallback: string | null;
  readonly facts: readonly UsedFact[];
  readonly checks: readonly MessageCheck[];
  readonly state: 'written' | 'approved' | 'planned' | 'sent' | 'failed' | 'in doubt' | 'dropped' | 'refused' | 'received';
  readonly rfcId: string | null;
  readonly inReplyTo: string | null;
  readonly refs: readonly string[];
  readonly fromAddress: string | null;
  readonly toAddress: string | null;
  readonly reading: ReplyReading | null;
  readonly approvedByName: string | null;
  readonly handledAt: Instant | null;
  readonly at: Instant;
  readonly dueAt: Instant | null;
  readonly says: string | null;
}

const messageRows = (tx: Tx, where: ReturnType<Tx>) => tx<MessageRow[]>`
  select m.id, m.thread_id, m.trip_id, m.person_id, p.name as person_name, m.direction, m.template, m.touch, m.channel, m.only_when, m.subject, m.body, m.personal_line, m.language, m.fallback, m.facts, m.checks, m.state, m.rfc_id, m.in_reply_to, m.refs, m.from_address, m.to_address, m.reading,
    u.name as approved_by_name, m.handled_at, m.at, e.due_at, e.says
  from message m left join person p on p.id = m.person_id left join app_user u on u.id = m.approved_by left join effect e on e.message_id = m.id and e.kind in ('send', 'task') ${where}`;
export async function findMessage(tx: Tx, id: string): Promise<MessageRow | undefined> {
  const [row] = await messageRows(tx, tx`where m.id = ${id}`);
  return row;
}
export async function messagesByIds(tx: Tx, ids: readonly string[]): Promise<MessageRow[]> {
  return [...(await messageRows(tx, tx`where m.id = any(${[...ids]})`))];
}
export const messagesOfThread = async (tx: Tx, threadId: string): Promise<readonly MessageRow[]> =>
  (await messagesOfThreads(tx, [threadId])).get(threadId) ?? [];
/** The messages of several conversations, each in its order. */
export async function messagesOfThreads(tx: Tx, ids: readonly string[]): Promise<ReadonlyMap<string, readonly MessageRow[]>> {
  const rows = await messageRows(
    tx,
    tx`where m.thread_id = any(${[...ids]}::uuid[]) order by coalesce(case when m.state in ('sent','received') then m.at end, e.due_at, m.at), m.touch`,
  );
  const out = new Map<string, MessageRow[]>();
  for (const row of rows) if (row.threadId !== null) out.set(row.threadId, [...(out.get(row.threadId) ?? []), row]);
  return out;
}
export async function messagesOfPeople(tx: Tx, personIds: readonly string[]): Promise<MessageRow[]> {
  return [...(await messageRows(tx, tx`where m.person_id = any(${[...personIds]}) order by m.at desc limit 200`))];
}
export async function pageMessages(
  tx: Tx,
  ask: {
    readonly state?: string | undefined;
    readonly before: { readonly at: Instant; readonly id: string } | null;
    readonly limit: number;
  },
): Promise<MessageRow[]> {
  return [
    ...(await messageRows(
      tx,
      tx`where true ${ask.state === undefined ? tx`` : tx`and m.state = ${ask.state}`} ${ask.before ? tx`and (m.at, m.id) < (${ask.before.at}::timestamptz, ${ask.before.id}::uuid)` : tx``} order by m.at desc, m.id desc limit ${ask.limit}`,
    )),
  ];
}
export async function unhandledReplies(tx: Tx): Promise<MessageRow[]> {
  return [...(await messageRows(tx, tx`where m.state = 'received' and m.handled_at is null order by m.at limit 200`))];
}
/** How many answers nobody has taken care of, by who has the conversation; null: nobody in particular. */
export async function waitingByHolder(tx: Tx): Promise<{ readonly holder: string | null; readonly count: number }[]> {
  return [
    ...(await tx<{ holder: string | null; count: number }[]>`
      select u.name as holder, count(*)::int as count from message m left join thread h on h.id = m.thread_id left join app_user u on u.id = h.holder_id
      where m.state = 'received' and m.handled_at is null group by u.name`),
  ];
}
export async function handleMessage(tx: Tx, id: string, now: Instant): Promise<void> {
  await tx`update message set handled_at = ${now} where id = ${id}`;
}

export interface NewMessage {
  readonly id: string;
  readonly threadId: string | null;
  /** null: a person wrote it */
  readonly tripId: string | null;
  readonly personId: string;
  readonly template: string | null;
  readonly touch: number | null;
  readonly composed: Pick<Composed, 'subject' | 'body' | 'personalLine' | 'factsUsed' | 'checks'> &
    Partial<Pick<Composed, 'language' | 'fallback' | 'tried'>>;
  readonly state: MessageRow['state'];
  /** left out: a mail */
  readonly channel?: Channel;
  readonly onlyWhen?: string | null;
  /** null: it is no mail */
  readonly rfcId: string | null;
  readonly inReplyTo: string | null;
  readonly refs: readonly string[];
}
export async function insertMessage(tx: Tx, message: NewMessage, now: Instant): Promise<void> {
  const { composed } = message;
  await tx`insert into message (id, thread_id, trip_id, person_id, direction, template, touch, subject, body, personal_line, facts, checks, state, rfc_id, in_reply_to, refs, language, fallback, tried_pair, tried_arm, channel, only_when, at)
    values (${message.id}, ${message.threadId}, ${message.tripId}, ${message.personId}, 'out', ${message.template}, ${message.touch}, ${composed.subject}, ${composed.body}, ${composed.personalLine}, ${tx.json(composed.factsUsed as never)}, ${tx.json(composed.checks as never)},
      ${message.state}, ${message.rfcId}, ${message.inReplyTo}, ${[...message.refs]}, ${composed.language ?? null}, ${composed.fallback ?? null}, ${composed.tried?.pair ?? null}, ${composed.tried?.arm ?? null}, ${message.channel ?? 'e-mail'}, ${message.onlyWhen ?? null}, ${now}) on conflict (id) do nothing`;
}

/**
 * Outcomes of the readers of two wordings, in the order in which they were written to: whether one of these kinds of answer came within so
 * long. Only whose time is over is counted, so that no outcome changes any more; each reader once.
 */
export async function triedOutcomes(
  tx: Tx,
  pairs: readonly string[],
  ask: { readonly kinds: readonly string[]; readonly withinMs: number; readonly now: Instant },
): Promise<{ readonly pair: string; readonly arm: Tried['arm']; readonly good: boolean }[]> {
  return [
    ...(await tx<{ pair: string; arm: Tried['arm']; good: boolean }[]>`
    select pair, arm, good from (
      select distinct on (m.tried_pair, m.person_id) m.tried_pair as pair, m.tried_arm as arm, e.ended_at as sent_at, exists (
        select 1 from message r where r.thread_id = m.thread_id and r.direction = 'in' and r.reading ->> 'kind' = any(${[...ask.kinds]}::text[])
          and r.at >= e.ended_at and r.at < e.ended_at + ${ask.withinMs} * interval '1 millisecond') as good
      from message m join effect e on e.message_id = m.id and e.kind = 'send' and e.state = 'done'
      where m.tried_pair = any(${[...pairs]}::text[]) and m.direction = 'out' and m.state = 'sent' and e.ended_at <= ${ask.now - ask.withinMs}
      order by m.tried_pair, m.person_id, e.ended_at) each
    order by sent_at`),
  ];
}

/** The deal a trip is about or has opened. */
export async function dealOfTrip(tx: Tx, tripId: string): Promise<string | null> {
  const [row] = await tx<{ dealId: string | null }[]>`select deal_id from trip where id = ${tripId}`;
  return row?.dealId ?? null;
}

/** Whether a message answers one that came in. */
export async function answersTheirs(tx: Tx, id: string): Promise<boolean> {
  const rows = await tx`select from message m join message i on i.rfc_id = m.in_reply_to and i.direction = 'in' where m.id = ${id}`;
  return rows.length > 0;
}

/** Ids that a conversation refers to, oldest first, with its own last. */
export async function threadRefs(tx: Tx, threadId: string): Promise<string[]> {
  const rows = await tx<{ rfcId: string }[]>`
    select rfc_id from message where thread_id = ${threadId} and state in ('sent', 'received') and rfc_id is not null order by at`;
  return rows.map((row) => row.rfcId);
}

/** Changes the words of a message that has not left. Other words are none of the wordings that are tried. */
export async function editMessage(
  tx: Tx,
  id: string,
  words: { readonly subject: string; readonly body: string; readonly checks: readonly MessageCheck[] },
): Promise<void> {
  await tx`update message set subject = ${words.subject}, body = ${words.body}, checks = ${tx.json(words.checks as never)},
    tried_pair = case when body = ${words.body} and subject = ${words.subject} then tried_pair end, tried_arm = case when body = ${words.body} and subject = ${words.subject} then tried_arm end
    where id = ${id} and state in ('written', 'approved', 'planned')`;
}

export async function planMessage(
  tx: Tx,
  id: string,
  plan: {
    readonly threadId: string;
    readonly touch: number;
    readonly subject: string;
    readonly inReplyTo: string | null;
    readonly refs: readonly string[];
  },
): Promise<void> {
  await tx`update message set thread_id = ${plan.threadId}, touch = ${plan.touch}, subject = ${plan.subject}, in_reply_to = ${plan.inReplyTo}, refs = ${[...plan.refs]}, state = 'planned' where id = ${id}`;
}

export async function setMessageState(
  tx: Tx,
  id: string,
  state: MessageRow['state'],
  at?: Instant,
  approvedBy?: string | null,
): Promise<void> {
  await tx`update message set state = ${state} ${at === undefined ? tx`` : tx`, at = ${at}`} ${approvedBy === undefined ? tx`` : tx`, approved_by = ${approvedBy}`} where id = ${id}`;
}

export async function keepRaw(tx: Tx, id: string, raw: Uint8Array, from: string, to: string): Promise<void> {
  await tx`update message set raw = ${Buffer.from(raw)}, from_address = ${from}, to_address = ${to} where id = ${id}`;
}

export async function rawOf(tx: Tx, id: string): Promise<Uint8Array | null> {
  const [row] = await tx<{ raw: Uint8Array | null }[]>`select raw from message where id = ${id}`;
  return row?.raw ?? null;
}

/** Keeps a mail that came in; undefined when it had been kept before. */
export async function insertReceived(
  tx: Tx,
  mail: {
    readonly id: string;
    readonly threadId: string | null;
    readonly tripId: string | null;
    readonly personId: string | null;
    readonly subject: string;
    readonly body: string;
    readonly rfcId: string;
    readonly inReplyTo: string | null;
    readonly refs: readonly string[];
    readonly from: string;
    readonly reading: ReplyReading;
    readonly handled: boolean;
  },
  now: Instant,
): Promise<boolean> {
  const rows =
    await tx`insert into message (id, thread_id, trip_id, person_id, direction, subject, body, state, rfc_id, in_reply_to, refs, from_address, reading, handled_at, at)
    values (${mail.id}, ${mail.threadId}, ${mail.tripId}, ${mail.personId}, 'in', ${mail.subject}, ${mail.body}, 'received', ${mail.rfcId}, ${mail.inReplyTo}, ${[...mail.refs]}, ${mail.from}, ${tx.json(mail.reading as never)}, ${mail.handled ? now : null}, ${now}) on conflict (rfc_id) do nothing returning id`;
  return rows.length > 0;
}

/** The message of ours that an answer belongs to, by its references, newest first. */
export async function messageByRfcIds(
  tx: Tx,
  ids: readonly string[],
): Promise<
  { readonly id: string; readonly threadId: string | null; readonly tripId: string | null; readonly personId: string | null } | undefined
> {
  if (ids.length === 0) return undefined;
  const [row] = await tx<
    { id: string; threadId: string | null; tripId: string | null; personId: string | null }[]
  >`select id, thread_id, trip_id, person_id from message where rfc_id = any(${[...ids]}) order by at desc limit 1`;
  return row;
}

export async function lastThreadWith(
  tx: Tx,
  email: string,
): Promise<
  { readonly id: string; readonly threadId: string | null; readonly tripId: string | null; readonly personId: string | null } | undefined
> {
  const [row] = await tx<
    { id: string; threadId: string | null; tripId: string | null; personId: string | null }[]
  >`select id, thread_id, trip_id, person_id from message where direction = 'out' and to_address = ${email} and state = 'sent' order by at desc limit 1`;
  return row;
}

export async function recentLines(tx: Tx, template: string, limit: number): Promise<string[]> {
  const rows = await tx<
    { personalLine: string }[]
  >`select personal_line from message where direction = 'out' and template = ${template} and personal_line is not null order by at desc, id limit ${limit}`;
  return rows.map((row) => row.personalLine);
}
export type { JsonObject };

export interface Lately {
  readonly kind: string;
  readonly count: number;
}
/** Answers that came in since an instant, by what they were understood to be. */
export async function answersSince(tx: Tx, since: Instant): Promise<Lately[]> {
  return [
    ...(await tx<
      Lately[]
    >`select reading->>'kind' as kind, count(*)::int as count from message where state = 'received' and at >= ${since} group by 1 order by 2 desc, 1`),
  ];
}
