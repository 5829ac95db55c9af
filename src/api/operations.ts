import { z } from 'zod';
import { TARGETS } from '../core/intake';
import * as s from './schemas';

export type ApiAction = 'look' | 'change records' | 'take in' | 'edit flows' | 'release' | 'decide' | 'deal with trips' | 'move the clock';

/** One operation of the REST API: its shape, and the action a role needs for it. */
export interface Operation {
  readonly method: 'GET' | 'POST' | 'PUT' | 'PATCH';
  readonly path: string;
  readonly summary: string;
  readonly needs: ApiAction;
  readonly query?: z.ZodObject;
  readonly body?: z.ZodType;
  /** the request body is a file, not JSON */
  readonly takesFile?: boolean;
  readonly answer: z.ZodType;
  readonly status?: 201 | 202;
  /** the answer is text of this type, not JSON */
  readonly text?: 'text/csv; charset=utf-8';
}

const paging = z.object({
  search: z.string().max(200).optional(),
  /** a condition as in flows, such as company.heated_area >= 2 ha */
  where: z.string().max(1000).optional(),
  cursor: z.string().optional(),
  limit: z.coerce.number().int().min(1).max(200).optional(),
});
const matching = z.array(z.enum(TARGETS)).max(200).optional();
const uuid = z.uuid();
const op = <const O extends Operation>(operation: O): O => operation;

/** Every operation by its id: the application, the client and the OpenAPI document are made from this one table. */
export const OPERATIONS = {
  uploadList: op({
    method: 'POST',
    path: '/imports',
    summary: 'Upload a list (CSV). Nothing is created yet.',
    needs: 'take in',
    takesFile: true,
    query: z.object({ name: z.string().max(200), flow: uuid.optional() }),
    answer: s.previewSchema,
    status: 201,
  }),
  listImports: op({
    method: 'GET',
    path: '/imports',
    summary: 'Lists taken in.',
    needs: 'look',
    answer: z.object({ items: z.array(s.importSchema) }),
  }),
  importStatus: op({
    method: 'GET',
    path: '/imports/{id}',
    summary: 'State and progress of a list.',
    needs: 'look',
    answer: s.importSchema,
  }),
  previewImport: op({
    method: 'POST',
    path: '/imports/{id}/preview',
    summary: 'What would happen with each row under a column matching.',
    needs: 'take in',
    body: z.object({ matching, defaultCountry: z.string().length(2).optional() }),
    answer: s.previewSchema,
  }),
  startImport: op({
    method: 'POST',
    path: '/imports/{id}/start',
    summary: 'Take the list in, and start a flow for its people if one is given.',
    needs: 'take in',
    body: z.object({
      matching,
      flowId: uuid.nullable().optional(),
      label: z.string().min(1).max(120).optional(),
      defaultCountry: z.string().length(2).optional(),
    }),
    answer: s.importSchema,
    status: 202,
  }),
  refusedRows: op({
    method: 'GET',
    path: '/imports/{id}/refused.csv',
    summary: 'Refused rows as CSV, with the reason.',
    needs: 'look',
    answer: z.string(),
    text: 'text/csv; charset=utf-8',
  }),

  listPeople: op({
    method: 'GET',
    path: '/people',
    summary: 'People, newest first.',
    needs: 'look',
    query: paging,
    answer: s.pageOf(s.personSchema),
  }),
  createPerson: op({
    method: 'POST',
    path: '/people',
    summary: 'Add a person. Every value becomes a fact.',
    needs: 'change records',
    body: z.object({ values: s.valuesSchema, companyId: uuid.nullable().optional() }),
    answer: s.personSchema,
    status: 201,
  }),
  getPerson: op({
    method: 'GET',
    path: '/people/{id}',
    summary: 'A person with the facts behind every value, and what happened.',
    needs: 'look',
    answer: z.object({
      person: s.personSchema,
      company: s.companySchema.nullable(),
      known: z.array(s.knownSchema),
      trips: z.array(s.tripSchema),
      happened: z.array(z.looseObject({ at: z.iso.datetime(), says: z.string() })),
    }),
  }),
  changePerson: op({
    method: 'PATCH',
    path: '/people/{id}',
    summary: 'Change values of a person; the old facts stay.',
    needs: 'change records',
    body: z.object({ values: s.valuesSchema }),
    answer: s.personSchema,
  }),
  noteOnPerson: op({
    method: 'POST',
    path: '/people/{id}/notes',
    summary: 'Leave a note on a person.',
    needs: 'change records',
    body: z.object({ text: z.string().min(1).max(4000) }),
    answer: s.okSchema,
    status: 201,
  }),
  listCompanies: op({
    method: 'GET',
    path: '/companies',
    summary: 'Companies, newest first.',
    needs: 'look',
    query: paging,
    answer: s.pageOf(s.companySchema),
  }),
  createCompany: op({
    method: 'POST',
    path: '/companies',
    summary: 'Add a company.',
    needs: 'change records',
    body: z.object({ values: s.valuesSchema }),
    answer: s.companySchema,
    status: 201,
  }),
  getCompany: op({
    method: 'GET',
    path: '/companies/{id}',
    summary: 'A company with its facts and people.',
    needs: 'look',
    answer: z.object({ company: s.companySchema, people: z.array(s.personSchema), known: z.array(s.knownSchema) }),
  }),
  changeCompany: op({
    method: 'PATCH',
    path: '/companies/{id}',
    summary: 'Change values of a company.',
    needs: 'change records',
    body: z.object({ values: s.valuesSchema }),
    answer: s.companySchema,
  }),
  listDeals: op({
    method: 'GET',
    path: '/deals',
    summary: 'Deals, newest first.',
    needs: 'look',
    query: paging,
    answer: s.pageOf(s.dealSchema),
  }),
  createDeal: op({
    method: 'POST',
    path: '/deals',
    summary: 'Open a deal.',
    needs: 'change records',
    body: z.object({
      title: z.string().min(1),
      pipeline: z.string(),
      stage: z.string(),
      amount: z.number().nonnegative().nullable().default(null),
      companyId: uuid.nullable().default(null),
      personId: uuid.nullable().default(null),
    }),
    answer: s.dealSchema,
    status: 201,
  }),
  getDeal: op({
    method: 'GET',
    path: '/deals/{id}',
    summary: 'A deal with its facts.',
    needs: 'look',
    answer: z.object({ deal: s.dealSchema, known: z.array(s.knownSchema) }),
  }),
  changeDeal: op({
    method: 'PATCH',
    path: '/deals/{id}',
    summary: 'Move a deal to another stage.',
    needs: 'change records',
    body: z.object({ stage: z.string() }),
    answer: s.dealSchema,
  }),

  listFlows: op({ method: 'GET', path: '/flows', summary: 'Flows.', needs: 'look', answer: z.object({ items: z.array(s.flowSchema) }) }),
  createFlow: op({
    method: 'POST',
    path: '/flows',
    summary: 'Make a flow from flow text.',
    needs: 'edit flows',
    body: z.object({ text: z.string().max(500_000) }),
    answer: s.flowSchema,
    status: 201,
  }),
  checkFlow: op({
    method: 'POST',
    path: '/flows/check',
    summary: 'Check flow text: every finding with its place.',
    needs: 'look',
    body: z.object({ text: z.string().max(500_000) }),
    answer: z.object({ findings: z.array(s.findingSchema) }),
  }),
  getFlow: op({ method: 'GET', path: '/flows/{id}', summary: 'A flow with its draft.', needs: 'look', answer: s.flowSchema }),
  saveDraft: op({
    method: 'PUT',
    path: '/flows/{id}/draft',
    summary: 'Save the draft that was begun on draft number `base`.',
    needs: 'edit flows',
    body: z.object({ text: z.string().max(500_000), base: z.number().int() }),
    answer: s.flowSchema,
  }),
  releaseFlow: op({
    method: 'POST',
    path: '/flows/{id}/release',
    summary: 'Make the draft the live version. Trips under way finish on theirs.',
    needs: 'release',
    body: z.object({}),
    answer: z.object({ no: z.number().int(), versionId: uuid }),
  }),
  startFlow: op({
    method: 'POST',
    path: '/flows/{id}/start',
    summary: 'Put people into the live version.',
    needs: 'release',
    body: z.object({ personIds: z.array(uuid).min(1).max(10_000) }),
    answer: z.object({ started: z.number().int(), already: z.number().int() }),
    status: 202,
  }),
  suggestSpecimens: op({
    method: 'GET',
    path: '/flows/{id}/specimens',
    summary: 'Twelve people to try the draft on, spread over the newest records.',
    needs: 'look',
    answer: z.object({ items: z.array(z.object({ id: uuid, name: z.string(), companyName: z.string().nullable() })) }),
  }),
  startTrial: op({
    method: 'POST',
    path: '/flows/{id}/trials',
    summary: 'Try the draft on people with nothing sent.',
    needs: 'edit flows',
    body: z.object({ personIds: z.array(uuid).min(1).max(200).optional() }),
    answer: z.object({ trialId: uuid }),
    status: 202,
  }),
  getTrial: op({
    method: 'GET',
    path: '/flows/{id}/trials/{trialId}',
    summary: 'A trial with every specimen’s journal.',
    needs: 'look',
    answer: s.trialSchema,
  }),
  ribbon: op({
    method: 'GET',
    path: '/flows/{id}/ribbon',
    summary: 'How many trips got to each line.',
    needs: 'look',
    query: z.object({ since: z.coerce.number().int().optional() }),
    answer: z.object({ lines: z.array(s.lineCountSchema) }),
  }),

  listTrips: op({
    method: 'GET',
    path: '/trips',
    summary: 'Trips, newest first.',
    needs: 'look',
    query: z.object({
      flow: uuid.optional(),
      state: z.enum(['ready', 'waiting', 'asking', 'following', 'stuck', 'done', 'stopped']).optional(),
      mark: z.string().max(20).optional(),
      cursor: z.string().optional(),
      limit: z.coerce.number().int().min(1).max(200).optional(),
    }),
    answer: s.pageOf(s.tripSchema),
  }),
  getTrip: op({
    method: 'GET',
    path: '/trips/{id}',
    summary: 'A trip with its journal.',
    needs: 'look',
    answer: z.object({ trip: s.tripSchema, journal: z.array(s.journalSchema), text: z.string() }),
  }),
  chooseTrips: op({
    method: 'POST',
    path: '/trips/choice',
    summary: 'Deal with stuck trips: try again, skip the line, set by hand what the line is there for, or end.',
    needs: 'deal with trips',
    body: z.object({
      tripIds: z.array(uuid).min(1).max(500),
      choice: z.enum(['try again', 'skip the line', 'set by hand', 'end']),
      /** with `set by hand`: what was typed */
      value: z.string().max(2_000).optional(),
    }),
    answer: z.object({ chosen: z.number().int() }),
  }),

  listReviews: op({
    method: 'GET',
    path: '/reviews',
    summary: 'Messages that wait for a person.',
    needs: 'look',
    answer: z.object({ items: z.array(s.reviewSchema) }),
  }),
  decideReview: op({
    method: 'POST',
    path: '/reviews/{id}/decision',
    summary: 'Approve (also with changes or a sentence of one’s own), refuse, or later.',
    needs: 'decide',
    body: z.object({
      does: z.enum(['approve', 'refuse', 'later']),
      subject: z.string().max(300).optional(),
      body: z.string().max(10_000).optional(),
      sentence: z.string().max(1_000).optional(),
      why: z.string().max(500).optional(),
    }),
    answer: s.okSchema,
  }),
  listPairs: op({
    method: 'GET',
    path: '/pairs',
    summary: 'Records that may be the same.',
    needs: 'look',
    answer: z.object({ items: z.array(s.pairSchema) }),
  }),
  decidePair: op({
    method: 'POST',
    path: '/pairs/{id}/decision',
    summary: 'Same, different, or later.',
    needs: 'decide',
    body: z.object({ does: z.enum(['same', 'different', 'later']) }),
    answer: s.okSchema,
  }),
  undoMerge: op({
    method: 'POST',
    path: '/merges/{id}/undo',
    summary: 'Part two records that were joined.',
    needs: 'decide',
    body: z.object({}),
    answer: s.okSchema,
  }),
  settleDoubt: op({
    method: 'POST',
    path: '/doubts/{id}/decision',
    summary: 'Say whether a send in doubt did leave.',
    needs: 'decide',
    body: z.object({ left: z.boolean() }),
    answer: s.okSchema,
  }),
  listMessages: op({
    method: 'GET',
    path: '/messages',
    summary: 'Messages, newest first.',
    needs: 'look',
    query: z.object({
      state: z.string().max(20).optional(),
      cursor: z.string().optional(),
      limit: z.coerce.number().int().min(1).max(200).optional(),
    }),
    answer: s.pageOf(s.messageSchema),
  }),
  handleReply: op({
    method: 'POST',
    path: '/messages/{id}/handled',
    summary: 'Say that a person takes care of an answer.',
    needs: 'decide',
    body: z.object({}),
    answer: s.okSchema,
  }),

  listNotices: op({
    method: 'GET',
    path: '/notices',
    summary: 'What flows have told you and you have not put aside.',
    needs: 'look',
    answer: z.object({ items: z.array(s.noticeSchema) }),
  }),
  putNoticeAside: op({
    method: 'POST',
    path: '/notices/{id}/aside',
    summary: 'Put a notice of yours aside.',
    needs: 'look',
    body: z.object({}),
    answer: s.okSchema,
  }),
  connectWebhook: op({
    method: 'PUT',
    path: '/webhooks/{name}',
    summary: 'Name an address that flows may tell or hand over to. The secret is kept sealed and never shown again.',
    needs: 'release',
    body: z.object({ url: z.url({ protocol: /^https?$/ }), secret: z.string().min(8).max(200) }),
    answer: s.okSchema,
  }),

  readClock: op({ method: 'GET', path: '/clock', summary: 'What time it is here.', needs: 'look', answer: s.clockSchema }),
  moveClock: op({
    method: 'POST',
    path: '/clock',
    summary: 'Demo only: let the clock go on.',
    needs: 'move the clock',
    body: z.object({ byMs: z.number().int().positive() }),
    answer: s.clockSchema,
    status: 202,
  }),
} as const;

export type OperationId = keyof typeof OPERATIONS;
