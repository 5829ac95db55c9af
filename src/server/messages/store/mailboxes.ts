import type { Tx } from '../../db';

export interface MailboxRow {
  readonly name: string;
  readonly address: string;
  readonly displayName: string;
  readonly zone: string;
  readonly dailyLimit: number;
  readonly personGapDays: number;
}

export async function lockMailbox(tx: Tx, name: string): Promise<MailboxRow | undefined> {
  const [row] = await tx<
    MailboxRow[]
  >`select name, address, display_name, zone, daily_limit, person_gap_days from mailbox where name = ${name} for update`;
  return row;
}

export async function listMailboxes(tx: Tx): Promise<MailboxRow[]> {
  return [...(await tx<MailboxRow[]>`select name, address, display_name, zone, daily_limit, person_gap_days from mailbox order by name`)];
}

export async function putMailbox(tx: Tx, box: MailboxRow): Promise<void> {
  await tx`insert into mailbox (name, address, display_name, zone, daily_limit, person_gap_days) values (${box.name}, ${box.address}, ${box.displayName}, ${box.zone}, ${box.dailyLimit}, ${box.personGapDays})
    on conflict (name) do update set address = excluded.address, display_name = excluded.display_name, zone = excluded.zone, daily_limit = excluded.daily_limit, person_gap_days = excluded.person_gap_days`;
}

export interface RouteRow {
  readonly name: string;
  readonly address: string;
  readonly replyTo: string | null;
  readonly route: unknown;
  /** sealed */
  readonly secret: string | null;
  readonly checked: unknown;
}

/** The ways out of the mailboxes. */
export async function mailboxRoutes(tx: Tx): Promise<RouteRow[]> {
  return [...(await tx<RouteRow[]>`select name, address, reply_to, route, route_secret as secret, checked from mailbox order by name`)];
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

export async function putRouteCheck(tx: Tx, name: string, checked: unknown): Promise<void> {
  await tx`update mailbox set checked = ${tx.json(checked as never)} where name = ${name}`;
}
