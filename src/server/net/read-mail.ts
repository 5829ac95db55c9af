import { createHash } from 'node:crypto';
import { simpleParser } from 'mailparser';
import type { IncomingMail } from '../ports';

/** Reads the bytes of a mail. Missing headers become empty; a mail without id gets one from its bytes. */
export async function readMail(raw: Buffer): Promise<IncomingMail> {
  const mail = await simpleParser(raw, { keepDeliveryStatus: true } as Parameters<typeof simpleParser>[1]);
  const part = (type: RegExp): string => mail.attachments.find((entry) => type.test(entry.contentType))?.content.toString('utf8') ?? '';
  const status = part(/^message\/delivery-status$/);
  const references = typeof mail.references === 'string' ? [mail.references] : (mail.references ?? []);
  const sender = mail.from?.value[0];
  const auto = mail.headers.get('auto-submitted');
  return {
    messageId: mail.messageId ?? `<${createHash('sha256').update(raw).digest('hex').slice(0, 32)}@no-id>`,
    from: sender?.address?.toLowerCase() ?? '',
    fromName: sender?.name ?? '',
    subject: mail.subject ?? '',
    text: mail.text ?? '',
    sentAt: mail.date?.getTime() ?? null,
    inReplyTo: mail.inReplyTo ?? null,
    references,
    autoSubmitted: typeof auto === 'string' && auto !== 'no',
    deliveryStatus: status === '' ? null : { status, original: part(/^(?:text\/rfc822-headers|message\/rfc822)$/) },
    files: mail.attachments
      .filter((entry) => !entry.related && entry.filename !== undefined && !/^message\/|^text\/(?:calendar|rfc822)/.test(entry.contentType))
      .map((entry) => ({ name: entry.filename ?? '', bytes: new Uint8Array(entry.content) })),
  };
}
