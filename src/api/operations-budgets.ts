import { z } from 'zod';
import { HAND_CHANNELS } from '../core/writer';
import { op, type View } from './op';

const kind = z.enum(['all', 'provider', 'flow']);
const micro = z.int().describe('millionths of the currency');
const hand = z.enum(HAND_CHANNELS);
const view = z.object({
  month: z.string().describe('its first day'),
  items: z.array(
    z.object({
      kind,
      id: z.string(),
      label: z.string(),
      spentMicro: micro,
      reservedMicro: micro.describe('set aside for calls under way'),
      limitMicro: micro.nullable().describe('null: no limit'),
    }),
  ),
  hands: z
    .array(z.object({ channel: hand, aDay: z.int().nullable().describe('null: as many as come') }))
    .describe('what one person is given to do in a day'),
});
export type BudgetsView = View<typeof view>;

/** What may be spent in a month. */
export const BUDGET_OPERATIONS = {
  getBudgets: op({
    method: 'GET',
    path: '/budgets',
    summary: 'What was spent this month on lookups and research, by whom, and what may be.',
    needs: 'look',
    answer: view,
  }),
  keepBudget: op({
    method: 'PUT',
    path: '/budgets',
    changes: ['settings'],
    summary: 'Set or take away what may be spent in a month. Owners are told at four fifths; above it trips wait for the next month.',
    needs: 'keep secrets',
    body: z.object({ kind, id: z.string().max(120), limitMicro: z.int().min(0).max(1_000_000_000_000_000).nullable() }),
    answer: view,
  }),
  keepHandLimit: op({
    method: 'PUT',
    path: '/budgets/by-hand',
    changes: ['settings'],
    summary: 'Set or take away how many calls, notes or letters one person is given in a day. What is more waits for the next working day.',
    needs: 'keep secrets',
    body: z.object({ channel: hand, aDay: z.int().min(1).max(1_000).nullable() }),
    answer: view,
  }),
} as const;
