/** A mailbox's own way out, against a real SMTP server: TLS, sign-in, and what is said when a step fails. */
import type { AddressInfo } from 'node:net';
import { SMTPServer, type SMTPServerOptions } from 'smtp-server';
import type { MailRoute } from '../ports';
import { handOver, tryRoute } from './smtp';

const taken: string[] = [];
let server: SMTPServer | undefined;
async function serve(options: SMTPServerOptions): Promise<number> {
  server = new SMTPServer({
    logger: false,
    onAuth: (auth, _session, done) => {
      done(
        auth.password === 'quiet river' ? null : new Error('wrong'),
        auth.password === 'quiet river' ? { user: auth.username ?? '' } : undefined,
      );
    },
    onData: (stream, _session, done) => {
      let text = '';
      stream.on('data', (chunk: Buffer) => {
        text += chunk.toString();
      });
      stream.on('end', () => {
        taken.push(text);
        done();
      });
    },
    ...options,
  });
  // What a client breaks off is nothing to fall over.
  server.on('error', () => undefined);
  await new Promise<void>((resolve) => server?.listen(0, '127.0.0.1', resolve));
  return (server.server.address() as AddressInfo).port;
}
beforeEach(() => {
  taken.length = 0;
});
afterEach(() => new Promise<void>((resolve) => (server ? server.close(resolve) : resolve())));

const raw = Buffer.from('Subject: x\r\n\r\nhello\r\n');
const way = (port: number, more: Partial<MailRoute> = {}): MailRoute => ({
  host: '127.0.0.1',
  port,
  tls: 'never',
  user: 'sales@x.example',
  proof: { by: 'password', password: 'quiet river' },
  ...more,
});
const check = (route: MailRoute) => tryRoute(raw, 'sales@x.example', route);
const deliver = (route: MailRoute) => handOver(raw, { from: 'sales@x.example', to: 'mara@y.example' }, { passed: () => false }, route);

test('signs in and hands a mail over; the check goes step by step to a letter to itself', async () => {
  const port = await serve({ authMethods: ['PLAIN', 'LOGIN'], allowInsecureAuth: true });
  expect(await deliver(way(port))).toMatchObject({ kind: 'accepted' });
  expect(taken).toEqual(['Subject: x\r\n\r\nhello\r\n']);
  const went = await check(way(port));
  expect([went.ok, went.steps.map((step) => step.what)]).toEqual([true, ['reach it', 'sign in', 'send']]);
});

test('a wrong password is the mailbox’s trouble: the mail waits, and the check stops at the sign-in', async () => {
  const port = await serve({ authMethods: ['PLAIN'], allowInsecureAuth: true });
  const wrong = way(port, { proof: { by: 'password', password: 'loud river' } });
  expect(await deliver(wrong)).toMatchObject({ kind: 'away', says: expect.stringContaining('cannot sign in') });
  const went = await check(wrong);
  expect([went.ok, went.steps.map((step) => step.ok)]).toEqual([false, [true, false]]);
  expect(taken).toEqual([]);
});

test('TLS that was asked for is never left out: a certificate of nobody stops it, in plain words', async () => {
  const port = await serve({ authOptional: true });
  const went = await check(way(port, { tls: 'after a greeting' }));
  expect(went).toMatchObject({ ok: false, steps: [{ what: 'reach it', says: expect.stringContaining('certificate') }] });
  expect((await deliver(way(port, { tls: 'after a greeting' }))).kind).not.toBe('accepted');
});

test('a server without TLS after the greeting is told from one with it', async () => {
  const port = await serve({ authOptional: true, hideSTARTTLS: true, disabledCommands: ['STARTTLS'] });
  expect((await check(way(port, { tls: 'after a greeting' }))).ok).toBe(false);
  expect((await check(way(port, { tls: 'from the start' }))).steps[0]).toMatchObject({
    ok: false,
    says: expect.stringContaining('does not speak TLS from the start'),
  });
});

test('a made-up host is looked for nowhere', async () => {
  const went = await check(way(465, { host: 'smtp.thornwick.example' }));
  expect(went.steps).toEqual([{ what: 'reach it', ok: false, says: 'there is no such host: look at how it is spelt' }]);
  expect(await deliver(way(465, { host: 'smtp.thornwick.example.' }))).toMatchObject({ kind: 'away' });
});

test('nobody there: the port is named as what to look at', async () => {
  const went = await check(way(1));
  expect(went).toMatchObject({ ok: false, steps: [{ what: 'reach it', says: expect.stringContaining('nothing answers at that port') }] });
});
