import { fold } from '../base';
import { compileFeel, parseFeel, type FeelScope } from '../feel';
import type { Language } from '../reader';
import type { AgreedAnswer } from './agreed';
import { tellingOf } from './claims';

/** One thing they said that wants an answer: an objection, a question word for word, or another kind such as interest. */
export interface Said {
  readonly kind: 'objection' | 'question' | 'other';
  /** what an objection is about, or the other kind; of a question nothing */
  readonly about: string | null;
  readonly words: string;
}

/** An agreed answer to it, and whether it fits this reader. */
export interface Candidate {
  readonly answer: AgreedAnswer;
  readonly fits: boolean;
  /** whether its condition can be told at all */
  readonly isKnown: boolean;
  /** share of the words by which the question is known that were found; 1 for objections */
  readonly match: number;
}

/** So much of one way of asking must be in the question. */
const ASKED_ENOUGH = 0.6;

/** Answers agreed for what was said, those that fit first, then by how surely it is their question. */
export function candidatesFor(
  said: Said,
  answers: readonly AgreedAnswer[],
  reader: { readonly scope: FeelScope; readonly language: Language },
): readonly Candidate[] {
  return answers
    .flatMap((answer): Candidate[] => {
      const match = said.kind === 'question' ? askedBy(answer, said.words, reader.language) : answer.about === said.about ? 1 : 0;
      if (match < ASKED_ENOUGH) return [];
      return [{ answer, match, ...fitOf(answer, reader.scope) }];
    })
    .sort((a, b) => Number(b.fits) - Number(a.fits) || b.match - a.match || Number(b.answer.when !== '') - Number(a.answer.when !== ''));
}

/** How much of the best way of asking is in the question. One telling word alone is not enough where a way of asking has more. */
function askedBy({ about, asks }: AgreedAnswer, words: string, language: Language): number {
  const said = tellingOf(words, language);
  return Math.max(
    ...[about, ...asks].map((way) => {
      if (fold(words).includes(fold(way))) return 1;
      const own = tellingOf(way, language);
      return own.size === 0 ? 0 : [...own].filter((word) => said.has(word)).length / own.size;
    }),
  );
}

function fitOf({ when }: AgreedAnswer, scope: FeelScope): Pick<Candidate, 'fits' | 'isKnown'> {
  if (when.trim() === '') return { fits: true, isKnown: true };
  const { expr } = parseFeel(when);
  const holds = expr === undefined ? null : compileFeel(expr)(scope);
  return { fits: holds === true, isKnown: holds !== null };
}
