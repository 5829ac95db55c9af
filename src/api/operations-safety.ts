import { z } from 'zod';
import { details, MB, op, uuid } from './op';
import * as s from './schemas';

const aside = z.object({
  id: uuid,
  intakeId: uuid.nullable().describe('null: an answer by mail'),
  intakeName: z.string().nullable(),
  kind: z.enum(['mail', 'meeting']),
  says: z.string(),
  why: z.string().describe('why it could not be taken'),
  at: s.instant,
  state: z.enum(['open', 'brought', 'dropped']),
  size: z.number().int().describe('bytes'),
});

const barred = z.object({ items: z.array(z.object({ email: z.string(), why: z.string(), at: s.instant })) });

/** What could not be taken, who is not written to, and what was done by whom. */
export const SAFETY_OPERATIONS = {
  listSetAside: op({
    method: 'GET',
    path: '/set-aside',
    summary: 'Mails and meetings that could not be taken, newest first, each with its reason.',
    needs: 'take in',
    answer: z.object({ items: z.array(aside) }),
  }),
  getSetAside: op({
    method: 'GET',
    path: '/set-aside/{id}',
    summary: 'One of them, with its text where it is text.',
    needs: 'take in',
    answer: aside.extend({ text: z.string().nullable() }),
  }),
  setAsideFile: op({
    method: 'GET',
    path: '/set-aside/{id}/file',
    summary: 'Its bytes as they came.',
    needs: 'take in',
    answer: z.string(),
    givesFile: ['application/octet-stream'],
  }),
  bringSetAside: op({
    method: 'POST',
    path: '/set-aside/{id}/bring',
    changes: ['intake', 'records', 'desk', 'messages'],
    summary: 'Bring it again, as it is or with a mended text.',
    needs: 'take in',
    body: z.object({ text: z.string().max(200_000).nullable().default(null) }),
    maxBytes: MB,
    answer: z.object({ ok: z.boolean(), why: z.string() }),
  }),
  dropSetAside: op({
    method: 'POST',
    path: '/set-aside/{id}/drop',
    changes: ['intake'],
    summary: 'Drop it, or take that back.',
    needs: 'take in',
    body: z.object({ drop: z.boolean().default(true) }),
    answer: s.okSchema,
  }),
  listDoNotContact: op({
    method: 'GET',
    path: '/do-not-contact',
    summary: 'Addresses that are not written to, and why.',
    needs: 'look',
    answer: barred,
  }),
  barAddress: op({
    method: 'POST',
    path: '/do-not-contact',
    changes: ['settings', 'record:*'],
    summary: 'Put an address there by hand: nothing leaves for it from now on.',
    needs: 'edit flows',
    body: z.object({
      email: z.string().trim().min(3).max(320).describe('an address, or a domain as @firm.example'),
      why: z.string().max(200).default(''),
    }),
    answer: barred,
    status: 201,
  }),
  barList: op({
    method: 'POST',
    path: '/do-not-contact/list',
    changes: ['settings', 'record:*'],
    summary: 'Put everybody of a list there: a CSV with an address or a domain in each row.',
    needs: 'edit flows',
    takesFile: 'text/csv',
    maxBytes: 5 * MB,
    query: z.object({ name: z.string().max(200) }),
    answer: barred.extend({
      put: z.number().int(),
      known: z.number().int(),
      passedBy: z.array(z.object({ row: z.number().int(), says: z.string() })),
    }),
    status: 201,
  }),
  barredFile: op({
    method: 'GET',
    path: '/do-not-contact/file',
    summary: 'The whole list as CSV.',
    needs: 'look',
    answer: z.string(),
    givesFile: ['text/csv'],
  }),
  liftAddress: op({
    method: 'POST',
    path: '/do-not-contact/lift',
    changes: ['settings', 'record:*'],
    summary: 'Take an address off again. Who asked not to be written to stays.',
    needs: 'edit flows',
    body: z.object({ email: z.string().trim().min(3).max(320) }),
    answer: barred,
  }),
  auditFile: op({
    method: 'GET',
    path: '/audit/file',
    summary: 'Who did what, newest first, as a CSV file of at most 100,000 lines.',
    needs: 'read the audit',
    query: z.object({ search: z.string().max(200).optional() }),
    answer: z.string(),
    givesFile: ['text/csv'],
  }),
  listAudit: op({
    method: 'GET',
    path: '/audit',
    summary: 'Who did what, newest first.',
    needs: 'read the audit',
    query: z.object({
      search: z.string().max(200).optional(),
      cursor: z
        .string()
        .regex(/^\d{1,15}$/)
        .optional(),
    }),
    answer: s.pageOf(z.object({ id: z.number().int(), at: s.instant, who: z.string(), what: z.string(), detail: details })),
  }),
} as const;
