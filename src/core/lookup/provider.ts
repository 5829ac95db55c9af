import { z } from 'zod';
import type { DeepReadonly } from '../base';

/** A lookup service described by data: how it is asked, and where its answer stands. */
export const providerSchema = z.object({
  name: z.string().trim().min(1).max(60),
  method: z.enum(['GET', 'POST']),
  /** `{name}`, `{first_name}`, `{last_name}`, `{company}`, `{host}`, `{field}` and `{secret}` stand for what is asked */
  url: z.string().trim().min(1).max(2_000),
  headers: z
    .array(
      z.object({
        name: z
          .string()
          .trim()
          .regex(/^[A-Za-z0-9-]{1,60}$/, 'a header is letters, digits and -'),
        value: z.string().max(500),
      }),
    )
    .max(20)
    .default([]),
  /** JSON with slots in its texts; empty: none */
  body: z.string().max(4_000).default(''),
  /** where the value stands in the answer (JSON Pointer, RFC 6901) */
  value: z.string().max(300),
  /** where its confidence stands; empty: it gives none, and is believed */
  confidence: z.string().max(300).default(''),
});
export type Provider = DeepReadonly<z.infer<typeof providerSchema>>;

export interface LookupQuestion {
  readonly field: string;
  readonly personName: string;
  readonly companyName: string | null;
  readonly host: string | null;
}
/** One call as it goes out. */
export interface ProviderCall {
  readonly method: 'GET' | 'POST';
  readonly url: string;
  readonly headers: Readonly<Record<string, string>>;
  readonly body: string | null;
}

export const SLOTS = ['name', 'first_name', 'last_name', 'company', 'host', 'field', 'secret'] as const;
const SLOT = /\{([a-z_]{1,20})\}/g;

function valuesOf({ field, personName, companyName, host }: LookupQuestion, secret: string): Readonly<Record<string, string>> {
  const parts = personName.trim().split(/\s+/);
  return {
    name: personName,
    first_name: parts[0] ?? '',
    last_name: parts.length > 1 ? (parts.at(-1) ?? '') : '',
    company: companyName ?? '',
    host: host ?? '',
    field,
    secret,
  };
}

/** What is wrong with a description, in its place; none: it can be asked. */
export function providerProblems(provider: Provider): readonly { readonly at: keyof Provider; readonly says: string }[] {
  const out: { at: keyof Provider; says: string }[] = [];
  const filled = fill(
    provider.url,
    valuesOf({ field: 'email', personName: 'A B', companyName: 'C', host: 'd.example' }, 's'),
    encodeURIComponent,
  );
  if (!URL.canParse(filled) || !/^https?:$/.test(new URL(filled).protocol))
    out.push({ at: 'url', says: 'an address begins with https:// and names a host' });
  else if (/\{/.test(/^https?:\/\/[^/?#]*/.exec(provider.url)?.[0] ?? ''))
    out.push({ at: 'url', says: 'the host is fixed: what is asked stands behind it' });
  for (const at of ['url', 'body'] as const)
    for (const [, slot = ''] of provider[at].matchAll(SLOT))
      if (!(SLOTS as readonly string[]).includes(slot))
        out.push({ at, says: `“{${slot}}” is not known: ${SLOTS.map((name) => `{${name}}`).join(', ')} are` });
  if (provider.body !== '') {
    if (provider.method === 'GET') out.push({ at: 'body', says: 'a GET has no body' });
    else if (jsonIn(provider.body) === undefined) out.push({ at: 'body', says: 'the body is no JSON' });
  }
  for (const at of ['value', 'confidence'] as const)
    if (provider[at] !== '' && !provider[at].startsWith('/')) out.push({ at, says: 'a place in the answer begins with /' });
  if (provider.value === '') out.push({ at: 'value', says: 'say where the value stands: choose it in an example answer' });
  return out;
}

/** The call for a question: values are escaped for where they stand, so that no name can change what is asked. */
export function callFor(provider: Provider, question: LookupQuestion, secret: string): ProviderCall {
  const values = valuesOf(question, secret);
  const body = provider.body === '' ? undefined : jsonIn(provider.body);
  return {
    method: provider.method,
    url: fill(provider.url, values, encodeURIComponent),
    headers: Object.fromEntries(provider.headers.map(({ name, value }) => [name.toLowerCase(), fill(value, values, oneLine)])),
    body: body === undefined ? null : JSON.stringify(filledIn(body, values)),
  };
}

const fill = (text: string, values: Readonly<Record<string, string>>, escape: (value: string) => string): string =>
  text.replace(SLOT, (whole, slot: string) => (slot in values ? escape(values[slot] ?? '') : whole));
/** A header is one line of plain characters. */
const oneLine = (value: string): string => value.replace(/[^\x20-\x7e]/g, ' ').trim();

function jsonIn(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
function filledIn(part: unknown, values: Readonly<Record<string, string>>): unknown {
  if (typeof part === 'string') return fill(part, values, (value) => value);
  if (Array.isArray(part)) return part.map((entry) => filledIn(entry, values));
  if (typeof part !== 'object' || part === null) return part;
  return Object.fromEntries(Object.entries(part).map(([key, entry]) => [key, filledIn(entry, values)]));
}

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

const MOST_PLACES = 200;
/** Every value of an example answer with its place, to be pointed at. */
export function placesIn(answer: unknown): readonly { readonly at: string; readonly value: string | number | boolean | null }[] {
  const out: { at: string; value: string | number | boolean | null }[] = [];
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

/** The value an answer gives, with how sure it says it is: shares of one or of a hundred. */
export function answerIn(
  provider: Pick<Provider, 'value' | 'confidence'>,
  answer: unknown,
): { readonly value: string | null; readonly confidence: number } {
  const found = atPointer(answer, provider.value);
  const value = typeof found === 'string' ? found.trim() : typeof found === 'number' ? String(found) : '';
  const sure = provider.confidence === '' ? 1 : Number(atPointer(answer, provider.confidence) ?? Number.NaN);
  const share = sure > 1 ? sure / 100 : sure;
  return { value: value === '' ? null : value, confidence: Number.isFinite(share) ? Math.min(1, Math.max(0, share)) : 0 };
}
