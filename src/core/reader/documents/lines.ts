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
  /** the section it belongs to; '' above the first heading */
  readonly section: string;
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

/** The lines of a text by section. A label before a colon (“Languages: German”) is the heading of its own line only. */
export function documentLines(text: string, sections: Sections): readonly DocumentLine[] {
  const heads = Object.entries(sections).map(([name, words]) => [name, new RegExp(`^(?:${words})$`)] as const);
  const named = (words: string): string | undefined => heads.find(([, pattern]) => pattern.test(words))?.[0];
  const out: DocumentLine[] = [];
  let section = '';
  for (const line of text.split(/\r?\n/).flatMap((raw) => pieces(raw.replace(/\s+/g, ' ').trim()))) {
    const folded = plainFold(line);
    if (line === '' || speaksToMachines(folded)) continue;
    const heading = folded.length > HEADING_MAX ? undefined : named(folded.replace(/^[\d.\s]+|[^\p{L}\p{N}]{1,40}$/gu, ''));
    if (heading !== undefined) {
      section = heading;
      continue;
    }
    const label = /^([^:]{2,40}):\s+(\S.*)$/.exec(line);
    const under = label && named(plainFold(label[1] ?? '').replace(BULLET, ''));
    const own = under ? (label[2] ?? '') : line;
    const bare = own.replace(BULLET, '');
    out.push({ text: bare, folded: plainFold(bare), even: evenFold(bare), bullet: bare !== own, section: under ?? section });
  }
  return out;
}

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
