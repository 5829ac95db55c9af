import type { Instant } from '../../../core/base';
import type { Tx } from '../../db';

export type Role = 'owner' | 'builder' | 'rep' | 'reviewer' | 'viewer';
export interface UserRow {
  readonly id: string;
  readonly email: string;
  readonly name: string;
  readonly role: Role;
  readonly title: string;
  /** set: they may not come in any more */
  readonly endedAt?: Instant | null;
  /** everybody here needs a second factor, and they have none yet */
  readonly lacksFactor?: boolean;
}

export async function insertUser(tx: Tx, user: UserRow & { readonly passwordHash: string }): Promise<void> {
  await tx`insert into app_user (id, email, name, role, title, password_hash) values (${user.id}, ${user.email}, ${user.name}, ${user.role}, ${user.title}, ${user.passwordHash}) on conflict (email) do update set name = excluded.name, role = excluded.role, title = excluded.title`;
}
export async function userByEmail(tx: Tx, email: string): Promise<(UserRow & { readonly passwordHash: string }) | undefined> {
  const [row] = await tx<
    (UserRow & { passwordHash: string })[]
  >`select id, email, name, role, title, password_hash from app_user where email = ${email} and ended_at is null`;
  return row;
}
export async function userById(tx: Tx, id: string): Promise<UserRow | undefined> {
  const [row] = await tx<UserRow[]>`select id, email, name, role, title, ended_at from app_user where id = ${id}`;
  return row;
}
export async function roleOfUser(tx: Tx, id: string): Promise<Role | undefined> {
  const [row] = await tx<{ role: Role }[]>`select role from app_user where id = ${id} and ended_at is null`;
  return row?.role;
}
export async function listUsers(tx: Tx): Promise<UserRow[]> {
  return [...(await tx<UserRow[]>`select id, email, name, role, title, ended_at from app_user order by created_at, name`)];
}

export async function insertSession(
  tx: Tx,
  session: { readonly tokenHash: string; readonly userId: string; readonly days: number },
): Promise<void> {
  await tx`insert into session (token_hash, user_id, expires_at) values (${session.tokenHash}, ${session.userId}, clock_timestamp() + make_interval(days => ${session.days}))`;
}
/** Sessions live in real time, whatever the demo's clock says. */
export async function userBySession(tx: Tx, tokenHash: string, idleHours: number): Promise<UserRow | undefined> {
  const [row] = await tx<UserRow[]>`select u.id, u.email, u.name, u.role, u.title,
      exists (select from setting where key = 'second factor required' and value = 'true') and not exists (select from second_factor f where f.user_id = u.id and f.confirmed_at is not null) as lacks_factor
    from session s join app_user u on u.id = s.user_id and u.ended_at is null where s.token_hash = ${tokenHash}
    and s.revoked_at is null and s.expires_at > clock_timestamp() and s.seen_at > clock_timestamp() - make_interval(hours => ${idleHours})`;
  return row;
}
/** Somebody uses it; written down at most every so many minutes. */
export async function seeSession(tx: Tx, tokenHash: string, everyMinutes: number): Promise<void> {
  await tx`update session set seen_at = clock_timestamp() where token_hash = ${tokenHash} and seen_at < clock_timestamp() - make_interval(mins => ${everyMinutes})`;
}
export interface SessionRow {
  readonly tokenHash: string;
  readonly createdAt: number;
  readonly seenAt: number;
  readonly expiresAt: number;
}
export async function listSessions(tx: Tx, userId: string, idleHours: number): Promise<SessionRow[]> {
  return [
    ...(await tx<
      SessionRow[]
    >`select token_hash, created_at, seen_at, expires_at from session where user_id = ${userId} and revoked_at is null
      and expires_at > clock_timestamp() and seen_at > clock_timestamp() - make_interval(hours => ${idleHours}) order by created_at desc`),
  ];
}
/** Of one person, or of everybody. */
export async function endSessions(tx: Tx, ask: { readonly userId: string | null; readonly but: string | null }): Promise<number> {
  const ended = await tx`update session set revoked_at = clock_timestamp() where revoked_at is null and expires_at > clock_timestamp()
    and (${ask.userId}::uuid is null or user_id = ${ask.userId}) and (${ask.but}::text is null or token_hash <> ${ask.but}) returning user_id`;
  return ended.length;
}
export async function revokeSession(tx: Tx, tokenHash: string): Promise<void> {
  await tx`update session set revoked_at = clock_timestamp() where token_hash = ${tokenHash}`;
}
export const SCOPES = ['read', 'records', 'flows', 'all'] as const;
export type Scope = (typeof SCOPES)[number];

export async function userByToken(tx: Tx, tokenHash: string): Promise<(UserRow & { readonly scope: Scope }) | undefined> {
  const [row] = await tx<
    (UserRow & { scope: Scope })[]
  >`select u.id, u.email, u.name, u.role, u.title, s.scope from api_token s join app_user u on u.id = s.user_id and u.ended_at is null where s.token_hash = ${tokenHash} and s.revoked_at is null and s.expires_at > clock_timestamp()`;
  return row;
}
/** Somebody uses it; written down at most every so many minutes. */
export async function seeToken(tx: Tx, tokenHash: string, everyMinutes: number): Promise<void> {
  await tx`update api_token set used_at = clock_timestamp() where token_hash = ${tokenHash}
    and (used_at is null or used_at < clock_timestamp() - make_interval(mins => ${everyMinutes}))`;
}
export async function insertToken(
  tx: Tx,
  token: { readonly tokenHash: string; readonly userId: string; readonly name: string; readonly days: number; readonly scope: Scope },
): Promise<void> {
  await tx`insert into api_token (token_hash, user_id, name, scope, expires_at) values (${token.tokenHash}, ${token.userId}, ${token.name}, ${token.scope}, clock_timestamp() + make_interval(days => ${token.days}))`;
}
export interface TokenRow {
  readonly id: string;
  readonly name: string;
  readonly scope: Scope;
  readonly userId: string;
  readonly userName: string;
  readonly createdAt: Instant;
  readonly expiresAt: Instant;
  readonly usedAt: Instant | null;
  /** within two weeks; tokens live in real time, whatever the demo's clock says */
  readonly endsSoon: boolean;
}
/** Tokens that open something, those that end first at the top. */
export async function listTokens(tx: Tx): Promise<TokenRow[]> {
  return [
    ...(await tx<TokenRow[]>`
    select t.id, t.name, t.scope, t.user_id, u.name as user_name, t.created_at, t.expires_at, t.used_at, t.expires_at < clock_timestamp() + interval '14 days' as ends_soon from api_token t join app_user u on u.id = t.user_id
    where t.revoked_at is null and t.expires_at > clock_timestamp() order by t.expires_at, t.name`),
  ];
}
export async function endToken(tx: Tx, id: string): Promise<{ readonly name: string } | undefined> {
  const [row] = await tx<
    { name: string }[]
  >`update api_token set revoked_at = clock_timestamp() where id = ${id} and revoked_at is null returning name`;
  return row;
}

/** Writes down a try before its password is looked at; gives its number. */
export async function addTry(tx: Tx, email: string, address: string): Promise<number> {
  const [row] = await tx<
    { id: number }[]
  >`insert into sign_in_try (email, address, at) values (${email}, ${address}, clock_timestamp()) returning id`;
  return row?.id ?? 0;
}
export interface Tries {
  readonly count: number;
  /** since the last of them; infinite when there is none */
  readonly agoSeconds: number;
}
/** Tries written down before one's own, within the last minutes. */
export async function triesBefore(
  tx: Tx,
  ask: { readonly account: string; readonly address: string; readonly own: number },
  minutes: number,
): Promise<Readonly<Record<'both' | 'address' | 'account', Tries>>> {
  const count = async (where: ReturnType<typeof tx>): Promise<Tries> => {
    const [row] = await tx<
      { n: number; ago: number | null }[]
    >`select count(*)::int as n, extract(epoch from clock_timestamp() - max(at))::float8 as ago
      from sign_in_try where ${where} and id < ${ask.own} and at > clock_timestamp() - make_interval(mins => ${minutes})`;
    return { count: row?.n ?? 0, agoSeconds: row?.ago ?? Infinity };
  };
  return {
    both: await count(tx`email = ${ask.account} and address = ${ask.address}`),
    address: await count(tx`address = ${ask.address}`),
    account: await count(tx`email = ${ask.account}`),
  };
}
/** Of an account at an address, or one by its number; also forgets old ones. */
export async function forgetTries(
  tx: Tx,
  which: { readonly id: number } | { readonly account: string; readonly address: string },
): Promise<void> {
  if ('id' in which) await tx`delete from sign_in_try where id = ${which.id}`;
  else
    await tx`delete from sign_in_try where (email = ${which.account} and address = ${which.address}) or at < clock_timestamp() - interval '1 day'`;
}
