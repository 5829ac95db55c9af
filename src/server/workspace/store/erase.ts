/** Everything that is kept of a person, counted, copied and taken away. */
import { createHash, randomBytes } from 'node:crypto';
import type { Instant } from '../../../core/base';
import type { Tx } from '../../db';

/** The person and all that was merged into them. */
export async function allOf(tx: Tx, id: string): Promise<string[]> {
  const rows = await tx<{ id: string }[]>`with recursive one as (
    select id from person where id = ${id} union select p.id from person p join one on p.merged_into = one.id) select id from one`;
  return rows.map((row) => row.id);
}
export async function tripsOf(tx: Tx, ids: readonly string[]): Promise<string[]> {
  return (await tx<{ id: string }[]>`select id from trip where person_id = any(${[...ids]}::uuid[])`).map((row) => row.id);
}

export interface Holdings {
  readonly facts: number;
  readonly messages: number;
  readonly trips: number;
  readonly entries: number;
  readonly files: number;
  readonly rows: number;
  readonly applications: number;
  readonly deals: number;
  /** a message is leaving right now, or nobody knows whether it left */
  readonly leaving: number;
}
export async function holdingsOf(tx: Tx, ids: readonly string[], emails: readonly string[]): Promise<Holdings> {
  const people = [...ids];
  const [row] = await tx<Holdings[]>`select
    (select count(*)::int from fact where record_id = any(${people}::uuid[])
      or record_id in (select id from application where person_id = any(${people}::uuid[]))) as facts,
    (select count(*)::int from message where person_id = any(${people}::uuid[]) or from_address = any(${[...emails]}::text[])) as messages,
    (select count(*)::int from trip where person_id = any(${people}::uuid[])) as trips,
    (select count(*)::int from intake_entry where person_id = any(${people}::uuid[])) as entries,
    (select count(*)::int from stored_file f join intake_entry e on e.id = f.entry_id where e.person_id = any(${people}::uuid[])) as files,
    (select count(*)::int from import_row where person_id = any(${people}::uuid[])) as rows,
    (select count(*)::int from application where person_id = any(${people}::uuid[])) as applications,
    (select count(*)::int from deal where person_id = any(${people}::uuid[])) as deals,
    (select count(*)::int from effect where person_id = any(${people}::uuid[]) and state in ('started', 'in doubt')) as leaving`;
  if (!row) throw new Error('counting gives a row');
  return row;
}

/** Rows of lists that a person was made from, with the piece of the list they lie in. */
export async function listRowsOf(tx: Tx, ids: readonly string[]): Promise<{ readonly importId: string; readonly row: number }[]> {
  return [
    ...(await tx<{ importId: string; row: number }[]>`select import_id, row from import_row where person_id = any(${[...ids]}::uuid[])`),
  ];
}
export async function putPiece(tx: Tx, importId: string, no: number, bytes: Uint8Array): Promise<void> {
  await tx`update import_piece set bytes = ${Buffer.from(bytes)} where import_id = ${importId} and no = ${no}`;
}

/** Takes away all of it. Deals stay with their company; the audit stays. */
export async function eraseAll(tx: Tx, ids: readonly string[], trips: readonly string[], emails: readonly string[]): Promise<void> {
  const people = [...ids];
  const own = [...trips];
  const addresses = [...emails];
  await tx`delete from effect where trip_id = any(${own}::uuid[]) or person_id = any(${people}::uuid[])
    or message_id in (select id from message where person_id = any(${people}::uuid[]) or from_address = any(${addresses}::text[]))`;
  await tx`delete from review where trip_id = any(${own}::uuid[])`;
  await tx`delete from message where trip_id = any(${own}::uuid[]) or person_id = any(${people}::uuid[]) or from_address = any(${addresses}::text[])
    or thread_id in (select id from thread where person_id = any(${people}::uuid[]))`;
  await tx`delete from thread where trip_id = any(${own}::uuid[]) or person_id = any(${people}::uuid[])`;
  await tx`delete from notice where trip_id = any(${own}::uuid[]) or person_id = any(${people}::uuid[])`;
  await tx`delete from screen_example where trip_id = any(${own}::uuid[])`;
  const applied = tx`select id from application where person_id = any(${people}::uuid[])`;
  await tx`delete from field_value_was where fact_id in (select id from fact where record_id in (${applied}))`;
  await tx`delete from fact where record_id in (${applied})`;
  await tx`delete from application where person_id = any(${people}::uuid[])`;
  await tx`update deal set person_id = null where person_id = any(${people}::uuid[])`;
  await tx`update deal set trip_id = null where trip_id = any(${own}::uuid[])`;
  await tx`delete from intake_entry where person_id = any(${people}::uuid[])`;
  await tx`update import_row set cells = null, person_id = null where person_id = any(${people}::uuid[])`;
  await tx`delete from pair where kind = 'person' and (a_id = any(${people}::uuid[]) or b_id = any(${people}::uuid[]))`;
  await tx`delete from merge where kind = 'person' and (from_id = any(${people}::uuid[]) or into_id = any(${people}::uuid[]))`;
  await tx`delete from field_value_was where fact_id in (select id from fact where record_id = any(${people}::uuid[]))`;
  await tx`delete from fact where record_id = any(${people}::uuid[])`;
  await tx`update fact set trip_id = null where trip_id = any(${own}::uuid[])`;
  await tx`delete from timeline where record_id = any(${people}::uuid[])`;
  await tx`delete from dossier where record_id = any(${people}::uuid[])`;
  await tx`delete from research_job where record_id = any(${people}::uuid[])`;
  await tx`delete from research_seen where record_id = any(${people}::uuid[])`;
  await tx`delete from record_change where record_id = any(${people}::uuid[])`;
  await tx`delete from match_key where record_id = any(${people}::uuid[])`;
  await tx`delete from trip where id = any(${own}::uuid[])`;
  await tx`delete from do_not_contact where email = any(${addresses}::text[])`;
  await tx`delete from set_aside where ${addresses.length > 0} and exists (select 1 from unnest(${addresses}::text[]) a where starts_with(lower(says), a))`;
  await tx`delete from person where id = any(${people}::uuid[]) and id <> ${people[0] ?? ''}`;
  await tx`delete from person where id = any(${people}::uuid[])`;
}

const SALT = 'erase salt';
/** Digests of addresses under the workspace's own salt, which no backup of another has. */
export async function digestsOf(tx: Tx, emails: readonly string[]): Promise<ReadonlyMap<string, string>> {
  await tx`insert into setting (key, value) values (${SALT}, ${tx.json(randomBytes(24).toString('base64url'))}) on conflict (key) do nothing`;
  const [salt] = await tx<{ value: string }[]>`select value from setting where key = ${SALT}`;
  return new Map(
    emails.map((email) => [
      email,
      createHash('sha256')
        .update(`${salt?.value ?? ''}\n${email.trim().toLowerCase()}`)
        .digest('base64url'),
    ]),
  );
}
export async function putErased(tx: Tx, emails: readonly string[], at: Instant): Promise<void> {
  for (const digest of (await digestsOf(tx, emails)).values())
    await tx`insert into erased (digest, at) values (${digest}, ${at}) on conflict (digest) do nothing`;
}
/** Of these addresses those whose owners were erased, and when. */
export async function erasedAmong(tx: Tx, emails: readonly string[]): Promise<ReadonlyMap<string, Instant>> {
  if (emails.length === 0) return new Map();
  const [any] = await tx<{ any: boolean }[]>`select exists (select 1 from erased) as any`;
  if (any?.any !== true) return new Map();
  const digests = await digestsOf(tx, emails);
  const rows = await tx<
    { digest: string; at: Instant }[]
  >`select digest, at from erased where digest = any(${[...digests.values()]}::text[])`;
  const known = new Map(rows.map((row) => [row.digest, row.at]));
  return new Map([...digests].flatMap(([email, digest]) => (known.has(digest) ? [[email, known.get(digest) ?? 0] as const] : [])));
}
