import ICAL from 'ical.js';
import { decoderOf } from '../base';

/** The columns a card becomes, called so that they are known for what they are. */
export const CARD_HEADINGS = [
  'Name',
  'E-mail',
  'Phone',
  'Company',
  'Role',
  'Web site',
  'City',
  'Country',
  'Notes',
  'Language',
  'Second e-mail',
  'Mobile',
  'Street',
  'Postcode',
] as const;

export interface Card {
  readonly cells: readonly string[];
  /** its first line in the file, 1-based */
  readonly line: number;
}

/** Whether a file holds vCards. */
export function isVCard(text: string): boolean {
  return /^[ \t]{0,20}BEGIN:VCARD[ \t]{0,20}\r?$/im.test(text.slice(0, 500));
}

/** Every card of a vCard file (RFC 6350, and 3.0) as a row. A card that cannot be read is a row that says so. */
export function readCards(text: string): readonly Card[] {
  const out: Card[] = [];
  let begun: number | undefined;
  const lines = text.split('\n');
  lines.forEach((line, no) => {
    const word = line.length > 40 ? '' : line.trim().toUpperCase();
    if (word === 'BEGIN:VCARD') begun = no;
    if (word !== 'END:VCARD' || begun === undefined) return;
    out.push({ cells: cellsOf(lines.slice(begun, no + 1).join('\n')), line: begun + 1 });
    begun = undefined;
  });
  return out;
}

/**
 * Older cards as the reader of new ones takes them: values in quoted-printable (RFC 2045) are decoded, with their soft line breaks,
 * and a parameter by itself (`TEL;WORK`) is a type. Only a value that says it is quoted-printable goes on behind a `=`.
 */
function modern(source: string): string {
  const lines = source.split(/\r?\n/);
  const out: string[] = [];
  for (let i = 0; i < lines.length; i++) {
    const line = lines[i] ?? '';
    const colon = line.indexOf(':');
    const [name = '', ...params] = colon < 0 || /^[ \t]/.test(line) ? [] : line.slice(0, colon).split(';');
    if (name === '' || params.length === 0) {
      out.push(line);
      continue;
    }
    const isQuoted = params.some((param) => /^(?:ENCODING=)?QUOTED-PRINTABLE$/i.test(param));
    let value = line.slice(colon + 1);
    while (isQuoted && value.endsWith('=') && i + 1 < lines.length) value = value.slice(0, -1) + (lines[++i] ?? '');
    const charset = params.find((param) => /^CHARSET=/i.test(param))?.slice(8);
    const kept = params
      .filter((param) => !isQuoted || !/^(?:(?:ENCODING=)?QUOTED-PRINTABLE|CHARSET=.*)$/i.test(param))
      .map((param) => (param.includes('=') ? param : `TYPE=${param}`));
    out.push(`${[name, ...kept].join(';')}:${isQuoted ? unquoted(value, charset) : value}`);
  }
  return out.join('\r\n');
}

function unquoted(value: string, charset: string | undefined): string {
  const bytes = new Uint8Array(value.length);
  let length = 0;
  for (let i = 0; i < value.length; i++) {
    const code = value[i] === '=' ? Number.parseInt(value.slice(i + 1, i + 3), 16) : Number.NaN;
    if (Number.isNaN(code)) bytes[length++] = value.charCodeAt(i) & 0xff;
    else {
      bytes[length++] = code;
      i += 2;
    }
  }
  const isWestern = charset !== undefined && /^(?:iso-8859-|windows-125|latin)/i.test(charset);
  const text = decoderOf(isWestern ? 'windows-1252' : 'utf-8').decode(bytes.subarray(0, length));
  const escaped = text.replace(/(?<!\\),/g, '\\,');
  return escaped.replace(/\r\n|\r|\n/g, '\\n');
}

function cellsOf(source: string): readonly string[] {
  try {
    const card = new ICAL.Component(ICAL.parse(modern(source)) as ConstructorParameters<typeof ICAL.Component>[0]);
    const one = (name: string): string => words(card.getFirstPropertyValue(name));
    const address = partsOf(workFirst(card.getAllProperties('adr'))?.getFirstValue());
    const [email = '', secondEmail = ''] = preferredFirst(card.getAllProperties('email')).map(valueOf);
    const numbers = card.getAllProperties('tel').filter((tel) => !isOf(tel, 'fax'));
    const mobile = numbers.find((tel) => isOf(tel, 'cell'));
    const phone = preferredFirst(numbers.filter((tel) => tel !== mobile))[0];
    const parts = partsOf(card.getFirstPropertyValue('n'));
    const said = one('fn') || namedIn(parts);
    const organisation = partsOf(card.getFirstPropertyValue('org'))[0] ?? '';
    // The card of a firm names nobody.
    const isFirm =
      /^org/i.test(one('kind')) ||
      /company/i.test(one('x-abshowas')) ||
      (organisation !== '' && said === organisation && parts.every((part) => part === ''));
    const name = isFirm ? '' : said;
    const firm = organisation || (isFirm ? said : '');
    return [
      name,
      email,
      phone ? valueOf(phone) : '',
      firm,
      one('title') || one('role'),
      one('url'),
      address[3] ?? '',
      address[6] ?? '',
      one('note')
        .replace(/\\([;,\\])/g, '$1')
        .replace(/\\n/gi, ' '),
      one('lang').slice(0, 2).toLowerCase(),
      secondEmail,
      mobile ? valueOf(mobile) : '',
      address[2] ?? '',
      address[5] ?? '',
    ];
  } catch {
    return CARD_HEADINGS.map((heading) => (heading === 'Notes' ? 'this card cannot be read' : ''));
  }
}

type Property = InstanceType<typeof ICAL.Property>;
const valueOf = (property: Property): string => words(property.getFirstValue()).replace(/^tel:/i, '');
/** Whether a property says it is of a type (`TYPE=work,cell`, or in older cards one parameter for each). */
function isOf(property: Property, type: string): boolean {
  const said: unknown = property.getParameter('type') ?? [];
  const types = (Array.isArray(said) ? said : [said]).filter((one) => typeof one === 'string');
  return types.some((one) => one.toLowerCase().split(',').includes(type));
}
/** Those that are said to be preferred come first (`PREF=1`, or the type `pref`), others in their order. */
const preferredFirst = (all: readonly Property[]): readonly Property[] =>
  [...all].sort((a, b) => rank(a) - rank(b)).filter((property) => valueOf(property) !== '');
const rank = (property: Property): number => (isOf(property, 'pref') ? 0 : Number(property.getParameter('pref') ?? 101));
const workFirst = (all: readonly Property[]): Property | undefined => all.find((property) => isOf(property, 'work')) ?? all[0];

/** `Family;Given;…` as it is said. */
const namedIn = ([family = '', given = '']: readonly string[]): string => `${given} ${family}`.trim();

function partsOf(value: unknown): readonly string[] {
  return (Array.isArray(value) ? value : [value]).map(words);
}
function words(value: unknown): string {
  if (Array.isArray(value)) return value.map(words).filter(Boolean).join(' ');
  return typeof value === 'string' ? value.trim() : typeof value === 'number' ? String(value) : '';
}
