/** Who works here, who is asked to, who is away. */
import type { Instant } from '../../../core/base';
import type { Member } from '../../../core/teams';
import type { Colleague } from '../../../core/teams';
import type { Tx } from '../../db';
import type { Role } from './access';

export interface PersonHere {
  readonly id: string;
  readonly email: string;
  readonly name: string;
  readonly role: Role;
  readonly title: string;
  readonly endedAt: Instant | null;
  readonly seenAt: Instant | null;
  /** has a second factor */
  readonly hasFactor: boolean;
  /** records that are theirs */
  readonly owns: number;
  readonly teams: readonly string[];
  readonly away: readonly { readonly from: string; readonly to: string }[];
}
/** Everybody, with when they were last here; days away that are over are left out. */
export async function peopleHere(tx: Tx, today: string): Promise<PersonHere[]> {
  return [
    ...(await tx<PersonHere[]>`
    select u.id, u.email, u.name, u.role, u.title, u.ended_at, (select max(seen_at) from session s where s.user_id = u.id) as seen_at,
      exists (select from second_factor f where f.user_id = u.id and f.confirmed_at is not null) as has_factor,
      ((select count(*) from person where owner_id = u.id and merged_into is null) + (select count(*) from deal where owner_id = u.id) + (select count(*) from application where owner_id = u.id) + (select count(*) from thread where holder_id = u.id))::int as owns,
      coalesce((select array_agg(m.team order by m.team) from team_member m where m.user_id = u.id), '{}') as teams,
      coalesce((select jsonb_agg(jsonb_build_object('from', a.from_day, 'to', a.to_day) order by a.from_day) from away a where a.user_id = u.id and a.to_day >= ${today}::date), '[]') as away
    from app_user u order by u.ended_at is not null, u.created_at, u.name`),
  ];
}
export async function changeUser(
  tx: Tx,
  id: string,
  to: { readonly role: Role; readonly title: string; readonly name: string },
): Promise<void> {
  await tx`update app_user set role = ${to.role}, title = ${to.title}, name = ${to.name} where id = ${id}`;
}
/** How many owners can still come in. */
export async function ownersLeft(tx: Tx): Promise<number> {
  const rows = await tx`select id from app_user where role = 'owner' and ended_at is null for update`;
  return rows.length;
}
export async function endUser(tx: Tx, id: string, at: Instant | null): Promise<void> {
  await tx`update app_user set ended_at = ${at} where id = ${id}`;
  if (at === null) return;
  await tx`update session set revoked_at = clock_timestamp() where user_id = ${id} and revoked_at is null`;
  await tx`update api_token set revoked_at = clock_timestamp() where user_id = ${id} and revoked_at is null`;
  await tx`delete from team_member where user_id = ${id}`;
}
/** Gives what is one's to somebody else: how many records. */
export async function handOver(tx: Tx, from: string, to: string): Promise<number> {
  const people = await tx`update person set owner_id = ${to} where owner_id = ${from}`;
  const deals = await tx`update deal set owner_id = ${to} where owner_id = ${from}`;
  const applications = await tx`update application set owner_id = ${to} where owner_id = ${from}`;
  const threads = await tx`update thread set holder_id = ${to} where holder_id = ${from}`;
  return people.count + deals.count + applications.count + threads.count;
}
export async function putAway(tx: Tx, userId: string, days: readonly { readonly from: string; readonly to: string }[]): Promise<void> {
  await tx`delete from away where user_id = ${userId}`;
  for (const { from, to } of days)
    await tx`insert into away (user_id, from_day, to_day) values (${userId}, ${from}, ${to}) on conflict do nothing`;
}

/** Who works here, with their teams and whether they are away on a day. */
export async function colleagues(tx: Tx, today: string): Promise<Colleague[]> {
  return [
    ...(await tx<Colleague[]>`select u.id, u.name, u.role,
      coalesce((select array_agg(m.team) from team_member m where m.user_id = u.id), '{}') as teams,
      exists (select 1 from away a where a.user_id = u.id and a.from_day <= ${today}::date and a.to_day >= ${today}::date) as is_away
      from app_user u where u.ended_at is null order by u.name`),
  ];
}

export interface InviteRow {
  readonly id: string;
  readonly email: string;
  readonly name: string;
  readonly role: Role;
  readonly title: string;
  readonly invitedByName: string | null;
  readonly createdAt: Instant;
  readonly expiresAt: Instant;
}
const INVITE = (tx: Tx): ReturnType<Tx> => tx`
  select i.id, i.email, i.name, i.role, i.title, u.name as invited_by_name, i.created_at, i.expires_at from invite i left join app_user u on u.id = i.invited_by`;
export async function listInvites(tx: Tx, now: Instant): Promise<InviteRow[]> {
  return [...(await tx<InviteRow[]>`${INVITE(tx)} where i.ended_at is null and i.expires_at > ${now} order by i.created_at desc`)];
}
export async function inviteByCode(tx: Tx, codeHash: string, now: Instant): Promise<InviteRow | undefined> {
  const [row] = await tx<
    InviteRow[]
  >`${INVITE(tx)} where i.code_hash = ${codeHash} and i.ended_at is null and i.expires_at > ${now} for update of i`;
  return row;
}
/** A new invitation of the same address takes the old one's place. */
export async function insertInvite(
  tx: Tx,
  invite: Omit<InviteRow, 'invitedByName' | 'createdAt'> & { readonly codeHash: string; readonly invitedBy: string | null },
  now: Instant,
): Promise<void> {
  await tx`update invite set ended_at = ${now} where email = ${invite.email} and ended_at is null`;
  await tx`insert into invite (id, code_hash, email, name, role, title, invited_by, created_at, expires_at)
    values (${invite.id}, ${invite.codeHash}, ${invite.email}, ${invite.name}, ${invite.role}, ${invite.title}, ${invite.invitedBy}, ${now}, ${invite.expiresAt})`;
}
export async function endInvite(tx: Tx, id: string, now: Instant): Promise<{ readonly email: string } | undefined> {
  const [row] = await tx<{ email: string }[]>`update invite set ended_at = ${now} where id = ${id} and ended_at is null returning email`;
  return row;
}

export interface TeamRow {
  readonly name: string;
  /** turns used up so far */
  readonly turn: number;
  readonly members: readonly Member[];
}
/** Teams with their members in order; who is away on that day is marked. */
export async function teamsOn(tx: Tx, today: string, name?: string): Promise<TeamRow[]> {
  return [
    ...(await tx<TeamRow[]>`
    select t.name, t.turn::int as turn, coalesce(jsonb_agg(jsonb_build_object('id', u.id, 'name', u.name, 'weight', m.weight,
      'isAway', exists (select 1 from away a where a.user_id = u.id and ${today}::date between a.from_day and a.to_day)) order by m.position) filter (where u.id is not null), '[]') as members
    from team t left join team_member m on m.team = t.name left join app_user u on u.id = m.user_id
    ${name === undefined ? tx`` : tx`where t.name = ${name}`} group by t.name, t.turn order by t.name`),
  ];
}
export async function removeTeam(tx: Tx, name: string): Promise<boolean> {
  return (await tx`delete from team where name = ${name} returning name`).length > 0;
}
