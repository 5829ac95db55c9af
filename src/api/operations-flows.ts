import { z } from 'zod';
import { FLOW_BYTES, flowText, LATEST_MS, MB, op, uuid } from './op';
import * as s from './schemas';

/** Flows, their drafts, trials, releases and trips. */
export const FLOW_OPERATIONS = {
  listFlows: op({ method: 'GET', path: '/flows', summary: 'Flows.', needs: 'look', answer: z.object({ items: z.array(s.flowSchema) }) }),
  createFlow: op({
    method: 'POST',
    path: '/flows',
    summary: 'Make a flow from flow text.',
    needs: 'edit flows',
    body: z.object({ text: flowText }),
    maxBytes: FLOW_BYTES,
    answer: s.flowSchema,
    status: 201,
  }),
  flowSchema: op({
    method: 'GET',
    path: '/flows/schema',
    summary: 'The JSON Schema of a flow’s syntax tree.',
    needs: 'look',
    answer: z.record(z.string(), z.unknown()),
  }),
  flowFile: op({
    method: 'GET',
    path: '/flows/{id}/file',
    summary:
      'The draft as a file: flow text with marks, a bundle (ZIP) with what it names, its syntax tree (JSON), or a picture for documents (SVG).',
    needs: 'look',
    query: z.object({ as: z.enum(['text', 'bundle', 'tree', 'picture']).default('text') }),
    answer: z.string(),
    givesFile: ['text/plain', 'application/zip', 'application/json', 'image/svg+xml'],
  }),
  lookAtFlowFile: op({
    method: 'POST',
    path: '/flow-files',
    summary: 'What is in a file of flow text or a bundle, and what of it is missing or differs here. Nothing is made.',
    needs: 'edit flows',
    takesFile: 'application/octet-stream',
    maxBytes: 2 * MB,
    query: z.object({ name: z.string().max(200) }),
    answer: s.flowFileSchema,
  }),
  takeInFlow: op({
    method: 'POST',
    path: '/flow-files/take-in',
    summary: 'Make a flow of a bundle that was looked at, with a choice for each name; what is not chosen goes as proposed.',
    needs: 'edit flows',
    body: z.object({
      bundle: s.bundleOnWireSchema,
      choices: z.record(z.string(), s.bundleChoiceSchema).default({}),
      name: z.string().trim().min(1).max(120),
    }),
    answer: s.flowSchema,
    status: 201,
  }),
  checkFlow: op({
    method: 'POST',
    path: '/flows/check',
    summary: 'Check flow text: every finding with its place.',
    needs: 'look',
    body: z.object({ text: flowText }),
    maxBytes: FLOW_BYTES,
    answer: z.object({ findings: z.array(s.findingSchema) }),
  }),
  getFlow: op({ method: 'GET', path: '/flows/{id}', summary: 'A flow with its draft.', needs: 'look', answer: s.flowSchema }),
  saveDraft: op({
    method: 'PUT',
    path: '/flows/{id}/draft',
    summary: 'Save the draft that was begun on draft number `base`.',
    needs: 'edit flows',
    body: z.object({ text: flowText, base: z.int().min(0) }),
    maxBytes: FLOW_BYTES,
    answer: s.flowSchema,
  }),
  releaseFlow: op({
    method: 'POST',
    path: '/flows/{id}/release',
    summary: 'Make the draft the live version, within limits. Trips under way finish on theirs, or are moved where the lines match.',
    needs: 'release',
    body: z.object({
      /** so many begin, then a person is asked */
      firstN: z.number().int().min(1).max(100_000).optional(),
      /** trips that may begin a day */
      dailyLimit: z.number().int().min(1).max(1_000_000).optional(),
      dayBudgetMicro: z.number().int().nonnegative().optional(),
      /** local time of the workspace */
      startAt: z
        .string()
        .regex(/^\d{4}-\d\d-\d\dT\d\d:\d\d$/)
        .optional(),
      underWay: z.enum(['finish', 'move']).optional(),
      /** keeps the forecast for so many records with the version */
      forecastFor: z.number().int().min(1).max(1_000_000).optional(),
    }),
    answer: z.object({ no: z.number().int(), versionId: uuid }),
  }),
  forecastDraft: op({
    method: 'GET',
    path: '/flows/{id}/forecast',
    summary: 'What releasing the draft on so many records would bring, with ranges.',
    needs: 'look',
    query: z.object({
      records: z.coerce.number().int().min(1).max(1_000_000),
      beginPerDay: z.coerce.number().int().min(1).max(1_000_000).optional(),
    }),
    answer: s.forecastSchema,
  }),
  whatWouldChange: op({
    method: 'GET',
    path: '/flows/{id}/changes',
    summary: 'The draft against the live version on the last trips, with what was read then. Null when nothing is live.',
    needs: 'look',
    query: z.object({ last: z.coerce.number().int().min(1).max(2_000).default(500) }),
    answer: s.changesSchema.nullable(),
  }),
  listVersions: op({
    method: 'GET',
    path: '/flows/{id}/versions',
    summary: 'Every version, newest first.',
    needs: 'look',
    answer: z.object({ items: z.array(s.versionSchema) }),
  }),
  returnToVersion: op({
    method: 'POST',
    path: '/flows/{id}/return',
    summary: 'Make an older version live again. The draft stays as it is.',
    needs: 'release',
    body: z.object({ versionId: uuid }),
    answer: z.object({ no: z.number().int() }),
  }),
  restFlow: op({
    method: 'POST',
    path: '/flows/{id}/rest',
    summary: 'Rest a flow, or let it go on: nothing of it is worked off or sent meanwhile.',
    needs: 'release',
    body: z.object({ rest: z.boolean() }),
    answer: z.object({ trips: z.number().int() }),
  }),
  endFlowTrips: op({
    method: 'POST',
    path: '/flows/{id}/end',
    summary: 'End every open trip of a flow.',
    needs: 'release',
    body: z.object({}),
    answer: z.object({ trips: z.number().int() }),
    status: 202,
  }),
  moveFlowTrips: op({
    method: 'POST',
    path: '/flows/{id}/move',
    summary: 'Have trips under way on older versions go on with the live one, where its lines have their marks.',
    needs: 'release',
    body: z.object({}),
    answer: z.object({ moved: z.number().int(), stayed: z.number().int() }),
  }),
  letReleaseGoOn: op({
    method: 'POST',
    path: '/releases/{id}/go-on',
    summary: 'The first ones are through: let the others of a version go on.',
    needs: 'release',
    body: z.object({}),
    answer: z.object({ trips: z.number().int() }),
  }),
  startFlow: op({
    method: 'POST',
    path: '/flows/{id}/start',
    summary: 'Put records into the live version: people, or deals where the flow is about deals.',
    needs: 'release',
    body: z.object({ recordIds: z.array(uuid).min(1).max(10_000) }),
    answer: z.object({ started: z.number().int(), already: z.number().int() }),
    status: 202,
  }),
  suggestSpecimens: op({
    method: 'GET',
    path: '/flows/{id}/specimens',
    summary: 'Twelve records to try the draft on: spread over the newest or over those a condition holds for, or picked by how trips went.',
    needs: 'look',
    query: z.object({ where: z.string().max(1000).optional(), pick: z.enum(['typical', 'odd', 'last failed']).optional() }),
    answer: z.object({ items: z.array(z.object({ id: uuid, name: z.string(), companyName: z.string().nullable() })) }),
  }),
  startTrial: op({
    method: 'POST',
    path: '/flows/{id}/trials',
    summary: 'Try the draft on records with nothing sent.',
    needs: 'edit flows',
    body: z.object({
      recordIds: z.array(uuid).min(1).max(200).optional(),
      /** what lookups may cost; two euros when left out */
      limitMicro: z.number().int().min(0).max(1_000_000_000).optional(),
      /** read and look up everything again, also what earlier trials know */
      afresh: z.boolean().optional(),
    }),
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
    query: z.object({ since: z.coerce.number().int().min(0).max(LATEST_MS).optional() }),
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
      cursor: z.string().max(200).optional(),
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
  letThrough: op({
    method: 'POST',
    path: '/trips/{id}/let-through',
    summary: 'Let a record through that was screened out; what spoke against it is remembered as an example.',
    needs: 'deal with trips',
    body: z.object({}),
    answer: z.object({ started: z.number().int() }),
  }),
  chooseTrips: op({
    method: 'POST',
    path: '/trips/choice',
    summary: 'Deal with stuck trips: try again, skip the line, set by hand what the line is there for, or end.',
    needs: 'deal with trips',
    body: z
      .object({
        tripIds: z.array(uuid).min(1).max(500).optional(),
        /** a stuck trip: it and all that are stuck at the same line of its flow for the same reason */
        alike: uuid.optional(),
        choice: z.enum(['try again', 'skip the line', 'set by hand', 'end']),
        /** with `set by hand`: what was typed */
        value: z.string().max(2_000).optional(),
      })
      .refine((body) => (body.tripIds === undefined) !== (body.alike === undefined), 'name the trips by tripIds, or one by alike'),
    answer: z.object({ chosen: z.number().int() }),
  }),
} as const;
