import { clip, fold, plural, type Instant } from '../base';
import type { FactValue } from '../fields';
import type { Asked } from './asked';
import { featuresOf } from './features';
import type { Candidate } from './find/candidate';
import { calibrated, familyOf, scoreOf, sharesOf, type Model } from './model';
import type { Lexicon } from './language';
import { saidIn, type Passage, type Said } from './said';
import { sceneOf } from './scene';
import { MODEL } from './weights';

/** A value that was stated too, and not taken. */
export interface OtherAnswer {
  readonly value: FactValue;
  readonly quote: string;
  readonly url: string;
  readonly confidence: number;
  readonly date: Instant | null;
}

export interface ReaderAnswer {
  readonly found: boolean;
  readonly value: FactValue;
  /** the sentence it rests on, word for word; without a value: the sentence that says there is none */
  readonly quote: string | null;
  readonly url: string | null;
  /** 0 to 1: of answers given at 0.9, nine in ten are right (`npm run evaluate` prints it) */
  readonly confidence: number;
  /** the day the page says the statement is of */
  readonly date: Instant | null;
  readonly says: string;
  /** conflicting values, best first */
  readonly others: readonly OtherAnswer[];
}

const QUOTE_MAX = 220;
const OTHERS_MAX = 4;
const OTHERS_LEAST = 0.15;

/** Answers one typed question from the passages, with the best-supported sentence as its quote; `now` is the day of reading. */
export function answerQuestion(question: Asked, passages: readonly Passage[], now: Instant, model: Model = MODEL): ReaderAnswer {
  return answerFrom(question, saidIn(passages), passages.length, now, model);
}

/** Answers several questions from the same passages, cut into sentences once. */
export function answerAll(
  questions: readonly Asked[],
  passages: readonly Passage[],
  now: Instant,
  lexicon?: Lexicon,
  model: Model = MODEL,
): readonly ReaderAnswer[] {
  const said = saidIn(passages, lexicon);
  return questions.map((question) => answerFrom(question, said, passages.length, now, model));
}

/** A value with everything that speaks for it. */
interface Stated {
  readonly value: Candidate['value'];
  /** of all that could be answered, this much */
  readonly share: number;
  readonly best: Candidate;
  readonly pages: number;
}

export function statedIn(candidates: readonly Candidate[], shares: readonly number[]): readonly Stated[] {
  const groups = new Map<string, { share: number; best: Candidate; most: number; pages: Set<string> }>();
  for (const [i, candidate] of candidates.entries()) {
    const share = shares[i] ?? 0;
    const key = typeof candidate.value === 'string' ? fold(candidate.value) : String(candidate.value);
    const group = groups.get(key);
    if (!group) groups.set(key, { share, best: candidate, most: share, pages: new Set([candidate.said.url]) });
    else {
      group.share += share;
      group.pages.add(candidate.said.url);
      if (share > group.most) [group.best, group.most] = [candidate, share];
    }
  }
  return [...groups.values()]
    .map(({ share, best, pages }) => ({ value: best.value, share, best, pages: pages.size }))
    .sort((a, b) => b.share - a.share);
}

export function answerFrom(question: Asked, said: readonly Said[], pages: number, now: Instant, model: Model): ReaderAnswer {
  const scene = sceneOf(question, said, now);
  const family = familyOf(scene.form);
  const shares = sharesOf(featuresOf(scene).map((features) => scoreOf(model.weights, family, features)));
  const [best, ...rest] = statedIn(scene.candidates, shares);
  const confidence = best ? round(calibrated(model, family, best.share)) : 0;
  if (!best || confidence < (question.least ?? model.least)) return nothing(pages);
  return {
    found: true,
    value: best.value,
    quote: clip(best.best.said.text, QUOTE_MAX),
    url: best.best.said.url,
    confidence,
    date: best.best.said.date,
    says: best.pages > 1 ? `found on ${best.pages} pages` : 'found',
    others: rest
      .filter((other) => other.share >= OTHERS_LEAST)
      .slice(0, OTHERS_MAX)
      .map((other) => ({
        value: other.value,
        quote: clip(other.best.said.text, QUOTE_MAX),
        url: other.best.said.url,
        confidence: round(calibrated(model, family, other.share)),
        date: other.best.said.date,
      })),
  };
}

const round = (share: number): number => Math.round(share * 100) / 100;

function nothing(pages: number): ReaderAnswer {
  return {
    found: false,
    value: null,
    quote: null,
    url: null,
    confidence: 0,
    date: null,
    says: `not found on ${plural(pages, 'page')}`,
    others: [],
  };
}
