import ICAL from 'ical.js';

/** The columns a card becomes, called so that they are known for what they are. */
export const CARD_HEADINGS = ['Name', 'E-mail', 'Phone', 'Company', 'Role', 'Web site', 'City', 'Country', 'Notes'] as const;

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

function cellsOf(source: string): readonly string[] {
  try {
    const card = new ICAL.Component(ICAL.parse(source.replace(/\r?\n/g, '\r\n')) as ConstructorParameters<typeof ICAL.Component>[0]);
    const one = (name: string): string => words(card.getFirstPropertyValue(name));
    const address = partsOf(card.getFirstPropertyValue('adr'));
    const name = one('fn') || namedIn(partsOf(card.getFirstPropertyValue('n')));
    const firm = partsOf(card.getFirstPropertyValue('org'))[0] ?? '';
    return [
      name,
      one('email'),
      one('tel').replace(/^tel:/i, ''),
      firm,
      one('title') || one('role'),
      one('url'),
      address[3] ?? '',
      address[6] ?? '',
      one('note'),
    ];
  } catch {
    return CARD_HEADINGS.map((heading) => (heading === 'Notes' ? 'this card cannot be read' : ''));
  }
}

/** `Family;Given;…` as it is said. */
const namedIn = ([family = '', given = '']: readonly string[]): string => `${given} ${family}`.trim();

function partsOf(value: unknown): readonly string[] {
  return (Array.isArray(value) ? value : [value]).map(words);
}
function words(value: unknown): string {
  if (Array.isArray(value)) return value.map(words).filter(Boolean).join(' ');
  return typeof value === 'string' ? value.trim() : typeof value === 'number' ? String(value) : '';
}
