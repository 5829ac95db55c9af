/** Numbers said in several words or in one long one, as digits: “seven hundred and fifty”, “elftausend”, “vierzig tausend”. Folded. */
import { NUMERALS } from '../../../units';

const BIG: Readonly<Record<string, number>> = {
  hundred: 100,
  hundert: 100,
  honderd: 100,
  cien: 100,
  ciento: 100,
  cientos: 100,
  cent: 100,
  cents: 100,
  thousand: 1000,
  tausend: 1000,
  duizend: 1000,
  mil: 1000,
  mille: 1000,
};
const JOINS = new Set(['and', 'und', 'en', 'y', 'et', '-']);
/** Too small a word to be a number by itself. */
const SMALL = new Set([
  'one',
  'single',
  'eine',
  'einer',
  'einem',
  'einen',
  'ein',
  'einzigen',
  'een',
  'uno',
  'una',
  'un',
  'une',
  'both',
  'beide',
  'beiden',
  'ambas',
  'half',
  'jeden',
  'jedna',
]);
const UNITS: Readonly<Record<string, number>> = {
  ...Object.fromEntries(Object.entries(NUMERALS).filter(([, value]) => Number.isInteger(value))),
  'soixante-dix': 70,
  'quatre-vingt': 80,
  'quatre-vingts': 80,
  'quatre-vingt-dix': 90,
};
const PART = new RegExp(
  `^(?:${[...Object.keys(UNITS), ...Object.keys(BIG), 'und', 'en', 'and']
    .filter((word) => word.length > 1)
    .sort((a, b) => b.length - a.length)
    .join('|')})`,
);

/** The number words a word is made of: “hundertachtzigtausend”; none when it is something else. */
function partsOf(word: string): readonly string[] | undefined {
  if (word in UNITS || word in BIG) return [word];
  const out: string[] = [];
  let rest = word;
  while (rest !== '') {
    const found = PART.exec(rest)?.[0];
    if (found === undefined || out.length > 12) return undefined;
    out.push(found);
    rest = rest.slice(found.length).replace(/^-/, '');
  }
  return out.some((part) => part in UNITS || part in BIG) ? out : undefined;
}

/** “Nine nine eight” is three numbers; “forty five” is one. */
function goTogether(words: readonly string[]): boolean {
  let before = 0;
  for (const word of words) {
    const parts = partsOf(word);
    if (!parts || JOINS.has(word)) continue;
    if (parts.some((part) => part in BIG)) {
      before = 0;
      continue;
    }
    const value = valueOf(parts);
    if (before > 0 && !(before >= 20 && before % 10 === 0 && value < 10)) return false;
    before = value;
  }
  return true;
}

function valueOf(parts: readonly string[]): number {
  let total = 0;
  let current = 0;
  for (const part of parts) {
    const big = BIG[part];
    if (big === 100) current = (current === 0 ? 1 : current) * 100;
    else if (big === 1000) {
      total += (current === 0 ? 1 : current) * 1000;
      current = 0;
    } else current += UNITS[part] ?? 0;
  }
  return total + current;
}

/** Folded text with its long numbers as digits; words that may be articles stay, and a number of one short word stays. */
export function withNumbers(folded: string): string {
  const tokens = folded.split(/(\s+|(?<=\p{L})(?=[.,;:!?])|(?<=[.,;:!?])(?=\p{L}))/u);
  const out: string[] = [];
  let run: string[] = [];
  let held: string[] = [];
  const close = (): void => {
    const parts = run.flatMap((word) => partsOf(word) ?? []).filter((part) => !JOINS.has(part));
    const isNumber = (parts.length > 1 || parts.some((part) => part in BIG)) && goTogether(run);
    out.push(isNumber ? `${valueOf(parts)}${trailing(held)}` : held.join(''));
    run = [];
    held = [];
  };
  for (const token of tokens) {
    if (/^\s*$/.test(token)) {
      (run.length > 0 ? held : out).push(token);
      continue;
    }
    const parts = partsOf(token);
    const starts = parts !== undefined && (run.length > 0 || !SMALL.has(token)) && !(token in BIG && run.length === 0 && token === 'mil');
    if (starts || (run.length > 0 && JOINS.has(token))) {
      run.push(token);
      held.push(token);
    } else {
      if (run.length > 0) close();
      out.push(token);
    }
  }
  if (run.length > 0) close();
  return decimals(out.join(''));
}

const DIGIT_WORD = Object.entries(UNITS).filter(
  ([word, value]) => value < 10 && !['half', 'jeden', 'jedna', 'both', 'beide', 'beiden', 'ambas', 'single', 'einzigen'].includes(word),
);
const WORD = DIGIT_WORD.map(([word]) => word).join('|');
const DECIMAL = new RegExp(
  `(?<![\\p{L}\\d])(\\d{1,6}|${WORD}) (?:point|komma|comma|virgule|coma) ((?:(?:\\d|${WORD})(?: |(?![\\p{L}\\d])))+)`,
  'gu',
);
const digitOf = (word: string): string => (/^\d+$/.test(word) ? word : String(UNITS[word] ?? ''));

/** “four point six” as 4.6. */
const decimals = (text: string): string =>
  text.replace(DECIMAL, (_, whole: string, part: string) => {
    const space = part.endsWith(' ') ? ' ' : '';
    return `${digitOf(whole)}.${part.trim().split(' ').map(digitOf).join('')}${space}`;
  });

/** A joining word at the end was none: “seven hundred and then”. */
function trailing(held: readonly string[]): string {
  const last = held.findLastIndex((token) => !/^\s*$/.test(token) && !JOINS.has(token));
  return held.slice(last + 1).join('');
}
