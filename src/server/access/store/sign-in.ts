import type { Instant } from '../../../core/base';
import type { Tx } from '../../db';
import type { UserRow } from './access';

export interface ServiceRow {
  readonly name: string;
  readonly body: unknown;
  /** sealed */
  readonly secret: string | null;
  /** mailboxes and doors that sign in by it */
  readonly usedBy: readonly string[];
}
export async function listServices(tx: Tx): Promise<ServiceRow[]> {
  return [
    ...(await tx<ServiceRow[]>`
      select s.name, s.body, s.secret,
        array(select 'mailbox ' || b.name from mailbox b where b.route ->> 'service' = s.name
          union select 'source ' || i.name from intake i where i.kind = 'mailbox' and i.body ->> 'service' = s.name order by 1) as used_by
      from sign_in_service s order by s.name`),
  ];
}
/** Without `secret` the one that is kept stays. */
export async function putService(
  tx: Tx,
  row: { readonly name: string; readonly body: unknown; readonly secret?: string | null },
  now: Instant,
): Promise<void> {
  await tx`insert into sign_in_service (name, body, secret, changed_at) values (${row.name}, ${tx.json(row.body as never)}, ${row.secret ?? null}, ${now})
    on conflict (name) do update set body = excluded.body, changed_at = excluded.changed_at
      ${row.secret === undefined ? tx`` : tx`, secret = excluded.secret`}`;
}
export async function dropService(tx: Tx, name: string): Promise<boolean> {
  return (await tx`delete from sign_in_service where name = ${name}`).count > 0;
}
/** Ends what was given at a service, and who came in by it: it is another one now. */
export async function forgetService(tx: Tx, name: string): Promise<void> {
  await tx`delete from sign_in_grant where service = ${name}`;
  await tx`delete from sign_in_link where service = ${name}`;
}

export interface GrantRow {
  readonly id: string;
  readonly service: string;
  readonly account: string;
  readonly since: Instant;
  readonly problem: string | null;
}
export async function listGrants(tx: Tx): Promise<GrantRow[]> {
  return [...(await tx<GrantRow[]>`select id, service, account, since, problem from sign_in_grant order by service, account`)];
}
/** A grant, held until the transaction ends: what renews itself may be good for one use only. */
export async function holdGrant(
  tx: Tx,
  service: string,
  account: string,
): Promise<{ readonly id: string; readonly secret: string; readonly isFresh: boolean } | undefined> {
  const [row] = await tx<{ id: string; secret: string; isFresh: boolean }[]>`
    select id, secret, fresh_until > clock_timestamp() + interval '1 minute' as is_fresh
    from sign_in_grant where service = ${service} and account = ${account} for update`;
  return row;
}
export async function putGrant(
  tx: Tx,
  row: { readonly id: string; readonly service: string; readonly account: string; readonly secret: string; readonly seconds: number },
  now: Instant,
): Promise<void> {
  await tx`insert into sign_in_grant (id, service, account, secret, fresh_until, since)
    values (${row.id}, ${row.service}, ${row.account}, ${row.secret}, clock_timestamp() + make_interval(secs => ${row.seconds}), ${now})
    on conflict (service, account) do update set secret = excluded.secret, fresh_until = excluded.fresh_until, since = excluded.since, problem = null`;
}
export async function renewGrant(tx: Tx, id: string, secret: string, seconds: number): Promise<void> {
  await tx`update sign_in_grant set secret = ${secret}, fresh_until = clock_timestamp() + make_interval(secs => ${seconds}), problem = null where id = ${id}`;
}
export async function putGrantProblem(tx: Tx, id: string, problem: string): Promise<void> {
  await tx`update sign_in_grant set problem = ${problem} where id = ${id}`;
}
export async function dropGrant(tx: Tx, id: string): Promise<GrantRow | undefined> {
  const [row] = await tx<GrantRow[]>`delete from sign_in_grant where id = ${id} returning id, service, account, since, problem`;
  return row;
}

export async function linkedUser(tx: Tx, service: string, subject: string): Promise<UserRow | undefined> {
  const [row] = await tx<UserRow[]>`
    select u.id, u.email, u.name, u.role, u.title from sign_in_link l join app_user u on u.id = l.user_id
    where l.service = ${service} and l.subject = ${subject} and u.ended_at is null`;
  return row;
}
export async function putLink(
  tx: Tx,
  link: { readonly service: string; readonly subject: string; readonly userId: string },
): Promise<void> {
  await tx`insert into sign_in_link (service, subject, user_id) values (${link.service}, ${link.subject}, ${link.userId})
    on conflict (service, subject) do update set user_id = excluded.user_id`;
}
