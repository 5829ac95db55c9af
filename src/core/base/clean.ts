/**
 * One kind of text. Promises: what has gone through here is valid Unicode in normal form C without NUL, so that every store,
 * file and screen takes it. It is called at every door; a property test holds the doors to it.
 */

/** Nothing to do for plain letters: most texts are only looked at. */
const PLAIN = /^[\t\n\r\x20-\x7e]*$/;

/** The same text without halves of letters (U+FFFD in their place) and NUL, in normal form C (Unicode Annex 15). */
export function cleanText(text: string): string {
  if (PLAIN.test(text)) return text;
  return text.toWellFormed().replaceAll('\u0000', '').normalize('NFC');
}

/** Whether a text is clean already. */
export const isClean = (text: string): boolean => cleanText(text) === text;

/** How far around a cut the letters are looked at. */
const AROUND = 80;

/** At most `max` characters (UTF-16 units), never cut inside what a reader sees as one letter. */
export function cutText(text: string, max: number): string {
  if (text.length <= max) return text;
  const from = Math.max(0, max - AROUND);
  const near = text.slice(from, max + AROUND).toWellFormed();
  let end = from;
  for (const { index, segment } of new Intl.Segmenter('en', { granularity: 'grapheme' }).segment(near)) {
    if (from + index + segment.length > max) break;
    end = from + index + segment.length;
  }
  // One letter that is longer than what was looked at: it is no letter anybody wrote.
  return text.slice(0, end > from ? end : max).toWellFormed();
}

/** Depth of values that come in: a hundred levels of lists say nothing. */
export const DEEPEST_VALUE = 100;

/** A JSON value with all its texts and names cleaned. Throws `TooDeep` when it is nested deeper than `DEEPEST_VALUE`. */
export function cleanJson(value: unknown, depth = 0): unknown {
  if (typeof value === 'string') return cleanText(value);
  if (typeof value !== 'object' || value === null) return value;
  if (depth >= DEEPEST_VALUE) throw new TooDeep();
  if (Array.isArray(value)) return value.map((item) => cleanJson(item, depth + 1));
  const out: Record<string, unknown> = {};
  for (const [key, inner] of Object.entries(value))
    // A key with that name would change the object instead of lying in it.
    if (key !== '__proto__') out[cleanText(key)] = cleanJson(inner, depth + 1);
  return out;
}

/** Thrown by `cleanJson`: what came in is nested deeper than anything Millrace takes. */
export class TooDeep extends Error {
  constructor() {
    super(`this is nested deeper than ${DEEPEST_VALUE} levels`);
    this.name = 'TooDeep';
  }
}
