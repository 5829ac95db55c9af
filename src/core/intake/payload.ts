import { z } from 'zod';
import { cutText, type DeepReadonly, type Json } from '../base';
import type { Catalogue } from '../fields';
import { guessColumns, targetSchema, type Target } from './guess';

const MAX_VALUES = 200;
const MAX_DEPTH = 8;
/** Longer texts are kept up to here, and say that they were cut. */
const MAX_TEXT = 100_000;
const whole = (text: string): string =>
  text.length <= MAX_TEXT ? text : `${cutText(text, MAX_TEXT)} … (cut here: ${text.length.toLocaleString('en-GB')} characters came)`;

/** Every value of a JSON document by its path: `contact.email`, `lines[0].name`. Nothing, and what lies too deep, is left out. */
export function flatten(value: Json): Readonly<Record<string, string>> {
  const out: Record<string, string> = {};
  const visit = (part: Json | undefined, path: string, depth: number): void => {
    if (part === null || part === undefined || depth > MAX_DEPTH || Object.keys(out).length >= MAX_VALUES) return;
    if (Array.isArray(part))
      part.forEach((entry: Json, i) => {
        visit(entry, `${path}[${i}]`, depth + 1);
      });
    else if (typeof part === 'object')
      for (const [name, entry] of Object.entries(part)) visit(entry, path === '' ? name : `${path}.${name}`, depth + 1);
    else out[path === '' ? 'value' : path] = whole(String(part));
  };
  visit(value, '', 0);
  return out;
}

/** What is taken from where in a payload. */
export const payloadMatchingSchema = z.array(z.object({ path: z.string().min(1).max(300), target: targetSchema })).max(MAX_VALUES);
export type PayloadMatching = DeepReadonly<z.infer<typeof payloadMatchingSchema>>;

/** A matching from one example, by the last words of each path and by what stands there. */
export function guessPayload(values: Readonly<Record<string, string>>, fields: Catalogue): PayloadMatching {
  const paths = Object.keys(values);
  const headings = paths.map((path) =>
    path
      .replace(/\[\d+\]/g, '')
      .split('.')
      .slice(-2)
      .join(' ')
      .replace(/([a-z])([A-Z])/g, '$1 $2'),
  );
  const guesses = guessColumns(headings, [Object.values(values)], fields);
  return guesses.map((guess, i) => ({ path: paths[i] ?? '', target: guess.target }));
}

/** A payload as a row of cells, as lists and forms have them. */
export function payloadRow(
  values: Readonly<Record<string, string>>,
  matching: PayloadMatching,
): { readonly cells: readonly string[]; readonly columns: readonly { readonly target: Target }[] } {
  const taken = matching.filter(({ target, path }) => target !== 'leave out' && values[path] !== undefined);
  return { cells: taken.map(({ path }) => values[path] ?? ''), columns: taken.map(({ target }) => ({ target })) };
}

/** The name by which lines know a value of a payload: `contact.email` is `entry.contact_email`. */
export function answerName(path: string): string {
  const name = path
    .replace(/([a-z])([A-Z])/g, '$1_$2')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^_|_$/g, '')
    .slice(0, 40);
  return /^[a-z]/.test(name) ? name : `v_${name}`;
}
