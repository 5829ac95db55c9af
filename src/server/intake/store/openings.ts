import type { Instant } from '../../../core/base';
import type { OpeningBody } from '../../../core/hiring';
import type { KnownApplication } from '../../../core/intake';
import type { Tx } from '../../db';
import type { OwnValues } from '../../records/store/records';

export interface OpeningRow {
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly description: string;
  readonly criteria: readonly string[];
  readonly stages: readonly string[];
  readonly isOpen: boolean;
  readonly createdAt: Instant;
  readonly applications: number;
  /** values of its own fields, by their keys */
  readonly own: OwnValues;
}
const columns = (tx: Tx) =>
  tx`o.id, o.name, o.place, o.description, o.criteria, o.stages, o.is_open, o.created_at, o.custom as own, (select count(*)::int from application a where a.opening_id = o.id) as applications`;

export async function listOpenings(tx: Tx): Promise<OpeningRow[]> {
  return [...(await tx<OpeningRow[]>`select ${columns(tx)} from opening o order by o.is_open desc, o.name`)];
}
export async function findOpening(tx: Tx, id: string): Promise<OpeningRow | undefined> {
  const [row] = await tx<OpeningRow[]>`select ${columns(tx)} from opening o where o.id = ${id}`;
  return row;
}
export async function openingNamed(tx: Tx, name: string): Promise<OpeningRow | undefined> {
  const [row] = await tx<OpeningRow[]>`select ${columns(tx)} from opening o where o.name = ${name}`;
  return row;
}
/** False when there is one of that name. */
export async function insertOpening(
  tx: Tx,
  opening: OpeningBody & { readonly id: string; readonly name: string; readonly userId: string | null },
  now: Instant,
): Promise<boolean> {
  const rows = await tx`insert into opening (id, name, place, description, criteria, stages, is_open, created_by, created_at)
    values (${opening.id}, ${opening.name}, ${opening.place}, ${opening.description}, ${[...opening.criteria]}, ${[...opening.stages]}, ${opening.isOpen}, ${opening.userId}, ${now})
    on conflict do nothing returning id`;
  return rows.length > 0;
}
export async function updateOpening(tx: Tx, id: string, body: OpeningBody): Promise<void> {
  await tx`update opening set place = ${body.place}, description = ${body.description}, criteria = ${[...body.criteria]}, stages = ${[...body.stages]}, is_open = ${body.isOpen} where id = ${id}`;
}

export interface ApplicationRow {
  readonly id: string;
  readonly openingId: string;
  readonly openingName: string;
  readonly stages: readonly string[];
  readonly personId: string;
  readonly personName: string;
  readonly stage: string;
  readonly stageSince: Instant;
  readonly ownerName: string | null;
  readonly createdAt: Instant;
  readonly education: string | null;
  /** values of the person's own fields, by their keys */
  readonly own: OwnValues;
  /** values of the application's own fields */
  readonly values: OwnValues;
  readonly years: number | null;
  readonly languages: string | null;
  readonly driving: boolean | null;
  readonly place: string | null;
}

const applications = (tx: Tx) =>
  tx`select a.id, a.opening_id, o.name as opening_name, o.stages, a.person_id, p.name as person_name, a.stage, a.stage_since, u.name as owner_name, a.created_at,
    p.education, p.custom as own, a.custom as values, p.years, p.languages, p.driving, p.place
    from application a join opening o on o.id = a.opening_id join person p on p.id = a.person_id left join app_user u on u.id = a.owner_id`;

/** Newest first. */
export async function applicationsOf(
  tx: Tx,
  of: { readonly openingId: string } | { readonly personId: string },
  limit: number,
): Promise<ApplicationRow[]> {
  const where = 'openingId' in of ? tx`a.opening_id = ${of.openingId}` : tx`a.person_id = ${of.personId}`;
  return [...(await tx<ApplicationRow[]>`${applications(tx)} where ${where} order by a.created_at desc, a.id limit ${limit}`)];
}
export async function findApplication(tx: Tx, id: string): Promise<ApplicationRow | undefined> {
  const [row] = await tx<ApplicationRow[]>`${applications(tx)} where a.id = ${id}`;
  return row;
}
export interface NewApplication {
  readonly id: string;
  readonly openingId: string;
  readonly personId: string;
  readonly stage: string;
  readonly tripId: string | null;
}
/** False when this person has applied for it already. */
export async function insertApplication(tx: Tx, application: NewApplication, now: Instant): Promise<boolean> {
  return (await insertApplications(tx, [application], now)) > 0;
}
/** Who has applied for one already has not again. Returns how many were made. */
export async function insertApplications(tx: Tx, applications: readonly NewApplication[], now: Instant): Promise<number> {
  if (applications.length === 0) return 0;
  const rows = await tx`insert into application (id, opening_id, person_id, stage, trip_id, stage_since, created_at)
    select "id", "openingId", "personId", stage, "tripId", ${now}, ${now}
    from jsonb_to_recordset(${tx.json(applications as never)}) as r("id" uuid, "openingId" uuid, "personId" uuid, stage text, "tripId" uuid)
    on conflict do nothing returning id`;
  return rows.length;
}
export async function applicationsBy(tx: Tx, people: readonly string[]): Promise<KnownApplication[]> {
  return [
    ...(await tx<
      KnownApplication[]
    >`select id, opening_id, person_id, stage from application where person_id = any(${[...people]}::uuid[])`),
  ];
}
/** What openings say of themselves in fields of their own, by their names. */
export async function openingValues(tx: Tx, names: readonly string[]): Promise<Readonly<Record<string, OwnValues>>> {
  const rows = await tx<{ name: string; own: OwnValues }[]>`select name, custom as own from opening where name = any(${[...names]})`;
  return Object.fromEntries(rows.map((row) => [row.name, row.own]));
}
/** Where applications stand, and the values of their own fields, by their ids. */
export async function applicationValues(tx: Tx, ids: readonly string[]): Promise<Readonly<Record<string, OwnValues>>> {
  const rows = await tx<{ id: string; own: OwnValues }[]>`
    select id, custom || jsonb_build_object('stage', stage) as own from application where id = any(${[...ids]}::uuid[])`;
  return Object.fromEntries(rows.map((row) => [row.id, row.own]));
}
export async function moveApplication(tx: Tx, id: string, stage: string, now: Instant): Promise<void> {
  await tx`update application set stage = ${stage}, stage_since = ${now} where id = ${id} and stage <> ${stage}`;
}
