import type { Tx } from '../../db';

export interface FigureRow {
  readonly value: unknown;
  readonly tookMs: number;
  /** real time since it was counted */
  readonly ageMs: number;
}

export async function findFigure(tx: Tx, key: string): Promise<FigureRow | undefined> {
  const [row] = await tx<
    FigureRow[]
  >`select value, took_ms, (extract(epoch from clock_timestamp() - counted_at) * 1000)::float8 as age_ms from figure where key = ${key}`;
  return row;
}

export async function putFigure(tx: Tx, key: string, value: unknown, tookMs: number): Promise<void> {
  await tx`insert into figure (key, value, counted_at, took_ms) values (${key}, ${tx.json(value as never)}, clock_timestamp(), ${Math.round(tookMs)})
    on conflict (key) do update set value = excluded.value, counted_at = excluded.counted_at, took_ms = excluded.took_ms`;
  await tx`delete from figure where counted_at < clock_timestamp() - interval '3 days'`;
}
