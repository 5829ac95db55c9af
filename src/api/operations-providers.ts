import { z } from 'zod';
import { providerSchema } from '../core/lookup';
import { op, type View } from './op';
import * as s from './schemas';

const view = z.object({
  provider: providerSchema,
  hasSecret: z.boolean().describe('a key is kept, sealed'),
  usedBy: z.array(z.string()).describe('lookup chains that ask it'),
  checked: z.object({ ok: z.boolean(), says: z.string(), at: s.instant }).nullable(),
});
export type ProviderView = View<typeof view>;
const trial = z.object({
  person: z.string().describe('whom it was asked about, or by which words'),
  asks: z.string(),
  ok: z.boolean(),
  says: z.string(),
  value: z.string().nullable(),
  confidence: z.number(),
  collected: z.boolean().describe('an answer is below; false: what it said when it was asked, or nothing'),
  answer: z.string().nullable().describe('what came back, as text'),
  places: z.array(z.object({ at: z.string(), value: z.union([z.string(), z.number(), z.boolean(), z.null()]) })),
});
export type ProviderTrial = View<typeof trial>;
const secret = z.string().max(2_000).optional().describe('the key; left out, the one that is kept stays; empty: none');
const list = z.object({ items: z.array(view) });
const beginnings = z.object({
  title: z.string(),
  calls: z.array(
    z.object({
      label: z.string(),
      summary: z.string(),
      provider: providerSchema.pick({
        method: true,
        url: true,
        headers: true,
        body: true,
        list: true,
        value: true,
        confidence: true,
        later: true,
      }),
      example: z.string().describe('what it answers, as JSON'),
      says: z.array(z.string()).describe('what must still be looked at'),
    }),
  ),
});
export type ProviderBeginnings = View<typeof beginnings>;

/** Lookup services described by data. */
export const PROVIDER_OPERATIONS = {
  listProviders: op({
    method: 'GET',
    path: '/providers',
    summary: 'Lookup services described here, what asks them, and how the last try went.',
    needs: 'look',
    answer: list,
  }),
  keepProvider: op({
    method: 'PUT',
    path: '/providers',
    changes: ['settings', 'things'],
    summary: 'Describe a lookup service, or change its description.',
    needs: 'keep secrets',
    body: z.object({ provider: providerSchema, secret }),
    answer: list,
  }),
  removeProvider: op({
    method: 'POST',
    path: '/providers/remove',
    changes: ['settings', 'things'],
    summary: 'Remove a described service that no chain asks.',
    needs: 'keep secrets',
    body: z.object({ name: z.string().max(60) }),
    answer: list,
  }),
  tryProvider: op({
    method: 'POST',
    path: '/providers/try',
    changes: [],
    summary: 'Ask a description about one person; nothing is kept of the answer.',
    needs: 'keep secrets',
    body: z.object({ provider: providerSchema, secret, who: z.string().trim().min(1).max(200) }),
    answer: trial,
  }),
  readOpenApi: op({
    method: 'POST',
    path: '/providers/read',
    changes: [],
    summary: 'The calls of an OpenAPI document (3.0, 3.1; JSON or YAML), each as the beginning of a description. Nothing is kept.',
    needs: 'keep secrets',
    body: z.object({ document: z.string().min(1).max(3_000_000) }),
    answer: beginnings,
  }),
} as const;
