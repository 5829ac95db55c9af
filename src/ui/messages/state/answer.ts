/** The answer beside a conversation: which agreed ones are taken, and what is shown of the draft. */
import type { AnswerDraftView } from '../../../api';
import { plural, shareInterval } from '../../../core/base';
import { parseFeel } from '../../../core/feel';
import type { Catalogue } from '../../../core/fields';
import { sayFeel } from '../../../core/flow/say';

export type Taken = AnswerDraftView['taken'][number];
export type Candidate = Taken['candidates'][number];
export type Rest = AnswerDraftView['sentences'][number]['rests'][number];

/** A condition in the words of the business. */
export function conditionText(when: string, fields: Catalogue): string {
  const { expr } = parseFeel(when);
  return expr ? sayFeel(expr, fields) : when;
}
/** Why an agreed answer fits a reader, or why not. */
export function fitText({ when, fits, isKnown }: Pick<Candidate, 'when' | 'fits' | 'isKnown'>, fields: Catalogue): string {
  if (when === '') return 'fits always';
  const words = conditionText(when, fields);
  return fits ? `${words}: fits` : isKnown ? `only when ${words}` : `not known whether ${words}`;
}

/** Fewer uses say little. */
export const FEW = 10;

/** How often an answer led on: the share, the range it may truly have, and whether it was used too rarely to say. */
export function ledOn({ used, led }: Pick<Candidate, 'used' | 'led'>): {
  readonly share: number;
  readonly from: number;
  readonly to: number;
  readonly few: boolean;
} {
  const [from, to] = shareInterval(led, used);
  return { share: used === 0 ? 0 : led / used, from, to, few: used < FEW };
}

/** Ids of the agreed answers that the draft took. */
export const takenIds = (draft: AnswerDraftView): readonly string[] => [
  ...new Set(
    draft.taken.flatMap(({ by, candidates }) =>
      by?.kind === 'agreed' ? candidates.filter((candidate) => candidate.name === by.name).map((candidate) => candidate.id) : [],
    ),
  ),
];

/** Another agreed answer than the one that is taken, in their order and round again; undefined where there is none. */
export function otherAnswer(draft: AnswerDraftView): string | undefined {
  const first = draft.taken.find(({ candidates }) => candidates.length > 1);
  if (!first) return undefined;
  const at = first.candidates.findIndex((candidate) => first.by?.kind === 'agreed' && candidate.name === first.by.name);
  return first.candidates[(at + 1) % first.candidates.length]?.name;
}

/** What the sentences rest on, lettered in their order, each once. */
export function lettered(draft: AnswerDraftView): readonly { readonly letter: string; readonly rest: Rest }[] {
  const seen = new Map<string, Rest>();
  for (const { rests } of draft.sentences) for (const rest of rests) seen.set(JSON.stringify(rest), rest);
  return [...seen.values()].map((rest, i) => ({ letter: String.fromCharCode(97 + (i % 26)), rest }));
}

/** The letters of what one sentence rests on. */
export const lettersOf = (rests: readonly Rest[], all: ReturnType<typeof lettered>): string =>
  rests.map((rest) => all.find((entry) => JSON.stringify(entry.rest) === JSON.stringify(rest))?.letter ?? '').join('');

/** How many places there are for a sentence of one's own: before and after each sentence between greeting and closing. */
export const placesIn = ({ sentences }: Pick<AnswerDraftView, 'sentences'>): number => Math.max(1, sentences.length - 1);

/** A draft with a sentence of one's own, as its `at`th between greeting and closing; as it is without one. */
export function workedIn({ sentences, body }: Pick<AnswerDraftView, 'sentences' | 'body'>, own: string, at: number): string {
  const sentence = own.trim();
  if (sentence === '') return body;
  const middle = sentences.slice(1, -1).map(({ text }) => text);
  const place = Math.min(Math.max(0, at), middle.length);
  return [sentences[0]?.text ?? '', middle.toSpliced(place, 0, sentence).join(' '), sentences.at(-1)?.text ?? ''].join('\n\n').trim();
}

const CHECK_WORDS: Readonly<Record<string, string>> = {
  recipient: 'address',
  'do not contact': 'may be written to',
  'slot left': 'no slot left',
  'wrong name': 'name',
  'too long': 'length',
  'may not say': 'may not say',
  'not held': 'held by facts',
};
/** The checks in a line, and those that failed. */
export function checksText(checks: AnswerDraftView['checks']): { readonly line: string; readonly failed: readonly string[] } {
  const ok = checks.filter((check) => check.ok);
  return {
    line: `${ok.length} of ${plural(checks.length, 'check')}: ${ok.map((check) => CHECK_WORDS[check.id] ?? check.id).join(' · ')}`,
    failed: checks.filter((check) => !check.ok).map((check) => check.says),
  };
}
