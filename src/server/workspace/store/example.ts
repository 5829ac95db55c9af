/** Taking away what came as an example, and what became of it. */
import type { Tx } from '../../db';

export interface ExampleRows {
  readonly people: readonly string[];
  readonly companies: readonly string[];
  readonly flows: readonly string[];
  readonly things: readonly string[];
}

/** Addresses of people, and mails of theirs that are leaving right now or of which nobody knows whether they left. */
export async function addressesOf(tx: Tx, people: readonly string[]): Promise<string[]> {
  const rows = await tx<{ email: string }[]>`select email from person where id = any(${[...people]}::uuid[]) and email is not null`;
  return rows.map((row) => row.email);
}
export async function tripsOfFlows(tx: Tx, flows: readonly string[]): Promise<string[]> {
  return (await tx<{ id: string }[]>`select id from trip where flow_id = any(${[...flows]}::uuid[])`).map((row) => row.id);
}

/** Records of one's own that were joined with one of the example stand alone again; those that belong to its companies, to none. */
export async function partFromExample(tx: Tx, { people, companies }: ExampleRows): Promise<void> {
  const [them, firms] = [[...people], [...companies]];
  await tx`update person set merged_into = null where merged_into = any(${them}::uuid[]) and not id = any(${them}::uuid[])`;
  await tx`update company set merged_into = null where merged_into = any(${firms}::uuid[]) and not id = any(${firms}::uuid[])`;
  await tx`update person set company_id = null where company_id = any(${firms}::uuid[]) and not id = any(${them}::uuid[])`;
}

/** Its flows with their trips, its deals and companies, its things. People are erased before. */
export async function dropExample(tx: Tx, { people, companies, flows, things }: ExampleRows, trips: readonly string[]): Promise<void> {
  const [firms, own, made] = [[...companies], [...flows], [...things]];
  const deals = tx`select id from deal where company_id = any(${firms}::uuid[]) or person_id = any(${[...people]}::uuid[]) or trip_id = any(${[...trips]}::uuid[])`;
  const gone = (await tx<{ id: string }[]>`${deals}`).map((row) => row.id);
  await tx`delete from deal where id = any(${gone}::uuid[])`;
  const records = [...firms, ...gone];
  await tx`delete from field_value_was where fact_id in (select id from fact where record_id = any(${records}::uuid[]))`;
  await tx`delete from fact where record_id = any(${records}::uuid[])`;
  for (const table of ['timeline', 'dossier', 'research_job', 'research_seen', 'record_change', 'match_key'])
    await tx`delete from ${tx(table)} where record_id = any(${records}::uuid[])`;
  await tx`delete from pair where kind = 'company' and (a_id = any(${firms}::uuid[]) or b_id = any(${firms}::uuid[]))`;
  await tx`delete from merge where kind = 'company' and (from_id = any(${firms}::uuid[]) or into_id = any(${firms}::uuid[]))`;
  await tx`update company set merged_into = null where id = any(${firms}::uuid[])`;
  await tx`update flow set live_version_id = null where id = any(${own}::uuid[])`;
  await tx`update fact set trip_id = null where trip_id = any(${[...trips]}::uuid[])`;
  await tx`delete from trip where id = any(${[...trips]}::uuid[])`;
  await tx`delete from flow where id = any(${own}::uuid[])`;
  await tx`delete from company where id = any(${firms}::uuid[])`;
  await tx`delete from library_item where id = any(${made}::uuid[])`;
}

/** Flows that trips are of. */
export async function flowsOfTrips(tx: Tx, trips: readonly string[]): Promise<string[]> {
  return (await tx<{ flowId: string }[]>`select distinct flow_id from trip where id = any(${[...trips]}::uuid[])`).map((row) => row.flowId);
}

/** Of these records' field, whether any other record has a value in it. */
export async function isFilledElsewhere(tx: Tx, field: string, records: readonly string[]): Promise<boolean> {
  const [row] = await tx<
    { any: boolean }[]
  >`select exists (select 1 from fact where field = ${field} and not record_id = any(${[...records]}::uuid[])) as any`;
  return row?.any === true;
}
