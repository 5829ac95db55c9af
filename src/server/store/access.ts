import type { Tx } from '../db';

export type Role = 'owner' | 'builder' | 'rep' | 'reviewer' | 'viewer';
export interface UserRow {
  readonly id: string;
  readonly email: string;
  readonly name: string;
  readonly role: Role;
  readonly title: string;
}

export async function insertUser(tx: Tx, user: UserRow & { readonly passwordHash: string }): Promise<void> {
  await tx`insert into app_user (id, email, name, role, title, password_hash) values (${user.id}, ${user.email}, ${user.name}, ${user.role}, ${user.title}, ${user.passwordHash}) on conflict (email) do update set name = excluded.name, role = excluded.role, title = excluded.title`;
}
export async function userByEmail(tx: Tx, email: string): Promise<(UserRow & { readonly passwordHash: string }) | undefined> {
  const [row] = await tx<
    (UserRow & { passwordHash: string })[]
  >`select id, email, name, role, title, password_hash from app_user where email = ${email}`;
  return row;
}
export async function listUsers(tx: Tx): Promise<UserRow[]> {
  return [...(await tx<UserRow[]>`select id, email, name, role, title from app_user order by created_at, name`)];
}

export async function insertSession(
  tx: Tx,
  session: { readonly tokenHash: string; readonly userId: string; readonly days: number },
): Promise<void> {
  await tx`insert into session (token_hash, user_id, expires_at) values (${session.tokenHash}, ${session.userId}, clock_timestamp() + make_interval(days => ${session.days}))`;
}
/** Sessions live in real time, whatever the demo's clock says. */
export async function userBySession(tx: Tx, tokenHash: string): Promise<UserRow | undefined> {
  const [row] = await tx<
    UserRow[]
  >`select u.id, u.email, u.name, u.role, u.title from session s join app_user u on u.id = s.user_id where s.token_hash = ${tokenHash} and s.revoked_at is null and s.expires_at > clock_timestamp()`;
  return row;
}
export async function revokeSession(tx: Tx, tokenHash: string): Promise<void> {
  await tx`update session set revoked_at = clock_timestamp() where token_hash = ${tokenHash}`;
}
export async function userByToken(tx: Tx, tokenHash: string): Promise<UserRow | undefined> {
  const [row] = await tx<
    UserRow[]
  >`select u.id, u.email, u.name, u.role, u.title from api_token s join app_user u on u.id = s.user_id where s.token_hash = ${tokenHash} and s.revoked_at is null and s.expires_at > clock_timestamp()`;
  return row;
}
export async function insertToken(
  tx: Tx,
  token: { readonly tokenHash: string; readonly userId: string; readonly name: string; readonly days: number },
): Promise<void> {
  await tx`insert into api_token (token_hash, user_id, name, expires_at) values (${token.tokenHash}, ${token.userId}, ${token.name}, clock_timestamp() + make_interval(days => ${token.days}))`;
}

/** Failed sign-ins of the last minutes; also forgets old ones. */
export async function recentTries(tx: Tx, email: string, minutes: number): Promise<number> {
  const [row] = await tx<
    { n: number }[]
  >`select count(*)::int as n from sign_in_try where email = ${email} and at > clock_timestamp() - make_interval(mins => ${minutes})`;
  return row?.n ?? 0;
}
export async function addTry(tx: Tx, email: string): Promise<void> {
  await tx`insert into sign_in_try (email, at) values (${email}, clock_timestamp())`;
}
export async function forgetTries(tx: Tx, email: string): Promise<void> {
  await tx`delete from sign_in_try where email = ${email} or at < clock_timestamp() - interval '1 day'`;
}
