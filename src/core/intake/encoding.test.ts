import fc from 'fast-check';
import { readTable } from './index';

/** The bytes of a text in an encoding of one byte a letter, made by looking every byte up. */
function bytesIn(label: string, text: string): Buffer {
  const decoder = new TextDecoder(label);
  const of = new Map(Array.from({ length: 256 }, (_, byte) => [decoder.decode(Uint8Array.from([byte])), byte] as const));
  if (label === 'windows-1252') [...'€‚ƒ„…†‡ˆ‰Š‹Œ'].forEach((letter, i) => of.set(letter, 0x80 + i));
  return Buffer.from([...text].map((letter) => of.get(letter) ?? 0x3f));
}
const rowsIn = (label: string, text: string) => {
  const { table } = readTable(bytesIn(label, `name;town\n${text}\n`));
  return { encoding: table?.encoding, rows: table?.rows.map((row) => row.join(';')) };
};

test.each([
  ['Windows-1252', 'windows-1252', 'Jörg Müller;Köln\nRené Lefèvre;Besançon\nMª José Núñez;Logroño'],
  ['Windows-1252', 'windows-1252', 'Søren Ærø;Nykøbing'],
  ['Windows-1252', 'windows-1252', 'Ines Fähr;Fürth (ab 20 €)'],
  ['Windows-1250', 'windows-1250', 'Łukasz Żółkiewski;Łódź\nŚwiętosława Bąk;Kraków'],
  ['Windows-1250', 'windows-1250', 'Jiří Dvořák;Plzeň\nTomáš Růžička;Hradec Králové'],
  ['ISO-8859-2', 'iso-8859-2', 'Łukasz Żółkiewski;Łódź\nŚwiętosława Bąk;Wałbrzych'],
  ['Windows-1254', 'windows-1254', 'Ayşe Yıldız;Eskişehir\nOğuz Çağlar;İzmir'],
  ['Mac Roman', 'macintosh', 'Jörg Müller;Köln\nRené Lefèvre;Besançon'],
  ['Windows-1251', 'windows-1251', 'Иван Петров;Пловдив\nМария Георгиева;Варна'],
  ['Windows-1253', 'windows-1253', 'Γιώργος Παπαδόπουλος;Θεσσαλονίκη'],
])('%s', (encoding, label, text) => {
  expect(rowsIn(label, text)).toEqual({ encoding, rows: text.split('\n') });
});

test('letters that several read alike are read as most of Europe writes them', () => {
  expect(rowsIn('windows-1250', 'Jörg Müller;Köln').rows).toEqual(['Jörg Müller;Köln']);
});

test('text without letters beyond ASCII is UTF-8, and UTF-8 is never taken for anything else', () => {
  expect(readTable(Buffer.from('name;town\nMara;Hull\n')).table?.encoding).toBe('UTF-8');
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme', minLength: 1, maxLength: 40 }), (name) => {
      const { table } = readTable(Buffer.from(`name;town\nMara ${name.replace(/[\r\n";\u0000]/g, '')};Łódź\n`));
      expect(table?.encoding).toBe('UTF-8');
    }),
  );
});
