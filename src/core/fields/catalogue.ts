import type { RecordKind } from '../base';
import type { Field, OwnField } from './field';
import { STANDARD_FIELDS } from './standard';

/** The fields of one workspace: those every business has and its own. A value: nothing in it changes. */
export interface Catalogue {
  /** the field of that record kind and key, retired or not; undefined when there is none */
  of(record: RecordKind, key: string): Field | undefined;
  /** the fields of a kind that are in use, standard ones first, then in the workspace's order */
  all(record: RecordKind): readonly Field[];
  readonly own: readonly OwnField[];
}

const nameOf = (field: Pick<Field, 'record' | 'key'>): string => `${field.record}.${field.key}`;
const STANDARD_NAMES = new Set(STANDARD_FIELDS.map(nameOf));

/** A standard field as a business calls it: its type and place are everybody's, its label, words and limits may be its own. */
function withOwnWords(field: Field, own: OwnField | undefined): Field {
  if (!own) return field;
  const { label, words, most, least, staleMonths, isProtected, trust, byHand } = own;
  const limits = Object.fromEntries(
    Object.entries({ most, least, staleMonths, isProtected, trust, byHand }).filter(([, value]) => value !== undefined),
  );
  return { ...field, ...limits, label, words: [...field.words, ...words], ownWords: words };
}

class Fields implements Catalogue {
  readonly #byName: ReadonlyMap<string, Field>;
  readonly #used: readonly Field[];

  constructor(readonly own: readonly OwnField[]) {
    const lent = new Map(own.map((field) => [nameOf(field), field]));
    const standard = STANDARD_FIELDS.map((field) => withOwnWords(field, lent.get(nameOf(field))));
    const every: readonly Field[] = [...standard, ...own.filter((field) => !STANDARD_NAMES.has(nameOf(field)))];
    this.#byName = new Map(every.map((field) => [nameOf(field), field]));
    this.#used = every.filter((field) => !field.isRetired);
  }
  of(record: RecordKind, key: string): Field | undefined {
    return this.#byName.get(nameOf({ record, key }));
  }
  all(record: RecordKind): readonly Field[] {
    return this.#used.filter((field) => field.record === record);
  }
}

const made = new WeakMap<readonly OwnField[], Catalogue>();

/** The catalogue of a workspace with these fields of its own. Made once for one list; a standard field is never displaced. */
export function catalogueOf(own: readonly OwnField[]): Catalogue {
  let catalogue = made.get(own);
  if (!catalogue) made.set(own, (catalogue = new Fields(own)));
  return catalogue;
}

/** The catalogue of a workspace that has made no field. */
export const STANDARD: Catalogue = catalogueOf([]);

/** Whether its values are numbers: aligned right, compared by size. */
export const isFigure = (field: Pick<Field, 'type'>): boolean => field.type === 'number' || field.type === 'money' || field.type === 'year';

/** A field's label when only its name is known: flows may speak of fields that are not there. */
export const labelOf = (field: Field | undefined, key: string): string => field?.label ?? key.replace(/_/g, ' ');

/** What a field holds, in short: “number, vans”, “one of 4”. */
export const typeText = (field: Pick<OwnField, 'type' | 'unit' | 'options'>): string =>
  field.type === 'choice' && field.options
    ? `one of ${field.options.length}`
    : field.unit === undefined
      ? field.type
      : `${field.type}, ${field.unit}`;
