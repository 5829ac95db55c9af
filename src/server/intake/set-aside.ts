/**
 * What came to a door and could not be taken. Promises: one bad mail or meeting never stops the next; it is kept as it came, with
 * its reason, and can be opened, mended, brought again or dropped. Refuses: trying again by itself.
 */
import type { Instant } from '../../core/base';
import { watchedSchema } from '../../core/intake';
import { WorldFailure, type IncomingMail } from '../ports';
import { findIntake } from './store/intakes';
import {
  countSetAside,
  findSetAside,
  listSetAside,
  putSetAside,
  reopenSetAside,
  settleSetAside,
  type SetAsideRow,
} from './store/set-aside';
import { insertAudit } from '../access/store/audit';
import { takeMeetings } from './calendar-intakes';
import { takeMail } from './mailbox-intakes';
import { receiveMail } from '../messages/receive-mail';
import { reasonOf, setAside } from './set-aside-one';
import { found, Refusal, type Actor, type World } from '../platform/world';

const SHOWN = 200;
/** So much is opened as text to be mended; more is opened as a file. */
const MENDED_MAX = 200_000;

/** An answer by mail, as its bytes: kept as an answer, or set aside. Throws only when nothing can be kept at all. */
export async function receiveRaw(world: World, raw: Uint8Array): Promise<void> {
  let mail: IncomingMail | undefined;
  try {
    mail = await world.box.run('mail', { bytes: raw });
    await receiveMail(world, mail);
  } catch (error) {
    // What is only busy now is offered again by the sender's server.
    if (error instanceof WorldFailure && error.retryable) throw error;
    await setAside(world, {
      intakeId: null,
      kind: 'mail',
      says: mail ? `${mail.from}: ${mail.subject}` : 'A mail',
      why: reasonOf(world, error),
      raw,
    });
  }
}

export async function listOfSetAside(world: World): Promise<readonly SetAsideRow[]> {
  return listSetAside(world.db, SHOWN);
}
export async function setAsideCounts(world: World): Promise<ReadonlyMap<string | null, number>> {
  return new Map((await countSetAside(world.db)).map((entry) => [entry.intakeId, entry.count]));
}

const readable = new TextDecoder('utf-8', { fatal: true });

/** One of them with its text, where it is text of a length that can be mended in a page. */
export async function openSetAside(world: World, id: string): Promise<SetAsideRow & { readonly text: string | null }> {
  const { raw, ...row } = found(await findSetAside(world.db, id), 'this entry');
  let text: string | null = null;
  try {
    if (raw.length <= MENDED_MAX) text = readable.decode(raw);
  } catch {
    // Not text: it is opened as a file.
  }
  return { ...row, text };
}

export async function rawOfSetAside(
  world: World,
  id: string,
): Promise<{ readonly name: string; readonly type: string; readonly content: Uint8Array }> {
  const row = found(await findSetAside(world.db, id), 'this entry');
  // Always as a file to keep: what it holds is never shown as a page of ours.
  return row.kind === 'mail'
    ? { name: 'mail.eml', type: 'application/octet-stream', content: row.raw }
    : { name: 'meeting.ics', type: 'application/octet-stream', content: row.raw };
}

/** Brings it again, as it is or with a mended text. */
export async function bringSetAside(
  world: World,
  actor: Actor,
  id: string,
  text: string | null,
): Promise<{ readonly ok: boolean; readonly why: string }> {
  const row = found(await findSetAside(world.db, id), 'this entry');
  if (row.state !== 'open') throw new Refusal('conflict', 'this has been dealt with already');
  const raw = text === null ? row.raw : Buffer.from(text, 'utf8');
  try {
    await takeAgain(world, row, raw);
  } catch (error) {
    const why = reasonOf(world, error);
    await putSetAside(world.db, id, { why, raw });
    return { ok: false, why };
  }
  const now = await world.clock.now();
  if (await settleSetAside(world.db, id, { state: 'brought', userId: actor.userId }, now))
    await audit(world, actor, 'brought again what was set aside', row, now);
  return { ok: true, why: '' };
}

async function takeAgain(world: World, row: SetAsideRow, raw: Uint8Array): Promise<void> {
  if (row.intakeId === null) {
    await receiveMail(world, await world.box.run('mail', { bytes: raw }));
    return;
  }
  const intake = found(await findIntake(world.db, row.intakeId), 'its door');
  const settings = watchedSchema.parse(intake.body);
  if (settings.kind === 'mailbox')
    await takeMail(world, intake, settings, { ...(await world.box.run('mail', { bytes: raw })), answered: false, unread: null, raw });
  else await takeMeetings(world, intake, settings, new TextDecoder().decode(raw));
}

export async function dropSetAside(world: World, actor: Actor, id: string, drop: boolean): Promise<void> {
  const row = found(await findSetAside(world.db, id), 'this entry');
  const now = await world.clock.now();
  if (!drop) await reopenSetAside(world.db, id);
  else if (await settleSetAside(world.db, id, { state: 'dropped', userId: actor.userId }, now))
    await audit(world, actor, 'dropped what was set aside', row, now);
}

async function audit(world: World, actor: Actor, what: string, row: SetAsideRow, at: Instant): Promise<void> {
  await insertAudit(world.db, { at, userId: actor.userId, what, detail: { door: row.intakeName ?? 'answers by mail', says: row.says } });
}
