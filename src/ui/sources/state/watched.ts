import type { WatchedSettings } from '../../../core/intake';

export type WatchedKind = WatchedSettings['kind'];
type Of<K extends WatchedKind> = Extract<WatchedSettings, { kind: K }>;

/** What a new door begins with. */
export function firstSettings(kind: WatchedKind, ourHosts: readonly string[]): WatchedSettings {
  return kind === 'mailbox'
    ? {
        kind,
        host: '',
        port: 993,
        secure: true,
        user: '',
        service: null,
        privateNetwork: false,
        rule: { folder: 'INBOX', from: '', subject: '', only: 'new', unreadOnly: false, withFile: false, begins: 'from now on' },
      }
    : { kind, how: 'caldav', url: '', user: '', privateNetwork: false, ourHosts: [...ourHosts], aheadHours: 24 };
}

/** Why these settings cannot be kept yet; undefined when they can. */
export function missingIn(settings: WatchedSettings): string | undefined {
  if (settings.kind === 'mailbox') {
    if (settings.host.trim() === '') return 'the mail server is missing';
    if (settings.user.trim() === '') return 'the name of the mailbox is missing';
    if (settings.rule.folder.trim() === '') return 'the folder is missing';
    return undefined;
  }
  if (!/^https?:\/\/.+/.test(settings.url.trim())) return 'the address of the calendar is missing: it begins with https://';
  if (settings.ourHosts.length === 0) return 'say which addresses are ours, such as my-firm.example';
  return undefined;
}

/** Hosts as they are typed: parted by commas or spaces, an address or a host. */
export const hostsIn = (text: string): string[] => [
  ...new Set(
    text
      .toLowerCase()
      .split(/[\s,;]+/)
      .map((part) => part.replace(/^.*@/, '').replace(/^https?:\/\//, ''))
      .filter((part) => part !== ''),
  ),
];

export const isMailbox = (settings: WatchedSettings): settings is Of<'mailbox'> => settings.kind === 'mailbox';
