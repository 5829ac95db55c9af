import { buffer } from 'node:stream/consumers';
import DKIM from 'nodemailer/lib/dkim/index.js';
import MailComposer from 'nodemailer/lib/mail-composer/index.js';
import { request } from 'undici';
import { z } from 'zod';
import type { Mail, MailRoute, OutgoingMail, Signer } from '../ports';
import { handOver, tryRoute, type Relay } from '../net';

const statusSchema = z.object({ state: z.enum(['taken', 'absent']) });

/** Signed over its head and body; trace lines that relays put before it change nothing. */
function signed(raw: Buffer, { domain, selector, privateKey }: Signer): Promise<Buffer> {
  return buffer(new DKIM({ domainName: domain, keySelector: selector, privateKey }).sign(raw, {}));
}

async function composed(mail: OutgoingMail): Promise<Uint8Array> {
  const composer = new MailComposer({
    from: mail.from,
    to: mail.to,
    ...(mail.replyTo != null && { replyTo: mail.replyTo }),
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
  const raw = await composer.compile().build();
  return mail.signer ? signed(raw, mail.signer) : raw;
}

/** Mails by this installation's relay, or by the way a mailbox has of its own. */
export function smtpMail(options: {
  readonly host: string;
  readonly port: number;
  readonly statusUrl: string | null;
  /** `host:port` of the stand-in that is every server ending in `.example`; null: there are none */
  readonly standin?: string | null;
  /** looks at what domains say */
  readonly prove: Mail['prove'];
}): Mail {
  const relay: Relay = { host: options.host, port: options.port, tls: 'never', user: '', proof: { by: 'password', password: '' } };
  const [standinHost, standinPort] = (options.standin ?? '').split(':');
  /** Where a way leads: the stand-in speaks plain SMTP. */
  const dialled = (route: MailRoute | null): Relay =>
    route !== null && standinHost && /\.example\.?$/i.test(route.host)
      ? { ...route, host: standinHost, port: Number(standinPort), tls: 'never', called: `${route.host}:${route.port}` }
      : (route ?? relay);
  return {
    compose: composed,
    deadline(withinMs) {
      const end = performance.now() + withinMs;
      return { passed: () => performance.now() > end };
    },
    prove: options.prove,
    deliver: (raw, envelope, before, route) => handOver(raw, envelope, before, dialled(route)),
    check: (raw, address, route) => tryRoute(raw, address, dialled(route)),
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
