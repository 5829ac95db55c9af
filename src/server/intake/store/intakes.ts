import type { Instant, JsonObject } from '../../../core/base';
import type { Tx } from '../../db';
import { assertHeld, type Lease } from '../../platform/store/lease';

export interface IntakeRow {
  readonly id: string;
  readonly fence: number;
  readonly kind: 'form' | 'webhook' | 'mailbox' | 'calendar';
  readonly name: string;
  readonly slug: string;
  readonly isOn: boolean;
  readonly body: unknown;
  readonly secret: string | null;
  readonly createdAt: Instant;
  readonly lastAt: Instant | null;
  readonly taken: number;
  readonly refused: number;
  /** of doors that are looked at: how far, when last, and what went wrong then */
  readonly cursor: unknown;
  readonly lookedAt: Instant | null;
  readonly problem: string | null;
}

const columns = (
  tx: Tx,
) => tx`i.id, i.kind, i.name, i.slug, i.is_on, i.body, i.secret, i.created_at, i.last_at, i.cursor, i.looked_at, i.problem, i.fence::float8 as fence,
  (select count(*)::int from intake_entry e where e.intake_id = i.id and e.state = 'taken') as taken,
  (select count(*)::int from intake_entry e where e.intake_id = i.id and e.state = 'refused') as refused`;

export async function listIntakes(tx: Tx): Promise<IntakeRow[]> {
  return [...(await tx<IntakeRow[]>`select ${columns(tx)} from intake i order by i.kind, i.name`)];
}
export async function findIntake(tx: Tx, id: string): Promise<IntakeRow | undefined> {
  const [row] = await tx<IntakeRow[]>`select ${columns(tx)} from intake i where i.id = ${id}`;
  return row;
}
export async function intakeAt(tx: Tx, slug: string): Promise<IntakeRow | undefined> {
  const [row] = await tx<IntakeRow[]>`select ${columns(tx)} from intake i where i.slug = ${slug}`;
  return row;
}

/** False when name or address is another's. */
export async function insertIntake(
  tx: Tx,
  intake: Pick<IntakeRow, 'id' | 'kind' | 'name' | 'slug' | 'body' | 'secret'> & { readonly userId: string | null },
  now: Instant,
): Promise<boolean> {
  const made = await tx`insert into intake (id, kind, name, slug, body, secret, created_by, created_at)
    values (${intake.id}, ${intake.kind}, ${intake.name}, ${intake.slug}, ${tx.json(intake.body as never)}, ${intake.secret}, ${intake.userId}, ${now}) on conflict do nothing returning id`;
  return made.length > 0;
}
export async function updateIntake(tx: Tx, id: string, change: { readonly body: unknown; readonly isOn: boolean }): Promise<void> {
  await tx`update intake set body = ${tx.json(change.body as never)}, is_on = ${change.isOn} where id = ${id}`;
}

/** Changes what opens a door. */
export async function putSecret(tx: Tx, id: string, secret: string): Promise<void> {
  await tx`update intake set secret = ${secret} where id = ${id}`;
}
/** Has a door looked at now. */
export async function lookSoon(tx: Tx, id: string, afresh: boolean): Promise<void> {
  await tx`update intake set look_at = clock_timestamp(), failures = 0, cursor = case when ${afresh} then null else cursor end where id = ${id}`;
}
/** Takes a door that is due to be looked at; nobody else takes it while the lease lasts. */
export async function claimLook(tx: Tx, now: Instant, leaseMs: number): Promise<IntakeRow | undefined> {
  const [row] = await tx<
    IntakeRow[]
  >`update intake i set fence = i.fence + 1, look_at = clock_timestamp() + make_interval(secs => ${leaseMs / 1000}), next_at = null
    where i.id = (select id from intake where is_on and look_at is not null and (look_at <= clock_timestamp() or next_at <= ${now}) order by look_at limit 1 for update skip locked)
    returning ${columns(tx)}`;
  return row;
}
/** Writes down how a look ended; after failures the next one waits longer, up to `maxMs`. Throws `LeaseLost` when somebody else looks by now. */
export async function endLook(
  tx: Tx,
  lease: Lease,
  end: {
    readonly cursor: unknown;
    readonly nextAt: Instant | null;
    readonly problem: string | null;
    readonly everyMs: number;
    readonly maxMs: number;
  },
  now: Instant,
): Promise<void> {
  const rows = await tx`update intake set looked_at = ${now}, next_at = ${end.nextAt}, problem = ${end.problem},
    cursor = coalesce(${end.cursor == null ? null : tx.json(end.cursor as never)}, cursor), failures = case when ${end.problem === null} then 0 else failures + 1 end,
    look_at = clock_timestamp() + make_interval(secs => least(${end.maxMs / 1000}, ${end.everyMs / 1000} * power(2, case when ${end.problem === null} then 0 else least(failures, 8) end)))
    where id = ${lease.id} and fence = ${lease.fence}`;
  assertHeld(rows, 'a door');
}
/** When a door will have something new by itself, by the workspace's clock. */
export async function nextLookDue(tx: Tx, after: Instant): Promise<Instant | null> {
  const [row] = await tx<{ at: Instant | null }[]>`select min(next_at) as at from intake where is_on and next_at > ${after}`;
  return row?.at ?? null;
}

export interface EntryRow {
  readonly id: string;
  readonly no: number;
  readonly receivedAt: Instant;
  readonly raw: Readonly<Record<string, string>>;
  readonly answers: JsonObject;
  readonly state: 'taken' | 'refused';
  readonly why: string;
  readonly personId: string | null;
  readonly personName: string | null;
}

/** Keeps an entry as it came; undefined when the same one is there already. The intake is locked, so that numbers have no gaps. */
export async function insertEntry(
  tx: Tx,
  entry: {
    readonly id: string;
    readonly intakeId: string;
    readonly key: string;
    readonly raw: Readonly<Record<string, string>>;
    readonly answers: JsonObject;
    readonly state: EntryRow['state'];
    readonly why: string;
  },
  now: Instant,
): Promise<number | undefined> {
  await tx`select 1 from intake where id = ${entry.intakeId} for update`;
  const [row] = await tx<{ no: number }[]>`insert into intake_entry (id, intake_id, no, key, received_at, raw, answers, state, why)
    select ${entry.id}, ${entry.intakeId}, coalesce(max(no), 0) + 1, ${entry.key}, ${now}, ${tx.json(entry.raw)}, ${tx.json(entry.answers)}, ${entry.state}, ${entry.why} from intake_entry where intake_id = ${entry.intakeId}
    on conflict (intake_id, key) do nothing returning no`;
  if (row) await tx`update intake set last_at = ${now} where id = ${entry.intakeId}`;
  return row?.no;
}
export async function settleEntry(
  tx: Tx,
  id: string,
  end: {
    readonly state: EntryRow['state'];
    readonly why: string;
    readonly personId: string | null;
    readonly answers: JsonObject;
    readonly raw: Readonly<Record<string, string>>;
  },
): Promise<void> {
  await tx`update intake_entry set state = ${end.state}, why = ${end.why}, person_id = ${end.personId}, answers = ${tx.json(end.answers)}, raw = ${tx.json(end.raw)} where id = ${id}`;
}
export async function entriesOf(tx: Tx, intakeId: string, limit: number): Promise<EntryRow[]> {
  return [
    ...(await tx<EntryRow[]>`select e.id, e.no, e.received_at, e.raw, e.answers, e.state, e.why, e.person_id, p.name as person_name
      from intake_entry e left join person p on p.id = e.person_id where e.intake_id = ${intakeId} order by e.no desc limit ${limit}`),
  ];
}
/** The newest entry taken in for each of the people, through the intake of that kind and name. */
export async function lastEntries(
  tx: Tx,
  kind: string,
  name: string,
  personIds: readonly string[],
): Promise<{ readonly id: string; readonly personId: string; readonly answers: JsonObject }[]> {
  return [
    ...(await tx<{ id: string; personId: string; answers: JsonObject }[]>`
      select distinct on (e.person_id) e.id, e.person_id, e.answers from intake_entry e join intake i on i.id = e.intake_id
      where i.kind = ${kind} and i.name = ${name} and e.state = 'taken' and e.person_id = any(${[...personIds]}::uuid[]) order by e.person_id, e.no desc`),
  ];
}
/** People who came by the intake of that kind and name, the newest first. */
export async function peopleOfIntake(tx: Tx, kind: string, name: string, limit: number): Promise<string[]> {
  const rows = await tx<{ personId: string }[]>`
    select e.person_id from intake_entry e join intake i on i.id = e.intake_id join person p on p.id = e.person_id and p.merged_into is null
    where i.kind = ${kind} and i.name = ${name} and e.state = 'taken' group by e.person_id order by max(e.no) desc limit ${limit}`;
  return rows.map((row) => row.personId);
}
export async function findEntry(tx: Tx, id: string): Promise<(EntryRow & { readonly intakeId: string }) | undefined> {
  const [row] = await tx<
    (EntryRow & { intakeId: string })[]
  >`select e.id, e.intake_id, e.no, e.received_at, e.raw, e.answers, e.state, e.why, e.person_id, null as person_name from intake_entry e where e.id = ${id}`;
  return row;
}

/** The Message-ID of the mail that an entry was; undefined when it came by another door. */
export async function mailOfEntry(tx: Tx, id: string): Promise<string | undefined> {
  const [row] = await tx<
    { key: string }[]
  >`select e.key from intake_entry e join intake i on i.id = e.intake_id where e.id = ${id} and i.kind = 'mailbox'`;
  return row?.key;
}

export interface StoredFile {
  readonly id: string;
  readonly entryId: string;
  readonly question: string;
  readonly name: string;
  readonly kind: string;
  readonly size: number;
  readonly says: string;
  /** what stands in it where nobody sees it */
  readonly hidden: readonly { readonly text: string; readonly why: string }[];
}
export async function insertFile(tx: Tx, file: StoredFile & { readonly bytes: Uint8Array }, now: Instant): Promise<void> {
  await tx`insert into stored_file (id, entry_id, question, name, kind, size, bytes, says, hidden, created_at)
    values (${file.id}, ${file.entryId}, ${file.question}, ${file.name}, ${file.kind}, ${file.size}, ${Buffer.from(file.bytes)}, ${file.says},
      ${tx.json(file.hidden.map(({ text, why }) => ({ text, why })))}, ${now})`;
}
export async function filesOf(tx: Tx, entryIds: readonly string[]): Promise<StoredFile[]> {
  return [
    ...(await tx<
      StoredFile[]
    >`select id, entry_id, question, name, kind, size, says, hidden from stored_file where entry_id = any(${[...entryIds]}::uuid[]) order by name`),
  ];
}
export async function fileBytes(
  tx: Tx,
  id: string,
): Promise<{ readonly name: string; readonly kind: string; readonly bytes: Uint8Array } | undefined> {
  const [row] = await tx<{ name: string; kind: string; bytes: Uint8Array }[]>`select name, kind, bytes from stored_file where id = ${id}`;
  return row;
}

/** Writes down one more try of a sender and counts those since. Real time. */
export async function countTry(tx: Tx, intakeId: string, sender: string, withinMs: number): Promise<number> {
  await tx`insert into intake_try (intake_id, sender) values (${intakeId}, ${sender})`;
  await tx`delete from intake_try where at < now() - interval '1 day'`;
  const [row] = await tx<
    { count: number }[]
  >`select count(*)::int as count from intake_try where intake_id = ${intakeId} and sender = ${sender} and at > now() - make_interval(secs => ${withinMs / 1000})`;
  return row?.count ?? 0;
}
