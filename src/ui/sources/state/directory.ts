import { isFigure, readTyped, type Field } from '../../../core/fields';
import type { DirectoryHit } from '../../../core/intake';

/** A described service that finds people or companies; a page of its answers costs so many millionths of a euro. */
export interface SearchService {
  readonly name: string;
  readonly priceMicro: number;
}

/** What was typed to find somebody by. */
export interface Asked {
  /** a described service; empty: the directory */
  readonly service: string;
  readonly what: 'people' | 'companies';
  readonly title: string;
  readonly words: string;
  readonly place: string;
  readonly country: string;
  /** by key of the field */
  readonly own: Readonly<Record<string, string>>;
  readonly minEmployees: string;
  readonly order: string;
}
export const EMPTY: Asked = {
  service: '',
  what: 'people',
  title: '',
  words: '',
  place: '',
  country: '',
  own: {},
  minEmployees: '',
  order: 'name',
};

export interface Look {
  readonly count: number;
  readonly more: boolean;
  readonly fresh: number;
  readonly hits: readonly (DirectoryHit & { readonly becomes: string; readonly why: string })[];
}

interface Criterion {
  readonly key: string;
  readonly least: number | null;
  readonly says: string;
}
/** What was typed for a field: the least of a figure, in its unit, or what a text holds; nothing when nothing was. */
function criterionOf(field: Field, typed: string): readonly Criterion[] {
  if (typed.trim() === '') return [];
  if (!isFigure(field)) return [{ key: field.key, least: null, says: typed.trim() }];
  const read = readTyped(field, typed);
  return read.ok && typeof read.value === 'number' ? [{ key: field.key, least: read.value, says: '' }] : [];
}
export function wrongWith(field: Field, typed: string): string | undefined {
  const read = isFigure(field) && typed.trim() !== '' ? readTyped(field, typed) : undefined;
  return read && !read.ok ? read.why : undefined;
}

/** What the directory is asked, of the fields it knows. */
export const criteriaOf = ({ own, ...rest }: Asked, known: readonly Field[]) => ({
  ...rest,
  fields: (rest.service === '' ? known : []).flatMap((entry) => criterionOf(entry, own[entry.key] ?? '')),
  minEmployees: rest.service !== '' || rest.minEmployees.trim() === '' ? null : Number(rest.minEmployees),
});
