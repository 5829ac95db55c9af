import { z } from 'zod';
import { watchedSchema } from '../core/intake';
import { entryShape, fileShape } from './entries';
import { op, uuid } from './op';
import * as s from './schemas';

const view = z.object({
  id: uuid,
  name: z.string(),
  isOn: z.boolean(),
  lastAt: s.instant.nullable(),
  lookedAt: s.instant.nullable(),
  problem: z.string().nullable().describe('what went wrong at the last look'),
  taken: z.number().int(),
  refused: z.number().int(),
  settings: watchedSchema,
  flows: z.array(z.string()).describe('live flows that begin there'),
});
const entry = entryShape.extend({ files: z.array(fileShape) });
const password = z.string().max(500);

/** Mailboxes and calendars that are looked at again and again. */
export const WATCHED_OPERATIONS = {
  listWatched: op({
    method: 'GET',
    path: '/watched',
    summary: 'Mailboxes and calendars that records come in by.',
    needs: 'look',
    answer: z.object({ items: z.array(view) }),
  }),
  createWatched: op({
    method: 'POST',
    path: '/watched',
    changes: ['intake'],
    summary: 'Connect a mailbox (IMAP) or a calendar (CalDAV, or an iCalendar file); flows can take in from it by its name.',
    needs: 'edit flows',
    body: z.object({
      name: z.string().trim().min(1).max(80),
      settings: watchedSchema,
      password: password.default(''),
      isOn: z.boolean().default(false),
    }),
    answer: z.object({ id: uuid }),
    status: 201,
  }),
  getWatched: op({
    method: 'GET',
    path: '/watched/{id}',
    summary: 'A mailbox or calendar and what came in by it, newest first.',
    needs: 'look',
    answer: view.extend({ entries: z.array(entry) }),
  }),
  saveWatched: op({
    method: 'PUT',
    path: '/watched/{id}',
    changes: ['intake'],
    summary: 'Change it, or switch it on or off. Without a password the old one stays.',
    needs: 'edit flows',
    body: z.object({ settings: watchedSchema, password: password.nullable().default(null), isOn: z.boolean() }),
    answer: view,
  }),
  lookAtWatched: op({
    method: 'POST',
    path: '/watched/{id}/look',
    changes: ['intake'],
    summary: 'Look there now instead of at its time.',
    needs: 'take in',
    body: z.object({}),
    answer: view,
    status: 202,
  }),
  previewWatched: op({
    method: 'POST',
    path: '/watched/preview',
    changes: [],
    summary: 'What lies there and what would become of each. Nothing is taken in.',
    needs: 'edit flows',
    body: z.object({ id: uuid.nullable().default(null), settings: watchedSchema, password: password.nullable().default(null) }),
    answer: z.object({ items: z.array(z.object({ says: z.string(), becomes: z.string(), taken: z.boolean() })) }),
  }),
  mendArrival: op({
    method: 'POST',
    path: '/arrivals/{id}/mend',
    changes: ['counts', 'intake', 'records'],
    summary: 'Bring a refused mail or meeting again with mended name or address.',
    needs: 'take in',
    body: z.object({ raw: z.record(z.string().max(100), z.string().max(20_000)) }),
    answer: z.object({ ok: z.boolean(), why: z.string() }),
  }),
} as const;
