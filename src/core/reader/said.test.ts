/** What a site says, and what on it nobody says. */
import { ordinaryIn, passageOf, type Lexicon } from './index';
import { saidIn } from './said';

const says = (text: string, lexicon?: Lexicon) => saidIn([passageOf('http://a.example/', text)], lexicon);

describe('parked addresses', () => {
  test.each([
    'The domain shoes.example may be for sale. Make an offer.',
    'Diese Domain steht zum Verkauf.',
    'Dit domein is te koop.',
    'Ce nom de domaine est à vendre.',
    'We may earn a commission when you click.',
  ])('“%s” leaves nothing that is said', (line) => {
    expect(says(`${line}\n\nWe run fourteen vans.`)).toEqual([]);
  });

  test.each([
    'Our vans are parked at the depot overnight.',
    'Cars can be parked by the gate.',
    'Les vins du domaine sont à vendre au caveau.',
  ])('a page of one’s own stays one: %s', (line) => {
    expect(says(line)).toHaveLength(1);
  });

  test('a firm that sells domains among its pages still speaks', () => {
    const pages = [
      passageOf('http://a.example/', 'We run fourteen vans.'),
      passageOf('http://a.example/b', 'We mend boots.'),
      passageOf('http://a.example/c', 'The domain boots.example may be for sale.'),
    ];
    expect(saidIn(pages).map(({ text }) => text)).toContain('We run fourteen vans.');
  });
});

test.each(['Lorem ipsum dolor sit amet.', 'Change this text: we have 8 vans.', 'This is a template for shops.', 'Dies ist ein Blindtext.'])(
  'what came with the pattern of a page is nobody’s word: %s',
  (line) => {
    expect(says(`${line}\n\nWe mend boots.`).map(({ text }) => text)).toEqual(['We mend boots.']);
  },
);

test.each([
  ['Profile (updated June 2024): 14 vans.', '2024-06-01'],
  ['As of 3 March 2025 we have 14 vans.', '2025-03-03'],
  ['Stand: Mai 2023, vierzehn Wagen.', '2023-05-01'],
  ['In all those years we have never bought as many vans as we did back in June 2024.', null],
])('“%s” is of %s', (text, day) => {
  const [said] = says(text);
  expect(said?.date === null || said?.date === undefined ? null : new Date(said.date).toISOString().slice(0, 10)).toBe(day);
});

describe('words that a dictionary knows', () => {
  const lexicon: Lexicon = { knows: (word, language) => language === 'de' && ['gefühl', 'leute'].includes(word) };
  const text = 'Wir haben nur ein gutes Gefühl und viele Leute, und der Rechner ist ein Kolmar.';

  test('are marked where they have a capital', () => {
    expect([...(says(text, lexicon)[0]?.ordinary ?? [])].sort()).toEqual(['gefuhl', 'leute']);
    expect(says(text)[0]?.ordinary.size).toBe(0);
  });

  test('can be told to whoever has no dictionary', () => {
    expect([...ordinaryIn([passageOf('http://a.example/', text)], lexicon)].sort()).toEqual(['gefühl', 'leute']);
  });
});

test('a point behind “no.” ends no clause', () => {
  const [said] = says('Certificate no. TQ-5521, renewed in January.');
  const clause = (word: string) => said?.tokens.find((token) => token.folded === word)?.clause;
  expect(clause('certificate')).toBe(clause('5521'));
  expect(clause('renewed')).not.toBe(clause('5521'));
});
