import type { Instant } from '../../../core/base';
import type { MatchEvidence } from '../../../core/engine';
import type { Tx } from '../../db';

/** Rows that hang on a record, by their table: they go over to the record it is joined into. */
const HANGING = {
  person: { deal: 'person_id', application: 'person_id', message: 'person_id', thread: 'person_id', effect: 'person_id' },
  company: { person: 'company_id', deal: 'company_id' },
} as const;
const hanging = (kind: StoredMerge['kind']): readonly (readonly [table: string, column: string])[] => Object.entries(HANGING[kind]);
/** Of these, what trips under way go on making for the survivor, and take along when they go back. */
const OF_TRIPS = ['deal', 'application', 'message', 'thread', 'effect'];

export interface StoredMerge {
  readonly id: number;
  readonly kind: 'person' | 'company';
  readonly fromId: string;
  readonly intoId: string;
  readonly by: string;
  readonly moved: {
    readonly facts: readonly number[];
    readonly trips: readonly string[];
    readonly timeline: readonly number[];
    /** ids of all other rows that went over, by table; merges of before have only two of them, under names of their own */
    readonly rows?: Readonly<Record<string, readonly string[]>>;
    readonly people?: readonly string[];
    readonly deals?: readonly string[];
    /** the survivor had no company and took this record's */
    readonly companyTaken: boolean;
  };
  readonly at: Instant;
  readonly undoneAt: Instant | null;
}
export interface MergeRow extends StoredMerge {
  readonly fromName: string;
}
export async function insertMerge(
  tx: Tx,
  merge: Omit<StoredMerge, 'id' | 'at' | 'undoneAt'> & {
    readonly confidence: number;
    readonly evidence: readonly MatchEvidence[];
  },
  now: Instant,
): Promise<void> {
  await tx`insert into merge (kind, from_id, into_id, confidence, evidence, by, moved, at) values (${merge.kind}, ${merge.fromId}, ${merge.intoId}, ${merge.confidence}, ${tx.json(merge.evidence as never)}, ${merge.by}, ${tx.json(merge.moved)}, ${now})`;
}
export async function mergesInto(tx: Tx, ids: readonly string[]): Promise<MergeRow[]> {
  return [
    ...(await tx<
      MergeRow[]
    >`select m.id, m.kind, m.from_id, coalesce(p.name, c.name) as from_name, m.into_id, m.by, m.moved, m.at, m.undone_at from merge m
      left join person p on p.id = m.from_id left join company c on c.id = m.from_id where m.into_id = any(${[...ids]}) and m.undone_at is null order by m.at desc`),
  ];
}
export async function findMerge(tx: Tx, id: number): Promise<StoredMerge | undefined> {
  const [row] = await tx<StoredMerge[]>`select id, kind, from_id, into_id, by, moved, at, undone_at from merge where id = ${id} for update`;
  return row;
}
export async function endMerge(tx: Tx, id: number, now: Instant): Promise<void> {
  await tx`update merge set undone_at = ${now} where id = ${id}`;
}

/** Marks a record as merged and gives what hangs on it to the survivor; returns what moved, by table. */
export async function moveHanging(
  tx: Tx,
  kind: StoredMerge['kind'],
  from: string,
  into: string,
): Promise<{ readonly rows: Readonly<Record<string, readonly string[]>>; readonly companyTaken: boolean }> {
  await tx`update ${tx(kind)} set merged_into = ${into} where id = ${from}`;
  const taken =
    kind === 'person'
      ? await tx`update person p set company_id = o.company_id from person o where p.id = ${into} and o.id = ${from} and p.company_id is null and o.company_id is not null returning p.id`
      : [];
  const rows: Record<string, readonly string[]> = {};
  for (const [table, column] of hanging(kind)) {
    const moved = await tx<{ id: string }[]>`update ${tx(table)} t set ${tx(column)} = ${into}
      where t.${tx(column)} = ${from} ${table === 'application' ? notAppliedBy(tx, into) : tx``} returning t.id`;
    rows[table] = moved.map((row) => row.id);
  }
  return { rows, companyTaken: taken.length > 0 };
}

/** Somebody who applied under both names has applied once: the other application stays where it was, and is there again when they part. */
const notAppliedBy = (tx: Tx, person: string) =>
  tx`and not exists (select from application o where o.person_id = ${person} and o.opening_id = t.opening_id)`;

/** Gives back all that went over, and what trips that go back have made since. */
export async function returnHanging(tx: Tx, merge: StoredMerge): Promise<void> {
  const { rows, people = [], deals = [], trips, companyTaken } = merge.moved;
  await tx`update ${tx(merge.kind)} set merged_into = null where id = ${merge.fromId}`;
  if (companyTaken)
    await tx`update person set company_id = null
      where id = ${merge.intoId} and company_id = (select company_id from person where id = ${merge.fromId})`;
  if (trips.length > 0) await tx`update trip set person_id = ${merge.fromId} where id = any(${[...trips]}::uuid[])`;
  for (const [table, column] of hanging(merge.kind)) {
    const went = rows?.[table] ?? (table === 'deal' ? deals : table === 'person' ? people : []);
    const made = trips.length > 0 && OF_TRIPS.includes(table) ? tx`or t.trip_id = any(${[...trips]}::uuid[])` : tx``;
    await tx`update ${tx(table)} t set ${tx(column)} = ${merge.fromId} where (t.id = any(${[...went]}::uuid[]) ${made})
      and t.${tx(column)} = ${merge.intoId} ${table === 'application' ? notAppliedBy(tx, merge.fromId) : tx``}`;
  }
}
