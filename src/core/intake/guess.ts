import { fold } from '../base';
import { fieldOf, readTyped } from '../facts';

/** What a column can be taken as: a field of the person or the company, a note, or nothing. */
export const TARGETS = [
  'person.name',
  'person.first_name',
  'person.last_name',
  'person.job_title',
  'person.email',
  'person.phone',
  'person.language',
  'person.met_at',
  'company.name',
  'company.website',
  'company.phone',
  'company.city',
  'company.country',
  'company.employees',
  'company.heated_area',
  'company.main_crop',
  'company.controls',
  'company.controls_since',
  'company.energy',
  'company.sites',
  'note',
  'leave out',
] as const;
export type Target = (typeof TARGETS)[number];

export interface ColumnGuess {
  readonly heading: string;
  readonly target: Target;
  /** why, in words for the builder */
  readonly why: string;
  readonly sure: boolean;
  readonly samples: readonly string[];
}

export function targetLabel(target: Target): string {
  if (target === 'note') return 'note on the person';
  if (target === 'leave out') return 'leave out';
  const [record = '', key = ''] = target.split('.');
  if (target === 'person.name') return 'person · full name';
  const label = record === 'company' ? fieldOf('company', key)?.label : fieldOf('person', key)?.label;
  return target === 'company.name' ? 'company · name' : `${record} · ${(label ?? key).replace(/^company /, '')}`;
}

/** Folded headings in seven languages; the whole heading counts more than a part of it. */
const HEADINGS: Readonly<Partial<Record<Target, RegExp>>> = {
  'person.first_name': /^(?:first(?: ?name)?|given(?: ?name)?|forename|vorname|voornaam|nombre|prenom|imie|nome)$/,
  'person.last_name': /^(?:last(?: ?name)?|family(?: ?name)?|surname|nachname|achternaam|apellidos?|nom|nazwisko|cognome)$/,
  'person.name':
    /^(?:name|full ?name|visitor|bezoeker|naam|contact(?: ?person| name)?|ansprechpartner|besucher|visitante|contacto|persona|osoba|who|person|gast)$/,
  'person.job_title': /role|function|functie|funktion|position|job|title|cargo|puesto|stanowisko/,
  'person.email': /mail|correo|e-?adres/,
  'person.phone': /phone|tel|mobile?|mobiel|handy|fono|movil|nummer|call/,
  'person.language': /language|sprache|taal|idioma|jezyk/,
  'person.met_at': /stand|booth|hall|where met|halle|pabellon/,
  'company.name':
    /company|employer|works (?:at|for)|firm|firma|bedrijf|business|organi[sz]ation|empresa|unternehmen|account|nursery|grower|kwekerij|betrieb/,
  'company.website': /site|web|url|page|pagina|domain|www/,
  'company.city': /city|town|place|plaats|ort|ciudad|miasto|woonplaats|localidad/,
  'company.country': /country|land|pais|kraj|nation/,
  'company.employees': /employees|staff|people|mitarbeiter|medewerkers|empleados|headcount/,
  'company.heated_area': /area|glas|hectare|\bha\b|flache|oppervlak|superficie|m2|size|powierzchni/,
  'company.main_crop': /crop|gewas|kultur|cultivo|uprawa|teelt|produce/,
  'company.controls': /control|computer|regel|steuer|sterow/,
  note: /note|remark|comment|opmerking|bemerkung|anmerkung|observaci|notas|uwagi|interest/,
};

type ContentTest = (cell: string) => boolean;
const CONTENT: Readonly<Partial<Record<Target, ContentTest>>> = {
  'person.email': (cell) => /@/.test(cell),
  'person.phone': (cell) => /^[+(]?[\d][\d ()/.+-]{6,}$/.test(cell) && cell.replace(/\D/g, '').length >= 8,
  'company.website': (cell) => readTyped({ type: 'site' }, cell).ok && !/@/.test(cell),
  'company.heated_area': (cell) => /^\d[\d., ]{0,30}(?:ha|m2|m²|hectare\w{0,4})?$/i.test(cell) && cell.replace(/\D/g, '').length < 8,
  'company.name': (cell) =>
    !/[@/]|\.[a-z]{2,}$/i.test(cell) &&
    /\b(?:ltd|gmbh|b\.?v\.?|s\.?l\.?|n\.?v\.?|sp\. z|srl|aps|sons|nursery|nurseries|growers?|glass|kwekerij|gärtnerei|viveros?|kwiat|serres?|vivai)\b/i.test(
      cell,
    ),
  'person.name': (cell) =>
    /^(?:(?:dr|ir|ing|dhr|mw|mevr|herr|frau|mr|mrs|ms|sr|sra)\.?\s+)?\p{Lu}[\p{L}.'’-]*,?(?:\s+\p{L}[\p{L}.'’-]*){1,3}$/u.test(cell),
  'company.country': (cell) => COUNTRY_CODES[fold(cell)] !== undefined,
  'person.language': (cell) => /^(?:en|de|nl|es|pl|fr|it|da)$/i.test(cell),
  note: (cell) => cell.length > 35,
};

export const COUNTRY_CODES: Readonly<Record<string, string>> = {
  gb: 'GB',
  uk: 'GB',
  'united kingdom': 'GB',
  england: 'GB',
  scotland: 'GB',
  wales: 'GB',
  nl: 'NL',
  nederland: 'NL',
  netherlands: 'NL',
  'the netherlands': 'NL',
  de: 'DE',
  deutschland: 'DE',
  germany: 'DE',
  es: 'ES',
  spain: 'ES',
  espana: 'ES',
  pl: 'PL',
  poland: 'PL',
  polska: 'PL',
  fr: 'FR',
  france: 'FR',
  be: 'BE',
  belgium: 'BE',
  belgie: 'BE',
  it: 'IT',
  italy: 'IT',
  italia: 'IT',
  dk: 'DK',
  denmark: 'DK',
  danmark: 'DK',
  ie: 'IE',
  ireland: 'IE',
  no: 'NO',
  norway: 'NO',
  norge: 'NO',
  se: 'SE',
  sweden: 'SE',
  pt: 'PT',
  portugal: 'PT',
  at: 'AT',
  austria: 'AT',
};

interface Scored {
  readonly column: number;
  readonly target: Target;
  readonly score: number;
  readonly heading: boolean;
  readonly share: number;
}

/** Guesses what each column is from its heading and its contents; each target but `note` is given to one column only. */
export function guessColumns(headings: readonly string[], rows: readonly (readonly string[])[]): readonly ColumnGuess[] {
  const sample = rows.slice(0, 400);
  const columns = headings.map((heading, i) => ({
    heading,
    cells: sample.map((row) => row[i]?.trim() ?? '').filter((cell) => cell !== ''),
  }));
  const scored = columns.flatMap(({ heading, cells }, column) =>
    TARGETS.filter((target) => target !== 'leave out').map((target) => score(column, heading, cells, target)),
  );
  const given = new Map<number, Scored>();
  const taken = new Set<Target>();
  for (const entry of scored.filter(({ score: points }) => points >= 1.5).sort((a, b) => b.score - a.score)) {
    if (given.has(entry.column) || taken.has(entry.target)) continue;
    given.set(entry.column, entry);
    if (entry.target !== 'note') taken.add(entry.target);
  }
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
    return { heading, target: best.target, why: why(best, cells, rows.length), sure: best.heading && best.share > 0.6, samples };
  });
}

function score(column: number, heading: string, cells: readonly string[], target: Target): Scored {
  const folded = fold(heading)
    .replace(/[_.:*#]+/g, ' ')
    .trim();
  const pattern = HEADINGS[target];
  const test = CONTENT[target];
  const headingFits = pattern?.test(folded) ?? false;
  const share = test && cells.length > 0 ? cells.filter(test).length / cells.length : 0;
  const contradicts = test !== undefined && target !== 'company.name' && target !== 'note' && cells.length > 2 && share < 0.1;
  return {
    column,
    target,
    heading: headingFits,
    share: test ? share : headingFits ? 1 : 0,
    score: (headingFits ? 3 : 0) + contentScore(target, share) - (contradicts ? 2.5 : 0),
  };
}

/** Contents that are hardly ever anything else: even a list where every third one is broken shows what the column is. */
const TELLING: ReadonlySet<Target> = new Set(['person.email', 'person.phone', 'company.website', 'company.name']);

function contentScore(target: Target, share: number): number {
  if (target === 'person.name' || target === 'company.heated_area') return share * 1.6;
  return TELLING.has(target) && share >= 0.3 ? 1.2 + share * 1.3 : share * 2.5;
}

function why(best: Scored, cells: readonly string[], rowCount: number): string {
  const empty = rowCount <= 400 ? rowCount - cells.length : 0;
  const parts: string[] = [];
  if (best.target === 'person.email') {
    const bad = cells.filter((cell) => !readTyped({ type: 'e-mail' }, cell).ok).length;
    parts.push(`${cells.length - bad} valid`);
    if (bad > 0) parts.push(`${bad} not an address`);
  } else if (best.target === 'person.name' && cells.filter((cell) => cell.includes(',')).length > 0)
    parts.push(`family name first in ${cells.filter((cell) => cell.includes(',')).length}`);
  else if (best.target === 'company.website') parts.push(`https added to ${cells.filter((cell) => !/^https?:/i.test(cell)).length}`);
  else if (best.target === 'company.heated_area')
    parts.push(
      cells.some((cell) => Number(cell.replace(/[^\d]/g, '')) > 100 && !/ha/i.test(cell))
        ? 'mixed units: over 100 is read as m²'
        : 'hectares',
    );
  else if (best.target === 'person.phone') {
    const national = cells.filter((cell) => !/^(\+|00)/.test(cell)).length;
    parts.push(national > 0 ? `national form in ${national}` : 'with country prefix');
  } else parts.push(best.heading ? 'by its heading' : 'by its contents');
  if (empty > 0) parts.push(`${empty} empty`);
  return parts.join(', ');
}
