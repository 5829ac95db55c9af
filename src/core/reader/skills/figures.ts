/** Figures in folded text: digits as six languages write them, and numbers in words. */
import { NUMERALS } from '../../units';

export interface Figure {
  readonly value: number;
  readonly from: number;
  readonly to: number;
}

const WORD = Object.keys(NUMERALS)
  .sort((a, b) => b.length - a.length)
  .join('|');
/** “four and a half”, “cuatro y media”, “quatre et demi”, “dreieinhalb”, “drieenhalve” */
const AND_HALF = '(?: and a half| y medi[oa]| et demie?| en een halve?| und ein(?:e|en)? halbe[rn]?|einhalb|enhalve?| ½|½)';
const MULTIPLIER: readonly (readonly [RegExp, number])[] = [
  [/^ ?(?:thousand|tausend|tsd\.?|duizend|mil|mille|tys\.?)(?![\p{L}\p{N}])/u, 1e3],
  [/^ ?(?:million(?:s|en)?|millones|mln|mio\.?|miljoen|milioni)(?![\p{L}\p{N}])/u, 1e6],
];
/** `350k`, `1.2m`: only of money, since “m” is a metre elsewhere. */
export const SHORT_MULTIPLIER: Readonly<Record<string, number>> = { k: 1e3, m: 1e6, bn: 1e9 };

const DIGITS = /\d{1,3}(?:[ .,'’\u00a0\u202f]\d{3})+(?:[.,]\d{1,2})?(?![\d])|(?<!\d)\d{1,15}(?:[.,]\d{1,10})?(?![.,]?\d)/;
const FIGURE = new RegExp(
  `(?<![\\p{L}\\p{N}.,])(?:(${DIGITS.source})|(?:(twenty|thirty|forty|fifty|sixty|seventy|eighty|ninety)[- ])?(${WORD})(?=${AND_HALF}(?!\\p{L})|(?!\\p{L})))(${AND_HALF}(?!\\p{L}))?`,
  'gu',
);

/**
 * A number as it stands: `4.2`, `4,2`, `12 000`, `12.000`, `1.250,5`. With three digits behind its only separator it is
 * read as grouped, except where `fine` says that the unit is one in which people have few (4.250 ha).
 */
export function numeral(text: string, fine = false): number {
  const plain = text.replace(/[\s'’\u00a0\u202f]/g, '');
  const last = Math.max(plain.lastIndexOf(','), plain.lastIndexOf('.'));
  if (last < 0) return Number(plain);
  const separators = plain.match(/[.,]/g) ?? [];
  const behind = plain.length - last - 1;
  const grouped = behind === 3 && new Set(separators).size === 1 && !(fine && separators.length === 1) && !plain.startsWith('0');
  return grouped ? Number(plain.replace(/[.,]/g, '')) : Number(`${plain.slice(0, last).replace(/[.,]/g, '')}.${plain.slice(last + 1)}`);
}

/** All figures of folded text, in order. `fine`: see `numeral`. */
export function figuresIn(folded: string, fine = false): readonly Figure[] {
  const out: Figure[] = [];
  for (const found of folded.matchAll(FIGURE)) {
    const [whole, digits, tens, word, half] = found;
    let value = digits === undefined ? (NUMERALS[tens ?? ''] ?? 0) + (NUMERALS[word ?? ''] ?? Number.NaN) : numeral(digits, fine);
    if (half !== undefined) value += 0.5;
    let to = found.index + whole.length;
    for (const [pattern, factor] of MULTIPLIER) {
      const more = pattern.exec(folded.slice(to));
      if (!more) continue;
      value *= factor;
      to += more[0].length;
      break;
    }
    if (Number.isFinite(value)) out.push({ value, from: found.index, to });
  }
  return out;
}
