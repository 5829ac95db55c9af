/** Everything of a workspace, or everything of one person, in open formats. Secrets and sessions stay. */
import { strToU8, zipSync } from 'fflate';
import MailComposer from 'nodemailer/lib/mail-composer/index.js';
import type { FileAnswer } from '../../api';
import { allOf } from './store/erase';
import { allFiles, allFlows, allMade, allTables, keptMessages, keptOf, type KeptMessage, type PlainRow } from './store/take-out';
import { insertAudit } from '../access/store/audit';
import { csvOf } from '../platform/csv';
import { found, workspace, type Actor, type World } from '../platform/world';

/** Columns that hold instants: they leave as ISO 8601. */
const INSTANT = /_at$|_since$|^at$|_until$/;
const snake = (name: string): string => name.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);
const plainName = (name: string): string => name.replace(/[^\p{L}\p{N} ._-]/gu, '_').slice(0, 80);
const said = (name: string, value: unknown): unknown =>
  INSTANT.test(snake(name)) && typeof value === 'number' ? new Date(value).toISOString() : value;

function table(rows: readonly PlainRow[]): string {
  const columns = Object.keys(rows[0] ?? {});
  return csvOf([columns.map(snake), ...rows.map((row) => columns.map((name) => said(name, row[name])))]);
}

/** A message as a mail program keeps it (RFC 5322): as it came, or made again from what went out. */
async function eml(message: KeptMessage): Promise<Uint8Array> {
  if (message.raw !== null) return new Uint8Array(message.raw);
  const composed = new MailComposer({
    from: message.fromAddress ?? undefined,
    to: message.toAddress ?? undefined,
    subject: message.subject,
    text: message.body,
    date: new Date(message.at),
    ...(message.rfcId !== null && { messageId: message.rfcId }),
  });
  return new Uint8Array(await composed.compile().build());
}

/** One ZIP: CSV a record kind, facts, messages as EML, files, flows as text, what was made and named as JSON. */
export async function takeOut(world: World, actor: Actor): Promise<FileAnswer> {
  const { db } = world;
  const now = await world.clock.now();
  const files: Record<string, Uint8Array> = {};
  for (const [name, rows] of Object.entries(await allTables(db))) files[`${name}.csv`] = strToU8(table(rows));
  for (const [name, rows] of Object.entries(await allMade(db))) files[`${name}.json`] = strToU8(JSON.stringify(rows, null, 2));
  for (const { name, draftText } of await allFlows(db)) files[`flows/${plainName(name)}.race`] = strToU8(draftText);
  for (const [i, message] of (await keptMessages(db, null)).entries())
    files[`messages/${String(i + 1).padStart(6, '0')}.eml`] = await eml(message);
  for (const { id, name, bytes } of await allFiles(db)) files[`files/${id.slice(0, 8)}-${plainName(name)}`] = new Uint8Array(bytes);
  await db.begin((tx) =>
    insertAudit(tx, { at: now, userId: actor.userId, what: 'took out everything', detail: { files: Object.keys(files).length } }),
  );
  const { name } = await workspace(db);
  return {
    name: `${plainName(name)} ${new Date(now).toISOString().slice(0, 10)}.zip`,
    type: 'application/zip',
    content: zipSync(files, { level: 6 }),
  };
}

/** Everything that is kept of one person, as JSON. */
export async function copyOfPerson(world: World, actor: Actor, id: string): Promise<FileAnswer> {
  const { db } = world;
  const now = await world.clock.now();
  const ids = await allOf(db, id);
  const kept = await keptOf(db, ids);
  const person = found(
    (kept['records'] ?? []).find((record) => record['id'] === id),
    'this person',
  );
  const messages = (await keptMessages(db, ids)).map(({ raw: _, ...message }) => message);
  const text = JSON.stringify({ madeAt: now, ...kept, messages }, (key, value: unknown) => said(key, value), 2);
  await db.begin((tx) =>
    insertAudit(tx, { at: now, userId: actor.userId, what: 'made a copy of one person’s data', detail: { personId: id } }),
  );
  return {
    name: `${plainName(typeof person['name'] === 'string' ? person['name'] : 'person')}.json`,
    type: 'application/json',
    content: `${text}\n`,
  };
}
