import type { Instant } from '../../../core/base';
import type { Tx } from '../../db';

export interface TellingRow {
  readonly userId: string;
  readonly name: string;
  readonly email: string;
  readonly byMail: boolean;
  readonly webhook: string | null;
  readonly fromMinute: number;
  readonly toMinute: number;
  /** what lay before them when they were last told, by its ids */
  readonly told: readonly string[];
}

const rows = (tx: Tx, where: ReturnType<Tx>) => tx<TellingRow[]>`
  select t.user_id, u.name, u.email, t.by_mail, t.webhook, t.from_minute, t.to_minute, t.told
  from telling t join app_user u on u.id = t.user_id and u.ended_at is null where ${where}`;

export async function findTelling(tx: Tx, userId: string): Promise<TellingRow | undefined> {
  const [row] = await rows(tx, tx`t.user_id = ${userId}`);
  return row;
}

export async function putTelling(
  tx: Tx,
  telling: Pick<TellingRow, 'userId' | 'byMail' | 'webhook' | 'fromMinute' | 'toMinute' | 'told'>,
  now: Instant,
): Promise<void> {
  await tx`insert into telling (user_id, by_mail, webhook, from_minute, to_minute, told_at, told, looked_at)
    values (${telling.userId}, ${telling.byMail}, ${telling.webhook}, ${telling.fromMinute}, ${telling.toMinute}, ${now}, ${[...telling.told]}, ${now})
    on conflict (user_id) do update set by_mail = excluded.by_mail, webhook = excluded.webhook, from_minute = excluded.from_minute, to_minute = excluded.to_minute,
      told = case when telling.by_mail or telling.webhook is not null then telling.told else excluded.told end`;
}

/** Who wants to be told and was not looked at since then; held until the transaction ends. */
export async function tellingDue(tx: Tx, ask: { readonly lookedBefore: Instant; readonly toldBefore: Instant }): Promise<TellingRow[]> {
  return [
    ...(await rows(
      tx,
      tx`(t.by_mail or t.webhook is not null) and t.looked_at <= ${ask.lookedBefore} and t.told_at <= ${ask.toldBefore} order by t.looked_at limit 50 for update of t skip locked`,
    )),
  ];
}
export async function lookedAt(tx: Tx, userId: string, now: Instant): Promise<void> {
  await tx`update telling set looked_at = ${now} where user_id = ${userId}`;
}
export async function setTold(tx: Tx, userId: string, told: readonly string[], now: Instant): Promise<void> {
  await tx`update telling set told_at = ${now}, told = ${[...told]} where user_id = ${userId}`;
}
