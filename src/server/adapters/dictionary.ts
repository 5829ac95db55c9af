import fs from 'node:fs';
import path from 'node:path';
import { inflateRawSync } from 'node:zlib';
import { fold } from '../../core/base';
import type { Dictionary } from '../ports';

/** Where Debian's packages of dictionaries (dict-freedict-*) put them. */
const FOLDER = '/usr/share/dictd';
const LANGUAGES = { en: 'eng', de: 'deu', nl: 'nld', fr: 'fra', es: 'spa' } as const;
type Language = keyof typeof LANGUAGES;
const DIGITS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
const number = (text: string): number => [...text].reduce((sum, digit) => sum * 64 + DIGITS.indexOf(digit), 0);

/** One dictionary in the dictd format: an index of words, and entries in pieces that are unpacked one by one (dictzip). */
class Volume {
  private readonly index: Buffer;
  private readonly packed: Buffer;
  private readonly pieceLength: number;
  private readonly starts: readonly number[];

  constructor(name: string, folder: string) {
    this.index = fs.readFileSync(path.join(folder, `freedict-${name}.index`));
    this.packed = fs.readFileSync(path.join(folder, `freedict-${name}.dict.dz`));
    // RFC 1952: the extra field “RA” holds the length of a piece unpacked, and of each piece packed.
    const extra = this.packed.readUInt16LE(10);
    this.pieceLength = this.packed.readUInt16LE(18);
    const count = this.packed.readUInt16LE(20);
    let at = 12 + extra;
    const flags = this.packed[3] ?? 0;
    for (const flag of [8, 16]) if (flags & flag) at = this.packed.indexOf(0, at) + 1;
    if (flags & 2) at += 2;
    const starts = [at];
    for (let i = 0; i < count; i++) starts.push((at += this.packed.readUInt16LE(22 + 2 * i)));
    this.starts = starts;
  }

  private text(from: number, length: number): string {
    const first = Math.floor(from / this.pieceLength);
    const last = Math.floor((from + length - 1) / this.pieceLength);
    const parts: Buffer[] = [];
    for (let i = first; i <= last; i++)
      parts.push(inflateRawSync(this.packed.subarray(this.starts[i], this.starts[i + 1]), { finishFlush: 2 }));
    return Buffer.concat(parts)
      .subarray(from - first * this.pieceLength, from - first * this.pieceLength + length)
      .toString('utf8');
  }

  entries(word: string): readonly string[] {
    const out: string[] = [];
    const wanted = Buffer.from(`\n${word}\t`);
    for (let at = this.index.indexOf(wanted); at >= 0 && out.length < MOST_ENTRIES; at = this.index.indexOf(wanted, at + 1)) {
      const end = this.index.indexOf(10, at + 1);
      const [, from = '', length = ''] = this.index
        .subarray(at + 1, end < 0 ? undefined : end)
        .toString('utf8')
        .split('\t');
      out.push(this.text(number(from), number(length)));
    }
    return out;
  }
}

const MOST_ENTRIES = 6;
const MOST_WORDS = 10;

/** The translations in an entry: its lines behind the headword, without notes, examples, cross references and grammar. */
export function translationsIn(entry: string): readonly string[] {
  return entry
    .split('\n')
    .slice(1)
    .filter((line) => line !== '' && !/^\s*(?:"|see:|synonyms?:|note:|cf\.)/i.test(line))
    .flatMap((line) =>
      line.replace(/<[^<>]{0,80}>|\[[^[\]]{0,80}\]|\([^()]{0,200}\)|\{[^{}]{0,200}\}|\/[^/]{0,80}\/|^\s*\d+\.\s*/g, ' ').split(/[,;/]/),
    )
    .map((part) =>
      fold(
        part
          .replace(/ĳ/g, 'ij')
          .replace(/[‐-]\s*$/, '')
          .trim(),
      ),
    )
    .filter((part) => /^[\p{L}][\p{L} -]{1,30}$/u.test(part) && part.split(' ').length <= 2);
}

/** Forms under which a dictionary may have an English word. */
function formsOf(word: string): readonly string[] {
  return [
    word,
    word.replace(/ies$/, 'y'),
    word.replace(/(?<=s|x|ch|sh)es$/, ''),
    word.replace(/s$/, ''),
    word.replace(/ing$/, ''),
    word.replace(/ed$/, ''),
    word.replace(/ed$/, 'e'),
  ];
}

/** The words of an index that are one word, in small letters. */
const wordsIn = (index: string): ReadonlySet<string> =>
  new Set(index.split('\n').flatMap((line) => /^[\p{L}-]+(?=\t)/u.exec(line)?.[0].toLowerCase() ?? []));

const isLanguage = (text: string): text is Language => text in LANGUAGES;

/** Words of other languages for words of one, from the dictionaries that are installed; none where they are not. */
export class Dictionaries implements Dictionary {
  private readonly opened = new Map<string, Volume | null>();
  private readonly kept = new Map<string, readonly string[]>();
  constructor(private readonly folder = FOLDER) {}

  private readonly words = new Map<Language, ReadonlySet<string>>();

  /** Whether a word in small letters is one of the language, as its dictionary into English (or out of it) has it. */
  knows(word: string, language: string): boolean {
    if (!isLanguage(language)) return false;
    let known = this.words.get(language);
    if (!known) {
      const file = path.join(this.folder, `freedict-${LANGUAGES[language]}-${language === 'en' ? 'deu' : 'eng'}.index`);
      this.words.set(language, (known = fs.existsSync(file) ? wordsIn(fs.readFileSync(file, 'utf8')) : new Set()));
    }
    return known.has(word) || (language === 'en' && formsOf(word).some((form) => known.has(form)));
  }

  private open(from: Language, to: Language): Volume | null {
    const name = `${LANGUAGES[from]}-${LANGUAGES[to]}`;
    const known = this.opened.get(name);
    if (known !== undefined) return known;
    const there = fs.existsSync(path.join(this.folder, `freedict-${name}.index`));
    const dictionary = there ? new Volume(name, this.folder) : null;
    this.opened.set(name, dictionary);
    return dictionary;
  }

  private translate(word: string, from: Language, to: Language): readonly string[] {
    const key = `${from}${to} ${word}`;
    let words = this.kept.get(key);
    if (!words) {
      const dictionary = this.open(from, to);
      const forms = [...new Set(from === 'en' ? formsOf(word) : [word])];
      const form = dictionary ? forms.find((each) => dictionary.entries(each).length > 0) : undefined;
      words = form === undefined || !dictionary ? [] : [...new Set(dictionary.entries(form).flatMap(translationsIn))].slice(0, MOST_WORDS);
      this.kept.set(key, words);
    }
    return words;
  }

  /** By word (folded): its words in the other languages; words of another language than English go by way of it. */
  glosses(words: readonly string[], from: string): Readonly<Record<string, readonly string[]>> {
    if (!isLanguage(from)) return {};
    const out: Record<string, readonly string[]> = {};
    for (const word of new Set(words)) {
      const english = from === 'en' ? [word] : this.translate(word, from, 'en').slice(0, 3);
      const others = (['de', 'nl', 'fr', 'es'] as const)
        .filter((to) => to !== from)
        .flatMap((to) => english.flatMap((each) => this.translate(each, 'en', to)));
      const all = [...new Set([...(from === 'en' ? [] : english), ...others])].filter((each) => each !== word);
      if (all.length > 0) out[word] = all;
    }
    return out;
  }
}
