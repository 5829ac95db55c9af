import type { Instant } from '../../../core/base';
import type { Link, PageText } from '../../../core/formats';
import type { Tx } from '../../db';

export async function getSetting(tx: Tx, key: string): Promise<unknown> {
  const [row] = await tx<{ value: unknown }[]>`select value from setting where key = ${key}`;
  return row?.value;
}
/** `null` takes the setting away. */
export async function putSetting(tx: Tx, key: string, value: unknown): Promise<void> {
  if (value === null) {
    await tx`delete from setting where key = ${key}`;
    return;
  }
  await tx`insert into setting (key, value) values (${key}, ${tx.json(value as never)}) on conflict (key) do update set value = excluded.value`;
}

/** How far the demo's clock has been moved on, and how far it is asked to go. */
export async function clockOffset(tx: Tx): Promise<number> {
  const value = await getSetting(tx, 'clock offset');
  return typeof value === 'number' ? value : 0;
}
/** Moves the demo's clock on from where it was; false when somebody else has moved it meanwhile. */
export async function moveClockOffset(tx: Tx, from: number, to: number): Promise<boolean> {
  const rows = await tx`
    insert into setting (key, value) values ('clock offset', ${tx.json(to)}) on conflict (key) do update set value = excluded.value
    where setting.value = ${tx.json(from)} returning key`;
  return rows.length > 0;
}
export async function clockTarget(tx: Tx): Promise<Instant | null> {
  const value = await getSetting(tx, 'clock target');
  return typeof value === 'number' ? value : null;
}

/** True while this transaction is the only one walking the clock. */
export async function lockClockWalk(tx: Tx): Promise<boolean> {
  const [row] = await tx<{ ok: boolean }[]>`select pg_try_advisory_xact_lock(727002) as ok`;
  return row?.ok ?? false;
}

export interface PageRow extends PageText {
  readonly url: string;
  readonly status: number;
  readonly links: readonly Link[];
  readonly fetchedAt: Instant;
}
export async function cachedPages(tx: Tx, urls: readonly string[], since: Instant): Promise<PageRow[]> {
  return [
    ...(await tx<
      PageRow[]
    >`select url, status, title, language, published, blocks, links, fetched_at from page where url = any(${[...urls]}) and fetched_at >= ${since}`),
  ];
}
/** Every page kept of a host, the home page first. */
export async function cachedPagesOf(tx: Tx, host: string, since: Instant): Promise<PageRow[]> {
  return [
    ...(await tx<
      PageRow[]
    >`select url, status, title, language, published, blocks, links, fetched_at from page where split_part(url, '/', 3) in (${host}, ${`www.${host}`}) and fetched_at >= ${since} order by length(url) limit 60`),
  ];
}
export async function keepPage(tx: Tx, page: PageRow): Promise<void> {
  await tx`insert into page (url, status, title, language, published, blocks, links, fetched_at)
    values (${page.url}, ${page.status}, ${page.title}, ${page.language}, ${page.published}, ${tx.json(page.blocks as never)}, ${tx.json(page.links as never)}, ${page.fetchedAt})
    on conflict (url) do update set status = excluded.status, title = excluded.title, language = excluded.language, published = excluded.published,
      blocks = excluded.blocks, links = excluded.links, fetched_at = excluded.fetched_at`;
}
