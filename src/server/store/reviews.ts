import type { Instant } from '../../core/base';
import type { MatchEvidence } from '../../core/engine';
import type { Tx } from '../db';

export interface ReviewRow {
  readonly id: string;
  readonly tripId: string;
  readonly messageId: string;
  readonly who: string;
  readonly state: 'open' | 'approved' | 'refused' | 'closed';
  readonly dueAt: Instant | null;
  readonly laterUntil: Instant | null;
  readonly told: string | null;
  readonly createdAt: Instant;
  readonly personId: string;
  readonly personName: string;
  readonly companyName: string | null;
  readonly flowId: string;
  readonly flowName: string;
  readonly subject: string;
}

const reviewRows = (tx: Tx, where: ReturnType<Tx>) => tx<ReviewRow[]>`
  select r.id, r.trip_id, r.message_id, r.who, r.state, r.due_at, r.later_until, r.told, r.created_at, t.person_id, p.name as person_name, c.name as company_name, f.id as flow_id, f.name as flow_name, m.subject
  from review r join trip t on t.id = r.trip_id join person p on p.id = t.person_id left join company c on c.id = p.company_id join flow f on f.id = t.flow_id join message m on m.id = r.message_id ${where}`;
export async function findReview(tx: Tx, id: string): Promise<ReviewRow | undefined> {
  const [row] = await reviewRows(tx, tx`where r.id = ${id}`);
  return row;
}
export async function openReviews(tx: Tx, now: Instant): Promise<ReviewRow[]> {
  return [
    ...(await reviewRows(
      tx,
      tx`where r.state = 'open' and (r.later_until is null or r.later_until <= ${now}) order by r.created_at, r.id limit 500`,
    )),
  ];
}
/** How many wait, by whom they were asked of. */
export async function openReviewsByWho(tx: Tx, now: Instant): Promise<{ readonly who: string; readonly count: number }[]> {
  return [
    ...(await tx<
      { who: string; count: number }[]
    >`select who, count(*)::int as count from review where state = 'open' and (later_until is null or later_until <= ${now}) group by who`),
  ];
}
export async function reviewsOfPeople(tx: Tx, ids: readonly string[]): Promise<ReviewRow[]> {
  return [...(await reviewRows(tx, tx`where r.state = 'open' and t.person_id = any(${[...ids]}) order by r.created_at`))];
}

export async function insertReview(
  tx: Tx,
  review: {
    readonly id: string;
    readonly tripId: string;
    readonly messageId: string;
    readonly who: string;
    readonly dueAt: Instant | null;
  },
  now: Instant,
): Promise<void> {
  await tx`insert into review (id, trip_id, message_id, who, due_at, created_at) values (${review.id}, ${review.tripId}, ${review.messageId}, ${review.who}, ${review.dueAt}, ${now}) on conflict (id) do nothing`;
}

/** Closes an open review; false when it was decided already. */
export async function closeReview(
  tx: Tx,
  id: string,
  state: 'approved' | 'refused' | 'closed',
  userId: string | null,
  now: Instant,
): Promise<boolean> {
  return (
    (
      await tx`update review set state = ${state}, decided_by = ${userId}, decided_at = ${now} where id = ${id} and state = 'open' returning id`
    ).length > 0
  );
}
export async function postponeReview(tx: Tx, id: string, until: Instant): Promise<void> {
  await tx`update review set later_until = ${until} where id = ${id} and state = 'open'`;
}
export async function escalateReview(tx: Tx, id: string, to: string, text: string): Promise<void> {
  await tx`update review set who = ${to}, told = ${text}, later_until = null where id = ${id} and state = 'open'`;
}

export interface PairRow {
  readonly id: string;
  readonly kind: 'person' | 'company';
  readonly aId: string;
  readonly bId: string;
  readonly aName: string;
  readonly bName: string;
  readonly confidence: number;
  readonly evidence: readonly MatchEvidence[];
  readonly state: 'open' | 'same' | 'different';
  readonly tripId: string | null;
  readonly createdAt: Instant;
  readonly decidedByName: string | null;
}
const pairRows = (tx: Tx, where: ReturnType<Tx>) => tx<PairRow[]>`
  select x.id, x.kind, x.a_id, x.b_id, coalesce(pa.name, ca.name, '?') as a_name, coalesce(pb.name, cb.name, '?') as b_name, x.confidence, x.evidence, x.state, x.trip_id, x.created_at, u.name as decided_by_name
  from pair x left join person pa on pa.id = x.a_id left join person pb on pb.id = x.b_id left join company ca on ca.id = x.a_id left join company cb on cb.id = x.b_id left join app_user u on u.id = x.decided_by ${where}`;
export async function findPair(tx: Tx, id: string): Promise<PairRow | undefined> {
  const [row] = await pairRows(tx, tx`where x.id = ${id}`);
  return row;
}
export async function openPairs(tx: Tx, now: Instant): Promise<PairRow[]> {
  return [
    ...(await pairRows(
      tx,
      tx`where x.state = 'open' and (x.later_until is null or x.later_until <= ${now}) order by x.created_at, x.id limit 500`,
    )),
  ];
}
export async function decidedPairs(tx: Tx, limit: number): Promise<PairRow[]> {
  return [...(await pairRows(tx, tx`where x.state <> 'open' order by x.decided_at desc limit ${limit}`))];
}

export async function insertPair(
  tx: Tx,
  pair: {
    readonly id: string;
    readonly kind: 'person' | 'company';
    readonly aId: string;
    readonly bId: string;
    readonly confidence: number;
    readonly evidence: readonly MatchEvidence[];
    readonly tripId: string | null;
  },
  now: Instant,
): Promise<void> {
  await tx`insert into pair (id, kind, a_id, b_id, confidence, evidence, trip_id, created_at) values (${pair.id}, ${pair.kind}, ${pair.aId}, ${pair.bId}, ${pair.confidence}, ${tx.json(pair.evidence as never)}, ${pair.tripId}, ${now}) on conflict (id) do nothing`;
}
export async function decidePair(tx: Tx, id: string, state: 'same' | 'different', userId: string | null, now: Instant): Promise<boolean> {
  return (
    (
      await tx`update pair set state = ${state}, decided_by = ${userId}, decided_at = ${now} where id = ${id} and state = 'open' returning id`
    ).length > 0
  );
}
export async function postponePair(tx: Tx, id: string, until: Instant): Promise<void> {
  await tx`update pair set later_until = ${until} where id = ${id} and state = 'open'`;
}
/** Ids of records that a person has said are not the same as this one. */
export async function saidDifferent(tx: Tx, id: string): Promise<string[]> {
  const rows = await tx<
    { id: string }[]
  >`select case when a_id = ${id} then b_id else a_id end as id from pair where state = 'different' and (a_id = ${id} or b_id = ${id})`;
  return rows.map((row) => row.id);
}
/** Trips that wait for a pair's decision. */
export async function tripsAskingPair(tx: Tx, pairId: string): Promise<string[]> {
  const rows = await tx<{ id: string }[]>`select id from trip where state = 'asking' and state_detail->>'ref' = ${pairId}`;
  return rows.map((row) => row.id);
}

export interface StoredMerge {
  readonly id: number;
  readonly kind: 'person' | 'company';
  readonly fromId: string;
  readonly intoId: string;
  readonly by: string;
  readonly moved: {
    readonly facts: readonly number[];
    readonly people: readonly string[];
    readonly deals: readonly string[];
    readonly trips: readonly string[];
    readonly timeline: readonly number[];
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

/** Marks a record as merged and gives what hangs on it to the survivor; returns what moved. */
export async function mergePerson(tx: Tx, from: string, into: string): Promise<{ deals: string[]; companyTaken: boolean }> {
  await tx`update person set merged_into = ${into} where id = ${from}`;
  const taken =
    await tx`update person p set company_id = o.company_id from person o where p.id = ${into} and o.id = ${from} and p.company_id is null and o.company_id is not null returning p.id`;
  const deals = await tx<{ id: string }[]>`update deal set person_id = ${into} where person_id = ${from} returning id`;
  // Somebody who applied under both names applied once.
  await tx`delete from application a where a.person_id = ${from} and exists (select from application o where o.person_id = ${into} and o.opening_id = a.opening_id)`;
  await tx`update application set person_id = ${into} where person_id = ${from}`;
  await tx`update message set person_id = ${into} where person_id = ${from}`;
  await tx`update thread set person_id = ${into} where person_id = ${from}`;
  await tx`update effect set person_id = ${into} where person_id = ${from}`;
  return { deals: deals.map((row) => row.id), companyTaken: taken.length > 0 };
}
export async function mergeCompany(
  tx: Tx,
  from: string,
  into: string,
): Promise<{ people: string[]; deals: string[]; companyTaken: boolean }> {
  await tx`update company set merged_into = ${into} where id = ${from}`;
  const people = await tx<{ id: string }[]>`update person set company_id = ${into} where company_id = ${from} returning id`;
  const deals = await tx<{ id: string }[]>`update deal set company_id = ${into} where company_id = ${from} returning id`;
  return { people: people.map((row) => row.id), deals: deals.map((row) => row.id), companyTaken: false };
}
export async function unmerge(tx: Tx, merge: StoredMerge): Promise<void> {
  const { people, deals, trips } = merge.moved;
  if (merge.kind === 'person') {
    await tx`update person set merged_into = null where id = ${merge.fromId}`;
    if (merge.moved.companyTaken) await tx`update person set company_id = null where id = ${merge.intoId}`;
    await tx`update deal set person_id = ${merge.fromId} where id = any(${[...deals]}::uuid[])`;
    await tx`update trip set person_id = ${merge.fromId} where id = any(${[...trips]}::uuid[])`;
    await tx`update application set person_id = ${merge.fromId} where trip_id = any(${[...trips]}::uuid[])`;
    await tx`update message set person_id = ${merge.fromId} where trip_id = any(${[...trips]}::uuid[])`;
    await tx`update thread set person_id = ${merge.fromId} where trip_id = any(${[...trips]}::uuid[])`;
    await tx`update effect set person_id = ${merge.fromId} where trip_id = any(${[...trips]}::uuid[])`;
    return;
  }
  await tx`update company set merged_into = null where id = ${merge.fromId}`;
  await tx`update person set company_id = ${merge.fromId} where id = any(${[...people]}::uuid[])`;
  await tx`update deal set company_id = ${merge.fromId} where id = any(${[...deals]}::uuid[])`;
}
