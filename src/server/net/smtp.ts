/** One SMTP connection for one message (RFC 5321), so that a cut before the body can be told from one after it began. */
import os from 'node:os';
import { Readable } from 'node:stream';
import SMTPConnection from 'nodemailer/lib/smtp-connection/index.js';
import XOAuth2 from 'nodemailer/lib/xoauth2/index.js';
import type { Deadline, MailRoute, RouteCheck, SendOutcome } from '../ports';

const TIMES = { connectionMs: 5_000, greetingMs: 5_000, socketMs: 15_000 } as const;

export interface Relay extends MailRoute {
  /** what it is called where a stand-in is asked in its place */
  readonly called?: string;
}
interface Envelope {
  readonly from: string;
  readonly to: string;
}

function open(relay: Relay): SMTPConnection {
  return new SMTPConnection({
    host: relay.host,
    port: relay.port,
    secure: relay.tls === 'from the start',
    requireTLS: relay.tls === 'after a greeting',
    ignoreTLS: relay.tls === 'never',
    connectionTimeout: TIMES.connectionMs,
    greetingTimeout: TIMES.greetingMs,
    socketTimeout: TIMES.socketMs,
    name: os.hostname(),
  });
}

/** By password (RFC 4954) or by a sign-in service's token (XOAUTH2). */
function signIn(connection: SMTPConnection, { user, proof }: Relay, done: (error?: Error | null) => void): void {
  if (proof.by === 'nothing') done(Object.assign(new Error(proof.why), { code: 'EAUTH' }));
  else if (proof.by === 'token') connection.login({ user, oauth2: new XOAuth2({ user, accessToken: proof.token }) }, done);
  else connection.login({ user, credentials: { user, pass: proof.password } }, done);
}

/** Hosts of made-up worlds exist only where a stand-in serves them, and none serves as a mailbox's own server: no name server is asked for one. */
const isMadeUp = (host: string): boolean => /\.example\.?$/i.test(host.trim());

/** Connects, signs in where there is a user, hands the bytes over once. */
export function handOver(raw: Uint8Array, envelope: Envelope, before: Deadline, relay: Relay): Promise<SendOutcome> {
  if (isMadeUp(relay.host)) return Promise.resolve({ kind: 'away', says: `there is no host ${relay.host}` });
  return new Promise((resolve) => {
    const connection = open(relay);
    const far: HowFar = { greeted: false, bodyBegan: false };
    let settled = false;
    const settle = (outcome: SendOutcome): void => {
      if (settled) return;
      settled = true;
      connection.close();
      resolve(outcome);
    };
    const fail = (error: SmtpError): void => {
      settle(afterFailure(error, far));
    };
    connection.on('error', fail);
    connection.on('end', () => {
      fail(new Error('the server closed the line'));
    });
    // Read only after the server's 354: what was read tells how far the hand-over got.
    const body = new Readable({
      read() {
        // A worker that was stalled here has lost its lease: another one may have sent this meanwhile.
        if (before.passed()) {
          settle({ kind: 'deferred', says: 'too late to hand the message over' });
          return;
        }
        far.bodyBegan = true;
        this.push(raw);
        this.push(null);
      },
    });
    const send = (): void => {
      connection.send({ from: envelope.from, to: [envelope.to] }, body, (error, info) => {
        if (error) fail(error);
        else settle({ kind: 'accepted', says: info.response });
      });
    };
    connection.connect(() => {
      far.greeted = true;
      if (relay.user === '') send();
      else
        signIn(connection, relay, (error) => {
          if (error) fail(error);
          else send();
        });
    });
  });
}

type SmtpError = Error & { responseCode?: number; code?: string };
interface HowFar {
  greeted: boolean;
  bodyBegan: boolean;
}

/** What a failure means for the mail depends on how far it had got. */
function afterFailure(error: SmtpError, { greeted, bodyBegan }: HowFar): SendOutcome {
  const { responseCode } = error;
  // A wrong password is the mailbox's trouble, not this mail's: it waits.
  if (error.code === 'EAUTH') return { kind: 'away', says: `the mailbox cannot sign in: ${error.message}` };
  if (responseCode !== undefined && responseCode !== 421)
    return { kind: responseCode >= 500 ? 'rejected' : 'deferred', says: error.message };
  if (bodyBegan) return { kind: 'in doubt', says: `the line broke after the message was handed over: ${error.message}` };
  return greeted ? { kind: 'deferred', says: error.message } : { kind: 'away', says: 'it does not answer' };
}

const PLAIN_WORDS: readonly (readonly [RegExp, string])[] = [
  [/ENOTFOUND|EAI_AGAIN/, 'there is no such host: look at how it is spelt'],
  [/ECONNREFUSED/, 'nothing answers at that port: 465 (TLS from the start) and 587 (after a greeting) are the usual ones'],
  [/ETIMEDOUT|ETIMEOUT|Greeting never received|timeout/i, 'it does not answer in time: the port may be closed, or want TLS from the start'],
  [/self.signed|unable to verify|certificate|altnames/i, 'its certificate is not in order: the host may be called otherwise'],
  [/wrong version number|EPROTO|ssl3|SSL routines/i, 'it does not speak TLS from the start there: try “after a greeting”'],
  [/STARTTLS/i, 'it offers no TLS after the greeting: try “from the start”'],
];
const inPlainWords = (error: Error & { code?: string; response?: string }): string => {
  const said = `${error.code ?? ''} ${error.message}`;
  return PLAIN_WORDS.find(([pattern]) => pattern.test(said))?.[1] ?? error.response ?? error.message;
};

/** Goes the way step by step; the first step that fails is the last. */
export async function tryRoute(raw: Uint8Array, address: string, relay: Relay): Promise<RouteCheck> {
  if (isMadeUp(relay.host))
    return { ok: false, steps: [{ what: 'reach it', ok: false, says: 'there is no such host: look at how it is spelt' }] };
  const steps: { what: string; ok: boolean; says: string }[] = [];
  const connection = open(relay);
  const step = async (what: string, works: string, run: () => Promise<unknown>): Promise<boolean> => {
    try {
      await run();
      steps.push({ what, ok: true, says: works });
      return true;
    } catch (error) {
      steps.push({ what, ok: false, says: inPlainWords(error as Error) });
      return false;
    }
  };
  const broke = new Promise<never>((_, reject) => {
    connection.on('error', reject);
    connection.on('end', () => {
      reject(new Error('the server closed the line'));
    });
  });
  broke.catch(() => undefined);
  const told = (run: (done: (error?: Error | null) => void) => void): Promise<unknown> =>
    Promise.race([
      broke,
      new Promise<void>((resolve, reject) => {
        run((error) => {
          if (error) reject(error);
          else resolve();
        });
      }),
    ]);
  const ok =
    (await step('reach it', `${relay.called ?? `${relay.host}:${relay.port}`} answers${relay.tls === 'never' ? '' : ', encrypted'}`, () =>
      told((done) => {
        connection.connect(done);
      }),
    )) &&
    (relay.user === '' ||
      (await step('sign in', `signed in as ${relay.user}`, () =>
        told((done) => {
          signIn(connection, relay, done);
        }),
      ))) &&
    (await step('send', `it took a letter from ${address} to ${address}`, () =>
      told((done) => {
        connection.send({ from: address, to: [address] }, Buffer.from(raw), done);
      }),
    ));
  connection.close();
  return { ok, steps };
}
