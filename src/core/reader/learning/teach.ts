import { fold, type Instant } from '../../base';
import { isStanding, type Asked, type Learnt, type Standing } from '../asked';
import type { Candidate } from '../find/candidate';
import { isSmall } from '../language';
import type { Said } from '../said';
import { featuresOf } from '../features';
import { familyOf, scoreOf, sharesOf, type Model } from '../model';
import { sceneOf } from '../scene';

/** A page or a site somebody has shown the answer on: what was said there, and which of the possible answers is right. */
export interface Example {
  readonly said: readonly Said[];
  readonly now: Instant;
  readonly right: (value: Candidate['value']) => boolean;
  /** the words that answer, where they were shown */
  readonly quote?: string;
  /** only a wrong answer was shown: saying nothing may be right too */
  readonly openToSilence?: boolean;
  /** why what was shown is wrong: its words are the right ones, it stands otherwise */
  readonly reasons?: readonly string[];
}

/** So many words are learnt for, and as many against: more would learn the site and not the question. */
const MOST = 8;
/** A word met once moves little: as if it had been met so often on either side besides. */
const CAUTION = 1.5;
const LEAST = 0.2;
const REACH = 6;

interface Tally {
  right: number;
  wrong: number;
}

/** Words around a place in a sentence that could tell why it answers: no small words, no figures, no names. */
function tellingWords(said: Said, from: number, to: number): ReadonlySet<string> {
  const out = new Set<string>();
  const clause = said.tokens[from]?.clause;
  for (const [i, token] of said.tokens.entries()) {
    const near = i >= from - REACH && i < to + REACH;
    if (!near && token.clause !== clause) continue;
    if (i >= from && i < to) continue;
    if (token.folded.length < 4 || /\d/.test(token.folded) || isSmall(token.folded, said.language)) continue;
    out.add(token.folded);
  }
  return out;
}

/** A word is kept when the examples become so much more probable with it (natural logarithm, over all of them). */
const GAIN = 0.12;
const STRENGTH = 0.7;
/** So many words are tried. */
const TRIED = 24;

/**
 * Words that stand by right answers and not by other candidates, and the other way round: each is kept only where the examples
 * are answered better with it than without, so what is learnt never lowers the score of what taught it.
 */
export function learn(question: Asked, examples: readonly Example[], model: Model): readonly Learnt[] {
  const plain: Asked = { ...question, learnt: [] };
  const known = new Set([...(question.words ?? []), question.wording].flatMap((text) => fold(text).match(/[\p{L}\p{N}]+/gu) ?? []));
  const tallies = new Map<string, Tally>();
  for (const example of examples) {
    const { right, wrong } = wordsOf(plain, example);
    for (const word of right) tally(tallies, word).right += 1;
    for (const word of wrong) if (!right.has(word)) tally(tallies, word).wrong += 1;
  }
  const tried = [...tallies]
    .filter(([word]) => !known.has(word))
    .map(([phrase, { right, wrong }]) => ({ phrase, weight: (right - wrong) / (right + wrong + CAUTION) }))
    .filter(({ weight }) => Math.abs(weight) >= LEAST)
    .sort((a, b) => Math.abs(b.weight) - Math.abs(a.weight) || a.phrase.localeCompare(b.phrase))
    .slice(0, TRIED)
    .map(({ phrase, weight }) => ({ phrase, weight: weight > 0 ? STRENGTH : -STRENGTH }));
  let kept: readonly Learnt[] = [];
  let best = fitOf({ ...plain, learnt: kept }, examples, model);
  for (const word of tried) {
    if (kept.filter(({ weight }) => weight > 0 === word.weight > 0).length >= MOST) continue;
    const learnt = [...kept, word];
    const fit = fitOf({ ...plain, learnt }, examples, model);
    if (fit < best + GAIN) continue;
    [kept, best] = [learnt, fit];
  }
  const reasons = new Set(examples.flatMap((example) => example.reasons ?? []).filter((reason): reason is Standing => isStanding(reason)));
  for (const phrase of reasons) {
    const learnt = [...kept, { phrase, weight: -1, isStanding: true }];
    const fit = fitOf({ ...plain, learnt }, examples, model);
    if (fit <= best) continue;
    [kept, best] = [learnt, fit];
  }
  return kept;
}

/** Log-likelihood of the right answers of the examples; where nothing could be right, of silence. */
export function fitOf(question: Asked, examples: readonly Example[], model: Model): number {
  return examples.reduce((sum, example) => {
    const scene = sceneOf(question, example.said, example.now);
    const family = familyOf(scene.form);
    const shares = sharesOf(featuresOf(scene).map((features) => scoreOf(model.weights, family, features)));
    const right = scene.candidates.reduce((total, candidate, i) => total + (example.right(candidate.value) ? (shares[i] ?? 0) : 0), 0);
    const none = 1 - shares.reduce((total, share) => total + share, 0);
    const good = right > 0 ? right + (example.openToSilence === true ? none : 0) : none;
    return sum + Math.log(Math.max(1e-4, good));
  }, 0);
}

function tally(tallies: Map<string, Tally>, word: string): Tally {
  let found = tallies.get(word);
  if (!found) tallies.set(word, (found = { right: 0, wrong: 0 }));
  return found;
}

function wordsOf(question: Asked, example: Example): { readonly right: ReadonlySet<string>; readonly wrong: ReadonlySet<string> } {
  const right = new Set<string>();
  const wrong = new Set<string>();
  const quote = example.quote === undefined ? undefined : fold(example.quote).replace(/\s+/g, ' ');
  const scene = sceneOf(question, example.said, example.now);
  for (const candidate of scene.candidates) {
    const fits = example.right(candidate.value);
    const shown = quote !== undefined && fits && candidate.said.folded.includes(quote.slice(0, 60));
    const words = tellingWords(candidate.said, candidate.from, candidate.to);
    if (example.openToSilence === true) {
      if (!fits && (example.reasons ?? []).length === 0) for (const word of words) wrong.add(word);
    } else if (fits && (quote === undefined || shown)) for (const word of words) right.add(word);
    else if (!fits) for (const word of words) wrong.add(word);
  }
  // The words shown may hold no word asked for yet: that is what is to be learnt from them.
  if (quote !== undefined && right.size === 0)
    for (const entry of example.said)
      if (entry.folded.includes(quote.slice(0, 60)) || (entry.tokens.length > 2 && quote.includes(entry.folded)))
        for (const word of tellingWords(entry, 0, entry.tokens.length)) if (quote.includes(word)) right.add(word);
  return { right, wrong };
}
