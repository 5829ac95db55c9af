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

/** Names of the columns that hold standard fields of a record. */
export const standardColumns = (kind: RecordKind): string[] => [...COLUMNS[kind]];

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
  readonly otherEmail: string | null;
  readonly mobile: string | null;
  readonly website: string | null;
}
/** The values that blocking keys are made from. */
export async function keyedValues(tx: Tx, kind: 'person' | 'company', ids: readonly string[]): Promise<KeyedValues[]> {
  return [
    ...(kind === 'person'
      ? await tx<KeyedValues[]>`select id, name, email, phone, other_email, mobile, null as website from person where id = any(${[...ids]})`
      : await tx<
          KeyedValues[]
        >`select id, name, null as email, phone, null as other_email, null as mobile, website from company where id = any(${[...ids]})`),
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
export async function duePeople(tx: Tx, where: readonly SqlPiece[], limit: number, among?: readonly string[]): Promise<string[]> {
  const rows = await tx<{ id: string }[]>`
    select p.id from person p left join company c on c.id = p.company_id where p.merged_into is null and ${among ? tx`p.id = any(${[...among]}::uuid[])` : tx`true`} and ${whereOf(tx, where)} order by p.created_at, p.id limit ${limit}`;
  return rows.map((row) => row.id);
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
    select p.id, p.name, p.email, p.phone, p.other_email, p.mobile, p.company_id, c.name as company_name from person p left join company c on c.id = p.company_id
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
  readonly otherEmail: string | null;
  readonly mobile: string | null;
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

export const like = (search: string): string => `%${search.replace(/[\\%_]/g, '\\$&')}%`;
/** Found first and as a whole, so that what is looked for in them can be looked for by index. */
export const companiesLike = (tx: Tx, search: string) =>
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
    select p.id, p.name, p.first_name, p.last_name, p.job_title, p.email, p.phone, p.other_email, p.mobile, p.language, p.status, p.met_at, p.custom as own, p.company_id, c.name as company_name, u.name as owner_name, p.created_at, p.merged_into
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
    select p.id, p.name, p.first_name, p.last_name, p.job_title, p.email, p.phone, p.other_email, p.mobile, p.language, p.status, p.met_at, p.custom as own, p.company_id, c.name as company_name, u.name as owner_name, p.created_at, p.merged_into
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
    select p.id, p.name, p.first_name, p.last_name, p.job_title, p.email, p.phone, p.other_email, p.mobile, p.language, p.status, p.met_at, p.custom as own, p.company_id, null as company_name, u.name as owner_name, p.created_at, p.merged_into
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
