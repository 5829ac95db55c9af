import type { Instant } from '../../../core/base';
import type { Tx } from '../../db';

/** Something that came to a door and could not be taken. */
export interface SetAsideRow {
  readonly id: string;
  /** null: an answer by mail */
  readonly intakeId: string | null;
  readonly intakeName: string | null;
  readonly kind: 'mail' | 'meeting';
  readonly says: string;
  readonly why: string;
  readonly at: Instant;
  readonly state: 'open' | 'brought' | 'dropped';
  readonly size: number;
}

/** False when the same thing is set aside already. */
export async function insertSetAside(
  tx: Tx,
  entry: Pick<SetAsideRow, 'id' | 'intakeId' | 'kind' | 'says' | 'why'> & { readonly raw: Uint8Array },
  now: Instant,
): Promise<boolean> {
  const made = await tx`insert into set_aside (id, intake_id, kind, says, why, raw, at)
    values (${entry.id}, ${entry.intakeId}, ${entry.kind}, ${entry.says}, ${entry.why}, ${Buffer.from(entry.raw)}, ${now}) on conflict do nothing returning id`;
  return made.length > 0;
}
const columns = (tx: Tx) => tx`s.id, s.intake_id, i.name as intake_name, s.kind, s.says, s.why, s.at, s.state, length(s.raw) as size`;
export async function listSetAside(tx: Tx, limit: number): Promise<SetAsideRow[]> {
  return [
    ...(await tx<
      SetAsideRow[]
    >`select ${columns(tx)} from set_aside s left join intake i on i.id = s.intake_id where s.state = 'open' order by s.at desc, s.id limit ${limit}`),
  ];
}
export async function countSetAside(tx: Tx): Promise<{ readonly intakeId: string | null; readonly count: number }[]> {
  return [
    ...(await tx<
      { intakeId: string | null; count: number }[]
    >`select intake_id, count(*)::int as count from set_aside where state = 'open' group by intake_id`),
  ];
}
export async function findSetAside(tx: Tx, id: string): Promise<(SetAsideRow & { readonly raw: Uint8Array }) | undefined> {
  const [row] = await tx<
    (SetAsideRow & { raw: Uint8Array })[]
  >`select ${columns(tx)}, s.raw from set_aside s left join intake i on i.id = s.intake_id where s.id = ${id}`;
  return row;
}
/** False when somebody settled it meanwhile. */
export async function settleSetAside(
  tx: Tx,
  id: string,
  end: { readonly state: 'brought' | 'dropped'; readonly userId: string | null },
  now: Instant,
): Promise<boolean> {
  const settled =
    await tx`update set_aside set state = ${end.state}, settled_at = ${now}, settled_by = ${end.userId} where id = ${id} and state = 'open' returning id`;
  return settled.length > 0;
}
/** It was brought again, mended or not, and could not be taken again. */
export async function putSetAside(tx: Tx, id: string, change: { readonly why: string; readonly raw: Uint8Array }): Promise<void> {
  await tx`update set_aside set why = ${change.why}, raw = ${Buffer.from(change.raw)} where id = ${id}`;
}
/** What was dropped comes back. */
export async function reopenSetAside(tx: Tx, id: string): Promise<void> {
  await tx`update set_aside set state = 'open', settled_at = null, settled_by = null where id = ${id} and state = 'dropped'`;
}
