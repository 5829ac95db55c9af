import { beyond, readTyped, type Catalogue, type DayOrder, type FactValue } from '../fields';
import { normalisePhone, personName } from '../match';
import { targetField, targetParts, type Target } from './guess';
import { applicationOf, dealOf, NO_PLACES, NOWHERE, type Places, type Standing } from './standing';

/** The values one row gives, typed and tidied. */
export interface RowRecord {
  readonly person: { readonly [field: string]: FactValue };
  readonly company: { readonly [field: string]: FactValue };
  readonly note: string | null;
  /** the deal and the application that the row tells of */
  readonly standing: Standing;
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

interface Values {
  [field: string]: FactValue;
}

/** Reads one row by the column matching. `defaultCountry` (ISO 3166) is used for national phone numbers. */
export function readRow(
  cells: readonly string[],
  columns: readonly ReadColumn[],
  defaultCountry: string,
  fields: Catalogue,
  places: Places = NO_PLACES,
): RowReading {
  const { values, notes, remarks } = readCells(cells, columns, fields);
  const { person, company } = values;
  const matching = columns.map(({ target }) => target);
  const ofDeals = isOfDeals(matching);
  // Where the list has a column for it, a blank one is the list's own country.
  const hasCountry = columns.some(({ target }) => target === 'company.country');
  if (hasCountry && company.country === undefined && Object.keys(company).length > 0) company.country = defaultCountry;
  tidyNames(person);
  remarks.push(...tidyNumbers(person, company, defaultCountry));
  // Who has one address only is written to there, whatever the column was called.
  if (person.email === undefined && person.other_email !== undefined) person.email = person.other_email;
  if (person.other_email === person.email) delete person.other_email;
  // A deal may be with a firm alone: without a name or an address the rest is nobody.
  const isNobody = ofDeals && person.name === undefined && person.email === undefined;
  const why = isNobody || isOfCompanies(matching) ? companyRefusal(company) : refusal(person, company, ofDeals);
  const standing = standingOf(values, places);
  return {
    record: {
      person: isNobody ? {} : person,
      company,
      note: notes.join(' · ') || null,
      standing: 'refused' in standing ? NOWHERE : standing,
    },
    remarks,
    refused: why ?? ('refused' in standing ? standing.refused : null),
  };
}

interface CellsRead {
  readonly values: { readonly person: Values; readonly company: Values; readonly deal: Values; readonly application: Values };
  readonly notes: string[];
  readonly remarks: RowReading['remarks'][number][];
}

/** Each cell by itself, as a value of the field its column is taken for. */
function readCells(cells: readonly string[], columns: readonly ReadColumn[], fields: Catalogue): CellsRead {
  const out: CellsRead = { values: { person: {}, company: {}, deal: {}, application: {} }, notes: [], remarks: [] };
  const { values, notes, remarks } = out;
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
    if (reading.value !== null) values[targetParts(target)?.record ?? 'person'][field.key] = reading.value;
  });
  return out;
}

/** Telephone numbers in their international form; what is none is left out and said. */
function tidyNumbers(person: Values, company: Values, defaultCountry: string): RowReading['remarks'] {
  const country = typeof company.country === 'string' ? company.country : defaultCountry;
  const remarks: RowReading['remarks'][number][] = [];
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
  return remarks;
}

const text = (value: FactValue | undefined): string => (typeof value === 'string' ? value : '');

function standingOf({ person, company, deal, application }: CellsRead['values'], places: Places): Standing | { readonly refused: string } {
  const stands = dealOf(deal, text(company.name) || text(person.name) || text(company.website) || text(person.email), places);
  const applies = applicationOf(application, places);
  if (stands && 'refused' in stands) return stands;
  if (applies && 'refused' in applies) return applies;
  return { deal: stands, application: applies };
}

/** A list whose rows are deals, beside whom they are with. */
const isOfDeals = (matching: readonly Target[]): boolean => matching.some((target) => target.startsWith('deal.'));

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

function tidyNames(person: Values): void {
  const given = text(person.first_name);
  const family = text(person.last_name);
  const whole = typeof person.name === 'string' ? person.name : `${given} ${family}`.trim();
  if (whole === '') return;
  const { first, last, full } = splitName(whole);
  person.name = full;
  if (first.replace('.', '').length > 1) person.first_name = first;
  else delete person.first_name;
  if (last !== '') person.last_name = last;
}

function refusal(person: RowRecord['person'], company: RowRecord['company'], ofDeals: boolean): string | null {
  const name = typeof person.name === 'string' ? person.name : '';
  if (name !== '' && (NONSENSE.test(name.trim()) || personName(name) === '')) return 'test entry';
  if (name === '' && person.email === undefined) return 'neither name nor e-mail';
  // Whom a deal is with is known at their firm, reached or not.
  if (ofDeals && typeof company.name === 'string') return null;
  if (person.email === undefined && person.phone === undefined && person.mobile === undefined && company.website === undefined)
    return 'no e-mail, phone or site: nobody could be reached';
  return null;
}
