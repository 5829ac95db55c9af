/** What is found for each form of a question, before anything is weighed. */
import { passageOf, type Asked } from '../index';
import { saidIn } from '../said';
import { featuresOf } from '../features';
import { sceneOf } from '../scene';
import { happenedIn, happenedNear } from '../skills/happened';
import { namesOfOthers } from '../skills/others';

const NOW = Date.parse('2026-11-24T10:00:00Z');
const scene = (question: Omit<Asked, 'id'>, ...texts: readonly string[]) =>
  sceneOf({ id: 'a', ...question }, saidIn(texts.map((text, i) => passageOf(`http://a.example/${i}`, text))), NOW);
const values = (question: Omit<Asked, 'id'>, ...texts: readonly string[]) =>
  scene(question, ...texts).candidates.map((candidate) => candidate.value);
const features = (question: Omit<Asked, 'id'>, text: string, value: unknown) => {
  const found = scene(question, text);
  return featuresOf(found)[found.candidates.findIndex((candidate) => candidate.value === value)];
};

describe('lists', () => {
  const goods = {
    type: { kind: 'list' } as const,
    wording: 'Which colours do they print in?',
    words: ['colours', 'inks', 'Farben', 'couleurs'],
  };
  test.each([
    ['Our colours: oil and gas, rail, defence, quarrying.', 'oil and gas, rail, defence, quarrying'],
    ['The colours are blue, dark green and red.', 'blue, dark green, red'],
    ['Farben Blau, Rot und Gelb.', 'Blau, Rot, Gelb'],
    ['Toutes les couleurs: une blonde, une ambrée et une blanche.', 'blonde, ambrée, blanche'],
    ['Blue, green, whatever you like, choose the colours on the board.', 'Blue, green'],
    ['The colours are sold in May and June and reach you in time.', 'May, June'],
  ])('“%s”', (text, expected) => {
    expect(values(goods, text)).toContain(expected);
  });
});

describe('months', () => {
  const closed = {
    type: { kind: 'list' } as const,
    wording: 'In which months is the house closed?',
    words: ['closed', 'geschlossen', 'fermé'],
  };
  test.each([
    ['The house is closed in January and February and reopens on the third Friday in March.', 'January, February'],
    ['From November to March the house is closed.', 'November, December, January, February, March'],
    ['Das Haus ist von November bis Januar geschlossen.', 'November, December, January'],
    ['La maison est fermée en janvier, comme tous les autres hôtels de la ville et du port.', 'January'],
    ['Closed: December – January', 'December, January'],
  ])('“%s”', (text, expected) => {
    expect(values(closed, text)).toContain(expected);
  });
  test('open all the year round is closed in none', () => {
    expect(values(closed, 'We are never closed: open all year round.')).toContain('none');
  });
  test('“may” and “march” are verbs', () => {
    expect(values(closed, 'The house may be closed when they march by.')).toEqual([]);
  });
});

describe('counts', () => {
  const presses = { type: { kind: 'number', unit: 'presses' } as const, wording: 'How many presses do they run?', words: ['presses'] };
  const sums = (text: string) =>
    scene(presses, text)
      .candidates.filter((candidate) => candidate.marks.sum === 1)
      .map((candidate) => candidate.value);
  test.each([
    ['Five presses stand in hall 1 and four in hall 2.', [9]],
    ['Fourteen presses: ten in the house and four in the barn.', []],
    ['Small presses: 6\nLarge presses: 3\nOld presses: 2', [11]],
    ['Presses: 13\nLarge presses: 8', []],
  ])('“%s” sums up to %j', (text, expected) => {
    expect(sums(text)).toEqual(expected);
  });
  test('of guest rooms the rooms are counted', () => {
    const rooms = { type: { kind: 'number', unit: 'rooms' } as const, wording: 'How many guest rooms do they have?' };
    expect(features(rooms, 'There are nine guests at the table.', 9)?.['is noun'] ?? 0).toBe(0);
    expect(features(rooms, 'There are nine rooms in the house.', 9)?.['is noun']).toBe(1);
  });
});

test('a unit of measure is no word that tells an answer', () => {
  const load = {
    type: { kind: 'number', unit: 'kg' } as const,
    wording: 'What is the heaviest load?',
    words: ['kg', 'kilos', 'load up to'],
  };
  expect(features(load, 'Parcels over 25 kg travel on a pallet.', 25)?.word).toBeLessThan(0.5);
  expect(features(load, 'We take a load up to 80 kg.', 80)?.word).toBe(1);
});

test('of two amounts the one with what is asked behind it is meant', () => {
  const linen = { type: { kind: 'number', unit: 't' } as const, wording: 'How many tonnes of linen?', words: ['linen'] };
  const text = 'We take 40 t linen and 12 t carpets.';
  expect(features(linen, text, 40)).toMatchObject({ asksBehind: 1, rivalled: 0 });
  expect(features(linen, text, 12)).toMatchObject({ asksBehind: 0, rivalled: 1 });
});

describe('yes and no', () => {
  const hall = { type: { kind: 'yes/no' } as const, wording: 'Is there a showroom?', words: ['showroom'] };
  test('what one strives for one does not have', () => {
    expect(values(hall, 'A showroom is what we are saving for.')).toContain(false);
  });
  test('a certificate with a number is no denial', () => {
    expect(values({ ...hall, words: ['certificate'] }, 'The certificate no. TQ-5521 hangs in the showroom.')).toEqual([true]);
  });
});

test('two words of a choice are met in another language, in either order and as one word', () => {
  const heat = {
    type: { kind: 'choice', options: ['night train', 'day coach'] } as const,
    wording: 'How do they travel?',
    glosses: { night: ['nacht', 'noche'], train: ['zug', 'tren'] },
  };
  expect(values(heat, 'They travel and sie fahren immer mit dem Nachtzug, das ist so und war es schon lange.')).toEqual(['night train']);
  expect(values(heat, 'They travel y siempre van en el tren de noche, que es lo mejor para todos los que viajan.')).toEqual([
    'night train',
  ]);
});

describe('other houses by their names', () => {
  const others = (...texts: readonly string[]) =>
    [...namesOfOthers(saidIn(texts.map((text) => passageOf('http://a.example/', text))), new Set(['hobbleford']))].sort();
  test.each([
    ['Anything heavier goes to our partner Hallerby Dock Works.', ['dock', 'hallerby', 'works']],
    ['Unser Schwesterhaus, der Moorhof am See, wurde renoviert und ist sehr schön geworden.', ['moorhof']],
    ['Our friends at Hobbleford keep bees.', []],
    ['Our partners like quality.', []],
  ])('“%s”', (text, expected) => {
    expect(others(text)).toEqual(expected);
  });
  test('a word that also stands in small letters is no name', () => {
    expect(others('Our partner Dock Works helps. They work at the dock.')).toEqual(['works']);
  });
});

describe('what happened', () => {
  test.each([
    ['built in 1904', ['built']],
    ['renoviert', ['renewed']],
    ['geliefert', ['got']],
    ['we like it', []],
  ])('“%s”', (text, expected) => {
    expect(happenedIn(text)).toEqual(expected);
  });
  test('nearest to a year', () => {
    const text = 'hof, der 1872 gebaut und 2008 umgebaut wurde';
    const at = (year: string) => [text.indexOf(year), text.indexOf(year) + 4] as const;
    expect(happenedNear(text, ...at('1872'))).toEqual(['built']);
    expect(happenedNear(text, ...at('2008'))).toEqual(['renewed']);
  });
  test('another thing’s year is told', () => {
    const built = { type: { kind: 'year' } as const, wording: 'What year was the hall built?', words: ['hall'] };
    expect(features(built, 'The hall was refurbished in 2024.', 2024)).toMatchObject({ happenedElse: 1, happened: 0 });
    expect(features(built, 'The hall was built in 1998.', 1998)).toMatchObject({ happenedElse: 0, happened: 1 });
  });
});

test('a thing that was taken out is no longer used, and an ordinary word no make', () => {
  const till = { type: { kind: 'text' } as const, wording: 'Which till system do they use?', words: ['till'] };
  expect(features(till, 'The last Kordavex till has been swapped out.', 'Kordavex')?.['is leaving']).toBe(1);
  const lexicon = { knows: (word: string) => word === 'leute' };
  const found = sceneOf(
    { id: 'a', ...till, words: ['Kasse'] },
    saidIn([passageOf('http://a.example/', 'Wir haben nur eine Kasse und viele Leute.')], lexicon),
    NOW,
  );
  expect(found.candidates.find((candidate) => candidate.value === 'Leute')?.marks.plain).toBe(1);
});
