import type { Instant } from '../../../core/base';
import type { MatchEvidence } from '../../../core/engine';
import type { Tx } from '../../db';

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
