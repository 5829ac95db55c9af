import type { FeelScope, FeelValue } from '../feel';
import type { ComposeInput } from './input';
import { checkMessage, type MessageCheck } from './checks';
import { personalLine, type LineFact } from './personal';

export interface UsedFact extends LineFact {
  readonly says: string;
}

export interface Composed {
  readonly subject: string;
  readonly body: string;
  readonly personalLine: string | null;
  readonly factsUsed: readonly UsedFact[];
  readonly checks: readonly MessageCheck[];
  readonly passed: boolean;
}

/** A slot: a dotted name, or `personal line`, with an optional fallback in quotes. */
const SLOT = /\{\s{0,4}([a-z][a-z0-9_.]{0,80}(?: [a-z0-9_.]{1,80}){0,8}?)\s{0,4}(?:or\s{1,4}"([^"]{0,500})"\s{0,4})?\}/gi;

/** The names of the slots of a text, in their order. */
export const slotsIn = (text: string): readonly string[] => [...text.matchAll(SLOT)].map((slot) => slot[1] ?? '');

/** Composes one message and runs every check over it. A slot without value and fallback stays visible and fails its check. */
export function composeMessage(input: ComposeInput): Composed {
  const wanted = input.template.personal;
  const line = wanted ? personalLine(input.facts, wanted, input.template.language, input.seed, input.recentLines) : undefined;
  const fill = (text: string): string =>
    text.replace(SLOT, (whole, name: string, fallback: string | undefined) => {
      if (name === 'personal line') return line?.text ?? fallback ?? (wanted?.required ? whole : '');
      return shown(valueAt(input.scope, name)) ?? fallback ?? whole;
    });
  const subject = fill(input.template.subject).replace(/\s+/g, ' ').trim();
  const body = fill(input.template.body)
    .replace(/\n{3,}/g, '\n\n')
    .trim();
  const checks = checkMessage({ ...input, subject, body, line });
  return {
    subject,
    body,
    personalLine: line?.text ?? null,
    factsUsed: line ? [{ ...line.fact, says: line.text }] : [],
    checks,
    passed: checks.every((check) => check.ok),
  };
}

function valueAt(scope: FeelScope, path: string): FeelValue {
  let value: FeelValue = scope;
  for (const part of path.split('.')) {
    if (value === null || typeof value !== 'object' || Array.isArray(value)) return null;
    value = (value as FeelScope)[part] ?? null;
  }
  return value;
}

function shown(value: FeelValue): string | undefined {
  if (typeof value === 'string') return value.trim() === '' ? undefined : value;
  return typeof value === 'number' ? value.toLocaleString('en-GB') : undefined;
}
