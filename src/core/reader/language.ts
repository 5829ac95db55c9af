import { newStemmer, type Stemmer } from 'snowball-stemmers';
import { deu, eng, fra, ita, nld, pol, spa } from 'stopword';
import { fold } from '../base';

/** Languages whose words the reader knows how to bring to one form. */
export const LANGUAGES = ['en', 'de', 'nl', 'fr', 'es', 'it', 'pl'] as const;
export type Language = (typeof LANGUAGES)[number];

const folded = (list: readonly string[]): ReadonlySet<string> => new Set(list.map((word) => fold(word)));
const SMALL: Readonly<Record<Language, ReadonlySet<string>>> = {
  en: folded(eng),
  de: folded(deu),
  nl: folded(nld),
  fr: folded(fra),
  es: folded(spa),
  it: folded(ita),
  pl: folded(pol),
};
const ALGORITHM: Readonly<Partial<Record<Language, string>>> = {
  en: 'english',
  de: 'german',
  nl: 'dutch',
  fr: 'french',
  es: 'spanish',
  it: 'italian',
};
const stemmers = new Map<Language, Stemmer>();
const stems = new Map<string, string>();
/** Words kept with their stem; a site's words come again and again. */
const STEMS_KEPT = 50_000;
const LONGEST_WORD = 40;

/** The form under which the forms of a folded word are the same: “horses” and “horse”. */
export function stemOf(word: string, language: Language): string {
  const name = ALGORITHM[language];
  if (name === undefined || word.length > LONGEST_WORD || word.length < 3 || /\d/.test(word)) return word;
  const key = `${language} ${word}`;
  const kept = stems.get(key);
  if (kept !== undefined) return kept;
  let stemmer = stemmers.get(language);
  if (!stemmer) stemmers.set(language, (stemmer = newStemmer(name)));
  const bare = stemmer.stem(word);
  // Without its accents “fermée” keeps an e that “fermé” has lost.
  const stem = language === 'fr' && bare.length > 3 ? bare.replace(/e$/, '') : bare;
  if (stems.size >= STEMS_KEPT) stems.clear();
  stems.set(key, stem);
  return stem;
}

/** Which words are ordinary ones of a language: from a dictionary at hand. */
export interface Lexicon {
  /** of a word as it stands, in small letters */
  knows(word: string, language: Language): boolean;
}

/** Whether a folded word says nothing by itself: an article, a pronoun, a preposition, a form of “to be”. */
export const isSmall = (word: string, language: Language): boolean => SMALL[language].has(word);

/** The language most of the small words are of; `fallback` when hardly any is known. */
export function languageOf(words: readonly string[], fallback: Language = 'en'): Language {
  let best: Language = fallback;
  let most = 0;
  for (const language of LANGUAGES) {
    const small = SMALL[language];
    let count = 0;
    for (const word of words) if (small.has(word)) count += 1;
    // The lists differ in length: a long one holds words of its neighbours too.
    const score = count / Math.log(small.size);
    if (score > most * 1.05) [best, most] = [language, score];
  }
  return best;
}
