import { ImapFlow, type FetchMessageObject } from 'imapflow';
import { dialTo } from '../net';
import { WorldFailure, type Box, type FoundMail, type MailboxAccount, type MailboxCursor, type Mailboxes } from '../ports';

const TIMEOUT_MS = 10_000;
const MAX_BYTES = 12 * 1024 * 1024;
/** So much is brought at once; what is left comes with the next look. */
const LOOK_BYTES = 24 * 1024 * 1024;

/** Mailboxes by IMAP, looked at without changing anything. Hosts ending in `.example` are at the stand-in, or nowhere. */
export function imapMailboxes(standin: string | null, box: Box): Mailboxes {
  return {
    async look(account, ask) {
      const client = await connected(account, standin);
      try {
        const lock = await client.getMailboxLock(ask.folder, { readOnly: true });
        try {
          return await found(client, ask, box);
        } finally {
          lock.release();
        }
      } catch (error) {
        throw error instanceof WorldFailure ? error : failure(error, account, ask.folder);
      } finally {
        await client.logout().catch(() => {
          client.close();
        });
      }
    },
  };
}

async function connected(account: MailboxAccount, standin: string | null): Promise<ImapFlow> {
  const { user, proof } = account;
  if (proof.by === 'nothing') throw new WorldFailure('refused', proof.why, false);
  const to = await dialTo(account.host, account.port, { standin, privateNetwork: account.privateNetwork }).catch(() => {
    throw new WorldFailure('unreachable', `${account.host} could not be reached`, true);
  });
  const client = new ImapFlow({
    host: to.address,
    port: to.port,
    servername: account.host,
    secure: account.secure && !to.isStandin,
    ...(to.isStandin && { doSTARTTLS: false }),
    auth: proof.by === 'token' ? { user, accessToken: proof.token } : { user, pass: proof.password },
    logger: false,
    connectionTimeout: TIMEOUT_MS,
    greetingTimeout: TIMEOUT_MS,
    socketTimeout: TIMEOUT_MS * 3,
  });
  // What breaks outside a command would end the process; the command under way fails with it.
  client.on('error', () => undefined);
  try {
    await client.connect();
  } catch (error) {
    client.close();
    throw failure(error, account, '');
  }
  return client;
}

async function found(client: ImapFlow, ask: Parameters<Mailboxes['look']>[1], box: Box): ReturnType<Mailboxes['look']> {
  const folder = client.mailbox;
  if (folder === false) throw new WorldFailure('refused', `the folder “${ask.folder}” cannot be opened`, false);
  const uidValidity = String(folder.uidValidity);
  const goesOn = ask.cursor !== null && ask.cursor.uidValidity === uidValidity ? ask.cursor.uidNext : null;
  const wanted = { ...(goesOn === null ? { all: true } : { uid: `${goesOn}:*` }), ...(ask.unreadOnly && { seen: false }) };
  const listed = (await client.search(wanted, { uid: true })) || [];
  // “n:*” means the last mail even when it is older than n.
  const newer = listed.filter((uid) => goesOn === null || uid >= goesOn).sort((a, b) => a - b);
  const uids = goesOn === null ? newer.slice(Math.max(0, newer.length - ask.limit)) : newer.slice(0, ask.limit);
  const mails: FoundMail[] = [];
  let brought = 0;
  let last: number | undefined;
  for (const uid of uids) {
    if (brought > LOOK_BYTES) break;
    last = uid;
    const head = await client.fetchOne(String(uid), { size: true, flags: true, envelope: true }, { uid: true });
    if (head === false) continue;
    if ((head.size ?? 0) <= MAX_BYTES) {
      brought += head.size ?? 0;
      mails.push(await whole(client, uid, head, box));
    } else
      mails.push(
        unread(
          head,
          `the mail is too large to be read: more than ${MAX_BYTES / 1024 / 1024} MB. Only its head was brought; it lies in its mailbox as it was`,
          null,
        ),
      );
  }
  const more = (last !== undefined && last !== uids.at(-1)) || (newer.length > uids.length && goesOn !== null);
  return { mails, more, cursor: cursorAfter(uidValidity, more && last !== undefined ? last + 1 : folder.uidNext) };
}

const cursorAfter = (uidValidity: string, uidNext: number): MailboxCursor => ({ uidValidity, uidNext });
const isAnswered = (head: FetchMessageObject): boolean => head.flags?.has('\\Answered') ?? false;

async function whole(client: ImapFlow, uid: number, head: FetchMessageObject, box: Box): Promise<FoundMail> {
  const mail = await client.fetchOne(String(uid), { source: true }, { uid: true });
  const raw = (mail !== false && mail.source) || Buffer.alloc(0);
  try {
    return { ...(await box.run('mail', { bytes: raw })), answered: isAnswered(head), unread: null, raw };
  } catch (error) {
    // A mail that cannot be read is one mail: the next goes on. What could not be read for now is looked for again.
    if (!(error instanceof WorldFailure) || error.retryable) throw error;
    return unread(head, error.message, raw);
  }
}

/** What the server tells of a mail that is not read itself. */
function unread(head: FetchMessageObject, why: string, raw: Uint8Array | null): FoundMail {
  const sender = head.envelope?.from?.[0];
  return {
    messageId: head.envelope?.messageId ?? `<uid-${head.uid}@no-id>`,
    from: sender?.address?.toLowerCase() ?? '',
    fromName: sender?.name ?? '',
    subject: head.envelope?.subject ?? '',
    text: '',
    sentAt: head.envelope?.date === undefined ? null : new Date(head.envelope.date).getTime(),
    inReplyTo: head.envelope?.inReplyTo ?? null,
    references: [],
    autoSubmitted: false,
    deliveryStatus: null,
    files: [],
    answered: isAnswered(head),
    unread: why,
    raw,
  };
}

function failure(error: unknown, account: MailboxAccount, folder: string): WorldFailure {
  const told = error as { readonly authenticationFailed?: boolean; readonly responseText?: string };
  if (told.authenticationFailed)
    return new WorldFailure(
      'refused',
      `${account.host} refuses the name or the ${account.proof.by === 'token' ? 'sign-in' : 'password'}`,
      false,
    );
  if (folder !== '' && told.responseText !== undefined)
    return new WorldFailure('refused', `the folder “${folder}” cannot be opened: ${told.responseText}`, false);
  return new WorldFailure('unreachable', `${account.host} could not be reached`, true);
}
