import { Readable } from 'node:stream';
import MailComposer from 'nodemailer/lib/mail-composer/index.js';
import SMTPConnection from 'nodemailer/lib/smtp-connection/index.js';
import { request } from 'undici';
import { z } from 'zod';
import type { Deadline, Mail, SendOutcome } from '../ports';

const TIMES = { connectionMs: 5_000, greetingMs: 5_000, socketMs: 15_000 } as const;
const statusSchema = z.object({ state: z.enum(['taken', 'absent']) });

/** SMTP with one connection per message, so that a cut before the body can be told from one after it began. */
export function smtpMail(options: { readonly host: string; readonly port: number; readonly statusUrl: string | null }): Mail {
  return {
    async compose(mail) {
      const composer = new MailComposer({
        from: mail.from,
        to: mail.to,
        subject: mail.subject,
        text: mail.text,
        messageId: mail.messageId,
        date: new Date(mail.date),
        ...(mail.inReplyTo === null ? {} : { inReplyTo: mail.inReplyTo }),
        references: [...mail.references],
        attachments: (mail.attachments ?? []).map((file) => ({
          filename: file.name,
          contentType: file.type,
          content: Buffer.from(file.content),
        })),
        ...(mail.unsubscribeUrl !== null && {
          headers: {
            'List-Unsubscribe': `<${mail.unsubscribeUrl}>, <mailto:${mail.from.address}?subject=unsubscribe>`,
            'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click',
          },
        }),
      });
      return composer.compile().build();
    },
    deadline(withinMs) {
      const end = performance.now() + withinMs;
      return { passed: () => performance.now() > end };
    },
    deliver: (raw, envelope, before) => deliver(raw, envelope, before, options),
    async find(messageId) {
      if (options.statusUrl === null) return 'cannot tell';
      try {
        const response = await request(`${options.statusUrl}/taken?id=${encodeURIComponent(messageId)}`, { headersTimeout: 3_000 });
        const read = statusSchema.safeParse(await response.body.json());
        return read.success ? read.data.state : 'cannot tell';
      } catch {
        return 'cannot tell';
      }
    },
  };
}

function deliver(
  raw: Uint8Array,
  envelope: { readonly from: string; readonly to: string },
  before: Deadline,
  options: { readonly host: string; readonly port: number },
): Promise<SendOutcome> {
  return new Promise((resolve) => {
    const connection = new SMTPConnection({
      host: options.host,
      port: options.port,
      secure: false,
      ignoreTLS: true,
      connectionTimeout: TIMES.connectionMs,
      greetingTimeout: TIMES.greetingMs,
      socketTimeout: TIMES.socketMs,
      name: 'millrace.example',
    });
    let bodyBegan = false;
    let greeted = false;
    let settled = false;
    const settle = (outcome: SendOutcome): void => {
      if (settled) return;
      settled = true;
      connection.close();
      resolve(outcome);
    };
    const fail = (error: Error & { responseCode?: number }): void => {
      const { responseCode } = error;
      if (responseCode !== undefined && responseCode !== 421) {
        settle({ kind: responseCode >= 500 ? 'rejected' : 'deferred', says: error.message });
        return;
      }
      settle(
        bodyBegan
          ? { kind: 'in doubt', says: `the line broke after the message was handed over: ${error.message}` }
          : greeted
            ? { kind: 'deferred', says: error.message }
            : { kind: 'away', says: 'it does not answer' },
      );
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
        bodyBegan = true;
        this.push(raw);
        this.push(null);
      },
    });
    connection.connect(() => {
      greeted = true;
      connection.send({ from: envelope.from, to: [envelope.to] }, body, (error, info) => {
        if (error) fail(error);
        else settle({ kind: 'accepted', says: info.response });
      });
    });
  });
}
