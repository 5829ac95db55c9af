import type { Tx } from '../../db';

/** Every column that holds a sealed secret, by its table, with what tells its rows apart. */
export const SEALED = {
  intake: { id: 'id', secret: 'secret' },
  webhook: { id: 'name', secret: 'secret' },
  mailbox: { id: 'name', secret: 'route_secret' },
  signing_key: { id: 'mailbox', secret: 'secret' },
  provider: { id: 'name', secret: 'secret' },
  sign_in_service: { id: 'name', secret: 'secret' },
  sign_in_grant: { id: 'id', secret: 'secret' },
  second_factor: { id: 'user_id', secret: 'secret' },
} as const;
type SealedTable = keyof typeof SEALED;

/** A secret as it is kept, and where. */
export interface Sealed {
  readonly table: SealedTable;
  readonly id: string;
  readonly sealed: string;
}

export async function sealedSecrets(tx: Tx): Promise<Sealed[]> {
  const out: Sealed[] = [];
  for (const [table, { id, secret }] of Object.entries(SEALED) as [SealedTable, (typeof SEALED)[SealedTable]][])
    out.push(
      ...(await tx<Sealed[]>`
        select ${table} as "table", ${tx(id)}::text as id, ${tx(secret)} as sealed from ${tx(table)} where ${tx(secret)} is not null order by 2`),
    );
  return out;
}
export async function putSealed(tx: Tx, { table, id, sealed }: Sealed): Promise<void> {
  const { id: name, secret } = SEALED[table];
  await tx`update ${tx(table)} set ${tx(secret)} = ${sealed} where ${tx(name)}::text = ${id}`;
}
/** Whether any mail has gone out, with links in it. */
export async function anySent(tx: Tx): Promise<boolean> {
  const [row] = await tx<{ any: boolean }[]>`select exists (select 1 from effect where state = 'done') as any`;
  return row?.any ?? false;
}
