/** What is taken away after its time, in bounded batches. */
import type { Instant } from '../../../core/base';
import type { Kept } from '../../../core/facts';
import type { Tx } from '../../db';

const BATCH = 2_000;

/** How much of a kind is older than an instant, and deletes at most a batch of it. Returns how much went. */
const SWEEP: Readonly<Record<Kept, (tx: Tx, before: Instant) => Promise<number>>> = {
  pages: async (tx, before) =>
    (await tx`delete from page where url in (select url from page where fetched_at < ${before} limit ${BATCH})`).count,
  readings: async (tx, before) =>
    (
      await tx`delete from trial_reading where (flow_id, key) in (select flow_id, key from trial_reading where read_at < ${before} limit ${BATCH})`
    ).count,
  lists: async (tx, before) => {
    const over = tx`select i.id from import i where i.state in ('done', 'failed', 'looked at') and coalesce(i.finished_at, i.created_at) < ${before}`;
    const pieces =
      await tx`delete from import_piece where (import_id, no) in (select import_id, no from import_piece where import_id in (${over}) limit ${BATCH})`;
    const rows = await tx`update import_row set cells = null where (import_id, row) in
      (select import_id, row from import_row where cells is not null and import_id in (${over}) limit ${BATCH})`;
    return pieces.count + rows.count;
  },
  papers: async (tx, before) =>
    (
      await tx`update stored_file set bytes = ''::bytea, says = 'its time is over: the file is kept no longer'
        where id in (select id from stored_file where created_at < ${before} and length(bytes) > 0 limit ${BATCH})`
    ).count,
  journals: async (tx, before) =>
    (
      await tx`update journal set says = '', detail = '{}' where (trip_id, seq) in (select j.trip_id, j.seq from journal j join trip t on t.id = j.trip_id
        where t.ended_at < ${before} and (j.says <> '' or j.detail <> '{}'::jsonb) limit ${BATCH})`
    ).count,
};
export const sweepKind = (tx: Tx, kind: Kept, before: Instant): Promise<number> => SWEEP[kind](tx, before);

/** How much of each kind is kept now. */
export async function keptNow(tx: Tx): Promise<Readonly<Record<Kept, number>>> {
  const [row] = await tx<Record<Kept, number>[]>`select
    (select count(*)::int from page) as pages,
    (select count(*)::int from trial_reading) as readings,
    (select count(distinct import_id)::int from import_piece) as lists,
    (select count(*)::int from stored_file where length(bytes) > 0) as papers,
    (select count(*)::int from trip where ended_at is not null and trial_id is null) as journals`;
  if (!row) throw new Error('counting gives a row');
  return row;
}
