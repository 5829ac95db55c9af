/** Views of flows, trials and trips. */
import { z } from 'zod';
import { DIFFERENCES, OUTCOMES } from '../core/engine';
import { bundleSchema, NAME_KINDS } from '../core/flow/bundle';
import { details, instant } from './op';
import { factSchema, money } from './schemas';

const id = z.uuid();
export const flowSchema = z.object({
  id,
  name: z.string(),
  draftText: z.string(),
  draftNo: z.number().int(),
  liveVersionId: id.nullable(),
  liveNo: z.number().int().nullable(),
  liveSince: instant.nullable(),
  pausedAt: instant.nullable().describe('it rests since then; null: it runs'),
  updatedAt: instant,
});
/** Of the trips of a flow: what is under way, and since midnight. */
export const flowCountsSchema = z.object({
  flowId: id,
  underWay: z.int(),
  asking: z.int(),
  stuck: z.int(),
  done: z.int(),
  stopped: z.int(),
  costMicro: money,
});
export const bundleChoiceSchema = z.discriminatedUnion('does', [
  z.object({ does: z.literal('use'), name: z.string() }),
  z.object({ does: z.literal('bring'), name: z.string().trim().min(1).max(120) }),
  z.object({ does: z.literal('leave') }),
]);
/** A bundle as somebody sends it; the server reads what it carries by the schemas of the named things. */
export const bundleOnWireSchema = z.object({ format: z.string(), text: z.string().max(500_000), things: z.array(z.unknown()).max(500) });
export const flowFileSchema = z.object({
  bundle: bundleSchema,
  /** the flow's name in the file, and one that is free here */
  name: z.string(),
  freeName: z.string(),
  lines: z.number().int(),
  matches: z.array(
    z.object({
      key: z.string(),
      kind: z.enum(NAME_KINDS),
      name: z.string(),
      state: z.enum(['same', 'here', 'differs', 'missing']),
      carried: z.boolean(),
      by: z.array(z.string()),
      here: z.array(z.string()),
      differences: z.array(z.string()),
      free: z.string(),
      choice: bundleChoiceSchema,
    }),
  ),
});
export const findingSchema = z.object({
  code: z.string(),
  severity: z.enum(['error', 'warning']),
  message: z.string(),
  from: z.number().int(),
  to: z.number().int(),
  mend: z
    .object({ label: z.string(), edits: z.array(z.object({ from: z.number().int(), to: z.number().int(), insert: z.string() })) })
    .optional(),
});
export const tripSchema = z.object({
  id,
  flowId: id,
  flowName: z.string(),
  versionNo: z.number().int().nullable(),
  personId: id,
  personName: z.string(),
  companyName: z.string().nullable(),
  state: z.enum(['ready', 'waiting', 'asking', 'following', 'stuck', 'done', 'stopped']),
  stateDetail: details,
  mark: z.string().nullable(),
  verb: z.string().nullable(),
  says: z.string().nullable(),
  dueAt: instant.nullable(),
  createdAt: instant,
  endedAt: instant.nullable(),
  costMicro: money,
});
export const journalSchema = z.object({
  seq: z.number().int(),
  mark: z.string(),
  verb: z.string(),
  outcome: z.enum(OUTCOMES),
  says: z.string(),
  detail: details,
  costMicro: money,
  tookMs: z.number(),
  at: instant,
});
const rangeSchema = z.object({ low: z.number(), mid: z.number(), high: z.number() });
export const forecastSchema = z.object({
  records: z.number().int(),
  lines: z.array(z.object({ mark: z.string(), reach: rangeSchema, costMicro: rangeSchema, guessed: z.boolean() })),
  through: rangeSchema,
  costMicro: rangeSchema,
  sends: rangeSchema,
  days: z.array(z.object({ day: z.string(), sends: rangeSchema })),
  firstDay: z.string().nullable(),
  lastDay: z.string().nullable(),
  from: z.object({ trials: z.number().int(), trips: z.number().int() }),
  sendsPerDay: z.number().int(),
});
const cameToSchema = z.object({
  written: z.boolean(),
  band: z.string().nullable(),
  points: z.number().nullable(),
  end: z.string(),
  says: z.string(),
});
export const changesSchema = z.object({
  liveNo: z.number().int(),
  trips: z.array(
    z.object({
      tripId: z.uuid(),
      personId: z.uuid(),
      personName: z.string(),
      companyName: z.string().nullable(),
      kind: z.enum(DIFFERENCES),
      mark: z.string().nullable(),
      before: cameToSchema,
      after: cameToSchema,
      beforeSays: z.string(),
      afterSays: z.string(),
      missing: z.array(z.string()),
    }),
  ),
});
export const versionSchema = z.object({
  id: z.uuid(),
  no: z.number().int(),
  text: z.string(),
  releasedAt: instant,
  releasedByName: z.string().nullable(),
  firstN: z.number().int().nullable(),
  dailyLimit: z.number().int().nullable(),
  dayBudgetMicro: z.number().int().nullable(),
  startAt: instant.nullable(),
});
export const lineCountSchema = z.object({
  mark: z.string(),
  outcome: z.enum(OUTCOMES),
  arm: z.string().nullable(),
  trips: z.number().int(),
  costMicro: money,
  tookMs: z.number(),
});
export const trialSchema = z.object({
  id,
  text: z.string().describe('the flow text that was tried'),
  at: instant,
  running: z.number().int().describe('specimens still on their way'),
  costMicro: money,
  limitMicro: money.describe('what lookups may cost'),
  reused: z.number().int().describe('lines whose answer came from earlier trials'),
  trips: z.array(
    z.object({
      id,
      personId: id,
      personName: z.string(),
      title: z.string(),
      companyName: z.string().nullable(),
      state: tripSchema.shape.state,
      why: z.string(),
      journal: z.array(journalSchema),
      facts: z.array(factSchema),
    }),
  ),
  lines: z.array(lineCountSchema),
});
