import type { Instant, RecordKind } from '../../../core/base';
import { STANDARD_FIELDS, type FactValue } from '../../../core/fields';
import type { MatchCompany, MatchPerson } from '../../../core/match';
import type { RecordView } from '../../../core/engine';
import type { SqlPiece } from '../../../core/feel';
import type { Tx } from '../../db';
import { whereOf } from './conditions';

export interface NewPerson {
  readonly id: string;
  readonly values: Readonly<Record<string, unknown>>;
  readonly companyId: string | null;
  readonly matchKeys: readonly string[];
}
export interface NewCompany {
  readonly id: string;
  readonly values: Readonly<Record<string, unknown>>;
  readonly matchKeys: readonly string[];
}

/** The columns that hold values of standard fields. */
const COLUMNS: Readonly<Record<RecordKind, readonly string[]>> = {
  person: columnsOf('person'),
  company: columnsOf('company'),
  deal: columnsOf('deal'),
  opening: columnsOf('opening'),
  application: columnsOf('application'),
};
function columnsOf(kind: RecordKind): readonly string[] {
  return STANDARD_FIELDS.filter((field) => field.record === kind && !field.isComputed).map((field) => field.key);
}

/** Values by their place: those of columns by themselves, all others together as the record's own. */
function placed(kind: RecordKind, values: Readonly<Record<string, unknown>>): Record<string, unknown> {
  const entries = Object.entries(values);
  const isColumn = ([key]: readonly [string, unknown]): boolean => COLUMNS[kind].includes(key);
  return {
    ...Object.fromEntries(entries.filter(isColumn)),
    custom: Object.fromEntries(entries.filter((entry) => !isColumn(entry) && entry[1] !== null && entry[1] !== undefined)),
  };
}

/** Inserts rows from JSON objects of values by field; ids that exist already are left alone (the same intake again). */
export async function insertPeople(tx: Tx, people: readonly NewPerson[], now: Instant): Promise<void> {
  if (people.length === 0) return;
  const rows = people.map((person) => ({
    ...placed('person', person.values),
    id: person.id,
    company_id: person.companyId,
    match_keys: person.matchKeys,
    created_at: new Date(now).toISOString(),
  }));
  await tx`insert into person select * from jsonb_populate_recordset(null::person, ${tx.json(rows)}) on conflict (id) do nothing`;
}

export async function insertCompanies(tx: Tx, companies: readonly NewCompany[], now: Instant): Promise<void> {
  if (companies.length === 0) return;
  const rows = companies.map((company) => ({
    ...placed('company', company.values),
    id: company.id,
    match_keys: company.matchKeys,
    created_at: new Date(now).toISOString(),
  }));
  await tx`insert into company select * from jsonb_populate_recordset(null::company, ${tx.json(rows)}) on conflict (id) do nothing`;
}

/**
 * Writes chosen current values onto the records: `patches` maps field to value; other fields stay. What is no field of the
 * workspace, or not of its field's type, is left out, so that conditions can rely on what they read.
 */
export async function patchRecords(
  tx: Tx,
  kind: RecordKind,
  patches: readonly { readonly id: string; readonly patch: Readonly<Record<string, unknown>> }[],
): Promise<void> {
  if (patches.length === 0) return;
  const rows = tx.json(patches as never);
  const columns = [...COLUMNS[kind], ...(kind === 'person' || kind === 'company' ? ['match_keys'] : [])];
  const standard = columns.length === 0 ? tx`` : tx`(${tx(columns)}) = (select ${tx(columns)} from jsonb_populate_record(t, r.patch) n),`;
  await tx`update ${tx(kind)} t set ${standard}
      custom = jsonb_strip_nulls((t.custom - array(select jsonb_object_keys(r.patch))) || coalesce((
        select jsonb_object_agg(v.key, v.value) from jsonb_each(r.patch) v join field f on f.record_kind = ${kind} and f.key = v.key
        where not (v.key = any(${columns}::text[])) and fits_field(f.body ->> 'type', v.value)), '{}'))
    from jsonb_to_recordset(${rows}) as r(id uuid, patch jsonb) where t.id = r.id`;
}

export interface KeyedValues {
  readonly id: string;
  readonly name: string;
  readonly email: string | null;
  readonly phone: string | null;
  readonly website: string | null;
}
/** The values that blocking keys are made from. */
export async function keyedValues(tx: Tx, kind: 'person' | 'company', ids: readonly string[]): Promise<KeyedValues[]> {
  return [
    ...(kind === 'person'
      ? await tx<KeyedValues[]>`select id, name, email, phone, null as website from person where id = any(${[...ids]})`
      : await tx<KeyedValues[]>`select id, name, null as email, phone, website from company where id = any(${[...ids]})`),
  ];
}

/** Locks records in id order, so that two writers of the same records wait instead of deadlocking. */
export async function lockRecords(tx: Tx, kind: RecordKind, ids: readonly string[]): Promise<void> {
  const sorted = [...new Set(ids)].sort();
  await tx`select 1 from ${tx(kind)} where id = any(${sorted}) order by id for update`;
}

/** What conditions and slots see, by person. */
export async function loadViews(tx: Tx, personIds: readonly string[]): Promise<Map<string, RecordView>> {
  const rows = await tx<{ id: string; person: RecordView['person']; company: RecordView['company'] }[]>`
    select p.id, p.custom || (to_jsonb(p) - '{match_keys,custom,merged_into,company_id,owner_id,created_at}'::text[]) as person,
      case when c.id is null then null else c.custom || (to_jsonb(c) - '{match_keys,custom,merged_into,created_at}'::text[]) end as company
    from person p left join company c on c.id = p.company_id where p.id = any(${[...personIds]})`;
  return new Map(rows.map((row) => [row.id, { person: row.person, company: row.company, deal: null }]));
}

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
export async function duePeople(tx: Tx, where: readonly SqlPiece[], limit: number, among?: readonly string[]): Promise<string[]> {
  const rows = await tx<{ id: string }[]>`
    select p.id from person p left join company c on c.id = p.company_id where p.merged_into is null and ${among ? tx`p.id = any(${[...among]}::uuid[])` : tx`true`} and ${whereOf(tx, where)} order by p.created_at, p.id limit ${limit}`;
  return rows.map((row) => row.id);
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

/** People that share a blocking key. Merged ones are left out. */
/** Of a key that more records share, so many are looked at: one that many share tells nobody apart. */
const PER_KEY = 25;

const sharing = (tx: Tx, kind: 'person' | 'company', keys: readonly string[]): ReturnType<Tx> => tx`
  select k.record_id from unnest(${[...keys]}::text[]) as asked(key)
    cross join lateral (select record_id from match_key where kind = ${kind} and match_key.key = asked.key order by record_id limit ${PER_KEY}) k`;

/** People who share a key with any of these, at most `PER_KEY` for each key. */
export async function peopleByKeys(tx: Tx, keys: readonly string[]): Promise<MatchPerson[]> {
  if (keys.length === 0) return [];
  return [
    ...(await tx<MatchPerson[]>`
    select p.id, p.name, p.email, p.phone, p.company_id, c.name as company_name from person p left join company c on c.id = p.company_id
    where p.id in (${sharing(tx, 'person', keys)}) order by p.id`),
  ];
}

/** Companies that share a key with any of these, at most `PER_KEY` for each key. */
export async function companiesByKeys(tx: Tx, keys: readonly string[]): Promise<MatchCompany[]> {
  if (keys.length === 0) return [];
  return [
    ...(await tx<MatchCompany[]>`
    select id, name, website, phone, city, country from company
    where id in (${sharing(tx, 'company', keys)}) order by id`),
  ];
}

export type OwnValues = Readonly<Record<string, FactValue>>;

export interface PersonRow {
  readonly id: string;
  readonly name: string;
  readonly firstName: string | null;
  readonly lastName: string | null;
  readonly jobTitle: string | null;
  readonly email: string | null;
  readonly phone: string | null;
  readonly language: string | null;
  readonly status: string | null;
  readonly metAt: string | null;
  /** values of the workspace's own fields, by their keys */
  readonly own: OwnValues;
  readonly companyId: string | null;
  readonly companyName: string | null;
  readonly ownerName: string | null;
  readonly createdAt: Instant;
  readonly mergedInto: string | null;
}

const like = (search: string): string => `%${search.replace(/[\\%_]/g, '\\$&')}%`;
/** Found first and as a whole, so that what is looked for in them can be looked for by index. */
const companiesLike = (tx: Tx, search: string) =>
  tx`array(select id from company where merged_into is null and name ilike ${like(search)})`;

interface PageOf {
  readonly search: string;
  readonly before: { readonly at: Instant; readonly id: string } | null;
  readonly limit: number;
  /** a compiled condition */
  readonly where?: readonly SqlPiece[];
}

/** A page of people, newest first; the cursor is the last row's time and id. */
export async function pagePeople(tx: Tx, ask: PageOf): Promise<PersonRow[]> {
  return [
    ...(await tx<PersonRow[]>`
    select p.id, p.name, p.first_name, p.last_name, p.job_title, p.email, p.phone, p.language, p.status, p.met_at, p.custom as own, p.company_id, c.name as company_name, u.name as owner_name, p.created_at, p.merged_into
    from person p left join company c on c.id = p.company_id left join app_user u on u.id = p.owner_id
    where p.merged_into is null
      ${ask.search === '' ? tx`` : tx`and (p.name ilike ${like(ask.search)} or p.email ilike ${like(ask.search)} or p.company_id = any(${companiesLike(tx, ask.search)}))`}
      ${ask.where ? tx`and ${whereOf(tx, ask.where)}` : tx``}
      ${ask.before ? tx`and (p.created_at, p.id) < (${ask.before.at}::timestamptz, ${ask.before.id}::uuid)` : tx``}
    order by p.created_at desc, p.id desc limit ${ask.limit}`),
  ];
}

export async function findPerson(tx: Tx, id: string): Promise<PersonRow | undefined> {
  const [row] = await tx<PersonRow[]>`
    select p.id, p.name, p.first_name, p.last_name, p.job_title, p.email, p.phone, p.language, p.status, p.met_at, p.custom as own, p.company_id, c.name as company_name, u.name as owner_name, p.created_at, p.merged_into
    from person p left join company c on c.id = p.company_id left join app_user u on u.id = p.owner_id where p.id = ${id}`;
  return row;
}

export interface CompanyRow {
  readonly id: string;
  readonly name: string;
  readonly website: string | null;
  readonly phone: string | null;
  readonly city: string | null;
  readonly country: string | null;
  readonly status: string | null;
  /** values of the workspace's own fields, by their keys */
  readonly own: OwnValues;
  readonly people: number;
  readonly createdAt: Instant;
  readonly mergedInto: string | null;
}

export async function pageCompanies(tx: Tx, ask: PageOf): Promise<CompanyRow[]> {
  return [
    ...(await tx<CompanyRow[]>`
    select c.id, c.name, c.website, c.phone, c.city, c.country, c.status, c.custom as own, c.created_at, c.merged_into,
      (select count(*)::int from person p where p.company_id = c.id and p.merged_into is null) as people
    from company c where c.merged_into is null
      ${ask.search === '' ? tx`` : tx`and (c.name ilike ${like(ask.search)} or c.website ilike ${like(ask.search)} or c.city ilike ${like(ask.search)})`}
      ${ask.where ? tx`and ${whereOf(tx, ask.where)}` : tx``}
      ${ask.before ? tx`and (c.created_at, c.id) < (${ask.before.at}::timestamptz, ${ask.before.id}::uuid)` : tx``}
    order by c.created_at desc, c.id desc limit ${ask.limit}`),
  ];
}

export async function findCompany(tx: Tx, id: string): Promise<CompanyRow | undefined> {
  const [row] = await tx<CompanyRow[]>`
    select c.id, c.name, c.website, c.phone, c.city, c.country, c.status, c.custom as own, c.created_at, c.merged_into,
      (select count(*)::int from person p where p.company_id = c.id and p.merged_into is null) as people
    from company c where c.id = ${id}`;
  return row;
}

export async function peopleOfCompany(tx: Tx, companyId: string): Promise<PersonRow[]> {
  return [
    ...(await tx<PersonRow[]>`
    select p.id, p.name, p.first_name, p.last_name, p.job_title, p.email, p.phone, p.language, p.status, p.met_at, p.custom as own, p.company_id, null as company_name, u.name as owner_name, p.created_at, p.merged_into
    from person p left join app_user u on u.id = p.owner_id where p.company_id = ${companyId} and p.merged_into is null order by p.name`),
  ];
}

export async function countWhere(tx: Tx, about: 'person' | 'company', where: readonly SqlPiece[]): Promise<number> {
  const [row] =
    about === 'person'
      ? await tx<
          { n: number }[]
        >`select count(*)::int as n from person p left join company c on c.id = p.company_id where p.merged_into is null and ${whereOf(tx, where)}`
      : await tx<{ n: number }[]>`select count(*)::int as n from company c where c.merged_into is null and ${whereOf(tx, where)}`;
  return row?.n ?? 0;
}

export interface RecordCounts {
  readonly people: number;
  readonly companies: number;
  readonly deals: number;
}
export async function countRecords(tx: Tx): Promise<RecordCounts> {
  const [row] = await tx<
    RecordCounts[]
  >`select (select count(*)::int from person where merged_into is null) as people, (select count(*)::int from company where merged_into is null) as companies, (select count(*)::int from deal) as deals`;
  return row ?? { people: 0, companies: 0, deals: 0 };
}

export async function setOwner(tx: Tx, what: 'person' | 'deal' | 'application', id: string, userId: string): Promise<void> {
  await tx`update ${tx(what)} set owner_id = ${userId} where id = ${id}`;
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

export async function insertDeal(
  tx: Tx,
  deal: {
    readonly id: string;
    readonly title: string;
    readonly pipeline: string;
    readonly stage: string;
    readonly amount: number | null;
    readonly companyId: string | null;
    readonly personId: string | null;
    readonly tripId: string | null;
  },
  now: Instant,
): Promise<void> {
  await tx`insert into deal (id, title, pipeline, stage, amount, company_id, person_id, trip_id, stage_since, created_at)
    values (${deal.id}, ${deal.title}, ${deal.pipeline}, ${deal.stage}, ${deal.amount}, ${deal.companyId}, ${deal.personId}, ${deal.tripId}, ${now}, ${now}) on conflict (id) do nothing`;
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

/** Records made since an instant. */
export async function madeSince(
  tx: Tx,
  since: Instant,
): Promise<{ readonly people: number; readonly companies: number; readonly deals: number }> {
  const [row] = await tx<{ people: number; companies: number; deals: number }[]>`select
    (select count(*)::int from person where created_at >= ${since} and merged_into is null) as people,
    (select count(*)::int from company where created_at >= ${since} and merged_into is null) as companies,
    (select count(*)::int from deal where created_at >= ${since}) as deals`;
  return row ?? { people: 0, companies: 0, deals: 0 };
}

/** Who is known by an e-mail address, of ours or in the CRM; null: nobody. */
export async function addressKnown(tx: Tx, email: string): Promise<string | null> {
  const [row] = await tx<{ name: string }[]>`select name from app_user where lower(email) = ${email}
    union all select name from person where lower(email) = ${email} and merged_into is null limit 1`;
  return row?.name ?? null;
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
