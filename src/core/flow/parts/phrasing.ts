/** What everyday words for a line are read with: counts, times, and the named things they may mean. */
import type { Library } from '../meaning/library';
import { quote } from '../tree/notation';
import { readCondition } from './conditions';
import { digits, type Above } from './names';

/** What a phrase was understood as: canonical lines, one reading or several to choose from; or why it was not. */
export type PhraseReading = { readonly ok: true; readonly lines: readonly string[] } | { readonly ok: false; readonly why: string };

/** A phrase as it was typed, and what stands above its place. */
export interface Ask {
  readonly said: string;
  readonly library: Library;
  readonly above: Above;
}
/** The first rule whose pattern fits the phrase, in small letters, decides what it means. */
export type PhraseRule = readonly [pattern: RegExp, read: (found: RegExpExecArray, ask: Ask) => PhraseReading];

export const reading = (...lines: readonly string[]): PhraseReading => ({ ok: true, lines });
export const refused = (why: string): PhraseReading => ({ ok: false, why });

const fold = (text: string): string => text.toLowerCase().replace(/["“”]/g, '').trim();

/** The thing a phrase names: by its name, else by words its name holds; the only one there is when none is named. */
export function thing(
  said: string | undefined,
  names: readonly string[],
  what: string,
): { readonly ok: true; readonly names: readonly string[] } | { readonly ok: false; readonly why: string } {
  const wanted = fold(said ?? '').replace(/^(?:the|our|team|plan|text|mail|template|scorecard|webhook|list|file)\s+/, '');
  if (names.length === 0) return { ok: false, why: `there is no ${what} yet` };
  if (wanted === '') return names.length === 1 ? { ok: true, names } : { ok: true, names: names.slice(0, 4) };
  const exact = names.filter((name) => fold(name) === wanted);
  const holding = names.filter((name) => fold(name).includes(wanted));
  if (exact.length > 0) return { ok: true, names: exact };
  if (holding.length > 0) return { ok: true, names: holding.slice(0, 4) };
  return {
    ok: false,
    why: `there is no ${what} “${said ?? ''}”: there is ${names
      .slice(0, 5)
      .map((name) => `“${name}”`)
      .join(', ')}`,
  };
}

export function withThing(said: string | undefined, names: readonly string[], what: string, line: (name: string) => string): PhraseReading {
  const found = thing(said, names, what);
  return found.ok ? reading(...found.names.map((name) => line(quote(name)))) : refused(found.why);
}

export function withCondition(said: string, ask: Ask, line: (feel: string) => string): PhraseReading {
  const read = readCondition(said, ask.above);
  return read.ok ? reading(...read.feel.map(line)) : refused(read.why);
}

/** A phrase’s words as they were typed, from the same words in small letters. */
export const original = (folded: string, { said }: Ask): string => {
  const at = said.toLowerCase().lastIndexOf(folded);
  return (at < 0 ? folded : said.slice(at, at + folded.length)).replace(/^["“]|["”]$/g, '').trim();
};
/** The words behind a rule's first group, as they were typed. */
export const tail = (found: RegExpExecArray, ask: Ask): string => original(found[1] ?? '', ask);

export const AMOUNT = '(an?|one|two|three|four|five|six|seven|eight|nine|ten|\\d+)';
export const SPAN = `${AMOUNT} (working days?|workdays?|minutes?|hours?|days?|weeks?)`;
/** The two groups of a `SPAN` as a line writes them. */
export function span(amount: string | undefined, unit: string | undefined): string {
  const count = digits(amount ?? '1');
  const one = (unit ?? 'day').replace(/^workday/, 'working day').replace(/s$/, '');
  return `${count} ${one}${count === '1' ? '' : 's'}`;
}

export const message = ({ above }: Ask): string | undefined => above.message;
export const NO_MESSAGE = refused('no message is written above: put a write line first');
