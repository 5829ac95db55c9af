/** Which letters the bytes of a list stand for, told by what they spell. */
import { decoderOf } from '../base';

export const ENCODINGS = [
  'UTF-8',
  'UTF-16',
  'Windows-1252',
  'Windows-1250',
  'Windows-1254',
  'ISO-8859-2',
  'ISO-8859-15',
  'Mac Roman',
  'Windows-1251',
  'Windows-1253',
] as const;
export type Encoding = (typeof ENCODINGS)[number];

const LABELS: Readonly<Record<Encoding, string>> = {
  'UTF-8': 'utf-8',
  'UTF-16': 'utf-16le',
  'Windows-1252': 'windows-1252',
  'Windows-1250': 'windows-1250',
  'Windows-1254': 'windows-1254',
  'ISO-8859-2': 'iso-8859-2',
  'ISO-8859-15': 'iso-8859-15',
  'Mac Roman': 'macintosh',
  'Windows-1251': 'windows-1251',
  'Windows-1253': 'windows-1253',
};

/** A decoder for the whole of a file. */
export const decodeTable = (encoding: Encoding, bigEndian = false): Pick<TextDecoder, 'decode'> =>
  decoderOf(encoding === 'UTF-16' && bigEndian ? 'utf-16be' : LABELS[encoding]);

/** Letters beyond ASCII that a language writes, small ones. */
const ALPHABETS: readonly ReadonlySet<string>[] = [
  'äöüß',
  'éèêëàâçîïôùûüœæ',
  'áéíóúñü',
  'ãõáâàéêíóôúç',
  'àèéìòù',
  'ëïéèöü',
  'æøåé',
  'åäöé',
  'áðéíóúýþæö',
  'ąćęłńóśźż',
  'áčďéěíňóřšťúůýž',
  'áäčďéíĺľňóôŕšťúýž',
  'áéíóöőúüű',
  'ăâîșțşţ',
  'čćđšž',
  'çğıöşüâ',
].map((letters) => new Set(letters));
/** Marks that stand beside words, and not in them. */
const MARKS = new Set('‘“”„«»–—…€·´`°²ºª§®©™\u00a0');
const LETTER = /\p{L}/u;
const OTHER_SCRIPT = /[\p{Script=Cyrillic}\p{Script=Greek}]/u;
const OTHER_VOWEL = /[аеёиоуыэюяіїαεηιουωάέήίόύώ]/iu;
/** Of the letters of a word in such a script, about so many are vowels. */
const [FEW_VOWELS, MANY_VOWELS] = [0.3, 0.62];

/** A letter in capitals behind a small one: no word is written so. */
const shouts = (letter: string, before: string): boolean => letter !== letter.toLowerCase() && /\p{Ll}/u.test(before);

/** What stands in a line beside letters: a mark at its place says little, anything inside a word speaks against the reading. */
function markFits(letter: string, before: string, after: string): number {
  if (letter === '’') return 0.3;
  if (/\p{Cc}/u.test(letter) || letter === '\ufffd') return -2;
  const inside = LETTER.test(before) && LETTER.test(after);
  if (MARKS.has(letter)) return inside ? -2 : 0.1;
  return inside || LETTER.test(before) || LETTER.test(after) ? -2 : -0.5;
}

/** How well a line reads: its letters should be those of one language. */
function lineFits(line: string): number {
  let sum = 0;
  const latin: string[] = [];
  let [others, vowels] = [0, 0];
  for (let i = 0; i < line.length; i++) {
    const letter = line[i] ?? '';
    if (letter <= '\u007f') continue;
    const [before, after] = [line[i - 1] ?? ' ', line[i + 1] ?? ' '];
    if (!LETTER.test(letter)) sum += markFits(letter, before, after);
    // Icelandic begins words with it; within one it is Turkish read wrongly.
    else if (letter === 'þ' && LETTER.test(before)) sum -= 3;
    else if (shouts(letter, before)) sum -= 3;
    else if (!OTHER_SCRIPT.test(letter)) latin.push(letter.toLowerCase());
    else {
      others++;
      if (OTHER_VOWEL.test(letter)) vowels++;
      // One such letter among Latin ones is none.
      if (!OTHER_SCRIPT.test(before) && !OTHER_SCRIPT.test(after)) sum -= 2;
    }
  }
  if (others > 0) sum += vowels / others > FEW_VOWELS && vowels / others < MANY_VOWELS ? others : -others;
  const spoken = Math.max(...ALPHABETS.map((alphabet) => latin.reduce((fits, letter) => fits + (alphabet.has(letter) ? 1 : -1), 0)));
  // Accented letters come one by one: a line with more of them than others is another alphabet read wrongly.
  return sum + (latin.length > line.length / 2 ? -latin.length : spoken);
}

const score = (text: string): number => text.split(/[\r\n]+/).reduce((sum, line) => sum + lineFits(line), 0);

/** Bytes looked at: a list of one business is written in a few languages. */
export const SAMPLE_BYTES = 64 * 1024;

/** The encoding of a text of one byte a letter; the first of the list where several read it as well. */
export function eightBitOf(bytes: Uint8Array): Encoding {
  const sample = linesBeyondAscii(bytes);
  const read = ENCODINGS.slice(2).map((encoding) => ({ encoding, score: score(decodeTable(encoding).decode(sample)) }));
  const best = Math.max(...read.map((entry) => entry.score));
  return read.find((entry) => entry.score === best)?.encoding ?? 'Windows-1252';
}

/** Only lines that have letters beyond ASCII say anything. */
export function linesBeyondAscii(bytes: Uint8Array): Uint8Array {
  const out: number[] = [];
  let from = 0;
  for (let i = 0; i <= bytes.length && out.length < SAMPLE_BYTES; i++) {
    if (i < bytes.length && bytes[i] !== 0x0a && bytes[i] !== 0x0d) continue;
    const line = bytes.subarray(from, i);
    if (line.some((byte) => byte > 0x7f)) out.push(...line.subarray(0, 4_000), 0x0a);
    from = i + 1;
  }
  return Uint8Array.from(out);
}

/** The encoding of the bytes; `cut`: they are the first part of a file and may end inside a letter. */
export function encodingOf(bytes: Uint8Array, cut: boolean): { readonly encoding: Encoding; readonly bigEndian: boolean } {
  if ((bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff))
    return { encoding: 'UTF-16', bigEndian: bytes[0] === 0xfe };
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes, { stream: cut });
    return { encoding: 'UTF-8', bigEndian: false };
  } catch {
    return { encoding: eightBitOf(bytes), bigEndian: false };
  }
}
