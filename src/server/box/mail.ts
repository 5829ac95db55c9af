import { createHash } from 'node:crypto';
import * as cheerio from 'cheerio';
import { simpleParser } from 'mailparser';
import { cleanText, cutText } from '../../core/base';
import { boundHtml, readHtml } from '../../core/formats';
import type { MailSigns } from '../../core/reply';
import type { IncomingMail } from '../ports';

const LIMITS = { text: 400_000, subject: 1_000, name: 300, address: 320, id: 998, references: 200, files: 50, status: 50_000 } as const;
/** mailparser's own picture of a text as HTML and of HTML as text is not needed. */
const OPTIONS = { keepDeliveryStatus: true, skipTextToHtml: true, skipHtmlToText: true, skipTextLinks: true, skipImageLinks: true };

/** Reads the bytes of a mail. Missing headers become empty; a mail without id gets one from its bytes; texts are clean and within limits. */
export async function readMail(raw: Buffer): Promise<IncomingMail> {
  const mail = await simpleParser(raw, OPTIONS as Parameters<typeof simpleParser>[1]);
  const part = (type: RegExp): string =>
    cleanText((mail.attachments.find((entry) => type.test(entry.contentType))?.content.toString('utf8') ?? '').slice(0, LIMITS.status));
  const text = (value: string | undefined, max: number): string => cutText(cleanText(value ?? ''), max);
  const status = part(/^message\/delivery-status$/);
  const report = part(/^message\/feedback-report$/);
  const original = part(/^(?:text\/rfc822-headers|message\/rfc822)$/);
  const references = typeof mail.references === 'string' ? [mail.references] : (mail.references ?? []);
  const sender = mail.from?.value[0];
  const auto = mail.headers.get('auto-submitted');
  return {
    messageId: text(mail.messageId, LIMITS.id) || `<${createHash('sha256').update(raw).digest('hex').slice(0, 32)}@no-id>`,
    from: text(sender?.address?.toLowerCase(), LIMITS.address),
    fromName: text(sender?.name, LIMITS.name),
    subject: text(mail.subject, LIMITS.subject),
    text: text(wordsOf(mail.text, mail.html), LIMITS.text),
    sentAt: inTime(mail.date?.getTime()),
    inReplyTo: mail.inReplyTo === undefined ? null : text(mail.inReplyTo, LIMITS.id),
    references: references.slice(-LIMITS.references).map((id) => text(id, LIMITS.id)),
    autoSubmitted: typeof auto === 'string' && auto !== 'no',
    signs: signsOf(mail),
    deliveryStatus: status === '' ? null : { status, original },
    ...(report !== '' && { feedback: { report, original } }),
    files: mail.attachments
      .filter((entry) => !entry.related && entry.filename !== undefined && !/^message\/|^text\/(?:calendar|rfc822)/.test(entry.contentType))
      .slice(0, LIMITS.files)
      .map((entry) => ({ name: text(entry.filename, LIMITS.name), bytes: new Uint8Array(entry.content) })),
  };
}

/** A list, a receipt, a calendar's answer, a filter's doubt: as the heads and parts say. */
function signsOf(mail: Awaited<ReturnType<typeof simpleParser>>): MailSigns {
  const head = (name: string): string => {
    const value = mail.headers.get(name);
    return typeof value === 'string' ? value.toLowerCase() : value === undefined ? '' : JSON.stringify(value).toLowerCase();
  };
  const calendar =
    mail.attachments
      .find((entry) => /^text\/calendar/.test(entry.contentType))
      ?.content.toString('utf8')
      .slice(0, LIMITS.status) ?? '';
  const answer = /^METHOD:REPLY/im.test(calendar)
    ? /PARTSTAT=(ACCEPTED|DECLINED|TENTATIVE)/i.exec(calendar)?.[1]?.toLowerCase()
    : undefined;
  return {
    listed: head('list-id') !== '' || head('list') !== '' || head('list-unsubscribe') !== '' || /bulk|list|junk/.test(head('precedence')),
    receipt:
      mail.attachments.some((entry) => entry.contentType === 'message/disposition-notification') ||
      head('content-type').includes('disposition-notification'),
    meeting: answer === 'accepted' || answer === 'declined' || answer === 'tentative' ? answer : null,
    suspect: head('x-spam-flag') === 'yes' || head('x-spam-status').startsWith('yes'),
  };
}

const EARLIEST = Date.parse('1980-01-01');
const LATEST = Date.parse('2100-01-01');
/** A day that a calendar and a database know; null for what a broken clock wrote. */
const inTime = (at: number | undefined): number | null => (at !== undefined && at > EARLIEST && at < LATEST ? at : null);

/** The words of a mail: its plain text, else what its HTML shows, wherever in the mail that lies. */
function wordsOf(plain: string | undefined, html: string | false | undefined): string {
  if (plain !== undefined && plain.trim() !== '') return plain;
  return typeof html === 'string' && html !== '' ? shownText(html) : (plain ?? '');
}

/** What a reader of the HTML sees, a line for each block; quoted parts marked as plain text marks them. */
export function shownText(html: string): string {
  const $ = cheerio.load(boundHtml(html));
  for (const quote of $('blockquote').toArray()) {
    if ($(quote).parents('blockquote').length > 0) continue;
    const lines = readHtml($.html(quote)).blocks.map((block) => $.html($('<p></p>').text(`> ${block.text}`)));
    $(quote).replaceWith(lines.join(''));
  }
  return readHtml($.html())
    .blocks.map((block) => block.text)
    .join('\n');
}
