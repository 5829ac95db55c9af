/** Mails of a mailbox as entries. An answer to something we sent goes to its conversation instead. */
import { clip, cutText, stableId, type JsonObject } from '../../core/base';
import { addressRow, leftAlone, type MailboxSettings } from '../../core/intake';
import { ownWords, withoutSignature } from '../../core/reply';
import { WorldFailure, type FoundMail, type MailboxCursor, type Proof } from '../ports';
import { findEntry, insertEntry, type IntakeRow } from './store/intakes';
import { messageByRfcIds } from '../messages/store/messages';
import { takeInEntry, type Preview } from './entries';
import { documentsAmong, keepFiles, readEntryFile } from './entry-files';
import { receiveMail } from '../messages/receive-mail';
import { reasonOf, setAside } from './set-aside-one';
import { workspace, type World } from '../platform/world';

const AT_ONCE = 50;
const PREVIEWED = 10;
const TEXT_MAX = 20_000;
const FILES_MAX = 5;

const account = ({ host, port, secure, user, privateNetwork }: MailboxSettings, proof: Proof) => ({
  host,
  port,
  secure,
  user,
  proof,
  privateNetwork,
});
const asLeft = (mail: FoundMail) => ({
  ...mail,
  isReport: mail.deliveryStatus !== null || mail.feedback !== undefined,
  files: mail.files.length,
});
const rawOf = (mail: FoundMail, zone: string): Readonly<Record<string, string>> => ({
  from: mail.from,
  name: mail.fromName,
  subject: clip(mail.subject, 300),
  text: cutText(withoutSignature(ownWords(mail.text)), TEXT_MAX),
  day: mail.sentAt === null ? '' : new Intl.DateTimeFormat('en-CA', { timeZone: zone, dateStyle: 'short' }).format(mail.sentAt),
});

/** A mail's values as a row and as what flows see. */
export function mailEntry(raw: Readonly<Record<string, string>>): ReturnType<typeof addressRow> & { readonly answers: JsonObject } {
  return {
    ...addressRow({ name: raw.name ?? '', address: raw.from ?? '', note: raw.subject ?? '' }),
    answers: { from: raw.from ?? '', name: raw.name ?? '', subject: raw.subject ?? '', text: raw.text ?? '', day: raw.day ?? '' },
  };
}

/** Takes in what has come since the last look; at the first, what lies there, unless the door begins from then on. */
export async function lookAtMailbox(
  world: World,
  row: IntakeRow,
  settings: MailboxSettings,
  proof: Proof,
): Promise<{ readonly fresh: number; readonly cursor: MailboxCursor; readonly nextAt: null; readonly more: boolean }> {
  const { rule } = settings;
  const before = row.cursor as MailboxCursor | null;
  const { mails, cursor, more } = await world.mailboxes.look(account(settings, proof), {
    folder: rule.folder,
    cursor: before,
    unreadOnly: rule.unreadOnly,
    limit: before === null && rule.begins === 'from now on' ? 0 : AT_ONCE,
  });
  let fresh = 0;
  // A folder that was made anew is read from its beginning: what was to be left there is older than the last look.
  const madeAnew = before !== null && before.uidValidity !== cursor.uidValidity && rule.begins === 'from now on';
  const after = madeAnew ? (row.lookedAt ?? 0) : 0;
  for (const mail of mails.filter(({ sentAt }) => (sentAt ?? after) >= after))
    fresh += Number(await takeOrSetAside(world, row, settings, mail));
  return { fresh, cursor, nextAt: null, more };
}

/** One mail that cannot be taken is set aside, and the next goes on. */
async function takeOrSetAside(world: World, row: IntakeRow, settings: MailboxSettings, mail: FoundMail): Promise<boolean> {
  try {
    return await takeMail(world, row, settings, mail);
  } catch (error) {
    const raw = mail.raw ?? Buffer.from(`From: ${mail.from}\r\nSubject: ${mail.subject}\r\nMessage-ID: ${mail.messageId}\r\n\r\n`);
    await setAside(world, { intakeId: row.id, kind: 'mail', says: `${mail.from}: ${mail.subject}`, why: reasonOf(world, error), raw });
    return true;
  }
}

/** Takes one mail in, or brings it to its conversation; false when it is left alone or was taken before. Throws when it cannot be. */
export async function takeMail(world: World, row: IntakeRow, { rule }: MailboxSettings, mail: FoundMail): Promise<boolean> {
  if (mail.unread !== null) throw new WorldFailure('too large', mail.unread, false);
  if (await isAboutOurs(world, mail)) {
    await receiveMail(world, mail);
    return true;
  }
  if (leftAlone(asLeft(mail), rule) !== undefined) return false;
  const id = stableId('entry', row.id, mail.messageId);
  if (await findEntry(world.db, id)) return false;
  const raw = rawOf(mail, (await workspace(world.db)).zone);
  const files = await Promise.all(documentsAmong('papers', mail.files.slice(0, FILES_MAX)).map((file) => readEntryFile(world, file)));
  const papers = files.map((file) => file.text).join('\n\n');
  const entry = mailEntry(raw);
  const answers = { ...entry.answers, papers };
  const now = await world.clock.now();
  return world.db.begin(async (tx) => {
    const no = await insertEntry(
      tx,
      { id, intakeId: row.id, key: mail.messageId, raw, answers, state: 'refused', why: 'not looked at yet' },
      now,
    );
    if (no === undefined) return false;
    await keepFiles(tx, id, files, now);
    await takeInEntry(tx, { id, no, intake: row, raw, ...entry, answers }, now);
    return true;
  });
}

async function isAboutOurs(world: World, mail: FoundMail): Promise<boolean> {
  if (mail.deliveryStatus !== null || mail.feedback) return true;
  const ids = [...(mail.inReplyTo === null ? [] : [mail.inReplyTo]), ...mail.references];
  return ids.length > 0 && (await messageByRfcIds(world.db, ids)) !== undefined;
}

/** The newest mails of the folder, and what would become of each. */
export async function previewMailbox(world: World, settings: MailboxSettings, proof: Proof): Promise<readonly Preview[]> {
  const { rule } = settings;
  const { mails } = await world.mailboxes.look(account(settings, proof), {
    folder: rule.folder,
    cursor: null,
    unreadOnly: rule.unreadOnly,
    limit: PREVIEWED,
  });
  return Promise.all(
    [...mails].reverse().map(async (mail) => {
      const ours = await isAboutOurs(world, mail);
      const left = ours ? undefined : leftAlone(asLeft(mail), rule);
      if (mail.unread !== null) return { says: `${mail.from}: ${mail.subject}`, becomes: `is set aside: ${mail.unread}`, taken: false };
      return {
        says: `${mail.fromName === '' ? mail.from : mail.fromName}: ${mail.subject}`,
        becomes: ours
          ? 'goes to its conversation'
          : left === undefined
            ? `${rule.begins === 'from now on' ? 'stays as it lies; one like it ' : ''}is taken in${mail.files.length > 0 ? `, with ${mail.files.map((file) => file.name).join(', ')}` : ''}`
            : `is left alone: ${left}`,
        taken: !ours && left === undefined && rule.begins !== 'from now on',
      };
    }),
  );
}
