/**
 * Erasing somebody: everything that is kept of them, after a look at what that is, with a receipt. Promises: a salted digest of their
 * addresses stays, so that a list or a form does not take them in again by accident; what stays for other reasons is named.
 */
import { plural, type Instant } from '../../core/base';
import { reachOf } from '../../core/match';
import type { RowReading } from '../../core/intake';
import type { Tx } from '../db';
import { allOf, eraseAll, erasedAmong, holdingsOf, listRowsOf, putErased, putPiece, tripsOf } from './store/erase';
import { readPiece } from '../intake/store/imports';
import { insertAudit } from '../access/store/audit';
import { PIECE } from '../intake/list-rows';
import { found, Refusal, type Actor, type World } from '../platform/world';

export interface Erasure {
  readonly name: string;
  /** what goes, in words */
  readonly goes: readonly string[];
  /** what stays, and why */
  readonly stays: readonly string[];
  readonly at: Instant | null;
}

const STAYS = [
  'a digest of their addresses, so that nobody takes them in again by accident',
  'the audit of who did what, with numbers in place of names',
  'counts of what flows did',
  'what facts of their company say of them in the company’s own words',
];

interface Whole {
  readonly ids: readonly string[];
  readonly trips: readonly string[];
  readonly emails: readonly string[];
  readonly name: string;
}

async function wholeOf(tx: Tx, id: string): Promise<Whole> {
  const ids = await allOf(tx, id);
  const rows = await tx<
    { id: string; name: string; email: string | null; otherEmail: string | null }[]
  >`select id, name, email, other_email from person where id = any(${ids}::uuid[])`;
  const person = found(
    rows.find((row) => row.id === id),
    'this person',
  );
  const said = await tx<
    { value: unknown }[]
  >`select distinct value from fact where record_id = any(${ids}::uuid[]) and field in ('email', 'other_email')`;
  const emails = [
    ...rows.flatMap((row) => [row.email, row.otherEmail]),
    ...said.map((row) => (typeof row.value === 'string' ? row.value : null)),
  ];
  return {
    ids,
    name: person.name,
    trips: await tripsOf(tx, ids),
    emails: [...new Set(emails.flatMap((email) => (email ? [email.toLowerCase()] : [])))],
  };
}

/** What erasing would take away and leave; nothing is changed. */
export async function erasurePreview(world: World, id: string): Promise<Erasure> {
  return said(world.db, await wholeOf(world.db, id), null);
}

async function said(tx: Tx, whole: Whole, at: Instant | null): Promise<Erasure> {
  const held = await holdingsOf(tx, whole.ids, whole.emails);
  const goes = [
    `${whole.name}${whole.ids.length > 1 ? `, with ${plural(whole.ids.length - 1, 'record', 'records')} that ${whole.ids.length === 2 ? 'was' : 'were'} merged` : ''}`,
    ...(
      [
        [held.facts, 'fact'],
        [held.messages, 'message'],
        [held.trips, 'trip with its journal', 'trips with their journals'],
        [held.entries, 'entry of a form or mailbox', 'entries of forms and mailboxes'],
        [held.files, 'file'],
        [held.rows, 'row of a list', 'rows of lists'],
        [held.applications, 'application'],
      ] as const
    ).flatMap(([count, one, many]) => (count === 0 ? [] : [plural(count, one, many)])),
  ];
  const stays = held.deals === 0 ? STAYS : [...STAYS, `${plural(held.deals, 'deal')} with their company, without them`];
  return { name: whole.name, goes, stays, at };
}

/** `name` is typed by who does it: what is erased cannot be brought back. */
export async function erasePerson(world: World, actor: Actor, id: string, name: string): Promise<Erasure> {
  const now = await world.clock.now();
  return world.db.begin(async (tx) => {
    const whole = await wholeOf(tx, id);
    if (name.trim().toLowerCase() !== whole.name.toLowerCase())
      throw new Refusal('not valid', `to erase them write their name as it stands: ${whole.name}`);
    const held = await holdingsOf(tx, whole.ids, whole.emails);
    if (held.leaving > 0)
      throw new Refusal(
        'conflict',
        'something is leaving for them right now, or nobody knows whether it left: settle that on the desk first',
      );
    const receipt = await said(tx, whole, now);
    await clearListRows(tx, whole.ids);
    await eraseAll(tx, whole.ids, whole.trips, whole.emails);
    await putErased(tx, whole.emails, now);
    await insertAudit(tx, {
      at: now,
      userId: actor.userId,
      what: 'erased a person',
      detail: { personId: id, goes: receipt.goes.slice(1) },
    });
    return receipt;
  });
}

/** The rows of lists they came with: emptied where the list is kept. */
async function clearListRows(tx: Tx, ids: readonly string[]): Promise<void> {
  const pieces = new Map<string, { importId: string; no: number; rows: number[] }>();
  for (const { importId, row } of await listRowsOf(tx, ids)) {
    const no = Math.floor((row - 1) / PIECE);
    const piece = pieces.get(`${importId} ${no}`) ?? { importId, no, rows: [] };
    piece.rows.push((row - 1) % PIECE);
    pieces.set(`${importId} ${no}`, piece);
  }
  for (const { importId, no, rows } of pieces.values()) {
    const bytes = await readPiece(tx, importId, no);
    if (!bytes) continue;
    const lines = Buffer.from(bytes).toString().split('\n');
    for (const at of rows) {
      const [line, cells] = JSON.parse(lines[at] ?? '[0,[]]') as [number, string[]];
      lines[at] = JSON.stringify([line, cells.map(() => '')]);
    }
    await putPiece(tx, importId, no, Buffer.from(lines.join('\n')));
  }
}

/** Rows whose owners were erased are refused, by the digest of their address. */
export async function withoutErased<R extends { readonly reading: RowReading }>(tx: Tx, readings: readonly R[]): Promise<readonly R[]> {
  const emailsOf = (reading: RowReading): readonly string[] => {
    const { email, otherEmail } = reachOf(reading.record.person);
    return [email, otherEmail].filter((address) => address !== null);
  };
  const erased = await erasedAmong(tx, [...new Set(readings.flatMap(({ reading }) => emailsOf(reading)))]);
  if (erased.size === 0) return readings;
  return readings.map((entry) => {
    const at = emailsOf(entry.reading).flatMap((email) => erased.get(email) ?? [])[0];
    if (at === undefined) return entry;
    const day = new Date(at).toISOString().slice(0, 10);
    return { ...entry, reading: { ...entry.reading, refused: `was erased on ${day}: only taken in again by hand` } };
  });
}
