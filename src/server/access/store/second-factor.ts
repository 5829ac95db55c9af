import type { Instant } from '../../../core/base';
import type { Tx } from '../../db';

/** Codes are made in real time, whatever the demo's clock says. */
export async function realNow(tx: Tx): Promise<Instant> {
  const [row] = await tx<{ now: number }[]>`select (extract(epoch from clock_timestamp()) * 1000)::float8 as now`;
  return row?.now ?? 0;
}

export interface FactorRow {
  /** sealed */
  readonly secret: string;
  readonly confirmedAt: Instant | null;
  /** recovery codes left */
  readonly recoveryLeft: number;
}
export async function findFactor(tx: Tx, userId: string): Promise<FactorRow | undefined> {
  const [row] = await tx<FactorRow[]>`
    select secret, confirmed_at, cardinality(recovery) as recovery_left from second_factor where user_id = ${userId}`;
  return row;
}
/** Begins anew; one that is in use stays as it is. */
export async function beginFactor(tx: Tx, userId: string, secret: string): Promise<boolean> {
  const rows = await tx`
    insert into second_factor (user_id, secret) values (${userId}, ${secret})
    on conflict (user_id) do update set secret = excluded.secret, last_step = 0 where second_factor.confirmed_at is null returning 1`;
  return rows.length > 0;
}
/** Takes the code of a half-minute; false when it, or a later one, was taken before. */
export async function takeStep(tx: Tx, userId: string, step: number): Promise<boolean> {
  return (await tx`update second_factor set last_step = ${step} where user_id = ${userId} and last_step < ${step} returning 1`).length > 0;
}
export async function takeRecovery(tx: Tx, userId: string, digest: string): Promise<boolean> {
  return (
    (
      await tx`update second_factor set recovery = array_remove(recovery, ${digest}) where user_id = ${userId} and recovery @> array[${digest}]::text[] returning 1`
    ).length > 0
  );
}
export async function confirmFactor(tx: Tx, userId: string, recovery: readonly string[]): Promise<void> {
  await tx`update second_factor set confirmed_at = coalesce(confirmed_at, clock_timestamp()), recovery = ${[...recovery]} where user_id = ${userId}`;
}
export async function endFactor(tx: Tx, userId: string): Promise<boolean> {
  return (await tx`delete from second_factor where user_id = ${userId} returning 1`).length > 0;
}
