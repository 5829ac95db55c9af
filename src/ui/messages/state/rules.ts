/** When answers wait: the rules as lines somebody types, and what a trial of them shows. */
import type { HoldRulesView, HoldTrialView } from '../../../api';
import type { Catalogue } from '../../../core/fields';
import { sayFeel } from '../../../core/flow/say';
import { readHoldRules, type HoldRule, type RuleProblem } from '../../../core/holding';

export type MailboxRules = HoldRulesView['mailboxes'][number];
export type Agreed = MailboxRules['agreements'][number];
export type Tried = HoldTrialView['items'][number];

export interface RuleRow {
  readonly text: string;
  /** the rule in words; null: it says nothing, or cannot be read */
  readonly says: string | null;
  readonly problem: RuleProblem | null;
}

/** A rule as it is said. */
export function ruleText({ does, when, first }: HoldRule, fields: Catalogue): string {
  if (first !== undefined) return `the first ${first} wait until a person has decided them`;
  const words = when ? sayFeel(when, fields).replace(/\breply /g, '') : '';
  return does === 'hold' ? `waits for a person when ${words}` : `goes alone when ${words}`;
}

/** The lines of a text, each with what it says or what is wrong with it. */
export function ruleRows(text: string, fields: Catalogue): readonly RuleRow[] {
  const { rules, problems } = readHoldRules(text, fields);
  return text.split('\n').map((row, i) => {
    const rule = rules.find(({ line }) => line === i + 1);
    return {
      text: row,
      says: rule ? ruleText(rule, fields) : null,
      problem: problems.find(({ line }) => line === i + 1) ?? null,
    };
  });
}

const linesOf = (text: string): string[] => text.split('\n');
export const withLine = (text: string, at: number, line: string): string =>
  linesOf(text)
    .map((row, i) => (i === at ? line.replace(/\n/g, ' ') : row))
    .join('\n');
/** A new empty line below another. */
export const lineBelow = (text: string, at: number): string =>
  linesOf(text)
    .toSpliced(at + 1, 0, '')
    .join('\n');
/** Without a line; one empty line stays. */
export const withoutLine = (text: string, at: number): string => linesOf(text).toSpliced(at, 1).join('\n');
/** A line one place up (−1) or down (1); the same text where there is no such place. */
export function moved(text: string, at: number, by: -1 | 1): string {
  const rows = linesOf(text);
  const to = at + by;
  const [row] = rows.slice(at, at + 1);
  return to < 0 || to >= rows.length || row === undefined ? text : rows.toSpliced(at, 1).toSpliced(to, 0, row).join('\n');
}
/** With one more rule at the end. */
export const withRule = (text: string, rule: string): string => (text.trim() === '' ? rule : `${text.trimEnd()}\n${rule}`);

/** What changes for the mails that came, those that change first. */
export function trialSums(items: readonly Tried[]): {
  readonly wait: number;
  readonly alone: number;
  readonly waited: number;
  readonly changed: readonly Tried[];
  readonly same: readonly Tried[];
} {
  const alone = items.filter(({ after }) => after.does === 'send').length;
  const changes = ({ before, after }: Tried): boolean => before.does !== after.does;
  return {
    wait: items.length - alone,
    alone,
    waited: items.filter(({ before }) => before.does === 'hold').length,
    changed: items.filter(changes),
    same: items.filter((item) => !changes(item)),
  };
}

/** The shares of answers that could go and are looked at all the same. */
export const LOOKED_AT: readonly (readonly [share: number, says: string])[] = [
  [1, 'every one'],
  [0.5, 'one in two'],
  [0.2, 'one in five'],
  [0.1, 'one in ten'],
  [0.05, 'one in twenty'],
  [0, 'none'],
];

/** What is to be thought of a kind, in words. */
export function agreementText({ decided, unchanged, from, to, state }: Agreed): string {
  const range = `${Math.round(from * 100)} to ${Math.round(to * 100)} %`;
  if (state === 'earned') return `sent as they stood ${unchanged} of ${decided}: ${range}, enough to let them go`;
  if (state === 'lost') return `sent as they stood only ${unchanged} of ${decided}: they wait, whatever the rules say`;
  return `sent as they stood ${unchanged} of ${decided}: ${range}; letting them go is offered once 80 % is sure`;
}
