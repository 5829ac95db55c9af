import { beyond, readTyped, type Catalogue, type DayOrder, type FactValue } from '../fields';
import { normalisePhone, personName } from '../match';
import { targetField, type Target } from './guess';

/** The values one row gives, typed and tidied. */
export interface RowRecord {
  readonly person: { readonly [field: string]: FactValue };
  readonly company: { readonly [field: string]: FactValue };
  readonly note: string | null;
}

export interface RowReading {
  readonly record: RowRecord;
  /** what was changed or left out, by target, in words */
  readonly remarks: readonly { readonly target: Target; readonly raw: string; readonly says: string }[];
  /** set when the row cannot become a record */
  readonly refused: string | null;
}

const PARTICLES = /^(?:van|von|de|der|den|ter|ten|la|el|di|da|du|af|zu)$/i;
const NONSENSE = /^(?:test|asdf|qwer|xxx+|aaa+|n\/?a|dummy|donald duck)\b|^[^\p{L}]+$/iu;
const TITLE = /^(?:dr|prof|ir|ing|drs|mr|mrs|ms|miss|herr|frau|dhr|mevr|mw|sr|sra|dipl|mgr|inż)\.?(?:-ing\.?)?$/i;

/** "dhr. P. Aalders", "QUILL, Mara", "JONAS REISSIG" → given and family name as they are written in a letter. */
export function splitName(raw: string): { readonly first: string; readonly last: string; readonly full: string } {
  const [family, given] = raw.split(',').map((part) => part.trim());
  const straight = given ? `${given} ${family ?? ''}` : raw;
  const parts = straight
    .replace(/\s+/g, ' ')
    .trim()
    .split(' ')
    .filter((part) => !TITLE.test(part))
    .map(calm);
  const first = parts[0] ?? '';
  const last = parts.slice(1).join(' ');
  return { first, last, full: parts.join(' ') };
}

/** Words in capitals get ordinary letters; others stay as they are. */
function calm(word: string): string {
  if (PARTICLES.test(word)) return word.toLowerCase();
  if (word.length < 3 || word !== word.toUpperCase() || !/\p{L}/u.test(word)) return word;
  return word.toLowerCase().replace(/(^|[-'’])(\p{L})/gu, (_, gap: string, letter: string) => gap + letter.toUpperCase());
}

/** What a column is taken for, and what of all its cells says how each is read. */
export interface ReadColumn {
  readonly target: Target;
  /** said in its heading */
  readonly unit?: string | undefined;
  readonly dayOrder?: DayOrder | undefined;
}

/** Reads one row by the column matching. `defaultCountry` (ISO 3166) is used for national phone numbers. */
export function readRow(cells: readonly string[], columns: readonly ReadColumn[], defaultCountry: string, fields: Catalogue): RowReading {
  const remarks: RowReading['remarks'][number][] = [];
  const person: { [field: string]: FactValue } = {};
  const company: { [field: string]: FactValue } = {};
  const notes: string[] = [];
  columns.forEach(({ target, unit, dayOrder }, i) => {
    const raw = withUnit(cells[i]?.trim() ?? '', unit);
    if (raw === '' || target === 'leave out') return;
    if (target === 'note') {
      notes.push(raw.replace(/\s+/g, ' '));
      return;
    }
    const field = targetField(target, fields);
    if (!field) return;
    const reading = readTyped(field, raw, dayOrder);
    if (!reading.ok) {
      remarks.push({ target, raw, says: `${reading.why}: left out` });
      return;
    }
    const impossible = beyond(field, reading.value);
    if (impossible !== undefined) {
      remarks.push({ target, raw, says: `${impossible}: left out` });
      return;
    }
    if (reading.note) remarks.push({ target, raw, says: reading.note });
    if (reading.value !== null) (field.record === 'company' ? company : person)[field.key] = reading.value;
  });
  // Where the list has a column for it, a blank one is the list's own country.
  const hasCountry = columns.some(({ target }) => target === 'company.country');
  if (hasCountry && company.country === undefined && Object.keys(company).length > 0) company.country = defaultCountry;
  tidyNames(person);
  const country = typeof company.country === 'string' ? company.country : defaultCountry;
  for (const [owner, key, target] of [
    [person, 'phone', 'person.phone'],
    [person, 'mobile', 'person.mobile'],
    [company, 'phone', 'company.phone'],
  ] as const) {
    const raw = owner[key];
    if (typeof raw !== 'string') continue;
    const number = normalisePhone(raw, country);
    owner[key] = number;
    if (number !== null) continue;
    remarks.push({ target, raw, says: 'not a phone number: left out' });
    Reflect.deleteProperty(owner, key);
  }
  // Who has one address only is written to there, whatever the column was called.
  if (person.email === undefined && person.other_email !== undefined) person.email = person.other_email;
  if (person.other_email === person.email) delete person.other_email;
  const why = isOfCompanies(columns.map(({ target }) => target)) ? companyRefusal(company) : refusal(person, company);
  return { record: { person, company, note: notes.join(' · ') || null }, remarks, refused: why };
}

/** A list that names companies and nobody who works there. */
export const isOfCompanies = (matching: readonly Target[]): boolean =>
  matching.some((target) => target === 'company.name' || target === 'company.website') &&
  !matching.some((target) => target.startsWith('person.'));

function companyRefusal(company: RowRecord['company']): string | null {
  const name = typeof company.name === 'string' ? company.name : '';
  if (name === '' && company.website === undefined) return 'neither the company’s name nor its site';
  return name !== '' && NONSENSE.test(name.trim()) ? 'test entry' : null;
}

/** A bare figure under a heading that says its unit has that unit. */
const withUnit = (cell: string, unit: string | undefined): string =>
  unit !== undefined && /^\d[\d., ]*$/.test(cell) ? `${cell} ${unit}` : cell;

function tidyNames(person: { [field: string]: FactValue }): void {
  const given = typeof person.first_name === 'string' ? person.first_name : '';
  const family = typeof person.last_name === 'string' ? person.last_name : '';
  const whole = typeof person.name === 'string' ? person.name : `${given} ${family}`.trim();
  if (whole === '') return;
  const { first, last, full } = splitName(whole);
  person.name = full;
  if (first.replace('.', '').length > 1) person.first_name = first;
  else delete person.first_name;
  if (last !== '') person.last_name = last;
}

function refusal(person: RowRecord['person'], company: RowRecord['company']): string | null {
  const name = typeof person.name === 'string' ? person.name : '';
  if (name !== '' && (NONSENSE.test(name.trim()) || personName(name) === '')) return 'test entry';
  if (name === '' && person.email === undefined) return 'neither name nor e-mail';
  if (person.email === undefined && person.phone === undefined && person.mobile === undefined && company.website === undefined)
    return 'no e-mail, phone or site: nobody could be reached';
  return null;
}
