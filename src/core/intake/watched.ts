import { z } from 'zod';
import { mailRuleSchema } from './mail';

const mailbox = z.object({
  kind: z.literal('mailbox'),
  host: z.string().trim().min(1).max(253),
  port: z.number().int().min(1).max(65_535).default(993),
  /** TLS from the first byte */
  secure: z.boolean().default(true),
  user: z.string().trim().min(1).max(200),
  /** the sign-in service that opens it; null: a password */
  service: z.string().max(60).nullable().default(null),
  /** it stands in our own network: only the owner may say so */
  privateNetwork: z.boolean().default(false),
  rule: mailRuleSchema,
});
const calendar = z.object({
  kind: z.literal('calendar'),
  how: z.enum(['caldav', 'feed']).default('caldav'),
  url: z.string().trim().min(1).max(1_000),
  user: z.string().trim().max(200).default(''),
  /** it stands in our own network: only the owner may say so */
  privateNetwork: z.boolean().default(false),
  /** hosts of our own addresses: everybody else in a meeting is from outside */
  ourHosts: z.array(z.string().trim().toLowerCase().min(1).max(253)).min(1).max(20),
  /** so long before it begins, a meeting's people are taken in */
  aheadHours: z.number().min(1).max(336).default(24),
});

/** A door that is looked at again and again, without what opens it. */
export const watchedSchema = z.discriminatedUnion('kind', [mailbox, calendar]);
export type WatchedSettings = z.infer<typeof watchedSchema>;
export type MailboxSettings = z.infer<typeof mailbox>;
export type CalendarSettings = z.infer<typeof calendar>;

/** What flows see of each kind's entries as `entry`. */
export const WATCHED_ANSWERS = {
  mailbox: ['from', 'name', 'subject', 'text', 'day', 'papers'],
  calendar: ['title', 'when', 'day', 'time', 'place', 'name', 'from', 'ours', 'others'],
} as const satisfies Readonly<Record<WatchedSettings['kind'], readonly string[]>>;
