import { near } from '../../base';
import { catalogueOf, type Catalogue, type Field, type FieldType } from '../../fields';
import type { FeelName, FeelType } from '../../feel';
import { DOCUMENT_PARTS, isDocumentKind, type AnswerType, type Step } from '../syntax';
import type { Library } from './library';

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

function answerName(type: AnswerType): FeelName {
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

const nameOfField = (field: Field, label = field.label): FeelName => ({
  type: FEEL_TYPE[field.type],
  label,
  ...(field.unit === undefined ? {} : { unit: field.unit }),
});
/** What is known of a deal that a line opened: the fields of deals. */
const dealShape = (library: Pick<Library, 'fields'>): ResultShape =>
  Object.fromEntries(
    catalogueOf(library.fields)
      .all('deal')
      .map((field) => [field.key, nameOfField(field)]),
  );
/** What is known of an application that a line opened: its own fields, and those of its opening where it has none of that name. */
const applicationShape = (library: Pick<Library, 'fields'>): ResultShape => {
  const fields = catalogueOf(library.fields);
  const ofOpening = fields.all('opening').filter((field) => !field.isStandard);
  return Object.fromEntries([...ofOpening, ...fields.all('application')].map((field) => [field.key, nameOfField(field)]));
};
const documentShape = (kind: string): ResultShape =>
  isDocumentKind(kind)
    ? Object.fromEntries(Object.entries(DOCUMENT_PARTS[kind]).map(([id, type]): [string, FeelName] => [id, answerName({ kind: type })]))
    : {};
/** Years of some kind of work, as fields of the workspace count them out of papers. */
const yearsCounted = ({ fields }: Pick<Library, 'fields'>): ResultShape =>
  Object.fromEntries(
    fields.flatMap((field): [string, FeelName][] =>
      field.yearsIn && !field.isRetired ? [[field.key, { type: 'number', label: field.label }]] : [],
    ),
  );
/** What stands at the places now that did not at the reading before. */
const WHAT_IS_NEW: ResultShape = { changes: { type: 'number', label: 'what is new' }, news: { type: 'string' } };
/** Whether what was waited for came in time. */
const CAME: ResultShape = { came: { type: 'boolean', label: 'came' } };

/** What a line leaves behind under its `as` name. */
export function resultOf(step: Step, library: Pick<Library, 'fields'>): { readonly name: string; readonly shape: ResultShape } | undefined {
  if (!('as' in step) || step.as === undefined) return undefined;
  const name = step.as.text;
  switch (step.verb) {
    case 'read':
      return {
        name,
        shape: { ...Object.fromEntries(step.questions.map((question) => [question.id.text, answerName(question.type)])), ...WHAT_IS_NEW },
      };
    case 'score':
      return {
        name,
        shape: {
          points: { type: 'number', label: name },
          band: { type: 'string', label: 'band' },
          why: { type: 'string' },
          out: { type: 'boolean' },
          weakest: { type: 'string' },
        },
      };
    case 'open':
      return { name, shape: step.what === 'deal' ? dealShape(library) : applicationShape(library) };
    case 'pick out':
      return {
        name,
        shape: {
          ...documentShape(step.document?.text ?? ''),
          ...(step.document?.text === 'cv' ? yearsCounted(library) : {}),
          ...Object.fromEntries(step.questions.map((question) => [question.id.text, answerName(question.type)])),
        },
      };
    case 'sort':
      return { name, shape: { label: { type: 'string', label: name }, sure: { type: 'number' }, quote: { type: 'string' } } };
    case 'wait':
      return { name, shape: step.for.kind === 'reply' ? { ...CAME, kind: { type: 'string' }, text: { type: 'string' } } : CAME };
    case 'gather':
      return { name, shape: { size: { type: 'number' } } };
    case 'hand over':
      return {
        name,
        shape: { ...CAME, ...Object.fromEntries((step.answer?.parts ?? []).map((part) => [part.id.text, answerName(part.type)])) },
      };
    case 'call':
      return { name, shape: { text: { type: 'string' } } };
    case 'book':
      return { name, shape: { day: { type: 'date' } } };
    case 'prepare':
      return { name, shape: { address: { type: 'string' } } };
    case 'write':
      return { name, shape: { subject: { type: 'string' }, body: { type: 'string' } } };
    default:
      return undefined;
  }
}

/** The result that records bring along from the intake they come by, under this name. */
export const ENTRY = 'entry';

/** What comes with a record from a form or another intake, as the parts of `entry`. */
export function entryOf(step: Step, library: Pick<Library, 'intakes'>): ResultShape | undefined {
  if (step.verb !== 'take in') return undefined;
  const answers = library.intakes.find((intake) => intake.kind === step.from.text && intake.name === step.name?.text)?.answers;
  return (
    answers &&
    Object.fromEntries(
      answers.map(({ id, type, unit }) => [
        id,
        // A day of a form is whole; one that was read in a text may be as inexact as it was said.
        type === 'date' ? { type } : answerName(type === 'number' && unit !== undefined ? { kind: type, unit } : { kind: type }),
      ]),
    )
  );
}

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
