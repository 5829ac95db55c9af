import { convert, leadingUnit, unitOf } from '../../units';
import { figuresIn, SHORT_MULTIPLIER, type Figure } from './figures';

export interface Quantity extends Figure {
  /** end of the unit in the text */
  readonly end: number;
}

/** Whether a unit is one of measure, not a word for things that are counted. */
export const isMeasured = (unit: string): boolean => unitOf(unit) !== undefined;

/** In large units people have few: a single separator is a decimal one (4.250 ha). */
const FINE = new Set(['ha', 'km²', 'MW']);
const WHOLE_AND_HALF = /^ (?:et demie?|y medi[oa]|and a half|e mezzo)\b/;

/** Figures followed by a unit of the kind asked for, in that unit: “12 000 m²” is 1.2 when asked in `ha`. Rounded to 4 places. */
export function quantitiesIn(folded: string, unit: string): readonly Quantity[] {
  const asked = unitOf(unit);
  if (!asked) return [];
  return figuresIn(folded, false).flatMap((figure): Quantity[] => {
    const rest = folded.slice(figure.to, figure.to + 40);
    const written = leadingUnit(rest, asked.kind);
    if (!written) return [];
    const [fine = figure] = FINE.has(written.unit.sign) ? figuresIn(folded.slice(figure.from, figure.to), true) : [];
    // “trois mètres et demi”: the half stands behind the unit.
    const [half = ''] = WHOLE_AND_HALF.exec(rest.slice(written.length)) ?? [];
    const value = convert(fine.value + (half === '' ? 0 : 0.5), written.unit, asked) ?? 0;
    return [{ value: rounded(value), from: figure.from, to: figure.to, end: figure.to + written.length + half.length }];
  });
}

const rounded = (value: number): number => Math.round(value * 10_000) / 10_000;

const SYMBOLS: readonly (readonly [RegExp, string])[] = [
  [/^(?:€|eur\b|euros?\b)/, 'EUR'],
  [/^(?:£|gbp\b|pounds?\b|pfund\b)/, 'GBP'],
  [/^(?:us\$|\$|usd\b|dollars?\b)/, 'USD'],
  [/^(?:chf\b|franken\b|francs suisses)/, 'CHF'],
  [/^(?:pln\b|zl\b|zloty\w*)/, 'PLN'],
  [/^(?:dkk\b|sek\b|nok\b|kr\b|kroner\b|kronor\b)/, 'DKK'],
];

export interface Money extends Figure {
  /** ISO 4217 */
  readonly currency: string;
}

/** Amounts with their currency, written before or behind. */
export function moneyIn(folded: string): readonly Money[] {
  return figuresIn(folded).flatMap((bare): Money[] => {
    const [written, letter = ''] = /^(k|m|bn)(?![\p{L}\p{N}²])/u.exec(folded.slice(bare.to)) ?? [''];
    const figure = { ...bare, value: bare.value * (SHORT_MULTIPLIER[letter] ?? 1), to: bare.to + written.length };
    const behind = folded.slice(figure.to).replace(/^ ?(?:de|d')? ?/, '');
    const before = /(\S{1,40}?) ?$/.exec(folded.slice(Math.max(0, figure.from - 41), figure.from))?.[1] ?? '';
    const currency =
      SYMBOLS.find(([pattern]) => pattern.test(behind))?.[1] ??
      SYMBOLS.find(([pattern]) => new RegExp(`${pattern.source}$`).test(before.replace(/^[(]/, '')))?.[1];
    return currency === undefined ? [] : [{ ...figure, currency }];
  });
}
