/** Sign-in services, by the standard client, against a stand-in that keeps to the protocol; and the mailboxes that open by their word. */
import type { AddressInfo } from 'node:net';
import { SMTPServer } from 'smtp-server';
import { startMailboxes } from '../../standins/mailboxes';
import { freePort } from '../../testing/ports';
import { startSignIns, type SignInsStandIn } from '../../standins/sign-ins';
import { openBox } from '../box';
import { handOver, tryRoute } from '../net';
import type { MailRoute, SignInServer, WorldFailure } from '../ports';
import { imapMailboxes } from './mailboxes';
import { oidcSignIns } from './sign-ins';

const ACCOUNT = 'office@thornwick.example';
const BACK = 'http://127.0.0.1:3417/session/back';
const server: SignInServer = {
  issuer: 'https://accounts.quayside.example',
  clientId: 'millrace-here',
  secret: 'a secret between us',
  privateNetwork: false,
};
let standin: SignInsStandIn;
let signIns: ReturnType<typeof oidcSignIns>;
beforeAll(async () => {
  standin = await startSignIns(
    {
      issuer: server.issuer,
      clientId: server.clientId,
      secret: server.secret ?? '',
      accounts: { [ACCOUNT]: 'Office', 'guest@elsewhere.example': 'Guest' },
      unproven: ['guest@elsewhere.example'],
    },
    0,
  );
  signIns = oidcSignIns(`127.0.0.1:${standin.port}`);
});
afterAll(() => standin.close());

const failure = (work: Promise<unknown>): Promise<WorldFailure> =>
  work.then(
    () => Promise.reject(new Error('it should have failed')),
    (error: unknown) => error as WorldFailure,
  );
/** Clicks on an account of the page one is sent to; the address one comes back by. */
async function click(url: string, account: string): Promise<string> {
  const to = new URL(url);
  to.searchParams.set('as', account);
  const response = await fetch(to, { redirect: 'manual' });
  return response.headers.get('location') ?? '';
}
const begin = (of = signIns) => of.begin(server, { backTo: BACK, scopes: ['mail.all'], account: ACCOUNT });

test('somebody signs in there: who they are comes back, and what renews itself', async () => {
  const { url, underway } = await begin();
  const asked = new URL(url).searchParams;
  expect([asked.get('scope'), asked.get('login_hint'), asked.get('code_challenge_method')]).toEqual([
    'openid email mail.all',
    ACCOUNT,
    'S256',
  ]);
  const back = await signIns.end(server, { url: await click(url, ACCOUNT), underway });
  expect(back).toMatchObject({ email: ACCOUNT, emailVerified: true, tokens: { seconds: 3600 } });
  expect(standin.whose(back.tokens.access)).toBe(ACCOUNT);
  const again = await signIns.renew(server, back.tokens.refresh ?? '');
  expect(standin.whose(again.access)).toBe(ACCOUNT);
  expect(again.refresh).not.toBe(back.tokens.refresh);
  // The one of before was good once.
  expect(await failure(signIns.renew(server, back.tokens.refresh ?? ''))).toMatchObject({ code: 'refused', retryable: false });
});

test('an address that nobody proved is said to be none', async () => {
  const { url, underway } = await begin();
  expect(await signIns.end(server, { url: await click(url, 'guest@elsewhere.example'), underway })).toMatchObject({ emailVerified: false });
});

test('who goes back, who comes from another beginning, and who brings a code twice, is refused', async () => {
  const { url, underway } = await begin();
  expect(await failure(signIns.end(server, { url: await click(url, ''), underway }))).toMatchObject({ code: 'refused' });
  const other = await begin();
  await failure(signIns.end(server, { url: await click(other.url, ACCOUNT), underway }));
  const back = await click(url, ACCOUNT);
  await failure(signIns.end(server, { url: back, underway: { ...underway, verifier: other.underway.verifier } }));
  const good = await click(url, ACCOUNT);
  await signIns.end(server, { url: good, underway });
  expect(await failure(signIns.end(server, { url: good, underway }))).toMatchObject({ code: 'refused' });
  const nonce = await click(url, ACCOUNT);
  await failure(signIns.end(server, { url: nonce, underway: { ...underway, nonce: 'another' } }));
});

test('a wrong secret, a wrong address and a private one say what they are', async () => {
  const wrong = { ...server, secret: 'another' };
  const { url, underway } = await signIns.begin(wrong, { backTo: BACK, scopes: [], account: null });
  expect((await failure(signIns.end(wrong, { url: await click(url, ACCOUNT), underway }))).message).toMatch(
    /accounts\.quayside\.example says no: invalid_client/,
  );
  expect(await failure(signIns.look({ ...server, issuer: 'https://other.quayside.example' }))).toMatchObject({ code: 'broken' });
  expect(await failure(signIns.look({ ...server, issuer: `http://127.0.0.1:${standin.port}` }))).toBeInstanceOf(Error);
  expect(await failure(oidcSignIns(null).look(server))).toMatchObject({ code: 'unreachable' });
});

describe('mailboxes that open by its word', () => {
  const token = async (): Promise<string> => {
    const { url, underway } = await begin();
    return (await signIns.end(server, { url: await click(url, ACCOUNT), underway })).tokens.access;
  };

  test('Dovecot lets a token in, and no other', async () => {
    const dovecot = await startMailboxes({
      imapPort: await freePort(),
      lmtpPort: await freePort(),
      accounts: { [ACCOUNT]: 'glasshouse' },
      tokensAt: `http://127.0.0.1:${standin.port}/whose?token=`,
    });
    try {
      await dovecot.deliver(
        ACCOUNT,
        Buffer.from(`From: mara@y.example\r\nTo: ${ACCOUNT}\r\nSubject: Hello\r\nMessage-ID: <1@y.example>\r\n\r\nHello\r\n`),
      );
      const boxes = imapMailboxes(`127.0.0.1:${dovecot.port}`, openBox);
      const account = { host: 'imap.thornwick.example', port: 993, secure: true, user: ACCOUNT, privateNetwork: false };
      const ask = { folder: 'INBOX', cursor: null, unreadOnly: false, limit: 5 };
      const { mails } = await boxes.look({ ...account, proof: { by: 'token', token: await token() } }, ask);
      expect(mails.map((entry) => entry.subject)).toEqual(['Hello']);
      expect(await failure(boxes.look({ ...account, proof: { by: 'token', token: 'made-up' } }, ask))).toMatchObject({
        message: 'imap.thornwick.example refuses the name or the sign-in',
      });
      expect(await failure(boxes.look({ ...account, proof: { by: 'nothing', why: 'sign in again' } }, ask))).toMatchObject({
        message: 'sign in again',
      });
    } finally {
      await dovecot.close();
    }
  });

  test('a server for outgoing mail is signed in to by XOAUTH2', async () => {
    const taken: string[] = [];
    const smtp = new SMTPServer({
      logger: false,
      authMethods: ['XOAUTH2'],
      allowInsecureAuth: true,
      onAuth: (auth, _session, done) => {
        if (standin.whose(auth.accessToken ?? '') === auth.username) done(null, { user: auth.username ?? '' });
        else done(null, { data: { status: '401', schemes: 'bearer', scope: 'mail.all' } });
      },
      onData: (stream, session, done) => {
        stream.resume();
        stream.on('end', () => {
          taken.push(String(session.user));
          done();
        });
      },
    });
    smtp.on('error', () => undefined);
    await new Promise<void>((resolve) => smtp.listen(0, '127.0.0.1', resolve));
    const route = (proof: MailRoute['proof']): MailRoute => ({
      host: '127.0.0.1',
      port: (smtp.server.address() as AddressInfo).port,
      tls: 'never',
      user: ACCOUNT,
      proof,
    });
    const raw = Buffer.from('Subject: x\r\n\r\nhello\r\n');
    const deliver = (proof: MailRoute['proof']) =>
      handOver(raw, { from: ACCOUNT, to: 'mara@y.example' }, { passed: () => false }, route(proof));
    try {
      expect(await deliver({ by: 'token', token: await token() })).toMatchObject({ kind: 'accepted' });
      expect(taken).toEqual([ACCOUNT]);
      // What is wrong with a sign-in is the mailbox's trouble: the mail waits.
      expect(await deliver({ by: 'token', token: 'made-up' })).toMatchObject({
        kind: 'away',
        says: expect.stringContaining('cannot sign in'),
      });
      expect(await deliver({ by: 'nothing', why: 'sign in again under Settings' })).toMatchObject({
        kind: 'away',
        says: expect.stringContaining('sign in again'),
      });
      expect((await tryRoute(raw, ACCOUNT, route({ by: 'token', token: await token() }))).ok).toBe(true);
      expect(taken).toHaveLength(2);
    } finally {
      await new Promise<void>((resolve) => {
        smtp.close(() => {
          resolve();
        });
      });
    }
  });
});
