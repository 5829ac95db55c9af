import type { FeelScope, FeelValue } from '../feel';
import type { ComposeInput } from './input';
import { checkMessage, type MessageCheck } from './checks';
import { wordingFor, type Tried } from './wordings';
import { localeOf, personalLine, type LineFact } from './personal';

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
  readonly language: string;
  /** which of the text's other wordings it is; null: the text as it stands */
  readonly wording: number | null;
  /** why it is not in the reader's language; null: it is, or nobody knows theirs */
  readonly fallback: string | null;
  /** the reader's language, two letters; null: nobody knows it */
  readonly reads: string | null;
  /** which of two wordings that are tried against each other; null: none is */
  readonly tried: Tried | null;
}

/** A slot: a dotted name, or `personal line`, with an optional fallback in quotes. */
const SLOT = /\{\s{0,4}([a-z][a-z0-9_.]{0,80}(?: [a-z0-9_.]{1,80}){0,8}?)\s{0,4}(?:or\s{1,4}"([^"]{0,500})"\s{0,4})?\}/gi;

/** The names of the slots of a text, in their order. */
export const slotsIn = (text: string): readonly string[] => [...text.matchAll(SLOT)].map((slot) => slot[1] ?? '');

/** A text with its slots filled by a record's values, and the slots that have neither a value nor a fallback. */
export function fillSlots(
  text: string,
  scope: FeelScope,
  language: string,
): { readonly text: string; readonly missing: readonly string[] } {
  const missing: string[] = [];
  const filled = text.replace(SLOT, (whole, name: string, fallback: string | undefined) => {
    const value = shown(valueAt(scope, name), language) ?? fallback;
    if (value === undefined) missing.push(name);
    return value ?? whole;
  });
  return { text: filled, missing };
}

/**
 * Composes one message in the wording for this reader and runs every check over it. A slot without value and fallback stays visible and fails
 * its check.
 */
export function composeMessage(given: ComposeInput): Composed {
  const { template, wording, fallback, reads, tried } = wordingFor(given.template, given.scope, given.seed);
  const input = { ...given, template };
  const wanted = input.template.personal;
  const line = wanted ? personalLine(input.facts, wanted, input.template.language, input.seed, input.recentLines) : undefined;
  const fill = (text: string): string =>
    text.replace(SLOT, (whole, name: string, fallback: string | undefined) => {
      if (name === 'personal line') return line?.text ?? fallback ?? (wanted?.required ? whole : '');
      return shown(valueAt(input.scope, name), input.template.language) ?? fallback ?? whole;
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
    language: template.language,
    wording,
    fallback,
    reads,
    tried,
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

/** Figures of five digits and more are parted, as years and short amounts never are. */
const PARTED = 10_000;

/** A value as readers of the language write it; undefined where nothing is known. */
function shown(value: FeelValue, language: string): string | undefined {
  if (typeof value === 'string') return value.trim() === '' ? undefined : value;
  return typeof value === 'number' ? value.toLocaleString(localeOf(language), { useGrouping: Math.abs(value) >= PARTED }) : undefined;
}
