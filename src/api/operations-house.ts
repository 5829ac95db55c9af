import { z } from 'zod';
import { rampUpSchema } from '../core/calendar';
import { domainLineSchema } from '../core/sending';
import { op, uuid, type View } from './op';
import * as s from './schemas';

const ROLES = ['owner', 'builder', 'rep', 'reviewer', 'viewer'] as const;
const day = z.iso.date();
const name = z.string().trim().min(1).max(80);

const workspaceShape = z.object({
  name,
  zone: z.string().max(60).describe('IANA, such as Europe/London'),
  daysOff: z.array(day).max(400),
  defaultCountry: z.string().length(2).describe('ISO 3166, for numbers and addresses that say none'),
});

const away = z.array(z.object({ from: day, to: day })).max(60);
const people = z.object({
  people: z.array(
    z.object({
      id: uuid,
      email: z.string(),
      name: z.string(),
      role: z.enum(ROLES),
      title: z.string(),
      endedAt: s.instant.nullable(),
      seenAt: s.instant.nullable(),
      hasFactor: z.boolean().describe('the door asks for a code besides their password'),
      owns: z.number().int().describe('records that are theirs'),
      teams: z.array(z.string()),
      away,
    }),
  ),
  invites: z.array(
    z.object({
      id: uuid,
      email: z.string(),
      name: z.string(),
      role: z.enum(ROLES),
      title: z.string(),
      invitedByName: z.string().nullable(),
      createdAt: s.instant,
      expiresAt: s.instant,
    }),
  ),
});

const team = z.object({
  name: z.string(),
  members: z.array(z.object({ id: uuid, name: z.string(), weight: z.number().int(), isAway: z.boolean() })),
  next: z.object({ name: z.string(), passed: z.array(z.string()) }).nullable(),
  flows: z.array(z.string()),
});
const teams = z.object({ items: z.array(team) });

const route = z.object({
  host: z.string().trim().min(1).max(253),
  port: z.number().int().min(1).max(65_535),
  tls: z.enum(['from the start', 'after a greeting', 'never']),
  user: z.string().max(320),
  service: z.string().max(60).nullable().default(null).describe('the sign-in service that opens it; null: a password'),
});
const mailbox = z.object({
  name: z.string(),
  address: z.string(),
  displayName: z.string(),
  zone: z.string(),
  dailyLimit: z.number().int(),
  personGapDays: z.number().int(),
  minutesApart: z.number().int().describe('between two mails at least'),
  rampUp: rampUpSchema.nullable().describe('how it begins: so many on the day since, so many more each weekday; null: it has begun'),
  signature: z.string().describe('what stands under each mail'),
  limitToday: z.number().int().describe('mails it may send today, as it begins'),
  replyTo: z.string().nullable(),
  route: route.nullable(),
  hasPassword: z.boolean(),
  checked: z
    .object({ ok: z.boolean(), at: s.instant, steps: z.array(z.object({ what: z.string(), ok: z.boolean(), says: z.string() })) })
    .nullable(),
  back: z
    .object({
      sent: z.int(),
      bounced: z.int(),
      complained: z.int().describe('reported as unwanted to their providers'),
      standing: z.enum(['good', 'doubtful', 'too many']),
      says: z.string(),
    })
    .describe('what became of its last 100 mails'),
  rests: z.object({ since: s.instant, why: z.string() }).nullable().describe('null: it sends'),
  domain: z
    .object({
      seen: z
        .object({ at: s.instant, lines: z.array(domainLineSchema) })
        .nullable()
        .describe('null: never looked at'),
      key: z
        .object({
          selector: z.string(),
          known: z.boolean().describe('its domain knows it: mails are signed'),
          record: z.object({ name: z.string(), text: z.string() }).describe('what stands at the domain for it (TXT)'),
        })
        .nullable()
        .describe('null: Millrace signs nothing'),
    })
    .describe('what its domain says of its mails (RFC 7208, RFC 6376, RFC 7489)'),
  usedBy: z.array(z.string()),
});
const mailboxes = z.object({ items: z.array(mailbox) });

const SCOPES = ['read', 'records', 'flows', 'all'] as const;
const token = z.object({
  id: uuid,
  name: z.string(),
  scope: z.enum(SCOPES),
  userId: uuid,
  userName: z.string(),
  createdAt: s.instant,
  expiresAt: s.instant,
  usedAt: s.instant.nullable(),
  endsSoon: z.boolean().describe('within two weeks'),
});
const tokens = z.object({ items: z.array(token) });

export type WorkspaceShape = View<typeof workspaceShape>;
/** As they come over the wire: instants are ISO strings. */
export type PeopleHere = View<typeof people>;
export type TeamShape = View<typeof team>;
export type MailboxShape = View<typeof mailbox>;
export type TokenShape = View<typeof token>;

/** Who we are, who works here, who writes: what a workspace is set up with. */
export const HOUSE_OPERATIONS = {
  getWorkspace: op({
    method: 'GET',
    path: '/workspace',
    summary: 'Name, zone, country and days off.',
    needs: 'look',
    answer: workspaceShape,
  }),
  keepWorkspace: op({
    method: 'PUT',
    path: '/workspace',
    changes: ['everything'],
    summary: 'Change them.',
    needs: 'edit flows',
    body: workspaceShape,
    answer: workspaceShape,
  }),
  listPeopleHere: op({
    method: 'GET',
    path: '/people-here',
    summary: 'Who works here, and who is asked in.',
    needs: 'look',
    answer: people,
  }),
  invite: op({
    method: 'POST',
    path: '/invites',
    changes: ['settings'],
    summary: 'Ask somebody in. The address to open is in the answer, once.',
    needs: 'keep secrets',
    body: z.object({
      email: z.email().max(320),
      name: z.string().trim().max(80).default(''),
      role: z.enum(ROLES),
      title: z.string().trim().max(80).default(''),
    }),
    answer: people.extend({ link: z.string() }),
    status: 201,
  }),
  withdrawInvite: op({
    method: 'POST',
    path: '/invites/{id}/withdraw',
    changes: ['settings'],
    summary: 'Make an invitation void.',
    needs: 'keep secrets',
    answer: people,
  }),
  changePersonHere: op({
    method: 'PATCH',
    path: '/people-here/{id}',
    changes: ['settings', 'desk'],
    summary: 'Change role, title, name, or the days somebody is away.',
    needs: 'keep secrets',
    body: z.object({
      role: z.enum(ROLES).optional(),
      title: z.string().trim().max(80).optional(),
      name: name.optional(),
      away: away.optional(),
    }),
    answer: people,
  }),
  letGo: op({
    method: 'POST',
    path: '/people-here/{id}/let-go',
    changes: ['settings', 'desk', 'messages', 'thread:*'],
    summary: 'They cannot come in any more; what is theirs goes to somebody else.',
    needs: 'keep secrets',
    body: z.object({ handTo: uuid.nullable().default(null) }),
    answer: people,
  }),
  letBack: op({
    method: 'POST',
    path: '/people-here/{id}/let-back',
    changes: ['settings'],
    summary: 'Let somebody in again who had gone.',
    needs: 'keep secrets',
    answer: people,
  }),
  listTeams: op({ method: 'GET', path: '/teams', summary: 'Teams, and whose turn it is next.', needs: 'look', answer: teams }),
  keepTeam: op({
    method: 'PUT',
    path: '/teams/{name}',
    changes: ['settings'],
    summary: 'Make a team, or change its members, in their order.',
    needs: 'edit flows',
    body: z.object({
      isNew: z.boolean().default(false),
      members: z.array(z.object({ id: uuid, weight: z.number().int().min(1).max(9).default(1) })).max(100),
    }),
    answer: teams,
  }),
  dropTeam: op({
    method: 'POST',
    path: '/teams/{name}/remove',
    changes: ['settings'],
    summary: 'Remove a team that no flow names.',
    needs: 'edit flows',
    answer: teams,
  }),
  listMailboxes: op({
    method: 'GET',
    path: '/mailboxes',
    summary: 'Mailboxes that write, without their passwords.',
    needs: 'look',
    answer: mailboxes,
  }),
  keepMailbox: op({
    method: 'PUT',
    path: '/mailboxes/{name}',
    changes: ['settings', 'messages'],
    summary: 'Make or change a mailbox. Without a way of its own its mails leave by the relay of this installation.',
    needs: 'keep secrets',
    body: z.object({
      isNew: z.boolean().default(false),
      address: z.email().max(320),
      displayName: z.string().trim().max(120),
      zone: z.string().max(60),
      dailyLimit: z.number().int().min(1).max(100_000),
      personGapDays: z.number().int().min(0).max(365),
      minutesApart: z.number().int().min(2).max(240).default(2),
      rampUp: rampUpSchema.omit({ since: true }).nullable().default(null).describe('from today on, or as it began; null: no'),
      signature: z.string().max(2_000).default(''),
      replyTo: z.email().max(320).nullable().default(null),
      route: route.nullable().default(null),
      password: z.string().max(1_000).nullable().default(null).describe('null: the one that is kept stays'),
    }),
    answer: mailboxes,
  }),
  checkMailbox: op({
    method: 'POST',
    path: '/mailboxes/{name}/check',
    changes: ['settings'],
    summary: 'Go its way step by step, up to a letter to itself.',
    needs: 'keep secrets',
    answer: mailboxes,
  }),
  makeSigningKey: op({
    method: 'POST',
    path: '/mailboxes/{name}/key',
    changes: ['settings'],
    summary: 'A new key to sign its mails with (RFC 6376). Nothing is signed before its domain knows the key.',
    needs: 'keep secrets',
    answer: mailboxes,
  }),
  dropSigningKey: op({
    method: 'POST',
    path: '/mailboxes/{name}/key/drop',
    changes: ['settings'],
    summary: 'Throw its key away: Millrace signs nothing for it any more.',
    needs: 'keep secrets',
    answer: mailboxes,
  }),
  letMailboxSend: op({
    method: 'POST',
    path: '/mailboxes/{name}/resume',
    changes: ['counts', 'desk', 'messages', 'settings'],
    summary: 'Let a mailbox that rests send again; what came back until now is not held against it.',
    needs: 'release',
    answer: mailboxes,
  }),
  listTokens: op({ method: 'GET', path: '/tokens', summary: 'Tokens that open something.', needs: 'keep secrets', answer: tokens }),
  makeToken: op({
    method: 'POST',
    path: '/tokens',
    changes: ['settings'],
    summary: 'A new token of one’s own; it is in the answer, once.',
    needs: 'keep secrets',
    body: z.object({ name, scope: z.enum(SCOPES), days: z.number().int().min(1).max(730) }),
    answer: tokens.extend({ token: z.string() }),
    status: 201,
  }),
  endToken: op({
    method: 'POST',
    path: '/tokens/{id}/end',
    changes: ['settings'],
    summary: 'It opens nothing any more.',
    needs: 'keep secrets',
    answer: tokens,
  }),
} as const;
