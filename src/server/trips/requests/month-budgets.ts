/** What may be spent in a month: by everybody, at one provider, by one flow. Kept as one setting; spent under the month's first day. */
import { z } from 'zod';
import type { Tx } from '../../db';
import { getSetting, putSetting } from '../../platform/store/settings';

const SETTING = 'month budgets';
const micro = z.number().int().nonnegative();
export const monthBudgetsSchema = z.object({
  /** null: no limit */
  all: micro.nullable().default(null),
  provider: z.record(z.string(), micro).default({}),
  flow: z.record(z.string(), micro).default({}),
});
export type MonthBudgets = z.infer<typeof monthBudgetsSchema>;
export type BudgetKind = 'all' | 'provider' | 'flow';

export async function monthBudgets(tx: Tx): Promise<MonthBudgets> {
  return monthBudgetsSchema.parse((await getSetting(tx, SETTING)) ?? {});
}
export const putMonthBudgets = (tx: Tx, budgets: MonthBudgets): Promise<void> => putSetting(tx, SETTING, budgets);

const PREFIX = 'month';
/** How its spending is called in the ledger. */
export const monthBudgetName = (kind: BudgetKind, id: string): string => [PREFIX, kind, id].join(' ').trim();
export const isMonthly = (budget: string): boolean => budget.startsWith(`${PREFIX} `);
/** The first day of a day's month. */
export const monthOf = (day: string): string => `${day.slice(0, 7)}-01`;
