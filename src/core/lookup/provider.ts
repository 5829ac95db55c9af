import { z } from 'zod';
import type { DeepReadonly } from '../base';
import { atPointer, textAt, WHOLE } from './pointer';

const place = z.string().max(300);

/** An outside service described by data: how it is asked, and where its answer stands. Places are JSON Pointers (RFC 6901). */
export const providerSchema = z.object({
  name: z.string().trim().min(1).max(60),
  /** a value of one record, for lookup chains; or people and companies, for the directory */
  finds: z.enum(['value', 'records']).default('value'),
  method: z.enum(['GET', 'POST']),
  /** with slots that stand for what is asked: see `slotsOf` */
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
  /** where the list of answers stands: all other places stand in each entry of it. Empty: there is one answer */
  list: place.default(''),
  /** where the value stands in the answer */
  value: place.default(''),
  /** where its confidence stands; empty: it gives none, and is believed */
  confidence: place.default(''),
  /** where a record's parts stand, when it finds records; empty: it does not say */
  record: z
    .object({ name: place, title: place, company: place, site: place, place: place, country: place, profile: place })
    .partial()
    .default({}),
  /** where the next page stands in the whole answer: its address, or a mark for {cursor}. Empty: there is none, or {page} is counted */
  next: place.default(''),
  /** pages asked for one question at most */
  mostPages: z.number().int().min(1).max(50).default(1),
  /** what a page of records costs, in millionths of a euro; what a value costs stands in the chain that asks for it */
  priceMicro: z.number().int().min(0).max(1_000_000_000).default(0),
  /** set: it answers later, to who comes again with a ticket */
  later: z
    .object({
      /** where the ticket stands in the first answer */
      ticket: place,
      /** where the answer is collected, with {ticket} */
      url: z.string().trim().max(2_000),
      /** where it says how far it is; empty: it is ready when the value is there */
      state: place.default(''),
      /** what it says when it is ready */
      ready: z.string().max(60).default(''),
      /** what it says when it never will be */
      failed: z.string().max(60).default(''),
      /** seconds between one asking and the next */
      everyS: z.number().int().min(1).max(600).default(5),
      /** seconds after which it is given up */
      atMostS: z.number().int().min(1).max(86_400).default(600),
    })
    .nullable()
    .default(null),
});
export type Provider = DeepReadonly<z.infer<typeof providerSchema>>;

/** What a call is made of, by slot. */
export type SlotValues = Readonly<Record<string, string>>;
export interface LookupQuestion {
  readonly field: string;
  readonly personName: string;
  readonly companyName: string | null;
  readonly host: string | null;
}
export interface SearchQuestion {
  readonly words: string;
  readonly title: string;
  readonly place: string;
  readonly country: string;
}
/** One call as it goes out. */
export interface ProviderCall {
  readonly method: 'GET' | 'POST';
  readonly url: string;
  readonly headers: Readonly<Record<string, string>>;
  readonly body: string | null;
}

const LOOKUP_SLOTS = ['name', 'first_name', 'last_name', 'company', 'host', 'field'] as const;
const SEARCH_SLOTS = ['words', 'title', 'place', 'country'] as const;
const SLOT = /\{([a-z_]{1,20})\}/g;

/** What may stand in the address and the body of a service. */
export const slotsOf = ({ finds }: Pick<Provider, 'finds'>): readonly string[] => [
  ...(finds === 'records' ? SEARCH_SLOTS : LOOKUP_SLOTS),
  'page',
  'cursor',
  'secret',
];

export function lookupValues({ field, personName, companyName, host }: LookupQuestion): SlotValues {
  const parts = personName.trim().split(/\s+/);
  return {
    name: personName,
    first_name: parts[0] ?? '',
    last_name: parts.length > 1 ? (parts.at(-1) ?? '') : '',
    company: companyName ?? '',
    host: host ?? '',
    field,
  };
}
export const searchValues = ({ words, title, place, country }: SearchQuestion): SlotValues => ({ words, title, place, country });

/** Protocol, host and port: what a key is given for, and where every call of a service goes. */
export const doorOf = (url: string): string => /^https?:\/\/[^/?#]*/i.exec(url)?.[0].toLowerCase() ?? '';

export interface ProviderProblem {
  /** the part it is of; of what answers later, `later.url` and the like */
  readonly at: keyof Provider | `later.${string}`;
  readonly says: string;
}
/** Parts that are pointed at in what comes back: without them a description may be tried. */
const POINTED: ReadonlySet<string> = new Set(['value', 'record', 'list', 'next', 'later.ticket', 'later.state', 'later.ready']);
export const isPointedAt = ({ at }: ProviderProblem): boolean => POINTED.has(at);

/** What is wrong with a description, in its place; none: it can be asked. */
export function providerProblems(provider: Provider): readonly ProviderProblem[] {
  return [...askedProblems(provider), ...placeProblems(provider), ...laterProblems(provider)];
}

function askedProblems(provider: Provider): readonly ProviderProblem[] {
  const out: ProviderProblem[] = [];
  const filled = fill(provider.url, Object.fromEntries(slotsOf(provider).map((slot) => [slot, 'x'])), encodeURIComponent);
  if (!URL.canParse(filled) || !/^https?:$/.test(new URL(filled).protocol))
    out.push({ at: 'url', says: 'an address begins with https:// and names a host' });
  else if (doorOf(provider.url).includes('{')) out.push({ at: 'url', says: 'the host is fixed: what is asked stands behind it' });
  for (const at of ['url', 'body'] as const) out.push(...unknownSlots(provider[at], at, slotsOf(provider)));
  if (provider.body !== '') {
    if (provider.method === 'GET') out.push({ at: 'body', says: 'a GET has no body' });
    else if (jsonIn(provider.body) === undefined) out.push({ at: 'body', says: 'the body is no JSON' });
  }
  return out;
}
const unknownSlots = (text: string, at: ProviderProblem['at'], slots: readonly string[]): readonly ProviderProblem[] =>
  [...text.matchAll(SLOT)].flatMap(([, slot = '']) =>
    slots.includes(slot) ? [] : [{ at, says: `“{${slot}}” is not known: ${slots.map((name) => `{${name}}`).join(', ')} are` }],
  );

const isPlace = (text: string): boolean => text === '' || text.startsWith('/');
function placeProblems(provider: Provider): readonly ProviderProblem[] {
  const out: ProviderProblem[] = [];
  for (const at of ['list', 'value', 'confidence', 'next'] as const)
    if (!isPlace(provider[at])) out.push({ at, says: 'a place in the answer begins with /' });
  if (!Object.values(provider.record).every((text) => isPlace(text)))
    out.push({ at: 'record', says: 'a place in the answer begins with /' });
  if (provider.finds === 'value' && provider.value === '')
    out.push({ at: 'value', says: 'say where the value stands: choose it in an example answer' });
  if (provider.finds === 'records' && !provider.record.name && !provider.record.company)
    out.push({ at: 'record', says: 'say where the name of a person or of a company stands in an entry' });
  if (provider.mostPages > 1 && provider.list === '') out.push({ at: 'list', says: 'pages are pages of a list: say where it stands' });
  if (provider.mostPages > 1 && provider.next === '' && !hasPages(provider))
    out.push({ at: 'next', says: 'say where the next page stands, or put {page} in the address' });
  return out;
}
/** Whether its pages are counted in the address or the body. */
export const hasPages = ({ url, body, later }: Pick<Provider, 'url' | 'body' | 'later'>): boolean =>
  `${url}${body}${later?.url ?? ''}`.includes('{page}');

function laterProblems({ later, url }: Provider): readonly ProviderProblem[] {
  if (later === null) return [];
  const out: ProviderProblem[] = [];
  if (later.ticket === '') out.push({ at: 'later.ticket', says: 'say where the ticket stands: choose it in the first answer' });
  else if (!isPlace(later.ticket)) out.push({ at: 'later.ticket', says: 'a place in the answer begins with /' });
  if (!later.url.includes('{ticket}')) out.push({ at: 'later.url', says: 'the address has {ticket} where the ticket goes' });
  else if (later.url !== '{ticket}' && doorOf(later.url) !== doorOf(url))
    out.push({ at: 'later.url', says: `what is asked and what is collected stand at one host: ${doorOf(url) || 'name it above'}` });
  out.push(...unknownSlots(later.url, 'later.url', ['ticket', 'cursor', 'page', 'secret']));
  if (!isPlace(later.state)) out.push({ at: 'later.state', says: 'a place in the answer begins with /' });
  if (later.state !== '' && later.ready === '') out.push({ at: 'later.ready', says: 'say by which word you know that it is ready' });
  return out;
}

/** The call for a question: values are escaped for where they stand, so that no name can change what is asked. */
export function callFor(provider: Provider, asked: SlotValues, secret: string): ProviderCall {
  const values = { page: '1', cursor: '', ...asked, secret };
  const body = provider.body === '' ? undefined : jsonIn(provider.body);
  return {
    method: provider.method,
    url: fill(provider.url, values, encodeURIComponent),
    headers: headersFor(provider, values),
    body: body === undefined ? null : JSON.stringify(filledIn(body, values)),
  };
}
/** A GET with the headers of a service: a page that goes on, or an answer that is collected. */
export const plainCall = (provider: Provider, url: string, values: SlotValues): ProviderCall => ({
  method: 'GET',
  url: fill(url, values, encodeURIComponent),
  headers: headersFor(provider, values),
  body: null,
});
const headersFor = (provider: Provider, values: SlotValues): Record<string, string> =>
  Object.fromEntries(provider.headers.map(({ name, value }) => [name.toLowerCase(), fill(value, values, oneLine)]));

const fill = (text: string, values: SlotValues, escape: (value: string) => string): string =>
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
function filledIn(part: unknown, values: SlotValues): unknown {
  if (typeof part === 'string') return fill(part, values, (value) => value);
  if (Array.isArray(part)) return part.map((entry) => filledIn(entry, values));
  if (typeof part !== 'object' || part === null) return part;
  return Object.fromEntries(Object.entries(part).map(([key, entry]) => [key, filledIn(entry, values)]));
}

/** The entries of an answer: of a list each, else the answer itself. */
export function entriesIn({ list }: Pick<Provider, 'list'>, answer: unknown): readonly unknown[] {
  if (list === '') return [answer];
  const found = atPointer(answer, list === WHOLE ? '' : list);
  return Array.isArray(found) ? (found as readonly unknown[]) : [];
}

/** The value an entry gives, with how sure it says it is: shares of one or of a hundred. */
export function answerIn(
  provider: Pick<Provider, 'value' | 'confidence'>,
  entry: unknown,
): { readonly value: string | null; readonly confidence: number } {
  const value = textAt(entry, provider.value);
  const sure = provider.confidence === '' ? 1 : Number(atPointer(entry, provider.confidence) ?? Number.NaN);
  const share = sure > 1 ? sure / 100 : sure;
  return { value: value === '' ? null : value, confidence: Number.isFinite(share) ? Math.min(1, Math.max(0, share)) : 0 };
}
