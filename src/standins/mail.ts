import fs from 'node:fs';
import http from 'node:http';
import { simpleParser, type ParsedMail } from 'mailparser';
import nodemailer from 'nodemailer';
import { SMTPServer } from 'smtp-server';
import { z } from 'zod';
import { PERSONA_KINDS, personaOf, type Persona, type PersonaKind, type PersonaWords } from './personas';
import { listen, readJson, sendJson, type StandIn } from './server';

export interface MailStandInOptions {
  readonly smtpPort?: number;
  readonly controlPort?: number;
  /** where answers go: Millrace's inbound listener */
  readonly inboundPort: number;
  /** append-only file of what was taken, so that a restart forgets nothing */
  readonly journalFile?: string;
  readonly personas?: ReadonlyMap<string, PersonaKind>;
  /** whether that opens that account here; left out: nobody signs in */
  readonly opens?: (user: string, proof: { readonly password?: string | undefined; readonly token?: string | undefined }) => boolean;
  /** what recipients write */
  readonly answers: PersonaWords;
}

export interface Taken {
  readonly messageId: string;
  readonly from: string;
  readonly to: string;
  readonly subject: string;
  readonly text: string;
  readonly inReplyTo: string | null;
  readonly references: readonly string[];
  readonly unsubscribe: string;
  readonly at: number;
}
type MailOptions = NonNullable<Parameters<ReturnType<typeof nodemailer.createTransport>['sendMail']>[0]>;
interface Due {
  readonly at: number;
  readonly to: string;
  readonly mail: Taken;
  readonly persona: Persona;
}

const tickSchema = z.object({ now: z.number() });
const neverSchema = z.object({ kinds: z.array(z.enum(PERSONA_KINDS)) });
const faultSchema = z.object({
  mode: z.enum(['none', 'drop after data', 'drop and forget', 'defer', 'refuse', 'slow']),
  share: z.number().min(0).max(1).default(1),
});

/** The stand-in recipients: take mail by SMTP, answer by SMTP when the demo's clock says so. Control door over HTTP. */
export async function startMail(options: MailStandInOptions): Promise<StandIn & { readonly smtpPort: number }> {
  const state = new Recipients(options);
  const smtp = state.smtp();
  await new Promise<void>((resolve, reject) => {
    smtp.once('error' as never, reject as never);
    smtp.listen(options.smtpPort ?? 0, '127.0.0.1', () => {
      resolve();
    });
  });
  const address = smtp.server.address();
  const control = http.createServer((request, response) => {
    state.control(request, response).catch((error: unknown) => {
      sendJson(response, { error: String(error) }, 400);
    });
  });
  const standIn = await listen(
    control,
    options.controlPort ?? 0,
    () =>
      new Promise<void>((done) => {
        smtp.close(() => {
          done();
        });
      }),
  );
  return { ...standIn, smtpPort: typeof address === 'object' && address ? address.port : 0 };
}

class Recipients {
  private readonly taken: Taken[] = [];
  private readonly ids = new Map<string, number>();
  private due: Due[] = [];
  private never: ReadonlySet<PersonaKind> = new Set();
  private fault: z.infer<typeof faultSchema> = { mode: 'none', share: 1 };
  private received = 0;
  private readonly answered = new Set<string>();

  constructor(private readonly options: MailStandInOptions) {
    if (options.journalFile && fs.existsSync(options.journalFile)) {
      for (const line of fs.readFileSync(options.journalFile, 'utf8').split('\n').filter(Boolean)) {
        // Answers that were given before the restart are given again; whoever gets them knows their ids already.
        this.keep(JSON.parse(line) as Taken);
      }
    }
  }

  smtp(): SMTPServer {
    const sockets = new Map<number, { destroy(): void }>();
    const server = new SMTPServer({
      authOptional: true,
      authMethods: ['PLAIN', 'LOGIN', 'XOAUTH2'],
      allowInsecureAuth: true,
      disabledCommands: ['STARTTLS'],
      onAuth: ({ username, password, accessToken }, _session, callback) => {
        const opens =
          this.options.opens?.((username ?? '').toLowerCase(), { password: password ?? undefined, token: accessToken ?? undefined }) ===
          true;
        if (opens) callback(null, { user: username ?? '' });
        else callback(Object.assign(new Error('this does not open it'), { responseCode: 535 }));
      },
      disableReverseLookup: true,
      closeTimeout: 300,
      logger: false,
      onRcptTo: (_address, _session, callback) => {
        this.received += 1;
        const hit = (this.received * 0.618) % 1 < this.fault.share;
        if (hit && this.fault.mode === 'defer') callback(Object.assign(new Error('greylisted, come back later'), { responseCode: 451 }));
        else if (hit && this.fault.mode === 'refuse') callback(Object.assign(new Error('no such mailbox here'), { responseCode: 550 }));
        else callback();
      },
      onData: (stream, session, callback) => {
        const chunks: Buffer[] = [];
        stream.on('data', (chunk: Buffer) => {
          chunks.push(chunk);
        });
        stream.on('end', () => {
          const hit = (this.received * 0.618) % 1 < this.fault.share;
          const cut = (): void => {
            sockets.get(session.remotePort)?.destroy();
          };
          if (hit && this.fault.mode === 'drop and forget') {
            cut();
            return;
          }
          simpleParser(Buffer.concat(chunks)).then(
            (mail) => {
              for (const to of session.envelope.rcptTo) this.take(mail, to.address.toLowerCase());
              if (hit && this.fault.mode === 'drop after data') {
                cut();
                return;
              }
              if (hit && this.fault.mode === 'slow') {
                setTimeout(() => {
                  callback();
                }, 3_000);
                return;
              }
              callback();
            },
            () => {
              callback(new Error('cannot read this mail'));
            },
          );
        });
      },
    });
    server.on('error', () => undefined);
    server.server.on('connection', (socket) => {
      sockets.set(socket.remotePort ?? 0, socket);
      socket.on('error', () => undefined);
      socket.on('close', () => sockets.delete(socket.remotePort ?? 0));
    });
    return server;
  }

  private take(mail: ParsedMail, to: string): void {
    const references = typeof mail.references === 'string' ? [mail.references] : (mail.references ?? []);
    const list = mail.headerLines.find((line) => line.key === 'list-unsubscribe')?.line ?? '';
    const taken: Taken = {
      messageId: mail.messageId ?? '',
      from: mail.from?.value[0]?.address ?? '',
      to,
      subject: mail.subject ?? '',
      text: mail.text ?? '',
      inReplyTo: mail.inReplyTo ?? null,
      references,
      unsubscribe: list.replace(/^list-unsubscribe:\s*/i, '').trim(),
      at: mail.date?.getTime() ?? 0,
    };
    if (this.options.journalFile) fs.appendFileSync(this.options.journalFile, `${JSON.stringify(taken)}\n`);
    this.keep(taken);
  }

  /** Remembers a mail and, the first time an address is written to, when its answer is due. */
  private keep(taken: Taken): void {
    this.taken.push(taken);
    this.ids.set(taken.messageId, (this.ids.get(taken.messageId) ?? 0) + 1);
    const persona = personaOf(taken.to, this.options.personas ?? new Map(), this.options.answers);
    // A notice to a colleague can be unsubscribed from by nobody, and nobody answers it.
    if (persona.kind === 'silent' || this.never.has(persona.kind) || !taken.from || taken.unsubscribe === '' || this.answered.has(taken.to))
      return;
    this.answered.add(taken.to);
    this.due.push({ at: taken.at + persona.afterMs, to: taken.to, mail: taken, persona });
  }

  async control(request: http.IncomingMessage, response: http.ServerResponse): Promise<void> {
    const url = new URL(request.url ?? '/', 'http://standin');
    if (url.pathname === '/taken') {
      sendJson(response, { state: this.ids.has(url.searchParams.get('id') ?? '') ? 'taken' : 'absent' });
      return;
    }
    if (url.pathname === '/box') {
      const to = url.searchParams.get('to');
      sendJson(
        response,
        this.taken.filter((mail) => to === null || mail.to === to),
      );
      return;
    }
    if (url.pathname === '/counts') {
      sendJson(response, {
        taken: this.taken.length,
        different: this.ids.size,
        twice: [...this.ids.values()].filter((count) => count > 1).length,
      });
      return;
    }
    if (url.pathname === '/fault') {
      this.fault = faultSchema.parse(await readJson(request));
      sendJson(response, { ok: true });
      return;
    }
    // From now on recipients of these kinds are silent: enough of them come back to stop a mailbox.
    if (url.pathname === '/never') {
      this.never = new Set(neverSchema.parse(await readJson(request)).kinds);
      sendJson(response, { ok: true });
      return;
    }
    if (url.pathname === '/tick') {
      const { now } = tickSchema.parse(await readJson(request));
      await this.answer(now);
      sendJson(response, {
        next: this.due.reduce<number | null>((least, entry) => (least === null || entry.at < least ? entry.at : least), null),
      });
      return;
    }
    sendJson(response, { error: 'no such door' }, 404);
  }

  /** Sends every answer that is due. Where Millrace does not take it, it stays due and is tried at the next tick. */
  private async answer(now: number): Promise<void> {
    const ready = this.due.filter((entry) => entry.at <= now);
    if (ready.length === 0) return;
    const transport = nodemailer.createTransport({
      host: '127.0.0.1',
      port: this.options.inboundPort,
      secure: false,
      ignoreTLS: true,
      pool: true,
      maxConnections: 2,
    });
    try {
      for (const entry of ready) {
        await transport.sendMail(mailOf(entry));
        this.due = this.due.filter((other) => other !== entry);
      }
    } catch {
      // Nobody listens just now.
    } finally {
      transport.close();
    }
  }
}

function mailOf({ mail, persona, to, at }: Due): MailOptions {
  const common = {
    date: new Date(at),
    inReplyTo: mail.messageId,
    references: [...mail.references, mail.messageId],
    messageId: `<answer-${mail.messageId.slice(1, 37)}@${to.split('@')[1] ?? 'somewhere.example'}>`,
  };
  const quoted = mail.text
    .split('\n')
    .map((line) => `> ${line}`)
    .join('\n');
  if (persona.kind === 'bounce') return bounceOf(mail, to, common);
  if (persona.kind === 'complains') return complaintOf(mail, to, common);
  const auto = persona.kind === 'away';
  return {
    ...common,
    from: to,
    to: mail.from,
    envelope: { from: to, to: mail.from },
    subject: auto ? `Automatic reply: ${mail.subject}` : `Re: ${mail.subject.replace(/^Re: /, '')}`,
    text: `${persona.text}\n\nOn ${new Date(mail.at).toUTCString()} ${mail.from} wrote:\n${quoted}\n`,
    headers: auto ? { 'Auto-Submitted': 'auto-replied' } : {},
  };
}

/** A delivery status report, RFC 3464. */
function bounceOf(mail: Taken, to: string, common: { readonly date: Date; readonly messageId: string }): MailOptions {
  const boundary = 'report-boundary-7f3a';
  const raw = [
    'From: Mail Delivery <postmaster@relay.example>',
    `To: ${mail.from}`,
    'Subject: Undelivered Mail Returned to Sender',
    `Message-ID: ${common.messageId}`,
    `Date: ${common.date.toUTCString()}`,
    'Auto-Submitted: auto-replied',
    'MIME-Version: 1.0',
    `Content-Type: multipart/report; report-type=delivery-status; boundary="${boundary}"`,
    '',
    `--${boundary}`,
    'Content-Type: text/plain; charset=utf-8',
    '',
    `The mail to ${to} could not be delivered: there is no such mailbox.`,
    '',
    `--${boundary}`,
    'Content-Type: message/delivery-status',
    '',
    'Reporting-MTA: dns; relay.example',
    '',
    `Final-Recipient: rfc822; ${to}`,
    'Action: failed',
    'Status: 5.0.0',
    'Diagnostic-Code: smtp; 550 5.1.1 no such mailbox',
    '',
    `--${boundary}`,
    'Content-Type: text/rfc822-headers',
    '',
    `Message-ID: ${mail.messageId}`,
    `Subject: ${mail.subject}`,
    `To: ${to}`,
    '',
    `--${boundary}--`,
    '',
  ].join('\r\n');
  return { envelope: { from: '', to: mail.from }, raw };
}

/** What a provider sends when somebody marks a mail as unwanted, RFC 5965. */
function complaintOf(mail: Taken, to: string, common: { readonly date: Date; readonly messageId: string }): MailOptions {
  const boundary = 'report-boundary-91c2';
  const raw = [
    'From: Feedback <feedback@provider.example>',
    `To: ${mail.from}`,
    `Subject: FW: ${mail.subject}`,
    `Message-ID: ${common.messageId}`,
    `Date: ${common.date.toUTCString()}`,
    'MIME-Version: 1.0',
    `Content-Type: multipart/report; report-type=feedback-report; boundary="${boundary}"`,
    '',
    `--${boundary}`,
    'Content-Type: text/plain; charset=utf-8',
    '',
    'This is a report of a mail that a reader marked as unwanted.',
    '',
    `--${boundary}`,
    'Content-Type: message/feedback-report',
    '',
    'Feedback-Type: abuse',
    'User-Agent: Provider/1',
    'Version: 1',
    `Original-Rcpt-To: <${to}>`,
    '',
    `--${boundary}`,
    'Content-Type: message/rfc822',
    '',
    `From: ${mail.from}`,
    `To: ${to}`,
    `Subject: ${mail.subject}`,
    `Message-ID: ${mail.messageId}`,
    '',
    mail.text,
    '',
    `--${boundary}--`,
    '',
  ].join('\r\n');
  return { envelope: { from: '', to: mail.from }, raw };
}
