import { fold } from '../base';
import type { Asked } from './asked';
import { CueBook } from './cues';
import { saidIn, type Passage, type Said } from './said';

export interface Sentence {
  readonly text: string;
  readonly url: string;
}

const ABOUT_THEM =
  /\bwe\b|\bour\b|\bwir\b|\bunser|\bwij\b|\bonze\b|\bnos\b|\bnotre\b|\bnous\b|\bnuestr|producimos|ofrecemos|\bis a\b|\bist ein|\bis een\b|\bes una?\b|\best une?\b|since|seit|sinds|desde|depuis|family|familie|famil/;
const SMALL_TALK =
  /cookie|welcome to our (?:site|website)|open(?:ing)? (?:day|hours)|shop|park(?:ing)?\b|newsletter|copyright|©|all rights|visit|geoffnet|geopend|abiert|ouvert|apply|bewerb|contact us/;
const SHORTEST = 30;
const LONGEST = 260;
/** Below this a sentence says nothing of what they do. */
const LEAST = 1.6;

/** The few sentences of a site that say best what the firm is and does, word for word, in the order in which they stand. */
export function whatTheyDo(passages: readonly Passage[], about: readonly Asked[] = [], most = 3): readonly Sentence[] {
  const books = about.map((question) => new CueBook(question));
  const said = saidIn(passages).filter(
    (entry) => entry.kind !== 'heading' && entry.kind !== 'data' && entry.text.length >= SHORTEST && entry.text.length <= LONGEST,
  );
  const scored = said
    .map((entry, at) => ({ entry, at, score: worth(entry, at, books) }))
    .filter(({ score }) => score > LEAST)
    .sort((a, b) => b.score - a.score || a.at - b.at);
  const chosen: typeof scored = [];
  for (const candidate of scored) {
    if (chosen.length >= most) break;
    if (!chosen.some((other) => alike(other.entry, candidate.entry))) chosen.push(candidate);
  }
  return chosen.sort((a, b) => a.at - b.at).map(({ entry }) => ({ text: entry.text, url: entry.url }));
}

const WHAT_FIRMS_DO =
  /\b(?:produc\w+|suppl\w+|mak(?:e|es|ing)|offer\w*|specialis\w*|serv\w+|build\w*|manufactur\w*|business|company|betrieb|unternehmen|liefer\w*|bieten|herstell\w*|spezialis\w*|leveren|bedrijf|gespecialiseerd|maken|producent|empresa|fabric\w*|especial\w*|entreprise|fabriqu\w*|propos\w*|spécialis\w*)\b/;

/** Of how many things asked about the sentence speaks. */
function spoken(entry: Said, about: readonly CueBook[]): number {
  return about.filter((book) =>
    book
      .in(entry.language)
      .hits(entry.tokens)
      .some((hit) => hit.cue.role !== 'not' && hit.strength >= 0.7),
  ).length;
}

function worth(entry: Said, at: number, about: readonly CueBook[]): number {
  if (SMALL_TALK.test(entry.folded)) return 0;
  const name = entry.title.split(/ [-–|·] /)[0] ?? '';
  return (
    (name !== '' && entry.folded.includes(name) ? 1.5 : 0) +
    (ABOUT_THEM.test(entry.folded) ? 1 : 0) +
    Math.min(2, spoken(entry, about)) * 0.7 +
    (WHAT_FIRMS_DO.test(entry.folded) ? 0.6 : 0) +
    (/\d/.test(entry.folded) ? 0.2 : 0) +
    Math.max(0, 0.8 - at * 0.02)
  );
}

/** Says the same again, as sites do on each page. */
function alike(a: Said, b: Said): boolean {
  const words = (text: string): Set<string> => new Set(fold(text).match(/\p{L}{4,}/gu) ?? []);
  const [left, right] = [words(a.text), words(b.text)];
  const shared = [...left].filter((word) => right.has(word)).length;
  return shared >= 0.6 * Math.min(left.size, right.size);
}
