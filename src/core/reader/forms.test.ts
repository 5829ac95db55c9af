/** What the reader knows of ways of saying, tried on trades that nothing here was made for. */
import fc from 'fast-check';
import { answerQuestion, passageOf, type Asked, type Passage } from './index';
import { readPage } from '../formats';
import { formOf } from './asked';
import { languageOf, stemOf } from './language';
import { sharesOf } from './model';
import { saidIn } from './said';
import { fitOf, learn, type Example } from './learning/teach';
import { calibrate, fit } from './learning/train';
import { MODEL } from './weights';

const NOW = Date.parse('2026-11-24T10:00:00Z');
const at = (text: string, url = 'http://a.example/about'): Passage => passageOf(url, text);
const value = (question: Asked, ...texts: readonly string[]) =>
  answerQuestion(
    question,
    texts.map((text, i) => at(text, `http://a.example/${i}`)),
    NOW,
  ).value;
const asked = (id: string, type: Asked['type'], wording: string, more: Partial<Asked> = {}): Asked => ({ id, type, wording, ...more });

const vans = asked('vans', { kind: 'number', unit: 'vans' }, 'How many vans do they run?', {
  words: ['vans', 'delivery vans', 'Lieferwagen', 'bestelwagens'],
});
const flour = asked('flour', { kind: 'number', unit: 't' }, 'How many tonnes of flour do they use in a year?', {
  words: ['flour', 'Mehl', 'bloem', 'farine'],
});
const oven = asked('oven_year', { kind: 'year' }, 'When was the newest oven installed?', { words: ['oven', 'Ofen', 'four'] });
const night = asked('night', { kind: 'yes/no' }, 'Do they bake at night?', { words: ['bake at night', 'night shift', 'Nachtschicht'] });
const till = asked('till', { kind: 'text' }, 'Which till system do they use?', { words: ['till', 'tills', 'Kasse', 'kassasysteem'] });
const head = asked('head', { kind: 'text' }, 'Who is the head baker?', { words: ['head baker', 'Backstubenleiter', 'chef de fournil'] });
const fuel = asked('fuel', { kind: 'choice', options: ['gas', 'electric', 'wood'] }, 'What are the ovens fired with?', {
  words: ['ovens', 'fired', 'Ofen'],
});
const breads = asked('languages', { kind: 'list' }, 'Which languages do they serve customers in?', {
  words: ['we serve you in', 'bedienen'],
});

test.each([
  [vans, 'count'],
  [flour, 'quantity'],
  [asked('a', { kind: 'number', unit: 'EUR' }, 'What does a loaf cost?'), 'money'],
  [oven, 'year'],
  [night, 'claim'],
  [asked('b', { kind: 'yes/no' }, 'Was a new shop announced in the last 12 months?'), 'event'],
  [till, 'product'],
  [head, 'person'],
  [asked('c', { kind: 'text' }, 'What is their general e-mail address?'), 'contact'],
  [asked('d', { kind: 'text' }, 'What makes their bread good?'), 'text'],
  [fuel, 'choice'],
  [breads, 'list'],
] as const)('%j is a question after a %s', (question, form) => {
  expect(formOf(question, question.wording.toLowerCase(), question === flour)).toBe(form);
});

describe('counts', () => {
  test.each([
    ['We run fourteen delivery vans.', 14],
    ['Seven vans and four delivery vans leave at five each morning, all of them ours: we run them ourselves.', 11],
    ['Vans: 9', 9],
    ['Wir haben zwölf Lieferwagen.', 12],
    ['We have no vans.', 0],
  ])('%s', (text, expected) => {
    expect(value(vans, text)).toBe(expected);
  });
  test.each(['The vans are blue.', 'We bake 400 loaves a day.', 'Our van is 12 m² inside.'])('nothing is guessed from “%s”', (text) => {
    expect(value(vans, text)).toBeNull();
  });
});

test.each([
  ['We use 120 tonnes of flour a year.', 120],
  ['Im Jahr brauchen wir 85.000 kg Mehl.', 85],
  ['Flour: 42.5 t a year', 42.5],
])('quantities are told in the unit asked for: %s', (text, expected) => {
  expect(value(flour, text)).toBe(expected);
});

test.each([
  ['The new oven was installed in 2021.', 2021],
  ['Our oven is six years old.', 2020],
  ['Der Ofen wurde 2018 eingebaut.', 2018],
])('years: %s', (text, expected) => {
  expect(value(oven, text)).toBe(expected);
});

test.each([
  ['We bake at night so that the bread is warm at six.', true],
  ['We do not bake at night.', false],
])('habits: %s', (text, expected) => {
  expect(value(night, text)).toBe(expected);
});

test.each([
  ['Head baker: Marta Olszak', 'Marta Olszak'],
  ['Our head baker is Pieter Noordam.', 'Pieter Noordam'],
  ['Ana Ferrol takes over as head baker from Luca Brandt, who retires.', 'Ana Ferrol'],
])('people: %s', (text, expected) => {
  expect(value(head, text)).toBe(expected);
});

test.each([
  ['Till system: Kassandra 3', 'Kassandra 3'],
  ['We replaced our old Pennyroll till with a Kassandra 3 in spring.', 'Kassandra 3'],
])('products: %s', (text, expected) => {
  expect(value(till, text)).toBe(expected);
});

test('the option that is spoken of, not the one that is denied', () => {
  expect(value(fuel, 'Our ovens are fired with wood.')).toBe('wood');
  expect(value({ ...fuel, least: 0.4 }, 'Our ovens are not fired with gas but with wood.')).toBe('wood');
});

test('languages are told by their English names, whatever language the page is in', () => {
  expect(value(breads, 'Wir bedienen Sie auf Deutsch, Polnisch und Französisch.')).toBe('German, Polish, French');
});

test('what not to count is left out', () => {
  const own: Asked = { ...vans, not: ['hired', 'partners'] };
  expect(value(own, 'We run nine vans.', 'Thirty vans are hired by partners.')).toBe(9);
});

test('a question’s own least confidence decides what is too little', () => {
  const text = 'Some say there are 14 vans.';
  expect(answerQuestion({ ...vans, least: 0.01 }, [at(text)], NOW).found).toBe(true);
  expect(answerQuestion({ ...vans, least: 0.999 }, [at(text)], NOW).found).toBe(false);
});

describe('learning from examples', () => {
  const pages = (text: string) => saidIn([at(text)]);
  const example = (text: string, right: number): Example => ({
    said: pages(text),
    now: NOW,
    right: (given) => given === right,
    quote: text.split('.')[0] ?? '',
  });
  const plain = asked('fleet', { kind: 'number', unit: 'vans' }, 'How many vans do they run?');
  const examples = [
    example('Our fleet counts 8 vans. The neighbours keep 20 vans in the yard.', 8),
    example('The fleet: 5 vans. The yard of the neighbours holds 30 vans.', 5),
    example('We keep a fleet of 11 vans. In the yard next door the neighbours park 40 vans.', 11),
  ];

  test('what is learnt never lowers the score of what taught it, and can be read as words', () => {
    const learnt = learn(plain, examples, MODEL);
    expect(fitOf({ ...plain, learnt }, examples, MODEL)).toBeGreaterThanOrEqual(fitOf(plain, examples, MODEL));
    for (const { phrase, weight } of learnt) {
      expect(phrase).toMatch(/^\p{L}+$/u);
      expect(Math.abs(weight)).toBeLessThanOrEqual(1);
    }
  });

  test('nor for any examples at all', () => {
    const words = fc.constantFrom('vans', 'fleet', '8', '20', 'yard', 'neighbours', 'keep', 'own', 'run', 'blue', '.');
    fc.assert(
      fc.property(
        fc.array(fc.array(words, { minLength: 3, maxLength: 14 }), { minLength: 1, maxLength: 4 }),
        fc.constantFrom(8, 20),
        (texts, right) => {
          const shown = texts.map((parts): Example => ({ said: pages(parts.join(' ')), now: NOW, right: (given) => given === right }));
          const learnt = learn(plain, shown, MODEL);
          return fitOf({ ...plain, learnt }, shown, MODEL) >= fitOf(plain, shown, MODEL) - 1e-9;
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('the model', () => {
  test('shares and silence together are one', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -30, max: 30, noNaN: true }), { maxLength: 20 }), (scores) => {
        const shares = sharesOf(scores);
        const all = shares.reduce((sum, share) => sum + share, 0);
        return all <= 1 + 1e-9 && shares.every((share) => share >= 0);
      }),
    );
    expect(sharesOf([0])).toEqual([0.5]);
  });

  test('weights learnt part right from wrong, and the same cases give the same weights', () => {
    const cases = Array.from({ length: 30 }, () => ({
      family: 'count',
      candidates: [
        { bias: 1, good: 1, bad: 0 },
        { bias: 1, good: 0, bad: 1 },
      ],
      right: [true, false],
      silence: false,
      weight: 1,
    }));
    const weights = fit(cases);
    expect(weights.good ?? 0).toBeGreaterThan(weights.bad ?? 0);
    expect(fit(cases)).toEqual(weights);
  });

  test('an overconfident model is brought to what holds', () => {
    const told = Array.from({ length: 200 }, (_, i) => ({ share: 0.95, right: i % 2 === 0, weight: 1 }));
    const { slope, shift } = calibrate(told);
    const logit = Math.log(0.95 / 0.05);
    expect(1 / (1 + Math.exp(-(slope * logit + shift)))).toBeCloseTo(0.5, 1);
  });
});

test.each([
  ['en', 'the house is in the town and it has many rooms'],
  ['de', 'das haus steht in der stadt und hat viele zimmer'],
  ['nl', 'het huis staat in de stad en het heeft veel kamers'],
  ['fr', 'la maison est dans la ville et elle a des chambres'],
  ['es', 'la casa de la ciudad tiene muchas habitaciones y el jardín'],
])('%s is told by its small words', (language, text) => {
  expect(languageOf(text.split(' '))).toBe(language);
});

test('forms of a word have one stem', () => {
  expect(stemOf('rooms', 'en')).toBe(stemOf('room', 'en'));
  expect(stemOf('zimmern', 'de')).toBe(stemOf('zimmer', 'de'));
});

describe('what stands beside, above and behind', () => {
  const page = (html: string): Passage => ({
    url: 'http://a.example/',
    ...readPage(`<html lang="en"><body>${html}</body></html>`, 'http://a.example/'),
  });
  const read = (question: Asked, html: string) => answerQuestion(question, [page(html)], NOW, { ...MODEL, least: 0 }).value;

  test('a sentence goes on over the ends of lines of the source', () => {
    expect(read(breads, '<p>We serve you in English, French\n and Dutch.</p>')).toBe('English, French, Dutch');
  });
  test('the unit stands in the label', () => {
    expect(read(flour, '<div><span>Flour, tonnes a year</span><span>38.5</span></div>')).toBe(38.5);
  });
  test('the currency stands in the label', () => {
    const price = asked('a', { kind: 'number', unit: 'EUR' }, 'What does a rye loaf cost?');
    expect(read(price, '<table><tr><td>Rye loaf (€)</td><td>4.20</td></tr></table>')).toBe(4.2);
  });
  test('a name stands over what somebody does, and who assists is not who leads', () => {
    expect(read(head, '<h3>Bronwen Sillett</h3><p>Head baker. Came to us in 2019.</p>')).toBe('Bronwen Sillett');
    expect(
      read(
        head,
        '<table><tr><td>Assistant head baker</td><td>Olu Tarrant</td></tr><tr><td>Head baker</td><td>Ida Stenlow</td></tr></table>',
      ),
    ).toBe('Ida Stenlow');
  });
  test('a language that is denied is denied in its own clause', () => {
    expect(read(breads, '<p>We serve you in English and French; there is no Italian.</p>')).toBe('English, French');
  });
});
