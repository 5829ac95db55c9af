/** An outside service as it is described. */
import type { ProviderBeginnings, ProviderTrial } from '../../../api';
import { inList, isPointedAt, placesIn, providerProblems, type Place, type Provider, type ProviderProblem } from '../../../core/lookup';
import { linesIn } from '../../kit/lines';

export const NEW_PROVIDER: Provider = {
  name: '',
  finds: 'value',
  method: 'GET',
  url: 'https://',
  headers: [{ name: 'Authorization', value: 'Bearer {secret}' }],
  body: '',
  list: '',
  value: '',
  confidence: '',
  record: {},
  next: '',
  mostPages: 1,
  priceMicro: 0,
  later: null,
};
export const NEW_LATER: NonNullable<Provider['later']> = {
  ticket: '',
  url: '',
  state: '',
  ready: '',
  failed: '',
  everyS: 5,
  atMostS: 600,
};

/** What keeps a description from being kept; a name is needed too. */
export const problemsIn = (provider: Provider): readonly ProviderProblem[] => [
  ...(provider.name.trim() === '' ? [{ at: 'name' as const, says: 'a connection has a name, by which it is asked' }] : []),
  ...providerProblems(provider),
];
/** Parts that are pointed at in what comes back may be missing. */
export const mayTry = (provider: Provider): boolean => problemsIn(provider).every(isPointedAt);

/** Places of an answer that is shown: of a trial, or of an example that was put in by hand. */
export function placesOf(example: string, trial: ProviderTrial | null): readonly Place[] {
  if (trial && trial.places.length > 0) return trial.places;
  try {
    return placesIn(JSON.parse(example));
  } catch {
    return [];
  }
}

const RECORD_PARTS = ['name', 'title', 'company', 'site', 'place', 'country', 'profile'] as const;
type RecordPart = (typeof RECORD_PARTS)[number];
/** What a value of an answer can be for the description. */
export type Role = 'value' | 'confidence' | 'next' | 'later.ticket' | 'later.state' | `record.${RecordPart}`;
const SAID: Readonly<Record<RecordPart, string>> = {
  name: 'the person’s name',
  title: 'their role',
  company: 'the company',
  site: 'the company’s site',
  place: 'the town',
  country: 'the country',
  profile: 'the address of the profile',
};

/** Roles that values of this answer may have: a first answer of two gives a ticket, all others what is looked for. */
export function rolesFor(provider: Provider, isFirstOfTwo: boolean): readonly { readonly role: Role; readonly label: string }[] {
  if (isFirstOfTwo) return [{ role: 'later.ticket', label: 'the ticket' }];
  return [
    ...(provider.finds === 'value'
      ? ([
          { role: 'value', label: 'the e-mail' },
          { role: 'confidence', label: 'how sure it is' },
        ] as const)
      : RECORD_PARTS.map((part) => ({ role: `record.${part}` as const, label: SAID[part] }))),
    { role: 'next', label: 'the next page' },
    ...(provider.later ? [{ role: 'later.state' as const, label: 'how far it is' }] : []),
  ];
}

const OF_THE_WHOLE: ReadonlySet<Role> = new Set(['next', 'later.ticket', 'later.state']);
/** A place as it is kept for a role: within the entries of the list, where there is one and the role is of an entry. */
const keptAs = (provider: Provider, role: Role, at: string): string => {
  const listed = OF_THE_WHOLE.has(role) || provider.list === '' ? undefined : inList(at);
  return listed && listed.list === provider.list ? listed.within : at;
};
function placeOf(provider: Provider, role: Role): string {
  if (role === 'value' || role === 'confidence' || role === 'next') return provider[role];
  if (role === 'later.ticket') return provider.later?.ticket ?? '';
  if (role === 'later.state') return provider.later?.state ?? '';
  return provider.record[role.slice('record.'.length) as RecordPart] ?? '';
}
/** What a place of an answer is for the description; empty: nothing. */
export const roleAt = (provider: Provider, roles: readonly { readonly role: Role }[], at: string): Role | '' =>
  roles.find(({ role }) => placeOf(provider, role) !== '' && placeOf(provider, role) === keptAs(provider, role, at))?.role ?? '';

/** Says what a value of an answer is. Records stand in a list: pointing at one says where. */
export function pointAt(provider: Provider, role: Role, { at, value }: Place): Provider {
  const listed = provider.finds === 'records' && provider.list === '' && !OF_THE_WHOLE.has(role) ? inList(at) : undefined;
  const under = listed ? { ...provider, list: listed.list } : provider;
  return withPlace(under, role, keptAs(under, role, at), String(value));
}
/** It is nothing of that any more. */
export const pointAway = (provider: Provider, role: Role): Provider => withPlace(provider, role, '', '');

function withPlace(provider: Provider, role: Role, place: string, says: string): Provider {
  if (role === 'value' || role === 'confidence' || role === 'next') return { ...provider, [role]: place };
  const later = provider.later ?? NEW_LATER;
  if (role === 'later.ticket') return { ...provider, later: { ...later, ticket: place } };
  if (role === 'later.state') return { ...provider, later: { ...later, state: place, ready: says } };
  return { ...provider, record: { ...provider.record, [role.slice('record.'.length)]: place } };
}

/** The value that was pointed at is one of several: all of them are read from now on. */
export function readWholeList(provider: Provider): Provider | undefined {
  const listed = provider.list === '' && provider.finds === 'value' ? inList(provider.value) : undefined;
  if (!listed) return undefined;
  const sure = inList(provider.confidence);
  return {
    ...provider,
    list: listed.list,
    value: listed.within,
    confidence: sure && sure.list === listed.list ? sure.within : provider.confidence,
  };
}

/** A call of a document as the beginning of a description that is under way. */
export const begunWith = (provider: Provider, title: string, call: ProviderBeginnings['calls'][number]): Provider => ({
  ...provider,
  ...call.provider,
  name: provider.name.trim() === '' ? title.slice(0, 60) : provider.name,
});

/** Headers as lines, `Name: value`. */
export const headersText = (headers: Provider['headers']): string => headers.map(({ name, value }) => `${name}: ${value}`).join('\n');
export const headersIn = (text: string): Provider['headers'] =>
  linesIn(text).map((line) => {
    const at = line.indexOf(':');
    return at < 0 ? { name: line, value: '' } : { name: line.slice(0, at).trim(), value: line.slice(at + 1).trim() };
  });
