import type { Instant, JsonObject } from '../../../core/base';
import type { Tx } from '../../db';

export async function insertAudit(
  tx: Tx,
  entry: { readonly at: Instant; readonly userId: string | null; readonly what: string; readonly detail: JsonObject },
): Promise<void> {
  await tx`insert into audit (at, user_id, what, detail) values (${entry.at}, ${entry.userId}, ${entry.what}, ${tx.json(entry.detail)})`;
}

export async function listAudit(
  tx: Tx,
  ask: { readonly search: string; readonly before: number | null; readonly limit: number },
): Promise<{ readonly id: number; readonly at: Instant; readonly who: string; readonly what: string; readonly detail: JsonObject }[]> {
  const like = `%${ask.search.replace(/[\\%_]/g, '\\$&')}%`;
  return [
    ...(await tx<{ id: number; at: Instant; who: string; what: string; detail: JsonObject }[]>`
      select a.id, a.at, coalesce(u.name, 'Millrace') as who, a.what, case when f.name is null then a.detail else jsonb_build_object('flow', f.name) || a.detail end as detail
      from audit a left join app_user u on u.id = a.user_id left join flow f on f.id::text = a.detail->>'flowId'
      where (${ask.before}::bigint is null or a.id < ${ask.before})
        ${ask.search === '' ? tx`` : tx`and (u.name ilike ${like} or a.what ilike ${like} or a.detail::text ilike ${like})`}
      order by a.id desc limit ${ask.limit}`),
  ];
}
