import type { Instant } from '../../../core/base';
import type { Tx } from '../../db';

export interface ProviderRow {
  readonly name: string;
  readonly body: unknown;
  /** sealed */
  readonly secret: string | null;
  readonly checked: unknown;
  readonly changedAt: Instant;
}
export async function listProviders(tx: Tx): Promise<ProviderRow[]> {
  return [...(await tx<ProviderRow[]>`select name, body, secret, checked, changed_at from provider order by name`)];
}
export async function findProvider(tx: Tx, name: string): Promise<ProviderRow | undefined> {
  const [row] = await tx<ProviderRow[]>`select name, body, secret, checked, changed_at from provider where name = ${name}`;
  return row;
}
/** Without `secret` the one that is kept stays; what was changed has not been tried. */
export async function putProvider(
  tx: Tx,
  row: { readonly name: string; readonly body: unknown; readonly secret?: string | null },
  now: Instant,
): Promise<void> {
  await tx`insert into provider (name, body, secret, changed_at) values (${row.name}, ${tx.json(row.body as never)}, ${row.secret ?? null}, ${now})
    on conflict (name) do update set body = excluded.body, checked = null, changed_at = excluded.changed_at
      ${row.secret === undefined ? tx`` : tx`, secret = excluded.secret`}`;
}
export async function dropProvider(tx: Tx, name: string): Promise<boolean> {
  return (await tx`delete from provider where name = ${name}`).count > 0;
}
export async function putProviderCheck(tx: Tx, name: string, checked: unknown): Promise<void> {
  await tx`update provider set checked = ${tx.json(checked as never)} where name = ${name}`;
}
