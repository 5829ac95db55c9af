import { z } from 'zod';
import { fold, JOB_WORDS } from '../base';
import { countryOf, readTyped, type Catalogue, type Field } from '../fields';
import { unitOf, UNITS } from '../units';
import { standingColumns } from './guess-standing';
import { NO_PLACES, type Places } from './standing';

/** What a column can be taken as: a field of the person or the company by its path, `note`, or `leave out`. */
export const targetSchema = z
  .string()
  .regex(/^(?:note|leave out|(?:person|company)\.[a-z][a-z0-9_]{0,59})$/, 'a field, note, or leave out');
export type Target = string;
/** What a column of a list can be taken as: deals and applications come in by lists alone. */
export const listTargetSchema = z
  .string()
  .regex(/^(?:note|leave out|(?:person|company|deal|application)\.[a-z][a-z0-9_]{0,59})$/, 'a field, note, or leave out');

const RECORDS_OF_LISTS = ['person', 'company', 'deal', 'application'] as const;

/** For which opening somebody applies, and how far they are, is set elsewhere by other means, and still what a list says. */
const setByList = (field: Field): boolean => !field.isComputed || (field.record === 'application' && field.isStandard === true);

function targetsAmong(records: readonly (typeof RECORDS_OF_LISTS)[number][], fields: Catalogue): readonly Target[] {
  const keys = records.flatMap((record) =>
    fields
      .all(record)
      .filter(setByList)
      .map((field) => `${record}.${field.key}`),
  );
  return [...keys, 'note', 'leave out'];
}

/** Everything an answer or a posted value can be taken as, in the order of the catalogue. */
export const targetsOf = (fields: Catalogue): readonly Target[] => targetsAmong(['person', 'company'], fields);
/** Everything a column of a list can be taken as. */
export const listTargetsOf = (fields: Catalogue): readonly Target[] => targetsAmong(RECORDS_OF_LISTS, fields);

/** The record and the key that a target names; none for notes and what is left out. */
export function targetParts(target: Target): { readonly record: (typeof RECORDS_OF_LISTS)[number]; readonly key: string } | undefined {
  const [head, key = ''] = target.split('.');
  const record = RECORDS_OF_LISTS.find((name) => name === head);
  return record && { record, key };
}

/** The field that a target names; none for notes and what is left out. */
export function targetField(target: Target, fields: Catalogue): Field | undefined {
  const parts = targetParts(target);
  return parts && fields.of(parts.record, parts.key);
}

export interface ColumnGuess {
  readonly heading: string;
  readonly target: Target;
  /** why, in words for the builder */
  readonly why: string;
  readonly sure: boolean;
  readonly samples: readonly string[];
}

export function targetLabel(target: Target, fields: Catalogue): string {
  if (target === 'note') return 'note on the person';
  if (target === 'leave out') return 'leave out';
  if (target === 'person.name') return 'person · full name';
  if (target === 'company.name') return 'company · name';
  const [record = '', key = ''] = target.split('.');
  return `${record} · ${(targetField(target, fields)?.label ?? key).replace(/^company /, '')}`;
}

/** Folded headings of standard fields in seven languages; other fields are known by their label and their words. */
const HEADINGS: Readonly<Partial<Record<Target, RegExp>>> = {
  'person.first_name': /^(?:first(?: ?name)?|given(?: ?name)?|forename|vorname|voornaam|nombre|prenom|imie|nome)$/,
  'person.last_name': /^(?:last(?: ?name)?|family(?: ?name)?|surname|nachname|achternaam|apellidos?|nom|nazwisko|cognome)$/,
  'person.name':
    /^(?:name|full ?name|visitor|bezoeker|naam|contact(?: ?persoon| ?person| name)?|kontaktperson|interlocuteur|ansprechpartner|besucher|visitante|contacto|persona|osoba|who|person|gast)$/,
  'person.job_title': /role|function|functie|funktion|fonction|poste|position|job|title|cargo|puesto|stanowisko/,
  'person.email': /mail|correo|courriel|e-?adres/,
  'person.other_email':
    /\b(?:2|2nd|second|other|private?|privat\w*|prive|alt\w*|home|zweite|andere\w*|segundo|otro)\b.{0,12}(?:mail|correo|courriel)|(?:mail|correo|courriel).{0,12}\b(?:2|second|other|private?|privat|prive|home|alt\w*)\b/,
  'person.phone': /^(?!.*(?:mobil|mobiel|movil|handy|cell|gsm|portable|natel|fax)).*(?:phone|tel|fono|nummer|call)/,
  'person.mobile': /^(?!.*fax).*(?:mobil|mobiel|movil|handy|cell|gsm|portable|natel|komork)/,
  'person.language': /language|sprache|taal|idioma|jezyk/,
  'person.met_at': /stand|booth|hall|where met|halle|pabellon/,
  'company.name':
    /company|societe|entreprise|raison sociale|employer|works (?:at|for)|firm|firma|bedrijf|business|organi[sz]ation|empresa|unternehmen|account|betrieb/,
  'company.website': /site|web|url|page|pagina|domain|www/,
  'company.street':
    /^(?:street|strasse|str|straat|rue|calle|via|ulica|adresse?|address|adres|direccion|domicilio|anschrift)(?: ?(?:1|line 1|& ?nr|und (?:haus)?(?:nr|nummer)|and number|en (?:huis)?nummer|y numero))?$/,
  'company.postcode': /^(?:post ?code|postal ?code|zip(?: ?code)?|plz|postleitzahl|code postal|cp|codigo postal|kod pocztowy|cap)$/,
  'company.vat_number': /\b(?:vat|ust-?id(?:-?nr)?|umsatzsteuer\w*|btw|tva|nif|cif|nip)\b/,
  'company.register_number':
    /\b(?:hrb|handelsregister\w*|kvk|siren|siret|company number|regist(?:er|ration) (?:number|no)|registernummer|krs)\b/,
  'company.city': /city|^ville$|town|place|plaats|ort|ciudad|miasto|woonplaats|localidad/,
  'company.country': /country|^ctry$|^land$|land$|pais|pays|kraj|nation/,
  'deal.title': /^(?:deal|opportunity|verkaufschance|chance|offerte|verkoopkans|oportunidad|affaire|szansa|trattativa)\b/,
  'deal.amount': /amount|value|\bsum\b|betrag|summe|\bwert\b|bedrag|waarde|importe|valor|montant|valeur|kwota|wartosc|importo/,
  'deal.stage': /stage|phase|fase|etapa|etape|etap\b|stadium/,
  'company.employees': /employees|staff|people|mitarbeiter|medewerkers|empleados|headcount/,
  note: /note|remark|comment|opmerking|bemerkung|anmerkung|observaci|notas|uwagi|interest|^infos?$/,
};

type ContentTest = (cell: string) => boolean;
const isDay = (cell: string): boolean => /^(?:\d{4}[-./]\d{1,2}[-./]\d{1,2}|\d{1,2}[-./]\d{1,2}[-./]\d{2,4})$/.test(cell);
/** Words that firms are registered by, in the countries of the lists we see. */
const LEGAL =
  /\b(?:ltd|limited|llp|plc|gmbh|gbr|ohg|kg|ag|e\.?k|b\.?v|n\.?v|v\.?o\.?f|s\.?l|s\.?a|s\.?r\.?l|sarl|sas|gaec|earl|aps|a\/s|ab|oy|sp\.? z|inc|llc|co|company|sons|group|& (?:co|sons|daughters))\b/i;
const isNumber: ContentTest = (cell) => /^[+(]?[\d][\d ()/.+-]{6,}$/.test(cell) && cell.replace(/\D/g, '').length >= 8 && !isDay(cell);
/** Postcodes of the countries of the lists we see; four figures that could be a year are none by themselves. */
const POSTCODE = /^(?:[A-Z]{1,2}-)?(?:(?!(?:19|20)\d\d$)\d{4,5}|\d{4} ?[A-Z]{2}|[A-Z]{1,2}\d[A-Z\d]? ?\d[A-Z]{2}|\d{2}-\d{3})$/;
/** Words that streets are called by, at the end of a compound or by themselves. */
const STREET =
  /(?:stra(?:ss|ß)e|str\.|straat|weg|laan|plein|platz|gasse|allee|dijk|kade|gracht|singel|damm|ufer)\b|\b(?:street|st|road|rd|lane|ln|avenue|ave|drive|close|way|court|row|square|calle|c\/|avenida|avda|paseo|camino|plaza|rue|chemin|impasse|route|via|viale|ul\.?|ulica)\b/i;
const CONTENT: Readonly<Partial<Record<Target, ContentTest>>> = {
  'person.email': (cell) => /@/.test(cell),
  'person.other_email': (cell) => /@/.test(cell),
  'person.phone': isNumber,
  'person.mobile': isNumber,
  'company.street': (cell) => cell.length <= 60 && /\d/.test(cell) && STREET.test(cell),
  'company.postcode': (cell) => POSTCODE.test(cell),
  'company.vat_number': (cell) => /^[A-Z]{2}[ .]?[A-Z\d][A-Z\d .]{6,14}\d[A-Z\d]?$/.test(cell),
  'company.website': (cell) => readTyped({ type: 'site' }, cell).ok && !/@/.test(cell),
  'company.name': (cell) => !/@|\.[a-z]{2,}$/i.test(cell) && LEGAL.test(cell),
  'person.name': (cell) =>
    /^(?:(?:dr|ir|ing|dhr|mw|mevr|herr|frau|mr|mrs|ms|sr|sra)\.?\s+)?\p{Lu}[\p{L}.'’-]*,?(?:\s+\p{L}[\p{L}.'’-]*){1,3}$/u.test(cell),
  'company.country': (cell) => countryOf(cell) !== undefined,
  'person.job_title': (cell) => cell.length <= 60 && !/[@\d]/.test(cell) && JOB_WORDS.test(fold(cell)),
  'person.language': (cell) => /^(?:en|de|nl|es|pl|fr|it|da)$/i.test(cell),
  'deal.amount': (cell) => readTyped({ type: 'money' }, cell).ok,
  note: (cell) => cell.length > 35 || /^\p{Ll}\S*\s+\S+\s+\S/u.test(cell),
};

interface Scored {
  readonly column: number;
  readonly target: Target;
  readonly score: number;
  readonly heading: boolean;
  readonly share: number;
}

/** How a field is known from a column: by its heading, and by what its cells hold. */
interface Knowing {
  readonly target: Target;
  readonly heading: (folded: string) => boolean;
  readonly cell: ContentTest | undefined;
  /** what speaks not against it: figures without their unit */
  readonly bears: ContentTest | undefined;
  /** what contents alone are worth, at most */
  readonly weight: (share: number) => number;
}

/** Contents that are hardly ever anything else: even a list where every third one is broken shows what the column is. */
const TELLING: ReadonlySet<Target> = new Set(['person.email', 'person.phone', 'company.website', 'company.name']);

/** The second of two: where a list has one such column, it is the first. */
const SECOND: ReadonlySet<Target> = new Set(['person.other_email', 'person.mobile']);
/** Contents that other columns have too: only a column that holds hardly anything else is taken for them without its heading. */
const SHARED: ReadonlySet<Target> = new Set(['person.name', 'company.street', 'company.postcode']);
/** Headings that say it is something else, whatever it holds. */
const NOT: Readonly<Partial<Record<Target, RegExp>>> = { 'person.phone': /fax/, 'person.mobile': /fax/, 'company.phone': /fax/ };

/** Figures with a unit that measures the same as the field's. */
function measures(field: Field): ContentTest | undefined {
  const kind = unitOf(field.unit ?? '')?.kind;
  if (kind === undefined) return undefined;
  const signs = new Set(UNITS.filter((unit) => unit.kind === kind).flatMap((unit) => [unit.sign, unit.ucum]));
  return (cell) => {
    const word = /^\d[\d., ]{0,30}([^\d\s.,][^\d]{0,20}[23]?)$/.exec(cell)?.[1]?.trim();
    const unit = word === undefined ? undefined : unitOf(word);
    return unit !== undefined && signs.has(unit.sign);
  };
}

/** Whether a cell could be a value of the field; undefined where any text could. */
function holds(field: Field): ContentTest | undefined {
  if (field.type === 'text' || field.type === 'long text' || field.type === 'list' || (field.type === 'choice' && !field.options))
    return undefined;
  // A telephone number is no amount, and eight digits are none of these.
  if (field.type === 'number') return (cell) => cell.replace(/\D/g, '').length < 8 && readTyped(field, cell).ok;
  return (cell) => readTyped(field, cell).ok;
}

const said = (text: string): string =>
  fold(text)
    .replace(/[_.:*#]+/g, ' ')
    .trim();

/** A heading that has one of the field's words in it: short ones as whole words, longer ones also as part of a compound. */
function named(field: Field): (folded: string) => boolean {
  const calls = [field.label, field.key.replace(/_/g, ' '), ...field.words].map(said).filter((word) => word !== '');
  return (folded) =>
    calls.some((word) => folded === word || (word.length > 3 ? folded.includes(word) : folded.split(/[^\p{L}\p{N}²³]+/u).includes(word)));
}

/** The unit that a heading says (`Hectares`, `Size (m²)`); undefined where it says none. */
export function headingUnit(heading: string): string | undefined {
  for (const word of said(heading).split(/[^\p{L}\p{N}²³]+/u)) {
    // One letter by itself is an abbreviation of anything.
    const unit = word.length > 1 ? unitOf(word) : undefined;
    if (unit !== undefined) return unit.sign;
  }
  return undefined;
}

/** A heading that says the unit of a field (`Hectares`, `Size (m²)`), where no other field measures the same. */
function unitSaid(field: Field, fields: Catalogue): ((folded: string) => boolean) | undefined {
  const kindOf = (other: Field): string | undefined => (other.type === 'number' ? unitOf(other.unit ?? '')?.kind : undefined);
  const kind = kindOf(field);
  if (kind === undefined) return undefined;
  const alike = (['person', 'company'] as const).flatMap((record) => fields.all(record)).filter((other) => kindOf(other) === kind);
  if (alike.length !== 1) return undefined;
  return (folded) => unitOf(headingUnit(folded) ?? '')?.kind === kind;
}

function knowing(target: Target, fields: Catalogue): Knowing {
  const field = targetField(target, fields);
  const own = CONTENT[target];
  const pattern = HEADINGS[target];
  const calls = field && !(field.isStandard && pattern) ? named(field) : undefined;
  const words = (field?.ownWords ?? []).map(said);
  const inUnit = field && unitSaid(field, fields);
  const measured = field && !own ? measures(field) : undefined;
  return {
    target,
    heading: (folded) =>
      (pattern?.test(folded) ?? false) ||
      (calls?.(folded) ?? false) ||
      words.some((word) => folded.includes(word)) ||
      (inUnit?.(folded) ?? false),
    bears: measured && ((cell) => /^\d[\d., ]*$/.test(cell)),
    cell: own ?? measured ?? (field?.isStandard ? undefined : field && holds(field)),
    weight: (share) =>
      SHARED.has(target) || measured
        ? share * 1.6
        : SECOND.has(target)
          ? share * 2.2
          : TELLING.has(target) && share >= 0.3
            ? 1.2 + share * 1.3
            : own || field?.type === 'choice'
              ? share * 2.5
              : 0,
  };
}

/** Guesses what each column is from its heading and its contents; each target but `note` is given to one column only. */
export function guessColumns(
  headings: readonly string[],
  rows: readonly (readonly string[])[],
  fields: Catalogue,
  places: Places = NO_PLACES,
): readonly ColumnGuess[] {
  const sample = rows.slice(0, 400);
  const columns = headings.map((heading, i) => ({
    heading,
    cells: sample.map((row) => row[i]?.trim() ?? '').filter((cell) => cell !== ''),
  }));
  const standing = standingColumns(
    headings,
    columns.map(({ cells }) => cells),
    places,
  );
  const told = { person: true, company: true, deal: standing.deals, application: standing.applications };
  const known = listTargetsOf(fields)
    .filter((target) => target !== 'leave out' && told[targetParts(target)?.record ?? 'person'])
    .map((target) => knowing(target, fields));
  const scored = columns.flatMap(({ heading, cells }, column) => known.map((entry) => score(column, said(heading), cells, entry)));
  const given = new Map<number, Scored>(
    standing.columns.map((entry) => [entry.column, { ...entry, score: 0, heading: entry.share > 0.9 }]),
  );
  const taken = new Set<Target>(standing.columns.map(({ target }) => target));
  for (const entry of scored.filter(({ score: points }) => points >= 1.5).sort((a, b) => b.score - a.score)) {
    if (given.has(entry.column) || taken.has(entry.target) || isSaidInParts(entry.target, taken)) continue;
    given.set(entry.column, entry);
    if (entry.target !== 'note') taken.add(entry.target);
  }
  const place = taken.has('company.city') ? undefined : placeBeside(columns, given);
  if (place) given.set(place.column, place);
  return columns.map(({ heading, cells }, column) => {
    const best = given.get(column);
    const samples = [...new Set(cells)].slice(0, 3);
    if (!best)
      return {
        heading,
        target: 'leave out',
        why: cells.length === 0 ? 'always empty' : `${new Set(cells).size} different values, nothing like a field`,
        sure: cells.length === 0,
        samples,
      };
    const field = targetField(best.target, fields);
    return { heading, target: best.target, why: why(best, cells, rows.length, field), sure: best.heading && best.share > 0.6, samples };
  });
}

const isPlace: ContentTest = (cell) => /^\p{Lu}[\p{L}.'’() -]{1,39}$/u.test(cell) && cell.split(/\s+/).length <= 4;
/** Names of places are told from no other names by themselves: what stands right beside the postcodes is taken for them. */
function placeBeside(columns: readonly { readonly cells: readonly string[] }[], given: ReadonlyMap<number, Scored>): Scored | undefined {
  const code = [...given.values()].find((entry) => entry.target === 'company.postcode')?.column;
  if (code === undefined) return undefined;
  for (const column of [code + 1, code - 1]) {
    const cells = columns[column]?.cells ?? [];
    const share = cells.filter(isPlace).length / Math.max(1, cells.length);
    if (!given.has(column) && cells.length > 0 && share >= 0.9) return { column, target: 'company.city', score: 0, heading: false, share };
  }
  return undefined;
}

/** A name in two columns is in no third one: what looks like one there is something else. */
const isSaidInParts = (target: Target, taken: ReadonlySet<Target>): boolean =>
  target === 'person.name' && taken.has('person.first_name') && taken.has('person.last_name');

function score(
  column: number,
  heading: string,
  cells: readonly string[],
  { target, heading: calls, cell, bears, weight }: Knowing,
): Scored {
  const headingFits = calls(heading);
  const share = cell && cells.length > 0 ? cells.filter(cell).length / cells.length : 0;
  const fitting = bears ? cells.filter((text) => bears(text) || cell?.(text)).length / Math.max(1, cells.length) : share;
  const contradicts =
    (NOT[target]?.test(heading) ?? false) ||
    (cell !== undefined && target !== 'company.name' && target !== 'note' && cells.length > 2 && fitting < 0.1);
  // A heading over nothing says less than another column that holds such values.
  const called = !headingFits ? 0 : cells.length === 0 ? 1.6 : HEADINGS[target]?.test(heading) ? 3.1 : 3;
  return {
    column,
    target,
    heading: headingFits,
    share: cell ? share : headingFits ? 1 : 0,
    score: called + weight(share) - (contradicts ? 2.5 : 0) - firms(target, cells),
  };
}

/** Firms in a column speak against its being people. */
const firms = (target: Target, cells: readonly string[]): number =>
  target === 'person.name' && cells.length > 0 ? (3 * cells.filter((cell) => LEGAL.test(cell)).length) / cells.length : 0;

function why(best: Scored, cells: readonly string[], rowCount: number, field: Field | undefined): string {
  const empty = rowCount <= 400 ? rowCount - cells.length : 0;
  const parts: string[] = [];
  if (best.target === 'person.email') {
    const bad = cells.filter((cell) => !readTyped({ type: 'e-mail' }, cell).ok).length;
    parts.push(`${cells.length - bad} valid`);
    if (bad > 0) parts.push(`${bad} not an address`);
  } else if (best.target === 'person.name' && cells.filter((cell) => cell.includes(',')).length > 0)
    parts.push(`family name first in ${cells.filter((cell) => cell.includes(',')).length}`);
  else if (best.target === 'company.website') parts.push(`https added to ${cells.filter((cell) => !/^https?:/i.test(cell)).length}`);
  else if (field?.bare && field.unit !== undefined) {
    const { above, unit } = field.bare;
    const bare = cells.some((cell) => Number(cell.replace(/[^\d]/g, '')) > above && !/\p{L}/u.test(cell));
    parts.push(bare ? `mixed units: over ${above} is read as ${unit}` : `in ${field.unit}`);
  } else if (best.target === 'person.phone' || best.target === 'person.mobile') {
    const national = cells.filter((cell) => !/^(\+|00)/.test(cell)).length;
    parts.push(national > 0 ? `national form in ${national}` : 'with country prefix');
  } else parts.push(best.heading ? 'by its heading' : 'by its contents');
  if (empty > 0) parts.push(`${empty} empty`);
  return parts.join(', ');
}
