import { figuresIn, SHORT_MULTIPLIER, type Figure } from './figures';

/** Units the reader converts, as they are written in folded text, with their size in the first unit of their kind. */
const KINDS: readonly { readonly unit: string; readonly names: RegExp; readonly sizes: readonly (readonly [RegExp, number])[] }[] = [
  {
    unit: 'ha',
    names:
      /^[\s-]?(?:ha\b|hectares?\b|hektar\w*|hectareas?\b|ettari?\b|acres?\b|m²|m2\b|qm\b|sqm\b|sq\.? ?m\b|mq\b|square (?:met(?:er|re)s?|feet|foot)|sq\.? ?ft\b|quadratmeter\w*|vierkante meter|metros cuadrados|metres carres|metri quadrati|metrow kwadratowych)/,
    sizes: [
      [/^(?:ha|hect|hekt|etta)/, 1],
      [/^acre/, 0.404686],
      [/^(?:square f|sq\.? ?ft)/, 0.0000092903],
      [/./, 0.0001],
    ],
  },
  {
    unit: 'km',
    names: /^[\s-]?(?:km|kilomet\w+|miles?|meilen|millas)\b/,
    sizes: [
      [/^mi|^mei/, 1.609344],
      [/./, 1],
    ],
  },
  {
    unit: 'm',
    names: /^[\s-]?(?:m|met(?:er|re)s?|metros|feet|ft)\b/,
    sizes: [
      [/^f/, 0.3048],
      [/./, 1],
    ],
  },
  {
    unit: 'kW',
    names: /^[\s-]?(?:kw|mw|kilowatt\w*|megawatt\w*)\b/,
    sizes: [
      [/^m/, 1000],
      [/./, 1],
    ],
  },
  {
    unit: 't',
    names: /^[\s-]?(?:t|tonnes?|tons?|tonnen|ton|toneladas|kg|kilos?)\b/,
    sizes: [
      [/^k/, 0.001],
      [/./, 1],
    ],
  },
];

export interface Quantity extends Figure {
  /** end of the unit in the text */
  readonly end: number;
}

/** Figures followed by a unit of the kind asked for, in that unit: “12 000 m²” is 1.2 when asked in `ha`. Rounded to 4 places. */
export function quantitiesIn(folded: string, unit: string): readonly Quantity[] {
  const kind = KINDS.find((entry) => entry.unit === unit);
  return figuresIn(folded, false).flatMap((figure): Quantity[] => {
    const rest = folded.slice(figure.to);
    if (kind === undefined) {
      const named = rest.trimStart().startsWith(unit.toLowerCase());
      return named ? [{ ...figure, end: figure.to + rest.indexOf(unit.toLowerCase()) + unit.length }] : [];
    }
    const [written] = kind.names.exec(rest) ?? [];
    if (written === undefined) return [];
    const plain = written.replace(/^[\s-]/, '');
    const size = kind.sizes.find(([pattern]) => pattern.test(plain))?.[1] ?? 1;
    // Nobody has 4,250 hectares of glass: in the large unit a single separator is always a decimal one.
    const [fine = figure] = size === 1 && unit === 'ha' ? figuresIn(folded.slice(figure.from, figure.to), true) : [];
    // “trois hectares et demi”: the half stands behind the unit.
    const [half = ''] = /^ (?:et demie?|y medi[oa]|and a half|e mezzo)\b/.exec(rest.slice(written.length)) ?? [];
    const value = (fine.value + (half === '' ? 0 : 0.5)) * size;
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
