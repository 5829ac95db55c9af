import { z } from 'zod';
import { fold } from '../base';
import type { Target } from './guess';

/** Which mails of a mailbox are taken in. Empty texts ask nothing. */
export const mailRuleSchema = z.object({
  folder: z.string().trim().min(1).max(200).default('INBOX'),
  /** part of the sender's name or address */
  from: z.string().trim().max(200).default(''),
  /** part of the subject */
  subject: z.string().trim().max(200).default(''),
  /** mails that begin a conversation, that answer one, or both */
  only: z.enum(['new', 'answers', 'both']).default('new'),
  unreadOnly: z.boolean().default(false),
  withFile: z.boolean().default(false),
  /** whether what lies there when the door is first looked at is taken in, or only what comes after */
  begins: z.enum(['with what lies there', 'from now on']).default('with what lies there'),
});
export type MailRule = z.infer<typeof mailRuleSchema>;

export interface MailToJudge {
  readonly from: string;
  readonly fromName: string;
  readonly subject: string;
  readonly inReplyTo: string | null;
  readonly references: readonly string[];
  readonly autoSubmitted: boolean;
  readonly isReport: boolean;
  /** a person has answered it in their mail program */
  readonly answered: boolean;
  readonly files: number;
}

/** Why a mail is left alone; undefined when it is taken in. */
export function leftAlone(mail: MailToJudge, rule: MailRule): string | undefined {
  const isAnswer = mail.inReplyTo !== null || mail.references.length > 0;
  if (mail.from === '') return 'it has no sender';
  if (mail.answered) return 'somebody has answered it already';
  if (mail.autoSubmitted || mail.isReport) return 'a machine sent it';
  if (rule.only === 'new' && isAnswer) return 'it is an answer';
  if (rule.only === 'answers' && !isAnswer) return 'it begins a conversation';
  if (rule.withFile && mail.files === 0) return 'no file came with it';
  if (rule.from !== '' && !fold(`${mail.fromName} ${mail.from}`).includes(fold(rule.from))) return `its sender is not “${rule.from}”`;
  if (rule.subject !== '' && !fold(mail.subject).includes(fold(rule.subject))) return `its subject is not “${rule.subject}”`;
  return undefined;
}

/** Hosts where anybody has a mailbox: they say nothing about a company. */
const ANYBODY =
  /^(?:mail|post|postvak|mailhall|webmail|freemail|courrielle|skrzynka|correos?|postfach)[a-z-]*\.|^(?:[a-z]+mail|mail[a-z]+)\.example$/;

/** The web site a sender's address points to, when its host is a company's own. */
export function siteOf(address: string): string | null {
  const host = address.split('@')[1]?.toLowerCase() ?? '';
  return host === '' || ANYBODY.test(host) ? null : host;
}

/** A person by name and address as a row, as lists have them. */
export function addressRow(who: { readonly name: string; readonly address: string; readonly note?: string; readonly company?: boolean }): {
  readonly cells: readonly string[];
  readonly columns: readonly { readonly target: Target }[];
} {
  const site = who.company === false ? null : siteOf(who.address);
  const cells: readonly (readonly [string, Target])[] = [
    [who.name === '' ? nameIn(who.address) : who.name, 'person.name'],
    [who.address, 'person.email'],
    ...(site === null ? [] : [[site, 'company.website'] as const]),
    ...(who.note ? [[who.note, 'note'] as const] : []),
  ];
  return { cells: cells.map(([cell]) => cell), columns: cells.map(([, target]) => ({ target })) };
}

/** “m.quill” is no name, but it is what there is: “M Quill”. */
const nameIn = (address: string): string =>
  (address.split('@')[0] ?? '')
    .split(/[._-]+/)
    .filter((part) => part !== '')
    .map((part) => part.charAt(0).toUpperCase() + part.slice(1))
    .join(' ');
