/**
 * An OpenAPI document (3.0, 3.1) as a beginning of descriptions: each call with its address, key, slots and an example answer.
 * What cannot be told is left out and said; nothing is fetched, and references lead nowhere but into the document.
 */
import { placesIn, inList, atPointer } from './pointer';
import type { Provider } from './provider';

export interface OpenApiCall {
  /** `GET /people`, and what the document calls it */
  readonly label: string;
  readonly summary: string;
  readonly provider: Pick<Provider, 'method' | 'url' | 'headers' | 'body' | 'list' | 'value' | 'confidence' | 'later'>;
  /** what it answers, from the document's examples or made of its schema */
  readonly example: unknown;
  /** what the person must still look at */
  readonly says: readonly string[];
}
export type OpenApiReading =
  { readonly ok: true; readonly title: string; readonly calls: readonly OpenApiCall[] } | { readonly ok: false; readonly why: string };

type Tree = Readonly<Record<string, unknown>>;
const isTree = (part: unknown): part is Tree => typeof part === 'object' && part !== null && !Array.isArray(part);
const treeOf = (part: unknown): Tree => (isTree(part) ? part : {});
const listOf = (part: unknown): readonly unknown[] => (Array.isArray(part) ? (part as readonly unknown[]) : []);
const text = (part: unknown): string => (typeof part === 'string' ? part : '');

/** What stands for something in an address of the document. */
const SLOT = /\{([^{}]{1,100})\}/g;
const MOST_CALLS = 60;
const DEEP = 12;
/** Parts of schemas that are looked at for one body or answer: what refers to itself in several places would never end. */
const MOST_PARTS = 2_000;

export function readOpenApi(document: unknown): OpenApiReading {
  if (!isTree(document)) return { ok: false, why: 'this is no OpenAPI document: it holds no fields' };
  if (document.swagger !== undefined)
    return { ok: false, why: `this description is of version ${text(document.swagger)}: 3.0 and 3.1 are read` };
  if (!text(document.openapi).startsWith('3.')) return { ok: false, why: 'this is no OpenAPI document: “openapi: 3…” is missing' };
  const reader = new Reader(document);
  const calls = reader.calls().slice(0, MOST_CALLS);
  if (calls.length === 0) return { ok: false, why: 'no call by GET or POST stands in it' };
  return { ok: true, title: text(treeOf(document.info).title) || 'the service', calls };
}

interface Parameter {
  readonly name: string;
  readonly place: string;
  readonly required: boolean;
  readonly schema: unknown;
  readonly example: unknown;
}

class Reader {
  private readonly server: string;
  private parts = 0;
  constructor(private readonly document: Tree) {
    this.server = serverOf(document);
  }

  calls(): readonly OpenApiCall[] {
    return Object.entries(treeOf(this.document.paths)).flatMap(([path, item]) => {
      const shared = listOf(this.followed(item).parameters);
      return (['get', 'post'] as const).flatMap((method): readonly OpenApiCall[] => {
        const operation = this.followed(item)[method];
        return isTree(operation) ? [this.call(method === 'get' ? 'GET' : 'POST', path, operation, shared)] : [];
      });
    });
  }

  private call(method: 'GET' | 'POST', path: string, operation: Tree, shared: readonly unknown[]): OpenApiCall {
    this.parts = 0;
    const says: string[] = [];
    if (this.server === '') says.push('the document names no host: put it in the address');
    const parameters = [...shared, ...listOf(operation.parameters)].map((entry) => this.parameter(entry));
    const key = this.key(operation, says);
    const url = `${this.server === '' ? 'https://' : this.server}${this.filledPath(path, parameters, says)}${this.query(parameters, key.query, says)}`;
    const headers = [
      ...key.headers,
      ...parameters.filter((p) => p.place === 'header' && p.required).map((p) => ({ name: p.name, value: this.valueFor(p, says) })),
    ];
    const schema = treeOf(treeOf(this.followed(operation.requestBody).content)['application/json']).schema;
    const body = method === 'POST' && schema !== undefined ? JSON.stringify(this.slotted(schema, says, 0), null, 1) : '';
    const { example, isLater } = this.answer(operation);
    const later = isLater ? this.collecting(path, example) : null;
    if (isLater && later === null) says.push('it answers later, and no call that collects the answer was found');
    return {
      label: `${method} ${path}`,
      summary: text(operation.summary) || text(operation.description).slice(0, 120),
      provider: { method, url, headers, body, later: later?.later ?? null, ...placesGuessed(later?.example ?? example) },
      example: later?.example ?? example,
      says,
    };
  }

  /** What a `$ref` leads to; only into the document, and not in circles. */
  private followed(part: unknown): Tree {
    let at: unknown = part;
    for (let step = 0; step < DEEP && isTree(at) && typeof at.$ref === 'string'; step += 1)
      at = at.$ref.startsWith('#/') ? atPointer(this.document, at.$ref.slice(1)) : undefined;
    return treeOf(at);
  }

  private parameter(entry: unknown): Parameter {
    const { name, in: place, required, schema, example, examples } = this.followed(entry);
    const [first] = Object.values(treeOf(examples));
    return {
      name: text(name),
      place: text(place),
      required: required === true || place === 'path',
      schema,
      example: example ?? treeOf(first).value,
    };
  }

  private filledPath(path: string, parameters: readonly Parameter[], says: string[]): string {
    return path.replace(SLOT, (_, name: string) => {
      const parameter = parameters.find((entry) => entry.place === 'path' && entry.name === name);
      return this.valueFor(parameter ?? { name, place: 'path', required: true, schema: undefined, example: undefined }, says);
    });
  }

  private query(parameters: readonly Parameter[], key: readonly string[], says: string[]): string {
    const parts = parameters
      .filter(({ place, name, required }) => place === 'query' && (required || slotFor(name) !== undefined))
      .map((parameter) => `${encodeURIComponent(parameter.name)}=${this.valueFor(parameter, says)}`);
    const all = [...parts, ...key];
    return all.length === 0 ? '' : `?${all.join('&')}`;
  }

  private valueFor({ name, schema, example }: Parameter, says: string[]): string {
    const slot = slotFor(name);
    if (slot !== undefined) return `{${slot}}`;
    const known = example ?? this.known(schema);
    if (known === undefined) says.push(`“${name}” is required: fill it in`);
    return known === undefined ? '' : encodeURIComponent(asText(known));
  }

  /** How the key goes in, by the first way of signing in that the call takes. */
  private key(operation: Tree, says: string[]): { readonly headers: { name: string; value: string }[]; readonly query: readonly string[] } {
    const [needs] = listOf(operation.security ?? this.document.security);
    const [name] = Object.keys(treeOf(needs));
    if (name === undefined) return { headers: [], query: [] };
    const scheme = this.followed(treeOf(treeOf(this.document.components).securitySchemes)[name]);
    if (scheme.type === 'apiKey' && scheme.in === 'query')
      return { headers: [], query: [`${encodeURIComponent(text(scheme.name))}={secret}`] };
    if (scheme.type === 'apiKey' && scheme.in === 'header') return { headers: [{ name: text(scheme.name), value: '{secret}' }], query: [] };
    if (scheme.type === 'http' && text(scheme.scheme).toLowerCase() === 'basic') {
      says.push('it signs in by user and password: the key is both, joined by a colon, in Base64');
      return { headers: [{ name: 'Authorization', value: 'Basic {secret}' }], query: [] };
    }
    if (scheme.type !== 'http') says.push(`it signs in by “${text(scheme.type) || name}”: put a token as the key`);
    return { headers: [{ name: 'Authorization', value: 'Bearer {secret}' }], query: [] };
  }

  /** What a schema says a value is, without making one up. */
  private known(schema: unknown): unknown {
    const { example, examples, default: usual, enum: choices, const: only } = this.followed(schema);
    return example ?? listOf(examples)[0] ?? usual ?? only ?? listOf(choices)[0];
  }

  /** The body that is sent: what is asked as slots, what must be there besides from the document. */
  private slotted(schema: unknown, says: string[], depth: number): unknown {
    const whole = this.merged(schema, depth);
    const required = new Set(listOf(whole.required).map(text));
    return Object.fromEntries(
      Object.entries(treeOf(whole.properties)).flatMap(([name, part]): readonly (readonly [string, unknown])[] => {
        const slot = slotFor(name);
        if (slot !== undefined) return [[name, `{${slot}}`]];
        const inner = this.merged(part, depth + 1);
        if (isTree(inner.properties) && depth < DEEP) return [[name, this.slotted(part, says, depth + 1)]];
        if (!required.has(name)) return [];
        const known = this.known(part);
        if (known === undefined) says.push(`“${name}” of the body is required: fill it in`);
        return [[name, known ?? '']];
      }),
    );
  }

  /** A schema with what it is composed of. */
  private merged(schema: unknown, depth: number): Tree {
    this.parts += 1;
    if (this.parts > MOST_PARTS) return {};
    const own = this.followed(schema);
    const parts = [...listOf(own.allOf), ...listOf(own.oneOf).slice(0, 1), ...listOf(own.anyOf).slice(0, 1)];
    if (parts.length === 0 || depth > DEEP) return own;
    return parts
      .map((part) => this.merged(part, depth + 1))
      .reduce<Tree>((sum, part) => ({ ...part, ...sum, properties: { ...treeOf(part.properties), ...treeOf(sum.properties) } }), own);
  }

  private answer(operation: Tree): { readonly example: unknown; readonly isLater: boolean } {
    this.parts = 0;
    const responses = treeOf(operation.responses);
    const code = ['200', '201', '2XX', '202', 'default'].find((name) => responses[name] !== undefined) ?? '';
    const content = treeOf(this.followed(responses[code]).content);
    const { example, examples, schema } = treeOf(content['application/json'] ?? Object.values(content)[0]);
    const [first] = Object.values(treeOf(examples));
    return { example: example ?? this.followed(first).value ?? this.sample(schema, '', 0), isLater: code === '202' };
  }

  private sample(schema: unknown, name: string, depth: number): unknown {
    const whole = this.merged(schema, depth);
    const known = this.known(whole);
    if (known !== undefined || depth > DEEP) return known ?? null;
    if (isTree(whole.properties))
      return Object.fromEntries(Object.entries(whole.properties).map(([key, part]) => [key, this.sample(part, key, depth + 1)]));
    if (whole.items !== undefined) return [this.sample(whole.items, name, depth + 1)];
    if (whole.format === 'email') return 'name@company.example';
    const type = listOf(whole.type)[0] ?? whole.type;
    return type === 'number' || type === 'integer' ? 0 : type === 'boolean' ? true : type === 'string' ? `${name} …` : null;
  }

  /** The call that collects what was asked under a path: the GET below it that takes one thing, the ticket. */
  private collecting(path: string, example: unknown): { readonly later: NonNullable<Provider['later']>; readonly example: unknown } | null {
    const ticket = placesIn(example).find(({ at }) => /\/(?:id|\w*_id|\w+Id|ticket|job|task|token|request)$/.test(at));
    for (const [other, item] of Object.entries(treeOf(this.document.paths))) {
      const get = this.followed(item).get;
      const slots = other.match(SLOT) ?? [];
      if (!ticket || !isTree(get) || slots.length !== 1 || !other.startsWith(`${path.replace(/\/$/, '')}/`)) continue;
      const { example: collected } = this.answer(get);
      const state = placesIn(collected).find(({ at }) => /\/(?:state|status)$/.test(at));
      return {
        example: collected,
        later: {
          ticket: ticket.at,
          url: `${this.server}${other.replace(slots[0], '{ticket}')}`,
          state: state?.at ?? '',
          ready: state ? String(state.value) : '',
          failed: '',
          everyS: 5,
          atMostS: 600,
        },
      };
    }
    return null;
  }
}

function serverOf(document: Tree): string {
  const { url, variables } = treeOf(listOf(document.servers)[0]);
  const filled = text(url).replace(SLOT, (_, name: string) => text(treeOf(treeOf(variables)[name]).default));
  return /^https?:\/\//.test(filled) ? filled.replace(/\/$/, '') : '';
}

const asText = (value: unknown): string => (typeof value === 'string' ? value : JSON.stringify(value));

/** Names that parts of questions go by in such documents. */
const NAMES: readonly (readonly [slot: string, names: RegExp])[] = [
  ['first_name', /^(?:first|given|fore)_?name$/],
  ['last_name', /^(?:last|family|sur)_?name$/],
  ['name', /^(?:(?:full|person|contact)_?)?name$/],
  ['company', /^(?:company|organi[sz]ation|employer)(?:_?name)?$/],
  ['host', /^(?:(?:company|email)_?)?(?:domain|website|site|host|hostname)$/],
  ['words', /^(?:q|query|search|keywords?|terms?)$/],
  ['title', /^(?:(?:job_?)?title|role|position)$/],
  ['place', /^(?:city|town|place|location)$/],
  ['country', /^country(?:_?code)?$/],
  ['page', /^page(?:_?number)?$/],
  ['cursor', /^(?:cursor|page_?token|after|continuation)$/],
];
const slotFor = (name: string): string | undefined => {
  const plain = name
    .replace(/([a-z])([A-Z])/g, '$1_$2')
    .replace(/-/g, '_')
    .toLowerCase();
  return NAMES.find(([, names]) => names.test(plain))?.[0];
};

const looksLikeMail = (shown: string): boolean => /^[^\s@]+@[^\s@]+$/.test(shown);
/** Where an e-mail and its confidence stand in an example, and the list they stand in. */
function placesGuessed(example: unknown): Pick<Provider, 'list' | 'value' | 'confidence'> {
  const places = placesIn(example);
  const value = places.find(({ at, value: shown }) => /\/[^/]*e-?mail[^/]*$/i.test(at) || looksLikeMail(String(shown)))?.at ?? '';
  const near = value.replace(/\/[^/]*$/, '');
  const confidence = places.find(({ at }) => at.startsWith(near) && /\/(?:confidence|score|probability|certainty)$/i.test(at))?.at ?? '';
  const listed = value === '' ? undefined : inList(value);
  if (!listed) return { list: '', value, confidence };
  const within = inList(confidence);
  return { list: listed.list, value: listed.within, confidence: within?.list === listed.list ? within.within : '' };
}
