/** Views of what waits for a person, of messages and of what stands around every page. */
import { z } from 'zod';
import { OBJECTIONS } from '../core/answers';
import { RECORD_KINDS } from '../core/base';
import { SOURCE_KINDS } from '../core/facts';
import { REPLY_KINDS } from '../core/reply';
import { CHANNELS } from '../core/writer';
import { details, instant } from './op';

const id = z.uuid();
/** What an answer was understood as. */
const readingSchema = z.object({
  kind: z.enum(REPLY_KINDS),
  objection: z.enum(OBJECTIONS).nullable(),
  when: z.string().nullable().describe('the first day to write again, ISO 8601'),
  quote: z.string().nullable().describe('the sentence that decided it'),
  confidence: z.number(),
  plan: z.enum(['stop', 'pause', 'continue']),
  toMachines: z.array(z.string()).describe('sentences addressed to a machine that reads: left out'),
  tone: z.enum(['negative', 'neutral', 'positive']).optional(),
  also: z.array(z.enum(REPLY_KINDS)).optional().describe('what else it says'),
  named: z.object({ name: z.string().nullable(), email: z.string().nullable() }).optional().describe('whom they name in their place'),
  times: z
    .array(z.string())
    .optional()
    .describe('days and times they propose or take, by their clocks: 2026-12-01T09:15, or the day alone'),
  taughtBy: z.string().optional(),
  corrected: z.object({ by: z.string(), kind: z.enum(REPLY_KINDS), objection: z.enum(OBJECTIONS).nullable() }).optional(),
});
export const happenedSchema = z.object({
  recordKind: z.enum(RECORD_KINDS),
  recordId: id,
  at: instant,
  kind: z.string(),
  says: z.string(),
  detail: details,
});
const usedFact = z.object({
  id: z.string(),
  field: z.string(),
  value: z.union([z.string(), z.number(), z.boolean(), z.null()]),
  quote: z.string().optional(),
  url: z.string().optional(),
  source: z.enum(SOURCE_KINDS),
  confidence: z.number(),
  says: z.string(),
});
export const messageSchema = z.object({
  id,
  threadId: id.nullable(),
  tripId: id.nullable(),
  personId: id.nullable(),
  personName: z.string().nullable(),
  direction: z.enum(['out', 'in']),
  channel: z.enum(CHANNELS).describe('how it reaches them; all but mail is done by a person'),
  template: z.string().nullable(),
  touch: z.number().int().nullable(),
  subject: z.string(),
  body: z.string(),
  personalLine: z.string().nullable(),
  facts: z.array(usedFact).describe('what the message rests on'),
  fromAddress: z.string().nullable(),
  toAddress: z.string().nullable(),
  approvedByName: z.string().nullable(),
  handledAt: instant.nullable().describe('of what came in: since when somebody takes care of it'),
  says: z.string().nullable().describe('how its sending stands, in words'),
  language: z.string().nullable().describe('of what was made of a text'),
  fallback: z.string().nullable().describe('why it is not in the reader’s language'),
  state: z.string(),
  rfcId: z.string().nullable(),
  inReplyTo: z.string().nullable(),
  at: instant,
  dueAt: instant.nullable(),
  reading: readingSchema.nullable(),
  checks: z.array(z.object({ id: z.string(), ok: z.boolean(), says: z.string() })),
});
const whose = z.object({ people: z.array(z.string()), standIn: z.boolean(), yours: z.boolean() });
export const reviewSchema = z.object({
  id,
  tripId: id,
  messageId: id,
  who: z.string(),
  whose: whose.describe('who decides today; `standIn`: nobody who was asked is there'),
  state: z.string(),
  dueAt: instant.nullable(),
  createdAt: instant,
  personId: id,
  personName: z.string(),
  companyName: z.string().nullable(),
  flowId: id,
  flowName: z.string(),
  subject: z.string(),
  told: z.string().nullable().describe('what the flow says to who decides'),
  laterUntil: instant.nullable().describe('put off until then'),
  message: messageSchema,
  then: z.array(z.object({ day: z.number().int(), subject: z.string() })).describe('what the plan sends after it'),
});
export const taskSchema = z.object({
  id,
  messageId: id,
  personId: id,
  personName: z.string(),
  companyName: z.string().nullable(),
  threadId: id.nullable(),
  tripId: id.nullable(),
  flowId: id.nullable(),
  flowName: z.string().nullable(),
  channel: z.enum(CHANNELS).exclude(['e-mail']),
  subject: z.string(),
  body: z.string().describe('what to say, to leave or to send'),
  dueAt: instant,
  attempts: z.number().int().describe('tries so far'),
  ownerName: z.string().nullable().describe('whose record it is; null: nobody’s, so everybody may'),
  whose: whose.nullable(),
  reach: z.string().nullable().describe('the number, the envelope’s lines or the name'),
  zone: z.string().describe('where they are'),
});
export const pairSchema = z.object({
  id,
  kind: z.enum(['person', 'company']),
  aId: id,
  bId: id,
  aName: z.string(),
  bName: z.string(),
  confidence: z.number(),
  state: z.string(),
  evidence: z.array(
    z.object({ field: z.string(), ours: z.string(), theirs: z.string(), agrees: z.enum(['yes', 'partly', 'no']), weight: z.number() }),
  ),
  createdAt: instant,
});
export const noticeSchema = z.object({
  id: z.uuid(),
  text: z.string(),
  personId: z.uuid().nullable(),
  personName: z.string().nullable(),
  flowName: z.string().nullable(),
  tripId: z.uuid().nullable(),
  at: instant,
});
export const clockSchema = z.object({ now: instant, target: instant.nullable(), movable: z.boolean() });
export const railSchema = z.object({
  desk: z.int(),
  sources: z.int().describe('lists that came in today'),
  flows: z.int().describe('with a live version'),
  records: z.int(),
  deals: z.int(),
  pairs: z.int().describe('doubtful pairs that wait for a decision'),
  sentToday: z.int(),
  now: instant,
  target: instant.nullable().describe('where the demo’s clock is on its way to'),
  zone: z.string(),
  movable: z.boolean(),
  troubles: z.array(z.object({ says: z.string(), todo: z.string(), href: z.string().nullable() })),
});
