import { fold } from '../base';
import { sentencesOf } from './sentences';

/** A label with what it means and texts that carry it. */
export interface LabelGiven {
  readonly name: string;
  readonly meaning: string;
  readonly examples: readonly string[];
}

export interface Sorted {
  /** null: nothing in the text speaks for one label clearly enough */
  readonly label: string | null;
  /** 0 to 1: the share of the best label in all that speaks for any */
  readonly sure: number;
  /** the sentence that decided it, word for word */
  readonly quote: string | null;
}

const NOTHING: Sorted = { label: null, sure: 0, quote: null };
/** Less than this says too little; less of a lead over the second does not separate. */
const ENOUGH = 0.18;
const LEAD = 1.25;
const STEM = 6;
const EMPTY_WORDS = new Set(
  'a an and are as at be but by for from has have i in is it its me my no not of on or our so that the their them they this to us was we were what when who will with you your could would can may might should please one two thank thanks dear hello der die das und ist wir sie ich ein eine het de een en van is we ze el la los las un una y es que bitte danke graag dank por favor gracias merci vous nous'.split(
    ' ',
  ),
);

/**
 * Sorts a text under one of the labels by the words it shares with their meanings and examples: cosine similarity of
 * tf-idf vectors over word stems and letter trigrams (Salton & Buckley 1988), sentence by sentence. A tie is no answer.
 */
export function classify(text: string, labels: readonly LabelGiven[]): Sorted {
  const idf = weights(labels);
  const models = labels.map((label) => ({
    name: label.name,
    vectors: [`${label.name} ${label.meaning}`, ...label.examples].map((entry) => vector(entry, idf)),
  }));
  let best: { name: string; score: number; quote: string; second: number } | undefined;
  for (const sentence of sentencesOf(text)) {
    const seen = vector(sentence, idf);
    const scored = models
      .map(({ name, vectors }) => ({ name, score: Math.max(0, ...vectors.map((other) => cosine(seen, other))) }))
      .sort((a, b) => b.score - a.score);
    const [first, second] = scored;
    if (first && (best === undefined || first.score > best.score))
      best = { name: first.name, score: first.score, quote: sentence, second: second?.score ?? 0 };
  }
  if (!best || best.score < ENOUGH || best.score < best.second * LEAD) return NOTHING;
  return { label: best.name, sure: Math.min(0.97, best.score / (best.score + best.second)), quote: best.quote };
}

type Vector = ReadonlyMap<string, number>;

/** Whole words count most; letter trigrams let inflected forms and other languages' cousins meet. */
function terms(text: string): Map<string, number> {
  const out = new Map<string, number>();
  const add = (term: string, weight: number): void => {
    out.set(term, (out.get(term) ?? 0) + weight);
  };
  for (const word of fold(text).match(/[\p{L}\p{N}]+/gu) ?? []) {
    if (EMPTY_WORDS.has(word)) continue;
    add(`w ${word.slice(0, STEM)}`, 1);
    for (let i = 0; i + 3 <= word.length; i++) add(`t ${word.slice(i, i + 3)}`, 0.25);
  }
  return out;
}

/** Terms that few labels have weigh more: log((1 + labels) / (1 + labels with it)) + 1. */
function weights(labels: readonly LabelGiven[]): (term: string) => number {
  const having = new Map<string, number>();
  for (const label of labels)
    for (const term of terms([label.name, label.meaning, ...label.examples].join(' ')).keys())
      having.set(term, (having.get(term) ?? 0) + 1);
  return (term) => Math.log((1 + labels.length) / (1 + (having.get(term) ?? 0))) + 1;
}

const vector = (text: string, idf: (term: string) => number): Vector =>
  new Map([...terms(text)].map(([term, count]) => [term, (1 + Math.log(Math.max(count, 1))) * Math.min(count, 1) * idf(term)]));

function cosine(a: Vector, b: Vector): number {
  let dot = 0;
  for (const [term, weight] of a) dot += weight * (b.get(term) ?? 0);
  const size = (v: Vector): number => Math.sqrt([...v.values()].reduce((sum, weight) => sum + weight * weight, 0));
  const sizes = size(a) * size(b);
  return sizes === 0 ? 0 : dot / sizes;
}
