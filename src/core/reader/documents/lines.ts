import { fold, pieces } from '../../base';
import { speaksToMachines } from '../skills/standing';

/** One line of a document with the heading it stands under. */
export interface DocumentLine {
  /** as it stands, without its bullet */
  readonly text: string;
  readonly folded: string;
  /** folded as far as every letter keeps its place: offsets in it are offsets in `text` */
  readonly even: string;
  readonly bullet: boolean;
  /** the folded words before a colon that head this line alone; '' without */
  readonly label: string;
  /** the section it belongs to; '' above the first heading */
  readonly section: string;
  /** below a line that had a heading of its own: it may belong to the section above that, or to none */
  readonly loose: boolean;
}

/** Sections by the words that head them, folded; en, de, nl, es, fr. */
export type Sections = Readonly<Record<string, string>>;

const BULLET = /^\s*(?:[-–—•·*▪◦‣►●○✓]|\d{1,2}[.)])\s+/;
const HEADING_MAX = 48;

export const plainFold = (text: string): string =>
  fold(text)
    .replace(/[’‘`´]/g, "'")
    .replace(/\s+/g, ' ')
    .trim();

export const evenFold = (text: string): string =>
  [...text]
    .map((letter) => {
      const folded = letter === '’' ? "'" : fold(letter);
      return folded.length === letter.length ? folded : letter.toLowerCase().slice(0, letter.length);
    })
    .join('');

/** A heading's parts: what it joins, and what it says before it says of what. */
const partsOf = (words: string, ofWhat: boolean): readonly string[] => {
  const joined = words.split(/\s(?:and|&|und|en|y|e|et|\/)\s/).filter((part) => part.length > 3);
  const [about = ''] = words.split(/\s(?:for|of|to|an|fur|der|des|von|zu[rm]?|voor|van|aan|para|de|del|pour|du)\s/);
  return [...(joined.length > 1 ? joined : []), ...(ofWhat && about !== words && about.length > 5 ? [about] : [])];
};

/**
 * The lines of a text by section. A label before a colon (“Languages: German”) is the heading of its own line
 * only. `headingsSayOfWhat`: “Requirements for the hall” is a heading; on a CV such a line is as often what somebody learned.
 */
export function documentLines(text: string, sections: Sections, headingsSayOfWhat = false): readonly DocumentLine[] {
  const heads = Object.entries(sections).map(([name, words]) => [name, new RegExp(`^(?:${words})$`)] as const);
  const exactly = (words: string): string | undefined => heads.find(([, pattern]) => pattern.test(words))?.[0];
  // “Wensen en eisen” and “Requirements for the hall” are headed by what they are made of.
  const named = (words: string): string | undefined =>
    exactly(words) ??
    (words.split(' ').length > 7 || /[.,!?@\d]/.test(words)
      ? undefined
      : partsOf(words, headingsSayOfWhat)
          .map(exactly)
          .find((name) => name !== undefined));
  const out: DocumentLine[] = [];
  let section = '';
  let loose = false;
  for (const line of withoutQuotations(text.split(/\r?\n/)).flatMap((raw) => pieces(raw.replace(/[^\S\t]+/g, ' ').trim()))) {
    const folded = plainFold(line);
    if (line === '' || speaksToMachines(folded)) continue;
    const heading =
      folded.length > HEADING_MAX
        ? undefined
        : named(folded.replace(/^(?:[\d.\s]+|[a-h][.)]\s+|[ivx]{1,4}[.)]\s+)|[^\p{L}\p{N}]{1,40}$/gu, ''));
    if (heading !== undefined) {
      section = heading;
      loose = false;
      continue;
    }
    const label = /^([^:]{2,40}):\s+(\S.*)$/.exec(line);
    const under = label && named(plainFold(label[1] ?? '').replace(BULLET, ''));
    const own = under ? (label[2] ?? '') : line;
    const bare = own.replace(BULLET, '');
    out.push({
      text: bare,
      folded: plainFold(bare),
      even: evenFold(bare),
      bullet: bare !== own,
      label: under === undefined ? '' : plainFold(label?.[1] ?? ''),
      section: under ?? section,
      loose: !under && loose,
    });
    if (under && under !== section) loose = true;
  }
  return out;
}

const INTRODUCES = /(?:wrote|schrieb|schreef|a ecrit|escribio)\s*(?::\s*)?$/;

/** What an older mail said is quoted, not said: lines behind “>” and the one that introduces them. */
const withoutQuotations = (lines: readonly string[]): readonly string[] =>
  lines.filter((line, i) => !/^\s*>/.test(line) && !(/^\s*>/.test(lines[i + 1] ?? '') && INTRODUCES.test(plainFold(line))));

/** The things a line lists: parted by semicolons, bars or commas, but not inside brackets. */
export function listed(line: string): readonly string[] {
  const by = /[;|•·]/.test(line) ? /[;|•·]/ : /,/;
  const out: string[] = [];
  let depth = 0;
  let piece = '';
  for (const letter of line) {
    if (letter === '(') depth++;
    if (letter === ')') depth = Math.max(0, depth - 1);
    if (depth === 0 && by.test(letter)) {
      out.push(piece);
      piece = '';
    } else piece += letter;
  }
  return [...out, piece].map((entry) => entry.trim().replace(/[.,]$/, '')).filter((entry) => /\p{L}/u.test(entry));
}
