import type { MailboxShape } from '../../api';
import { readTyped } from '../../core/fields';

/** A mailbox while it is typed. */
export interface MailboxDraft {
  readonly isNew: boolean;
  readonly name: string;
  readonly address: string;
  readonly displayName: string;
  readonly zone: string;
  readonly dailyLimit: string;
  readonly personGapDays: string;
  readonly minutesApart: string;
  /** mails on the first day; empty: as many as it may */
  readonly rampFrom: string;
  readonly rampStep: string;
  readonly signature: string;
  readonly replyTo: string;
  readonly ownRoute: boolean;
  readonly host: string;
  readonly port: string;
  readonly tls: 'from the start' | 'after a greeting' | 'never';
  readonly user: string;
  /** the sign-in service that opens it; empty: a password */
  readonly service: string;
  /** empty: the one that is kept stays */
  readonly password: string;
}

export const draftOf = (box: MailboxShape): MailboxDraft => ({
  isNew: false,
  name: box.name,
  address: box.address,
  displayName: box.displayName,
  zone: box.zone,
  dailyLimit: String(box.dailyLimit),
  personGapDays: String(box.personGapDays),
  minutesApart: String(box.minutesApart),
  rampFrom: box.rampUp === null ? '' : String(box.rampUp.from),
  rampStep: String(box.rampUp?.step ?? 5),
  signature: box.signature,
  replyTo: box.replyTo ?? '',
  ownRoute: box.route !== null,
  host: box.route?.host ?? '',
  port: String(box.route?.port ?? 465),
  tls: box.route?.tls ?? 'from the start',
  user: box.route?.user ?? '',
  service: box.route?.service ?? '',
  password: '',
});
/** What a new one begins with: careful limits, and the safe way out. */
export const newDraft = (zone: string, displayName: string): MailboxDraft => ({
  isNew: true,
  name: '',
  address: '',
  displayName,
  zone,
  dailyLimit: '40',
  personGapDays: '2',
  minutesApart: '2',
  rampFrom: '10',
  rampStep: '5',
  signature: '',
  replyTo: '',
  ownRoute: true,
  host: '',
  port: '465',
  tls: 'from the start',
  user: '',
  service: '',
  password: '',
});

const isAddress = (text: string): boolean => text !== '' && readTyped({ type: 'e-mail' }, text).ok;
const whole = (text: string): number | undefined => (/^\d{1,6}$/.test(text.trim()) ? Number(text) : undefined);

/** What is missing or wrong, in the order of the form; undefined when it can be kept. */
export function draftProblem(draft: MailboxDraft): string | undefined {
  if (draft.name.trim() === '') return 'a mailbox has a name, by which plans and flows speak of it';
  if (!isAddress(draft.address.trim())) return 'the address it writes from is missing';
  if ((whole(draft.dailyLimit) ?? 0) < 1) return 'how many mails a day at most is a number above 0';
  if (whole(draft.personGapDays) === undefined) return 'the days between two mails to one person are a number, 0 for none';
  const apart = whole(draft.minutesApart) ?? 0;
  if (apart < 2 || apart > 240) return 'the minutes between two mails are 2 at least, and 240 at most';
  if (draft.rampFrom.trim() !== '' && (whole(draft.rampFrom) ?? 0) < 1)
    return 'how many mails on the first day is a number above 0, or nothing';
  if (draft.rampFrom.trim() !== '' && (whole(draft.rampStep) ?? 0) < 1) return 'how many more each weekday is a number above 0';
  if (draft.replyTo.trim() !== '' && !isAddress(draft.replyTo.trim())) return 'where answers go is an address, or nothing';
  if (!draft.ownRoute) return undefined;
  if (draft.host.trim() === '') return 'the server for outgoing mail is missing: your provider calls it the SMTP server';
  if (draft.service !== '' && draft.user.trim() === '')
    return `which account signs in at ${draft.service} is missing: often the whole address`;
  const port = whole(draft.port);
  return port === undefined || port < 1 || port > 65_535 ? 'the port is a number: 465 or 587 as a rule' : undefined;
}

/** What is sent to be kept. */
export function askOf(draft: MailboxDraft) {
  return {
    isNew: draft.isNew,
    address: draft.address.trim(),
    displayName: draft.displayName.trim(),
    zone: draft.zone,
    dailyLimit: whole(draft.dailyLimit) ?? 1,
    personGapDays: whole(draft.personGapDays) ?? 0,
    minutesApart: whole(draft.minutesApart) ?? 2,
    rampUp: draft.rampFrom.trim() === '' ? null : { from: whole(draft.rampFrom) ?? 1, step: whole(draft.rampStep) ?? 1 },
    signature: draft.signature,
    replyTo: draft.replyTo.trim() === '' ? null : draft.replyTo.trim(),
    route: draft.ownRoute
      ? {
          host: draft.host.trim(),
          port: whole(draft.port) ?? 465,
          tls: draft.tls,
          user: draft.user.trim(),
          service: draft.service === '' ? null : draft.service,
        }
      : null,
    password: draft.password === '' ? null : draft.password,
  };
}

/** The usual port of a way to encrypt takes the place of another way's usual one, never of one that was typed. */
export function withTls(draft: MailboxDraft, tls: MailboxDraft['tls']): MailboxDraft {
  const usual = { 'from the start': '465', 'after a greeting': '587', never: '25' } as const;
  return { ...draft, tls, port: draft.port === usual[draft.tls] ? usual[tls] : draft.port };
}
