/** A mailbox and a calendar to look at, and what lies in them, as tests of these doors begin. */
import type { FoundMail } from '../server/ports';

export const MAILBOX = {
  kind: 'mailbox' as const,
  host: 'imap.thornwick.example',
  port: 993,
  secure: true,
  user: 'office@thornwick.example',
  service: null as string | null,
  privateNetwork: false,
  rule: {
    folder: 'INBOX',
    from: '',
    subject: '',
    only: 'new' as const,
    unreadOnly: false,
    withFile: false,
    begins: 'with what lies there' as 'with what lies there' | 'from now on',
  },
};
export const CALENDAR = {
  kind: 'calendar' as const,
  how: 'caldav' as const,
  url: 'https://calendar.thornwick.example/x/',
  user: 'sales',
  privateNetwork: false,
  ourHosts: ['thornwick.example'],
  aheadHours: 24,
};

/** A mail of a stranger, known by its subject. */
export const strangersMail = (subject: string, more: Partial<FoundMail> = {}): FoundMail => ({
  messageId: `<${subject}@marlpit.example>`,
  from: 'owen@marlpit-nurseries.example',
  fromName: 'Owen Tranter',
  subject,
  text: 'Please send an offer.',
  sentAt: null,
  inReplyTo: null,
  references: [],
  autoSubmitted: false,
  deliveryStatus: null,
  files: [],
  answered: false,
  unread: null,
  raw: null,
  ...more,
});
