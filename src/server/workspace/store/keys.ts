import type { Tx } from '../../db';

/** A secret as it is kept, and where. */
export interface Sealed {
  readonly table: 'intake' | 'webhook';
  readonly id: string;
  readonly sealed: string;
}

export async function sealedSecrets(tx: Tx): Promise<Sealed[]> {
  return [
    ...(await tx<Sealed[]>`select 'intake' as "table", id::text, secret as sealed from intake where secret is not null
      union all select 'webhook', name, secret from webhook`),
  ];
}
export async function putSealed(tx: Tx, entry: Sealed): Promise<void> {
  if (entry.table === 'intake') await tx`update intake set secret = ${entry.sealed} where id = ${entry.id}`;
  else await tx`update webhook set secret = ${entry.sealed} where name = ${entry.id}`;
}
/** Whether any mail has gone out, with links in it. */
export async function anySent(tx: Tx): Promise<boolean> {
  const [row] = await tx<{ any: boolean }[]>`select exists (select 1 from effect where state = 'done') as any`;
  return row?.any ?? false;
}
