/** A real mail server before real mailboxes: who signs in writes, from their own address, to who has a mailbox there. */
import { ImapFlow } from 'imapflow';
import nodemailer from 'nodemailer';
import { freePort } from '../testing/ports';
import { startMailboxes } from './mailboxes';
import { startRelay } from './relay';

const accounts = { 'wenna@hartsmead.example': 'lantern', 'jude@fernley.example': 'fern' };
let running: { close(): Promise<void> }[] = [];
let imapPort = 0;
let port = 0;
beforeAll(async () => {
  imapPort = await freePort();
  const lmtpPort = await freePort();
  port = await freePort();
  running = [await startMailboxes({ imapPort, lmtpPort, accounts }), await startRelay({ port, lmtpPort, accounts })];
});
afterAll(async () => {
  for (const server of running.reverse()) await server.close();
});

const write = (from: string, to: string, auth: { readonly user: string; readonly pass: string } | undefined): Promise<unknown> =>
  nodemailer
    .createTransport({ host: '127.0.0.1', port, secure: false, ignoreTLS: true, ...(auth && { auth }) })
    .sendMail({ from, to, subject: 'Ties', text: 'Would a box suit you?' });
const wenna = { user: 'wenna@hartsmead.example', pass: 'lantern' };

test('what it takes lies in the mailbox', async () => {
  await write('wenna@hartsmead.example', 'jude@fernley.example', wenna);
  const client = new ImapFlow({
    host: '127.0.0.1',
    port: imapPort,
    secure: false,
    auth: { user: 'jude@fernley.example', pass: 'fern' },
    logger: false,
  });
  await client.connect();
  const lock = await client.getMailboxLock('INBOX');
  try {
    for (let i = 0; i < 100 && ((await client.search({ subject: 'Ties' })) || []).length === 0; i += 1)
      await new Promise((done) => setTimeout(done, 50));
    expect(await client.search({ subject: 'Ties' })).toHaveLength(1);
  } finally {
    lock.release();
    await client.logout();
  }
});
test.each([
  ['without signing in', 'wenna@hartsmead.example', 'jude@fernley.example', undefined, /sign in first/],
  ['with a wrong password', 'wenna@hartsmead.example', 'jude@fernley.example', { ...wenna, pass: 'x' }, /535/],
  ['from another address', 'jude@fernley.example', 'wenna@hartsmead.example', wenna, /may not write from jude@fernley.example/],
  ['to nobody', 'wenna@hartsmead.example', 'nobody@fernley.example', wenna, /there is no mailbox nobody@fernley.example here/],
])('nothing is taken %s', async (_, from, to, auth, says) => {
  await expect(write(from, to, auth)).rejects.toThrow(says);
});
