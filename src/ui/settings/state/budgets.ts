import { NEARLY_SPENT } from '../../../core/lookup';
import type { BudgetsView } from '../../../api';

export type BudgetLine = BudgetsView['items'][number];

/** An amount as it is typed, in millionths; null: nothing, so no limit; undefined: it cannot be read. */
export function typedBudget(text: string): number | null | undefined {
  const plain = text.trim().replace(/^€\s*/, '').replace(',', '.');
  if (plain === '') return null;
  return /^\d{1,9}(?:\.\d{1,2})?$/.test(plain) ? Math.round(Number(plain) * 1_000_000) : undefined;
}
export const budgetText = (micro: number | null): string => (micro === null ? '' : (micro / 1_000_000).toFixed(2).replace(/\.00$/, ''));

/** How much of a budget is gone, 0 to 1 and more; undefined: there is no limit. */
export const shareGone = ({ spentMicro, reservedMicro, limitMicro }: BudgetLine): number | undefined =>
  limitMicro === null ? undefined : limitMicro === 0 ? 1 : (spentMicro + reservedMicro) / limitMicro;

/** What was spent and belongs to no flow: looked up by hand, and in trials. */
export const outsideFlows = (lines: readonly BudgetLine[]): number =>
  lines.reduce((sum, { kind, spentMicro }) => sum + (kind === 'all' ? spentMicro : kind === 'flow' ? -spentMicro : 0), 0);

/** How a budget stands, in a word; at four fifths its owner has been told. */
export function standsAt(line: BudgetLine): { readonly tone: 'moss' | 'brass' | 'brick' | 'plain'; readonly says: string } {
  const share = shareGone(line);
  if (share === undefined) return { tone: 'plain', says: 'no limit' };
  const says = `${Math.floor(share * 100)} % gone`;
  return share >= 1 ? { tone: 'brick', says: 'used up' } : { tone: share >= NEARLY_SPENT ? 'brass' : 'moss', says };
}
