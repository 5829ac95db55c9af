import { z } from 'zod';
import { directoryHitSchema, formSchema, payloadMatchingSchema } from '../core/intake';
import { op, uuid } from './op';
import { entryShape, fileShape } from './entries';
import * as s from './schemas';

const formProblem = z.object({ question: z.string().describe('empty: of the form as a whole'), says: z.string() });
const formView = z.object({
  id: uuid,
  name: z.string(),
  slug: z.string().describe('its public page is /f/{slug}'),
  isOn: z.boolean(),
  lastAt: s.instant.nullable(),
  taken: z.number().int(),
  refused: z.number().int(),
  form: formSchema,
  problems: z.array(formProblem),
  flows: z.array(z.string()).describe('live flows that begin with what is sent'),
});

const hookView = z.object({
  id: uuid,
  name: z.string(),
  slug: z.string().describe('its address is /in/{slug}'),
  isOn: z.boolean(),
  lastAt: s.instant.nullable(),
  taken: z.number().int(),
  refused: z.number().int(),
  matching: payloadMatchingSchema,
  sample: z.record(z.string(), z.string()).nullable().describe('values of the last example, by path'),
  flows: z.array(z.string()),
});

const criteria = z.object({
  service: z.string().max(60).default('').describe('a described service that finds records; empty: the directory'),
  what: z.enum(['people', 'companies']).default('people'),
  title: z.string().max(80).default(''),
  words: z.string().max(200).default(''),
  place: z.string().max(80).default(''),
  country: z.string().max(2).default(''),
  fields: z
    .array(
      z.object({
        key: z.string().max(60),
        least: z.number().min(-1e12).max(1e12).nullable().default(null),
        says: z.string().max(80).default(''),
      }),
    )
    .max(20)
    .default([])
    .describe('of the company’s own fields: the least a figure may be, in the field’s unit, or what a text holds'),
  minEmployees: z.int().min(0).max(100_000_000).nullable().default(null),
  order: z.string().max(60).default('name').describe('name, newest, or a field whose largest come first'),
});
const hit = directoryHitSchema.extend({ becomes: z.enum(['new', 'known', 'perhaps', 'refused']), why: z.string() });

/** Forms and webhooks, and what comes in through them; the directory. */
export const INTAKE_OPERATIONS = {
  listForms: op({ method: 'GET', path: '/forms', summary: 'Forms.', needs: 'look', answer: z.object({ items: z.array(formView) }) }),
  createForm: op({
    method: 'POST',
    path: '/forms',
    changes: ['intake'],
    summary: 'Make a form; flows can take in from it by its name.',
    needs: 'take in',
    body: z.object({ name: z.string().trim().min(1).max(80), form: formSchema }),
    answer: z.object({ id: uuid }),
    status: 201,
  }),
  getForm: op({ method: 'GET', path: '/forms/{id}', summary: 'A form.', needs: 'look', answer: formView }),
  saveForm: op({
    method: 'PUT',
    path: '/forms/{id}',
    changes: ['intake'],
    summary: 'Change a form, or switch it on or off.',
    needs: 'take in',
    body: z.object({ form: formSchema, isOn: z.boolean() }),
    answer: formView,
  }),
  listEntries: op({
    method: 'GET',
    path: '/forms/{id}/entries',
    summary: 'What was sent through a form, newest first.',
    needs: 'look',
    answer: z.object({
      items: z.array(entryShape.extend({ files: z.array(fileShape) })),
    }),
  }),
  listWebhookIntakes: op({
    method: 'GET',
    path: '/webhook-intakes',
    summary: 'Webhook addresses that take records in.',
    needs: 'look',
    answer: z.object({ items: z.array(hookView) }),
  }),
  createWebhookIntake: op({
    method: 'POST',
    path: '/webhook-intakes',
    changes: ['intake'],
    summary: 'Make a webhook address. Secret and token are told this once.',
    needs: 'take in',
    body: z.object({ name: z.string().trim().min(1).max(80) }),
    answer: z.object({ id: uuid, secret: z.string(), token: z.string() }),
    status: 201,
  }),
  getWebhookIntake: op({
    method: 'GET',
    path: '/webhook-intakes/{id}',
    summary: 'A webhook address with what was posted to it.',
    needs: 'look',
    answer: hookView.extend({ entries: z.array(entryShape) }),
  }),
  saveWebhookIntake: op({
    method: 'PUT',
    path: '/webhook-intakes/{id}',
    changes: ['intake'],
    summary: 'Match the values of a webhook to fields, or switch it on or off.',
    needs: 'take in',
    body: z.object({ matching: payloadMatchingSchema, isOn: z.boolean() }),
    answer: hookView,
  }),
  tryWebhookIntake: op({
    method: 'POST',
    path: '/webhook-intakes/{id}/try',
    changes: [],
    summary: 'What an example would become. Nothing is kept.',
    needs: 'take in',
    body: z.object({ json: z.string().max(200_000), matching: payloadMatchingSchema.default([]) }),
    answer: z.object({
      values: z.record(z.string(), z.string()),
      matching: payloadMatchingSchema,
      becomes: z.string(),
      why: z.string(),
      remarks: z.array(z.string()),
    }),
  }),
  bringWebhookAgain: op({
    method: 'POST',
    path: '/webhook-intakes/{id}/again',
    changes: ['counts', 'intake', 'records'],
    summary: 'Bring everything refused again under the matching of now.',
    needs: 'take in',
    body: z.object({}),
    answer: z.object({ taken: z.number().int(), refused: z.number().int() }),
  }),
  mendPosted: op({
    method: 'POST',
    path: '/posted/{id}/mend',
    changes: ['counts', 'intake', 'records'],
    summary: 'Bring one refused message again with mended values.',
    needs: 'take in',
    body: z.object({ raw: z.record(z.string().max(300), z.string().max(5_000)) }),
    answer: z.object({ ok: z.boolean(), why: z.string() }),
  }),
  lookInDirectory: op({
    method: 'POST',
    path: '/directory/look',
    changes: [],
    summary: 'How many people the directory has for these criteria, and what the first of them would become. Nothing is taken in.',
    needs: 'take in',
    body: criteria,
    answer: z.object({ count: z.number().int(), more: z.boolean(), fresh: z.number().int(), hits: z.array(hit) }),
  }),
  takeFromDirectory: op({
    method: 'POST',
    path: '/directory/take-in',
    changes: ['counts', 'intake', 'records'],
    summary: 'Take people in from the directory, and put them in a flow if one is given.',
    needs: 'take in',
    body: z.object({
      criteria,
      most: z.number().int().min(1).max(1_000),
      onlyNew: z.boolean().default(true),
      flowId: uuid.nullable().default(null),
    }),
    answer: z.object({ taken: z.number().int(), known: z.number().int(), started: z.number().int() }),
  }),
  mendEntry: op({
    method: 'POST',
    path: '/entries/{id}/mend',
    changes: ['counts', 'intake', 'records'],
    summary: 'Bring a refused entry again with mended answers.',
    needs: 'take in',
    body: z.object({ raw: z.record(z.string().max(40), z.string().max(5_000)) }),
    answer: z.object({ ok: z.boolean(), why: z.string(), problems: z.array(formProblem) }),
  }),
  entryFile: op({
    method: 'GET',
    path: '/files/{id}',
    summary: 'A file that came with an entry.',
    needs: 'open papers',
    answer: z.string(),
    givesFile: ['application/pdf', 'application/vnd.openxmlformats-officedocument.wordprocessingml.document', 'text/plain'],
  }),
} as const;
