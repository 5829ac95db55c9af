import { ImapFlow, type FetchMessageObject } from 'imapflow';
import { readMail } from '../net';
import { WorldFailure, type FoundMail, type MailboxAccount, type MailboxCursor, type Mailboxes } from '../ports';

const TIMEOUT_MS = 10_000;
const MAX_BYTES = 12 * 1024 * 1024;

/** Mailboxes by IMAP, looked at without changing anything. Hosts ending in `.example` are at the stand-in, or nowhere. */
export function imapMailboxes(standin: string | null): Mailboxes {
  return {
    async look(account, ask) {
      const client = await connected(account, standin);
      try {
        const lock = await client.getMailboxLock(ask.folder, { readOnly: true });
        try {
          return await found(client, ask);
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
  const isExample = account.host.endsWith('.example');
  if (isExample && standin === null) throw new WorldFailure('unreachable', `there is no mail server ${account.host}`, true);
  const [host = account.host, port = account.port] = isExample && standin !== null ? standin.split(':') : [];
  const client = new ImapFlow({
    host,
    port: Number(port),
    secure: account.secure && !isExample,
    ...(isExample && { doSTARTTLS: false }),
    auth: { user: account.user, pass: account.password },
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

async function found(client: ImapFlow, ask: Parameters<Mailboxes['look']>[1]): ReturnType<Mailboxes['look']> {
  const box = client.mailbox;
  if (box === false) throw new WorldFailure('refused', `the folder “${ask.folder}” cannot be opened`, false);
  const uidValidity = String(box.uidValidity);
  const goesOn = ask.cursor !== null && ask.cursor.uidValidity === uidValidity ? ask.cursor.uidNext : null;
  const wanted = { ...(goesOn === null ? { all: true } : { uid: `${goesOn}:*` }), ...(ask.unreadOnly && { seen: false }) };
  const listed = (await client.search(wanted, { uid: true })) || [];
  // “n:*” means the last mail even when it is older than n.
  const newer = listed.filter((uid) => goesOn === null || uid >= goesOn).sort((a, b) => a - b);
  const uids = goesOn === null ? newer.slice(-ask.limit) : newer.slice(0, ask.limit);
  const mails: FoundMail[] = [];
  for (const uid of uids) {
    const head = await client.fetchOne(String(uid), { size: true, flags: true, envelope: true }, { uid: true });
    if (head === false) continue;
    mails.push((head.size ?? 0) > MAX_BYTES ? tooLarge(head) : await whole(client, uid, head));
  }
  const more = newer.length > uids.length && goesOn !== null;
  const last = uids.at(-1);
  return { mails, more, cursor: cursorAfter(uidValidity, more && last !== undefined ? last + 1 : box.uidNext) };
}

const cursorAfter = (uidValidity: string, uidNext: number): MailboxCursor => ({ uidValidity, uidNext });
const isAnswered = (head: FetchMessageObject): boolean => head.flags?.has('\\Answered') ?? false;

async function whole(client: ImapFlow, uid: number, head: FetchMessageObject): Promise<FoundMail> {
  const mail = await client.fetchOne(String(uid), { source: true }, { uid: true });
  return { ...(await readMail((mail !== false && mail.source) || Buffer.alloc(0))), answered: isAnswered(head) };
}

function tooLarge(head: FetchMessageObject): FoundMail {
  const sender = head.envelope?.from?.[0];
  return {
    messageId: head.envelope?.messageId ?? `<uid-${head.uid}@no-id>`,
    from: sender?.address?.toLowerCase() ?? '',
    fromName: sender?.name ?? '',
    subject: head.envelope?.subject ?? '',
    text: `(the mail is too large to be read: more than ${MAX_BYTES / 1024 / 1024} MB)`,
    sentAt: head.envelope?.date === undefined ? null : new Date(head.envelope.date).getTime(),
    inReplyTo: head.envelope?.inReplyTo ?? null,
    references: [],
    autoSubmitted: false,
    deliveryStatus: null,
    files: [],
    answered: isAnswered(head),
  };
}

function failure(error: unknown, account: MailboxAccount, folder: string): WorldFailure {
  const told = error as { readonly authenticationFailed?: boolean; readonly responseText?: string; readonly code?: string };
  if (told.authenticationFailed) return new WorldFailure('refused', `${account.host} refuses the name or the password`, false);
  if (folder !== '' && told.responseText !== undefined)
    return new WorldFailure('refused', `the folder “${folder}” cannot be opened: ${told.responseText}`, false);
  const why = error instanceof Error ? (told.code ?? error.message) : 'no reason given';
  return new WorldFailure('unreachable', `${account.host} could not be reached (${why})`, true);
}
