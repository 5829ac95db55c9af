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

/** So much of one way of asking must be in the question … */
const ASKED_ENOUGH = 0.6;
/** … or so much of the question in the words of all its ways together, and so much more than in those of any other answer. */
const SPOKEN_ENOUGH = 0.5;
const SPOKEN_MORE = 0.2;

/** Answers agreed for what was said, those that fit first, then by how surely it is their question. */
export function candidatesFor(
  said: Said,
  answers: readonly AgreedAnswer[],
  reader: { readonly scope: FeelScope; readonly language: Language },
): readonly Candidate[] {
  const matches = said.kind === 'question' ? questionMatches(said.words, answers, reader.language) : undefined;
  return answers
    .flatMap((answer): Candidate[] => {
      const match = matches ? (matches.get(answer) ?? 0) : answer.about === said.about ? 1 : 0;
      return match === 0 ? [] : [{ answer, match, ...fitOf(answer, reader.scope) }];
    })
    .sort((a, b) => Number(b.fits) - Number(a.fits) || b.match - a.match || Number(b.answer.when !== '') - Number(a.answer.when !== ''));
}

/** How surely each answer is meant by a question; none below the bars. */
function questionMatches(words: string, answers: readonly AgreedAnswer[], language: Language): ReadonlyMap<AgreedAnswer, number> {
  const said = tellingOf(words, language);
  const spoken = spokenBy(said, answers, language);
  const most = [...spoken.values()].sort((a, b) => b - a);
  const out = new Map<AgreedAnswer, number>();
  for (const answer of answers) {
    const byWay = askedBy(answer, words, said, language);
    const share = spoken.get(answer) ?? 0;
    const lead = share - (share === most[0] ? (most[1] ?? 0) : (most[0] ?? 0));
    const match = byWay >= ASKED_ENOUGH ? byWay : share >= SPOKEN_ENOUGH && lead >= SPOKEN_MORE ? share : 0;
    if (match > 0) out.set(answer, match);
  }
  return out;
}

const waysOf = ({ about, asks }: AgreedAnswer): readonly string[] => [about, ...asks];

/** How much of the best way of asking is in the question. One telling word alone is not enough where a way of asking has more. */
function askedBy(answer: AgreedAnswer, words: string, said: ReadonlySet<string>, language: Language): number {
  return Math.max(
    ...waysOf(answer).map((way) => {
      if (fold(words).includes(fold(way))) return 1;
      const own = tellingOf(way, language);
      return own.size === 0 ? 0 : [...own].filter((word) => said.has(word)).length / own.size;
    }),
  );
}

/**
 * The share of a question's telling words that are in the ways of asking of an answer, words that fewer answers know weighing more
 * (inverse document frequency, Spärck Jones 1972); words nobody knows weigh half of the rarest.
 */
function spokenBy(said: ReadonlySet<string>, answers: readonly AgreedAnswer[], language: Language): ReadonlyMap<AgreedAnswer, number> {
  const known = answers.map((answer) => new Set(waysOf(answer).flatMap((way) => [...tellingOf(way, language)])));
  const rarest = Math.log(1 + answers.length);
  const weights = new Map(
    [...said].map((word) => {
      const by = known.filter((words) => words.has(word)).length;
      return [word, by === 0 ? rarest / 2 : Math.log(1 + answers.length / by)];
    }),
  );
  const all = [...weights.values()].reduce((sum, weight) => sum + weight, 0);
  const shareOf = (words: ReadonlySet<string> | undefined): number =>
    all === 0 ? 0 : [...weights].reduce((sum, [word, weight]) => sum + (words?.has(word) ? weight : 0), 0) / all;
  return new Map(answers.map((answer, i) => [answer, shareOf(known[i])]));
}

function fitOf({ when }: AgreedAnswer, scope: FeelScope): Pick<Candidate, 'fits' | 'isKnown'> {
  if (when.trim() === '') return { fits: true, isKnown: true };
  const { expr } = parseFeel(when);
  const holds = expr === undefined ? null : compileFeel(expr)(scope);
  return { fits: holds === true, isKnown: holds !== null };
}
