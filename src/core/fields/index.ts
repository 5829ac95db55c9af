/**
 * What a business knows of people, companies and deals: fields, their types and units, and how a value of one is read and
 * printed. Promises: a catalogue is a value and never changes; reading is total: what cannot be read is a sentence saying why.
 * Refuses: a value that is not of its field's type, unit and range.
 */
export {
  FIELD_TYPES,
  fieldKeySchema,
  keyFor,
  ownFieldSchema,
  type FactValue,
  type Field,
  type FieldType,
  type OwnField,
  type Point,
} from './field';
export { speaksOf, valueAs, type Figures } from './change';
export { catalogueOf, isFigure, labelOf, STANDARD, typeText, type Catalogue } from './catalogue';
export { STANDARD_FIELDS } from './standard';
export { COUNTRIES, countryOf } from './countries';
export { dayOf, orderBy, orderOf, orderTold, type DayOrder } from './days';
export { momentOf } from './moments';
export { beyond, checkTyped, printValue, readTyped, type TypedReading } from './typed';
