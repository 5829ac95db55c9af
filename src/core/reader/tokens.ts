import { stemOf, type Language } from './language';

/** A word of a folded text with its place. */
export interface Token {
  readonly folded: string;
  readonly stem: string;
  readonly from: number;
  readonly to: number;
  /** words between two marks (comma, bracket, colon, dash) or small words of contrast have the same number */
  readonly clause: number;
}

const WORD = /[\p{L}\p{N}]+/gu;
const MARK = /[,;:()[\]–—!?…|/]|\.\s|\s-\s/;
/** A point behind one of these ends nothing: “certificate no. 5521”. */
const SHORT = new Set(['no', 'nr', 'num', 'st', 'dr', 'ca', 'approx', 'incl', 'zzgl', 'inkl', 'max', 'min', 'tel']);
const CONTRAST = new Set([
  'but',
  'whereas',
  'while',
  'aber',
  'wahrend',
  'sondern',
  'maar',
  'terwijl',
  'mais',
  'tandis',
  'pero',
  'mientras',
  'sino',
  'ma',
]);

/** The words of a folded text. */
export function tokensOf(folded: string, language: Language): readonly Token[] {
  const out: Token[] = [];
  let clause = 0;
  let end = 0;
  for (const found of folded.matchAll(WORD)) {
    const [word] = found;
    const gap = folded.slice(end, found.index + 1);
    // The comma in “10,2” parts nothing.
    const inNumber = /^[.,]\d$/.test(gap) && /\d/.test(folded.charAt(end - 1));
    const shortened = /^\.\s.?$/.test(gap) && SHORT.has(out.at(-1)?.folded ?? '');
    if (!inNumber && !shortened && (MARK.test(gap) || CONTRAST.has(word))) clause += 1;
    end = found.index + word.length;
    out.push({ folded: word, stem: stemOf(word, language), from: found.index, to: end, clause });
  }
  return out;
}

/** The place in the list of the word that stands at an offset of the folded text, or behind it. */
export function tokenAt(tokens: readonly Token[], offset: number): number {
  let low = 0;
  let high = tokens.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((tokens[middle]?.to ?? 0) <= offset) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** How many words stand before an offset of a text that is not folded: the same count as in its folded form. */
export function wordsBefore(text: string, offset: number): number {
  return text.slice(0, offset).match(WORD)?.length ?? 0;
}
