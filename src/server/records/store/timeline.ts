import type { Instant, JsonObject, RecordKind } from '../../../core/base';
import type { Tx } from '../../db';

export interface Happening {
  readonly recordKind: RecordKind;
  readonly recordId: string;
  readonly at: Instant;
  readonly kind: string;
  readonly says: string;
  readonly detail: JsonObject;
}

export async function insertHappenings(tx: Tx, happenings: readonly Happening[]): Promise<void> {
  if (happenings.length === 0) return;
  const rows = happenings.map((entry) => ({
    record_kind: entry.recordKind,
    record_id: entry.recordId,
    at: new Date(entry.at).toISOString(),
    kind: entry.kind,
    says: entry.says,
    detail: entry.detail,
  }));
  await tx`insert into timeline (record_kind, record_id, at, kind, says, detail)
    select record_kind, record_id, at, kind, says, detail from jsonb_to_recordset(${tx.json(rows)}) as r(record_kind text, record_id uuid, at timestamptz, kind text, says text, detail jsonb)`;
}

/** What happened to a record, newest first. */
export async function timelineOf(tx: Tx, recordIds: readonly string[], limit: number): Promise<(Happening & { readonly id: number })[]> {
  return [
    ...(await tx<
      (Happening & { readonly id: number })[]
    >`select id, record_kind, record_id, at, kind, says, detail from timeline where record_id = any(${[...recordIds]}) order by at desc, id desc limit ${limit}`),
  ];
}

/** Gives a record's timeline to another record; returns the entries' ids, so that they can go back. */
export async function moveTimeline(tx: Tx, from: string, into: string): Promise<number[]> {
  const rows = await tx<{ id: number }[]>`update timeline set record_id = ${into} where record_id = ${from} returning id`;
  return rows.map((row) => row.id);
}

export async function returnTimeline(tx: Tx, ids: readonly number[], to: string): Promise<void> {
  await tx`update timeline set record_id = ${to} where id = any(${[...ids]}::bigint[])`;
}
