import { near } from '../../base';
import { type Catalogue, type Field, type FieldType } from '../../fields';
import type { FeelName, FeelType } from '../../feel';
import type { AnswerType } from '../tree/tree';

/** Results that lines before this one have named, and what their parts are. */
export type ResultShape = Readonly<Record<string, FeelName>>;

/** What a field's value is in a condition. */
export const FEEL_TYPE: Readonly<Record<FieldType, FeelType>> = {
  text: 'string',
  'long text': 'string',
  number: 'number',
  money: 'number',
  'yes/no': 'boolean',
  date: 'date',
  year: 'number',
  choice: 'string',
  list: 'string',
  'e-mail': 'string',
  phone: 'string',
  site: 'string',
  country: 'string',
  language: 'string',
};

/** What an answer of a type is in a condition. */
export function answerName(type: AnswerType): FeelName {
  switch (type.kind) {
    case 'number':
      return { type: 'number', ...(type.unit === undefined ? {} : { unit: type.unit }) };
    case 'money':
      return { type: 'number', unit: type.currency };
    case 'yes/no':
      return { type: 'boolean' };
    case 'year':
      return { type: 'number' };
    case 'text':
    case 'list':
    case 'choice':
    case 'date':
      return { type: 'string' };
  }
}

export const nameOfField = (field: Field, label = field.label): FeelName => ({
  type: FEEL_TYPE[field.type],
  label,
  ...(field.unit === undefined ? {} : { unit: field.unit }),
});
/** A deal beside a person: its fields by their keys. */
export const dealShape = (fields: Catalogue): ResultShape =>
  Object.fromEntries(fields.all('deal').map((field) => [field.key, nameOfField(field, `deal’s ${field.label}`)]));

/** The result that records bring along from the intake they come by, under this name. */
export const ENTRY = 'entry';

/** Whether what was waited for came in time. */
export const CAME: ResultShape = { came: { type: 'boolean', label: 'came' } };

/** The results that are named at a line, as much of a map as reading them takes. */
export interface Results {
  has(name: string): boolean;
  get(name: string): ResultShape | undefined;
  keys(): Iterable<string>;
}

/** Said once for each name of a catalogue: a long flow may ask for the same missing field on every line. */
const missing = new WeakMap<Catalogue, Map<string, string>>();
const MISSING_KEPT = 500;

function noField(fields: Catalogue, record: 'company' | 'person', key: string): string {
  const name = `${record}.${key}`;
  let said = missing.get(fields);
  if (!said || said.size >= MISSING_KEPT) missing.set(fields, (said = new Map<string, string>()));
  let says = said.get(name);
  if (says === undefined) {
    const close = near(
      key,
      fields.all(record).map((entry) => entry.key),
    ).replace('“', `“${record}.`);
    said.set(name, (says = `a ${record} has no field “${key}”${close}`));
  }
  return says;
}

/** What a dotted name means at a line: a field of the record, of its company, or a result; else a sentence saying why not. */
export function nameAt(fields: Catalogue, about: string, results: Results, segments: readonly string[]): FeelName | string {
  const [first = '', second] = segments;
  const record = about === 'deal' || about === 'company' ? about : 'person';
  if (segments.length === 1) {
    const field = fields.of(record, first);
    if (field) return nameOfField(field);
    if (results.has(first)) return `“${first}” has parts: write ${first}.${Object.keys(results.get(first) ?? {})[0] ?? 'part'}`;
    return `“${first}” is not a field of a ${record}, nor the result of a line above${near(first, [...fields.all(record).map((entry) => entry.key), ...fields.all('company').map((entry) => `company.${entry.key}`), ...results.keys()])}`;
  }
  if (second !== undefined && segments.length === 2) {
    if (first === 'company' || (first === 'person' && about === 'deal')) {
      const field = fields.of(first, second);
      if (field) return nameOfField(field, first === 'company' ? `company ${field.label}` : field.label);
      return noField(fields, first, second);
    }
    const shape = results.get(first);
    if (shape) return shape[second] ?? `“${first}” has no part “${second}”: it has ${Object.keys(shape).join(', ')}`;
  }
  return `“${segments.join('.')}” is not known here: a line above must name it with “as ${first}”`;
}
