import { z } from 'zod';
import { TASK_OUTCOME_IDS } from '../core/sending';
import { op } from './op';
import * as s from './schemas';
import * as desk from './schemas-desk';

/** What people decide, messages, notices, the demo’s clock. */
export const DESK_OPERATIONS = {
  listReviews: op({
    method: 'GET',
    path: '/reviews',
    summary: 'Messages that wait for a person.',
    needs: 'look',
    answer: z.object({ items: z.array(desk.reviewSchema) }),
  }),
  decideReview: op({
    method: 'POST',
    path: '/reviews/{id}/decision',
    changes: ['desk', 'messages', 'thread:*'],
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
    answer: z.object({ items: z.array(desk.pairSchema) }),
  }),
  decidePair: op({
    method: 'POST',
    path: '/pairs/{id}/decision',
    changes: ['counts', 'desk', 'duplicates', 'records', 'record:*'],
    summary: 'Same, different, or later.',
    needs: 'decide',
    body: z.object({ does: z.enum(['same', 'different', 'later']) }),
    answer: s.okSchema,
  }),
  undoMerge: op({
    method: 'POST',
    path: '/merges/{id}/undo',
    changes: ['counts', 'duplicates', 'records', 'record:*'],
    summary: 'Part two records that were joined.',
    needs: 'decide',
    body: z.object({}),
    answer: s.okSchema,
  }),
  listTasks: op({
    method: 'GET',
    path: '/tasks',
    summary: 'Calls, notes and letters that wait for somebody to do them.',
    needs: 'look',
    answer: z.object({ items: z.array(desk.taskSchema) }),
  }),
  endTask: op({
    method: 'POST',
    path: '/tasks/{id}/outcome',
    changes: ['desk', 'messages', 'thread:*', 'record:*'],
    summary: 'Say how a task went; the plan goes on from there.',
    needs: 'decide',
    body: z.object({ outcome: z.enum(TASK_OUTCOME_IDS), words: z.string().max(2_000).optional().describe('what was said') }),
    answer: s.okSchema,
  }),
  taskLetter: op({
    method: 'GET',
    path: '/tasks/{id}/letter',
    summary: 'A letter of a plan as PDF, to be printed and posted.',
    needs: 'look',
    answer: z.string(),
    givesFile: ['application/pdf'],
  }),
  settleDoubt: op({
    method: 'POST',
    path: '/doubts/{id}/decision',
    changes: ['desk', 'messages', 'thread:*'],
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
      cursor: z.string().max(200).optional(),
      limit: z.coerce.number().int().min(1).max(200).optional(),
    }),
    answer: s.pageOf(desk.messageSchema),
  }),
  handleReply: op({
    method: 'POST',
    path: '/messages/{id}/handled',
    changes: ['desk', 'messages', 'thread:*', 'record:*'],
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
    answer: z.object({ items: z.array(desk.noticeSchema) }),
  }),
  putNoticeAside: op({
    method: 'POST',
    path: '/notices/{id}/aside',
    changes: ['desk'],
    summary: 'Put a notice of yours aside.',
    needs: 'look',
    body: z.object({}),
    answer: s.okSchema,
  }),
  connectWebhook: op({
    method: 'PUT',
    path: '/webhooks/{name}',
    changes: ['settings'],
    summary: 'Name an address that flows may tell or hand over to. The secret is kept sealed and never shown again.',
    needs: 'keep secrets',
    body: z.object({ url: z.url({ protocol: /^https?$/ }).max(2_000), secret: z.string().min(8).max(200) }),
    answer: s.okSchema,
  }),

  readRail: op({
    method: 'GET',
    path: '/rail',
    summary: 'What stands around every page: how much waits where, what time it is here, and what does not answer.',
    needs: 'look',
    answer: desk.railSchema,
  }),
  readClock: op({ method: 'GET', path: '/clock', summary: 'What time it is here.', needs: 'look', answer: desk.clockSchema }),
  moveClock: op({
    method: 'POST',
    path: '/clock',
    changes: ['everything'],
    summary: 'Demo only: let the clock go on.',
    needs: 'move the clock',
    body: z.object({
      byMs: z
        .int()
        .positive()
        .max(400 * 86_400_000),
    }),
    answer: desk.clockSchema,
    status: 202,
  }),
} as const;
