/** Places in an answer (JSON Pointer, RFC 6901). */

const unescaped = (token: string): string => token.replace(/~1/g, '/').replace(/~0/g, '~');
const escaped = (key: string): string => key.replace(/~/g, '~0').replace(/\//g, '~1');

/** What stands at a place of an answer; undefined where nothing does. */
export function atPointer(answer: unknown, pointer: string): unknown {
  let part = answer;
  for (const token of pointer.split('/').slice(1).map(unescaped)) {
    if (typeof part !== 'object' || part === null) return undefined;
    part = Array.isArray(part) ? (part as readonly unknown[])[Number(token)] : Object.getOwnPropertyDescriptor(part, token)?.value;
  }
  return part;
}

/** What stands there as a text: of a number its digits; empty where neither stands. */
export function textAt(answer: unknown, pointer: string): string {
  const found = pointer === '' ? undefined : atPointer(answer, pointer);
  return typeof found === 'string' ? found.trim() : typeof found === 'number' || typeof found === 'boolean' ? String(found) : '';
}

export interface Place {
  readonly at: string;
  readonly value: string | number | boolean | null;
}
const MOST_PLACES = 200;
/** Every value of an example answer with its place, to be pointed at. */
export function placesIn(answer: unknown): readonly Place[] {
  const out: Place[] = [];
  const visit = (part: unknown, at: string): void => {
    if (out.length >= MOST_PLACES) return;
    if (part === null || typeof part === 'string' || typeof part === 'number' || typeof part === 'boolean') out.push({ at, value: part });
    else if (Array.isArray(part))
      part.forEach((entry, i) => {
        visit(entry, `${at}/${i}`);
      });
    else if (typeof part === 'object') for (const [key, entry] of Object.entries(part)) visit(entry, `${at}/${escaped(key)}`);
  };
  visit(answer, '');
  return out;
}

/** The whole answer, where it is a list itself. */
export const WHOLE = '/';
/** A place within one of several: the list, and the place in each of its entries. Undefined: it goes through no list. */
export function inList(pointer: string): { readonly list: string; readonly within: string } | undefined {
  const found = /^(.*?)\/\d+((?:\/.*)?)$/.exec(pointer);
  return found ? { list: found[1] === undefined || found[1] === '' ? WHOLE : found[1], within: found[2] ?? '' } : undefined;
}
