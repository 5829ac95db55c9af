import type { Instant } from '../../../core/base';
import type { RampUp } from '../../../core/calendar';
import { LOOKED_AT, type CameBack } from '../../../core/reply';
import type { Tx } from '../../db';

export interface MailboxRow {
  readonly name: string;
  readonly address: string;
  readonly displayName: string;
  readonly zone: string;
  readonly dailyLimit: number;
  readonly personGapDays: number;
  /** between two mails at least */
  readonly minutesApart: number;
  /** null: it has begun long ago */
  readonly rampUp: RampUp | null;
  /** what stands under each mail; empty: nothing */
  readonly signature: string;
}

const columns = (tx: Tx) => tx`name, address, display_name, zone, daily_limit, person_gap_days, minutes_apart, ramp_up, signature`;

export async function lockMailbox(tx: Tx, name: string): Promise<MailboxRow | undefined> {
  const [row] = await tx<MailboxRow[]>`select ${columns(tx)} from mailbox where name = ${name} for update`;
  return row;
}

export async function listMailboxes(tx: Tx): Promise<MailboxRow[]> {
  return [...(await tx<MailboxRow[]>`select ${columns(tx)} from mailbox order by name`)];
}

export async function putMailbox(tx: Tx, box: MailboxRow): Promise<void> {
  await tx`insert into mailbox (name, address, display_name, zone, daily_limit, person_gap_days, minutes_apart, ramp_up, signature)
    values (${box.name}, ${box.address}, ${box.displayName}, ${box.zone}, ${box.dailyLimit}, ${box.personGapDays}, ${box.minutesApart}, ${box.rampUp === null ? null : tx.json(box.rampUp)}, ${box.signature})
    on conflict (name) do update set address = excluded.address, display_name = excluded.display_name, zone = excluded.zone, daily_limit = excluded.daily_limit, person_gap_days = excluded.person_gap_days,
      minutes_apart = excluded.minutes_apart, ramp_up = excluded.ramp_up, signature = excluded.signature`;
}

/** A key to sign with. */
export interface KeyRow {
  readonly selector: string;
  /** DER, base64 */
  readonly publicKey: string;
  /** its domain knows it */
  readonly known: boolean;
  /** sealed */
  readonly secret: string;
}
export interface RouteRow {
  readonly name: string;
  readonly address: string;
  readonly replyTo: string | null;
  readonly route: unknown;
  /** sealed */
  readonly secret: string | null;
  readonly checked: unknown;
  /** null: it sends */
  readonly restsSince: Instant | null;
  readonly restsWhy: string | null;
  readonly domainSeen: unknown;
  /** null: nothing is signed */
  readonly key: KeyRow | null;
}

/** The ways out of the mailboxes. */
export async function mailboxRoutes(tx: Tx): Promise<RouteRow[]> {
  return [
    ...(await tx<RouteRow[]>`select name, address, reply_to, route, route_secret as secret, checked, rests_since, rests_why, domain_seen,
      case when k.mailbox is not null then jsonb_build_object('selector', k.selector, 'publicKey', k.public_key, 'known', k.known, 'secret', k.secret) end as key
      from mailbox left join signing_key k on k.mailbox = name order by name`),
  ];
}

/** Without `secret` the one that is kept stays; another way out has not been checked yet. */
export async function putRoute(
  tx: Tx,
  name: string,
  to: { readonly replyTo: string | null; readonly route: unknown; readonly secret?: string | null },
): Promise<void> {
  const route = to.route === null ? null : tx.json(to.route as never);
  await tx`update mailbox set reply_to = ${to.replyTo}, checked = case when route is not distinct from ${route}::jsonb ${to.secret === undefined ? tx`` : tx`and false`} then checked end, route = ${route}
    ${to.secret === undefined ? tx`` : tx`, route_secret = ${to.secret}`} where name = ${name}`;
}

/** Another key takes the place of one of before; what was seen with that is void. */
export async function putSigningKey(tx: Tx, mailbox: string, { selector, publicKey, known, secret }: KeyRow): Promise<void> {
  await tx`insert into signing_key (mailbox, selector, public_key, known, secret) values (${mailbox}, ${selector}, ${publicKey}, ${known}, ${secret})
    on conflict (mailbox) do update set selector = excluded.selector, public_key = excluded.public_key, known = excluded.known, secret = excluded.secret`;
  await putDomainSeen(tx, mailbox, null);
}
export async function dropSigningKey(tx: Tx, mailbox: string): Promise<void> {
  await tx`delete from signing_key where mailbox = ${mailbox}`;
  await putDomainSeen(tx, mailbox, null);
}
/** Whether the domain knows a key; it may have been another one meanwhile. */
export async function noteKeyKnown(tx: Tx, mailbox: string, selector: string, known: boolean): Promise<void> {
  await tx`update signing_key set known = ${known} where mailbox = ${mailbox} and selector = ${selector}`;
}
export async function putDomainSeen(tx: Tx, name: string, seen: unknown): Promise<void> {
  await tx`update mailbox set domain_seen = ${seen === null ? null : tx.json(seen as never)} where name = ${name}`;
}

export async function putRouteCheck(tx: Tx, name: string, checked: unknown): Promise<void> {
  await tx`update mailbox set checked = ${tx.json(checked as never)} where name = ${name}`;
}

/** What became of the last mails of a mailbox, as far as it was not told to go on since. */
export async function cameBack(tx: Tx, mailbox: string): Promise<CameBack> {
  const [row] = await tx<CameBack[]>`
    with sent as (
      select m.thread_id from effect e join message m on m.id = e.message_id join mailbox b on b.name = e.mailbox
      where e.kind = 'send' and e.state = 'done' and e.mailbox = ${mailbox} and e.ended_at >= coalesce(b.resumed_at, '-infinity')
      order by e.ended_at desc limit ${LOOKED_AT})
    select count(*)::int as sent,
      count(distinct thread_id) filter (where exists (
        select 1 from message r where r.thread_id = sent.thread_id and r.direction = 'in' and r.reading ->> 'kind' = 'bounce'))::int as bounced,
      count(distinct thread_id) filter (where exists (
        select 1 from message r where r.thread_id = sent.thread_id and r.direction = 'in' and r.reading ->> 'kind' = 'complaint'))::int as complained
    from sent`;
  return row ?? { sent: 0, bounced: 0, complained: 0 };
}

/** Lets a mailbox rest; false when it does already. */
export async function putRest(tx: Tx, name: string, why: string, now: Instant): Promise<boolean> {
  const rows =
    await tx`update mailbox set rests_since = ${now}, rests_why = ${why} where name = ${name} and rests_since is null returning name`;
  return rows.length > 0;
}

/** Lets it send again; false when it did not rest. */
export async function resume(tx: Tx, name: string, now: Instant): Promise<boolean> {
  const rows =
    await tx`update mailbox set rests_since = null, rests_why = null, resumed_at = ${now} where name = ${name} and rests_since is not null returning name`;
  return rows.length > 0;
}

/** Mailboxes that rest, with why. */
export async function restingMailboxes(tx: Tx): Promise<{ readonly name: string; readonly restsWhy: string }[]> {
  return [
    ...(await tx<{ name: string; restsWhy: string }[]>`select name, rests_why from mailbox where rests_since is not null order by name`),
  ];
}
