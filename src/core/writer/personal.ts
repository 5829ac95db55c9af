import type { Fact } from '../facts';
import type { FactValue } from '../fields';
import { compileFeel, parseFeel } from '../feel';
import { clip, fold, stableHash } from '../base';
import type { LinePattern } from './template';

/** What the writer may use of a fact. */
export type LineFact = Pick<Fact, 'id' | 'field' | 'value' | 'quote' | 'url' | 'source' | 'confidence'> & Partial<Pick<Fact, 'observedAt'>>;

export interface PersonalLine {
  readonly text: string;
  readonly fact: LineFact;
}

const SURE_ENOUGH = 0.5;

/** A figure or a word as readers of the language write it. */
function amount(value: FactValue, language: string): string {
  return typeof value === 'number' ? value.toLocaleString(localeOf(language), { maximumFractionDigits: 1 }) : String(value);
}
const dayText = (at: number, language: string): string =>
  new Intl.DateTimeFormat(localeOf(language), { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' }).format(at);
/** The locale in which a language writes its figures and days. */
export const localeOf = (language: string): string => (language === 'en' ? 'en-GB' : language);

/** Lines that say no more than the words found, for texts that have none of their own. */
const NEUTRAL: Readonly<Record<string, readonly string[]>> = {
  en: ['On your site I read: “{quote}”.', 'Your site says: “{quote}”.', 'I came across this line of yours: “{quote}”.'],
  de: ['Auf Ihrer Website habe ich gelesen: „{quote}“.', 'Auf Ihrer Website steht: „{quote}“.'],
  nl: ['Op uw website las ik: “{quote}”.', 'Op uw website staat: “{quote}”.'],
  fr: ['J’ai lu sur votre site : « {quote} ».', 'Votre site indique : « {quote} ».'],
  es: ['He leído en su web: «{quote}».', 'En su web se lee: «{quote}».'],
};
/** Words found elsewhere than on their site are nobody's to quote back at them. */
const ON_THEIR_SITE: ReadonlySet<LineFact['source']> = new Set(['site']);

/** A sentence that says where its fact is from: “your site”. It is said only of what was read there. */
const SAYS_SITE =
  /(?<![\p{L}])(?:(?:your|ihre[rnms]?|eure[rnms]?|uw|jullie|votre|vos|su|sus|vuestra) (?:own )?(?:web ?)?(?:site|sites|website|webseite|web|pages?|seite|seiten|pagina|homepage|internetseite)|you (?:write|say) on)(?![\p{L}])/u;

function patternsFor(fact: LineFact, own: readonly LinePattern[], language: string): readonly string[] {
  const mine = own.filter((line) => line.field === fact.field);
  if (mine.length > 0)
    return mine
      .filter(
        (line) => (ON_THEIR_SITE.has(fact.source) || !SAYS_SITE.test(fold(line.says))) && (line.when === '' || holds(line.when, fact)),
      )
      .map((line) => line.says);
  return ON_THEIR_SITE.has(fact.source) && fact.value !== false ? (NEUTRAL[language.slice(0, 2).toLowerCase()] ?? []) : [];
}

function holds(when: string, fact: LineFact): boolean {
  const { expr } = parseFeel(when);
  return expr !== undefined && compileFeel(expr)({ value: fact.value, quote: fact.quote ?? null, [fact.field]: fact.value }) === true;
}

const SLOT = /\{(value|quote|day)\}/g;

/** The line a pattern makes of a fact; undefined when the fact lacks what the pattern speaks of. Slots in found words stay as they are. */
function lineOf(pattern: string, fact: LineFact, language: string): string | undefined {
  const parts: Readonly<Record<string, string | undefined>> = {
    value: fact.value === null || typeof fact.value === 'boolean' ? undefined : amount(fact.value, language),
    quote: fact.quote === undefined || fact.quote === '' ? undefined : clip(fact.quote.replace(/[“”"„«»]/g, ''), 110).replace(/[.…]$/, ''),
    day: fact.observedAt === undefined ? undefined : dayText(fact.observedAt, language),
  };
  let whole = true;
  const text = pattern.replace(SLOT, (_, slot: string) => {
    const said = parts[slot];
    whole &&= said !== undefined;
    return said ?? '';
  });
  return whole ? text : undefined;
}

/** Whether one of the lines was made by this pattern, whatever fact it was made of. */
function usedLately(pattern: string, lines: readonly string[]): boolean {
  const parts = pattern.split(SLOT).filter((_, i) => i % 2 === 0);
  return lines.some((line) => {
    let at = 0;
    return (
      line.startsWith(parts[0] ?? '') &&
      parts.every((part) => {
        const found = line.indexOf(part, at);
        at = found + part.length;
        return found >= 0;
      })
    );
  });
}

/**
 * The line for this reader, from the first allowed field that has a sure enough fact and a pattern that fits it; which
 * pattern is chosen follows from the reader, so that the same reader always gets the same one, and no pattern of the lines
 * to avoid (recent ones) is taken while another fits.
 */
export function personalLine(
  facts: readonly LineFact[],
  { fields, lines }: { readonly fields: readonly string[]; readonly lines: readonly LinePattern[] },
  language: string,
  seed: string,
  avoid: readonly string[],
): PersonalLine | undefined {
  // Where every pattern was used lately, one whose very words were not; else what there is, and a check says so.
  let otherwise: PersonalLine | undefined;
  let fallback: PersonalLine | undefined;
  for (const field of fields) {
    const fact = facts.find((entry) => entry.field === field && entry.value !== null && entry.confidence >= SURE_ENOUGH);
    if (fact === undefined) continue;
    const patterns = patternsFor(fact, lines, language);
    const start = Number.parseInt(stableHash(seed).slice(0, 6), 16);
    for (let i = 0; i < patterns.length; i++) {
      const pattern = patterns[(start + i) % patterns.length] ?? '';
      const text = lineOf(pattern, fact, language);
      if (text === undefined) continue;
      if (!usedLately(pattern, avoid)) return { text, fact };
      if (!avoid.includes(text)) otherwise ??= { text, fact };
      fallback ??= { text, fact };
    }
  }
  return otherwise ?? fallback;
}
