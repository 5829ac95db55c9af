import type { Instant } from '../../../core/base';
import type { RecordView } from '../../../core/engine';
import type { SqlPiece } from '../../../core/feel';
import type { KnownDeal } from '../../../core/intake';
import type { Tx } from '../../db';
import { whereOf } from './conditions';
import { companiesLike, like } from './records';

/** Days since anything came from them or a colleague touched the deal; what flows send does not count. */
const quietDays = (tx: Tx, now: Instant, zone: string) => tx`((${now}::timestamptz at time zone ${zone})::date - (greatest(d.stage_since,
  (select max(m.at) from message m where m.person_id = d.person_id and m.direction = 'in'),
  (select max(h.at) from timeline h where h.record_id = d.person_id and h.kind = 'note' and not (h.detail ? 'tripId'))) at time zone ${zone})::date)::float8`;

const stageDays = (tx: Tx, now: Instant, zone: string) =>
  tx`((${now}::timestamptz at time zone ${zone})::date - (d.stage_since at time zone ${zone})::date)::float8`;

/** Joins a deal's counted days as `q`. */
const counted = (tx: Tx, now: Instant, zone: string) =>
  tx`cross join lateral (select ${quietDays(tx, now, zone)} as quiet_days, ${stageDays(tx, now, zone)} as stage_days) q`;

/** Deals that a condition holds for, of all or among some, with the person they are with; a deal without one is with nobody who could be written to. */
export async function dueDeals(
  tx: Tx,
  where: readonly SqlPiece[],
  now: Instant,
  zone: string,
  limit: number,
  among?: readonly string[],
): Promise<{ readonly dealId: string; readonly personId: string }[]> {
  return [
    ...(await tx<{ dealId: string; personId: string }[]>`
    select d.id as deal_id, d.person_id from deal d join person p on p.id = d.person_id left join company c on c.id = d.company_id ${counted(tx, now, zone)}
    where ${among ? tx`d.id = any(${[...among]}::uuid[])` : tx`true`} and ${whereOf(tx, where)} order by d.created_at, d.id limit ${limit}`),
  ];
}

/** Deals as conditions see them, with the days of silence as of now. */
export async function loadDeals(
  tx: Tx,
  ids: readonly string[],
  now: Instant,
  zone: string,
): Promise<Map<string, NonNullable<RecordView['deal']>>> {
  const rows = await tx<{ id: string; deal: NonNullable<RecordView['deal']> }[]>`
    select d.id, d.custom || jsonb_build_object('id', d.id, 'title', d.title, 'stage', d.stage, 'amount', d.amount, 'pipeline', d.pipeline, 'quiet_days', ${quietDays(tx, now, zone)}, 'stage_days', ${stageDays(tx, now, zone)}) as deal
    from deal d where d.id = any(${[...ids]}::uuid[])`;
  return new Map(rows.map((row) => [row.id, row.deal]));
}

export interface DealRow {
  readonly id: string;
  readonly title: string;
  readonly pipeline: string;
  readonly stage: string;
  readonly amount: number | null;
  readonly companyId: string | null;
  readonly companyName: string | null;
  readonly personId: string | null;
  readonly personName: string | null;
  readonly ownerName: string | null;
  readonly stageSince: Instant;
  readonly createdAt: Instant;
}

export interface NewDeal {
  readonly id: string;
  readonly title: string;
  readonly pipeline: string;
  readonly stage: string;
  readonly amount: number | null;
  readonly companyId: string | null;
  readonly personId: string | null;
  readonly tripId: string | null;
}

export async function insertDeal(tx: Tx, deal: NewDeal, now: Instant): Promise<void> {
  await insertDeals(tx, [deal], now);
}

/** Ids that exist already are left alone. */
export async function insertDeals(tx: Tx, deals: readonly NewDeal[], now: Instant): Promise<void> {
  if (deals.length === 0) return;
  await tx`insert into deal (id, title, pipeline, stage, amount, company_id, person_id, trip_id, stage_since, created_at)
    select "id", title, pipeline, stage, amount, "companyId", "personId", "tripId", ${now}, ${now}
    from jsonb_to_recordset(${tx.json(deals as never)}) as r("id" uuid, title text, pipeline text, stage text, amount float8, "companyId" uuid, "personId" uuid, "tripId" uuid)
    on conflict (id) do nothing`;
}

/** Deals with any of these people or companies. */
export async function dealsWith(tx: Tx, people: readonly string[], companies: readonly string[]): Promise<KnownDeal[]> {
  return [
    ...(await tx<KnownDeal[]>`select id, title, pipeline, stage, company_id, person_id from deal
      where person_id = any(${[...people]}::uuid[]) or company_id = any(${[...companies]}::uuid[]) order by created_at desc, id`),
  ];
}

export async function pageDeals(
  tx: Tx,
  ask: {
    readonly search: string;
    readonly before: { readonly at: Instant; readonly id: string } | null;
    readonly limit: number;
    readonly personId?: string;
    readonly companyId?: string;
    readonly id?: string;
    /** a compiled condition, with the instant and the zone its days are counted in */
    readonly where?: { readonly pieces: readonly SqlPiece[]; readonly now: Instant; readonly zone: string };
  },
): Promise<DealRow[]> {
  return [
    ...(await tx<DealRow[]>`
    select d.id, d.title, d.pipeline, d.stage, d.amount, d.company_id, c.name as company_name, d.person_id, p.name as person_name, u.name as owner_name, d.stage_since, d.created_at
    from deal d left join company c on c.id = d.company_id left join person p on p.id = d.person_id left join app_user u on u.id = d.owner_id
      ${ask.where ? counted(tx, ask.where.now, ask.where.zone) : tx``}
    where true
      ${ask.where ? tx`and ${whereOf(tx, ask.where.pieces)}` : tx``}
      ${ask.search === '' ? tx`` : tx`and (d.title ilike ${like(ask.search)} or d.company_id = any(${companiesLike(tx, ask.search)}))`}
      ${ask.personId === undefined ? tx`` : tx`and d.person_id = ${ask.personId}`}
      ${ask.companyId === undefined ? tx`` : tx`and d.company_id = ${ask.companyId}`}
      ${ask.id === undefined ? tx`` : tx`and d.id = ${ask.id}`}
      ${ask.before ? tx`and (d.created_at, d.id) < (${ask.before.at}::timestamptz, ${ask.before.id}::uuid)` : tx``}
    order by d.created_at desc, d.id desc limit ${ask.limit}`),
  ];
}

export async function moveDeal(tx: Tx, id: string, stage: string, now: Instant): Promise<void> {
  await tx`update deal set stage = ${stage}, stage_since = ${now} where id = ${id} and stage <> ${stage}`;
}

/** How many deals stand at each stage of a pipeline. */
export async function dealsByStage(tx: Tx, pipeline: string): Promise<Readonly<Record<string, number>>> {
  const rows = await tx<
    { stage: string; n: number }[]
  >`select stage, count(*)::int as n from deal where pipeline = ${pipeline} group by stage`;
  return Object.fromEntries(rows.map((row) => [row.stage, row.n]));
}

/** Moves all deals of a stage; those of one that only has another name have stood there as long as before. */
export async function moveStage(
  tx: Tx,
  ask: { readonly pipeline: string; readonly from: string; readonly to: string; readonly renamed: boolean },
  now: Instant,
): Promise<void> {
  await tx`delete from stage_alias where pipeline = ${ask.pipeline} and was = ${ask.to}`;
  await tx`update stage_alias set name = ${ask.to} where pipeline = ${ask.pipeline} and name = ${ask.from}`;
  await tx`insert into stage_alias (pipeline, was, name) values (${ask.pipeline}, ${ask.from}, ${ask.to}) on conflict (pipeline, was) do update set name = excluded.name`;
  await tx`update deal set stage = ${ask.to} ${ask.renamed ? tx`` : tx`, stage_since = ${now}`} where pipeline = ${ask.pipeline} and stage = ${ask.from}`;
}

/** What a stage is called now that a live flow names as it was. */
export async function stageNow(tx: Tx, pipeline: string, stage: string): Promise<string> {
  const [row] = await tx<{ name: string }[]>`select name from stage_alias where pipeline = ${pipeline} and was = ${stage}`;
  return row?.name ?? stage;
}

export async function pipelineOfDeal(tx: Tx, dealId: string): Promise<string> {
  const [row] = await tx<{ pipeline: string }[]>`select pipeline from deal where id = ${dealId}`;
  return row?.pipeline ?? '';
}

export async function renamePipeline(tx: Tx, from: string, to: string): Promise<void> {
  await tx`update stage_alias set pipeline = ${to} where pipeline = ${from}`;
  await tx`update deal set pipeline = ${to} where pipeline = ${from}`;
}
