import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { deflateRawSync } from 'node:zlib';
import { Dictionaries, translationsIn } from './dictionary';

const DIGITS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
const digits = (value: number): string => (value < 64 ? DIGITS.charAt(value) : digits(Math.floor(value / 64)) + DIGITS.charAt(value % 64));

/** A dictionary as Debian packs them, in pieces of forty bytes. */
function write(folder: string, name: string, entries: Readonly<Record<string, string>>): void {
  const PIECE = 40;
  let text = '';
  const index: string[] = [];
  for (const [word, entry] of Object.entries(entries)) {
    index.push(`${word}\t${digits(Buffer.byteLength(text))}\t${digits(Buffer.byteLength(entry))}`);
    text += entry;
  }
  const bytes = Buffer.from(text);
  const pieces: Buffer[] = [];
  for (let at = 0; at < bytes.length; at += PIECE) pieces.push(deflateRawSync(bytes.subarray(at, at + PIECE), { finishFlush: 3 }));
  const extra = Buffer.alloc(10 + 2 * pieces.length);
  extra.write('RA', 0, 'latin1');
  extra.writeUInt16LE(6 + 2 * pieces.length, 2);
  extra.writeUInt16LE(1, 4);
  extra.writeUInt16LE(PIECE, 6);
  extra.writeUInt16LE(pieces.length, 8);
  for (const [i, piece] of pieces.entries()) extra.writeUInt16LE(piece.length, 10 + 2 * i);
  const head = Buffer.from([0x1f, 0x8b, 8, 4, 0, 0, 0, 0, 0, 3, 0, 0]);
  head.writeUInt16LE(extra.length, 10);
  fs.writeFileSync(path.join(folder, `freedict-${name}.dict.dz`), Buffer.concat([head, extra, ...pieces]));
  fs.writeFileSync(path.join(folder, `freedict-${name}.index`), `00databaseinfo\tA\tA\n${index.join('\n')}\n`);
}

let folder: string;
beforeAll(() => {
  folder = fs.mkdtempSync(path.join(os.tmpdir(), 'dictionary-'));
  write(folder, 'eng-deu', {
    room: 'room /ruːm/\nZimmer <neut>, Raum <masc> [constr.]\n      "a room of one\'s own"  - ein eigenes Zimmer\n   Synonym: {chamber}\n\n',
    heat: 'heat /hiːt/\nWärme <fem>; Hitze <fem>\n see: {heated}\n\n',
  });
  write(folder, 'deu-eng', { zimmer: 'Zimmer\nroom, chamber\n' });
  write(folder, 'eng-spa', { room: 'room\n1. habitación\n2. cuarto\n' });
});
afterAll(() => fs.rmSync(folder, { recursive: true }));

test('words of other languages, by the forms of a word, across the pieces a dictionary is packed in', () => {
  const dictionaries = new Dictionaries(folder);
  expect(dictionaries.glosses(['rooms', 'heated', 'nothing'], 'en')).toEqual({
    rooms: ['zimmer', 'raum', 'habitacion', 'cuarto'],
    heated: ['warme', 'hitze'],
  });
});

test('a word of another language goes by way of English', () => {
  expect(new Dictionaries(folder).glosses(['zimmer'], 'de')).toEqual({ zimmer: ['room', 'chamber', 'habitacion', 'cuarto'] });
});

test('where no dictionary is, and for a language nobody keeps, there are none', () => {
  expect(new Dictionaries('/nowhere').glosses(['room'], 'en')).toEqual({});
  expect(new Dictionaries(folder).glosses(['room'], 'pl')).toEqual({});
});

test('an entry’s notes, examples and cross references are no translations', () => {
  expect(translationsIn('straw /strɔː/\nStroh <neut>, Strohhalm <masc>\n   Note: dried\n see: {bale}\n "a straw"  - ein Halm\n')).toEqual([
    'stroh',
    'strohhalm',
  ]);
});
