import { z } from 'zod';
import { RECORD_KINDS } from '../core/base';
import { DIFFERENCES, OUTCOMES } from '../core/engine';
import { dossierSchema } from '../core/dossier';
import { SOURCE_KINDS } from '../core/facts';

export const instant = z.iso.datetime().describe('UTC');
const id = z.uuid();
const value = z.union([z.string(), z.number(), z.boolean(), z.null()]);
export const money = z.number().int().describe('millionths of a euro');

export const problemSchema = z
  .object({ type: z.string(), title: z.string(), status: z.number().int(), detail: z.string() })
  .loose()
  .describe('RFC 9457 problem document');

export const factSchema = z.object({
  id: z.string(),
  record: z.object({ kind: z.enum(RECORD_KINDS), id }),
  field: z.string(),
  value,
  source: z.enum(SOURCE_KINDS),
  sourceRef: z.string(),
  url: z.string().optional(),
  quote: z.string().optional(),
  confidence: z.number().min(0).max(1),
  observedAt: instant,
});
export const knownSchema = z.object({
  record: z.string(),
  recordId: id,
  key: z.string(),
  label: z.string(),
  group: z.string(),
  unit: z.string().nullable(),
  isStale: z.boolean().describe('older than a value of this field may be'),
  fact: factSchema.nullable(),
  others: z.array(factSchema),
});
/** Values of the workspace’s own fields, by their names in flows; a field without a value is not there. */
export const ownValues = z.record(z.string(), z.union([z.string(), z.number(), z.boolean(), z.null()]));

export const personSchema = z.object({
  id,
  name: z.string(),
  firstName: z.string().nullable(),
  lastName: z.string().nullable(),
  jobTitle: z.string().nullable(),
  email: z.string().nullable(),
  phone: z.string().nullable(),
  language: z.string().nullable(),
  status: z.string().nullable(),
  metAt: z.string().nullable(),
  own: ownValues,
  companyId: id.nullable(),
  companyName: z.string().nullable(),
  ownerName: z.string().nullable(),
  createdAt: instant,
  mergedInto: id.nullable(),
});
export const companySchema = z.object({
  id,
  name: z.string(),
  website: z.string().nullable(),
  phone: z.string().nullable(),
  city: z.string().nullable(),
  country: z.string().nullable(),
  status: z.string().nullable(),
  own: ownValues,
  people: z.number().int(),
  createdAt: instant,
  mergedInto: id.nullable(),
});
export const dealSchema = z.object({
  id,
  title: z.string(),
  pipeline: z.string(),
  stage: z.string(),
  amount: z.number().nullable().describe('EUR'),
  companyId: id.nullable(),
  companyName: z.string().nullable(),
  personId: id.nullable(),
  personName: z.string().nullable(),
  ownerName: z.string().nullable(),
  stageSince: instant,
  createdAt: instant,
});
const scalar = z.union([z.string(), z.number(), z.boolean(), z.null()]);
export const importSchema = z.object({
  id,
  fileName: z.string(),
  label: z.string(),
  matching: z.array(z.string()),
  says: z.array(z.string()).describe('what was noticed about the list as a whole'),
  matchingFrom: z.string().nullable().describe('the list whose matching was taken over, having the same headings'),
  defaultCountry: z.string(),
  flowId: id.nullable(),
  state: z.enum(['looked at', 'queued', 'running', 'done', 'failed']),
  total: z.number().int(),
  doneRows: z.number().int(),
  counts: z.record(z.string(), z.number()),
  problem: z.string().nullable(),
  createdAt: instant,
  finishedAt: instant.nullable(),
});
export const previewSchema = z.object({
  import: importSchema,
  table: z.object({ encoding: z.string(), delimiter: z.string(), headingRow: z.number().int() }),
  columns: z.array(z.object({ heading: z.string(), target: z.string(), why: z.string(), sure: z.boolean(), samples: z.array(z.string()) })),
  counts: z
    .object({
      new: z.number().int(),
      known: z.number().int(),
      perhaps: z.number().int(),
      refused: z.number().int(),
      newCompanies: z.number().int(),
    })
    .nullable()
    .describe('of all rows; null while those of a long list are counted: ask again'),
  rows: z.array(
    z.object({
      row: z.number().int(),
      fileRow: z.number().int(),
      cells: z.array(z.string()),
      plan: z.looseObject({ kind: z.enum(['new', 'known', 'perhaps', 'refused']), why: z.string() }),
      reading: z.looseObject({}),
      changes: z.array(z.object({ field: z.string(), from: scalar, to: scalar })).describe('of somebody known: what the row would change'),
    }),
  ),
});
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
export const bundleChoiceSchema = z.discriminatedUnion('does', [
  z.object({ does: z.literal('use'), name: z.string() }),
  z.object({ does: z.literal('bring'), name: z.string().trim().min(1).max(120) }),
  z.object({ does: z.literal('leave') }),
]);
/** A bundle on the wire; the server reads what it carries by the schemas of the named things. */
export const bundleOnWireSchema = z.object({ format: z.string(), text: z.string().max(500_000), things: z.array(z.unknown()).max(500) });
export const flowFileSchema = z.object({
  bundle: bundleOnWireSchema,
  /** the flow's name in the file, and one that is free here */
  name: z.string(),
  freeName: z.string(),
  lines: z.number().int(),
  matches: z.array(
    z.object({
      key: z.string(),
      kind: z.string(),
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
  stateDetail: z.looseObject({}),
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
  detail: z.record(z.string(), z.json()),
  costMicro: money,
  tookMs: z.number(),
  at: instant,
});
export const messageSchema = z.object({
  id,
  threadId: id.nullable(),
  tripId: id.nullable(),
  personId: id.nullable(),
  personName: z.string().nullable(),
  direction: z.enum(['out', 'in']),
  template: z.string().nullable(),
  touch: z.number().int().nullable(),
  subject: z.string(),
  body: z.string(),
  state: z.string(),
  rfcId: z.string().nullable(),
  inReplyTo: z.string().nullable(),
  at: instant,
  dueAt: instant.nullable(),
  reading: z.looseObject({ kind: z.string() }).nullable(),
  checks: z.array(z.object({ id: z.string(), ok: z.boolean(), says: z.string() })),
});
export const reviewSchema = z.object({
  id,
  tripId: id,
  messageId: id,
  who: z.string(),
  whose: z
    .object({ people: z.array(z.string()), standIn: z.boolean(), yours: z.boolean() })
    .describe('who decides today; `standIn`: nobody who was asked is there'),
  state: z.string(),
  dueAt: instant.nullable(),
  createdAt: instant,
  personId: id,
  personName: z.string(),
  companyName: z.string().nullable(),
  flowId: id,
  flowName: z.string(),
  subject: z.string(),
  message: messageSchema,
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
  evidence: z.array(z.looseObject({ field: z.string(), weight: z.number() })),
  createdAt: instant,
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
export const pageOf = <T extends z.ZodType>(item: T) =>
  z.object({ items: z.array(item), next: z.string().nullable().describe('give it back as `cursor` for the next page') });
export const valuesSchema = z
  .record(z.string().max(60), value)
  .refine((values) => Object.keys(values).length <= 100, 'at most 100 values at once');
export const valueChange = z.object({
  values: valuesSchema,
  was: valuesSchema.optional().describe('the values you have seen: 409 when one has changed meanwhile'),
});
export const okSchema = z.object({ ok: z.literal(true) });

export const dossierViewSchema = z.object({
  id: z.uuid(),
  state: z.enum(['queued', 'done', 'failed']),
  step: z.string().describe('what is being done just now'),
  problem: z.string().nullable(),
  pages: z.number().int(),
  costMicro: z.number().describe('millionths of a euro'),
  tookMs: z.number().int(),
  createdAt: instant,
  createdByName: z.string().nullable(),
  content: dossierSchema.nullable(),
});
