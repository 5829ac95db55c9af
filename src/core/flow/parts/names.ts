import type { Catalogue, Field } from '../../fields';

const COUNTS: Readonly<Record<string, string>> = {
  a: '1',
  an: '1',
  one: '1',
  two: '2',
  three: '3',
  four: '4',
  five: '5',
  six: '6',
  seven: '7',
  eight: '8',
  nine: '9',
  ten: '10',
};
/** A count written out, as digits; anything else as it is. */
export const digits = (word: string): string => COUNTS[word] ?? word;

/** A name a phrase may speak of, as flow text writes it. */
export interface Named {
  readonly path: string;
  readonly type: Field['type'] | 'points';
  readonly unit?: string | undefined;
}

const nameOf = (field: Field, path: string): Named => ({ path, type: field.type, unit: field.unit });

/** What a field is called: its label and its other words, folded to small letters. */
const calls = (field: Field, word: string): boolean => [field.label, ...field.words].some((said) => said.toLowerCase() === word);

/** The fields of people and companies that a word stands for; one word may mean two. A name as flows have it is the last thing tried. */
function fieldsCalled(fields: Catalogue, word: string): readonly Named[] {
  const pathOf = (field: Field): string => (field.record === 'company' ? `company.${field.key}` : field.key);
  const every = [...fields.all('person'), ...fields.all('company')];
  const found = every.filter((field) => calls(field, word));
  const key = word.replace(/ /g, '_');
  const meant = found.length > 0 ? found : every.filter((field) => field.key === key).slice(0, 1);
  return meant.map((field) => nameOf(field, pathOf(field)));
}

/** What the lines above leave to speak of: the name of the last score, message and deal. */
export interface Above {
  /** in a flow about deals, fields of the person are reached through `person` */
  readonly about: 'person' | 'deal';
  readonly fields: Catalogue;
  readonly score?: string | undefined;
  readonly message?: string | undefined;
  readonly deal?: string | undefined;
  /** names beside those of records, with what they are called */
  readonly named?: readonly (Named & { readonly says: readonly string[] })[];
}

const bare = (word: string): string => word.trim().replace(/^(?:the|a|an|their|his|her|its|any|some|our)\s+/, '');

/** Every name a word may stand for; none when it stands for nothing. */
export function namesFor(word: string, above: Above): readonly Named[] {
  const said = bare(word.toLowerCase());
  if (/^(?:score|points|fit|rating)$/.test(said)) return above.score ? [{ path: `${above.score}.points`, type: 'points' }] : [];
  if (/^(?:band|class)$/.test(said)) return above.score ? [{ path: `${above.score}.band`, type: 'text' }] : [];
  const named = above.named?.filter(({ says }) => says.includes(said)) ?? [];
  if (named.length > 0) return named;
  const found = fieldsCalled(above.fields, said);
  if (above.about === 'person') return found;
  const deal = above.fields
    .all('deal')
    .filter((field) => calls(field, said) || field.key.replace(/_/g, ' ') === said)
    .map((field) => nameOf(field, field.key));
  return [...deal, ...found.map((named) => (named.path.includes('.') ? named : { ...named, path: `person.${named.path}` }))];
}
