import fc from 'fast-check';
import { composeMessage, inWordsOf, pairsOf, templateSchema, wordingFor, type LineFact } from './index';

const text = templateSchema.parse({
  name: 'First contact',
  subject: 'Vans at {company.name}',
  body: 'Hello {first_name or "there"},\n\n{personal line}\n\nKind regards\n{sender.name}',
  personal: { fields: ['vans'], required: true, lines: [{ field: 'vans', says: 'You run {value} vans.' }] },
  wordings: [
    {
      language: 'de',
      subject: 'Fahrzeuge bei {company.name}',
      body: 'Guten Tag {name},\n\n{personal line}\n\nMit freundlichen Grüßen\n{sender.name}',
      lines: [{ field: 'vans', says: 'Sie fahren {value} Wagen.' }],
    },
    { language: 'en', when: 'company.vans > 100', subject: 'A large fleet', body: 'Hello {first_name or "there"},\n\n{personal line}' },
    { language: 'nl', when: 'company.country = "NL"', subject: 'Wagens', body: 'Beste {first_name or "lezer"},\n\n{personal line}' },
  ],
});
const reader = (more: object, company: object = {}) => ({
  name: 'Mareike Petersen',
  first_name: 'Mareike',
  company: { name: 'Vossbruch', ...company },
  sender: { name: 'Tomasz' },
  ...more,
});
const fact: LineFact = { id: '1', field: 'vans', value: 1_400, source: 'site', confidence: 0.9, quote: 'fourteen hundred vans' };
const compose = (scope: object) =>
  composeMessage({
    template: text,
    scope: scope as never,
    recipient: { name: 'Mareike Petersen', reach: 'm@vossbruch.example' },
    facts: [fact],
    recentLines: [],
    doNotContact: false,
    seed: 'p',
  });

test.each([
  ['who reads German gets German', reader({ language: 'de' }), 0, null],
  ['whichever German', reader({ language: 'de-AT' }), 0, null],
  ['nobody knows their language: the text as it stands', reader({}), null, null],
  ['nobody knows it, and the condition of a wording holds', reader({}, { country: 'NL' }), 2, null],
  ['a condition holds, and they read another language', reader({ language: 'en' }, { country: 'NL' }), null, null],
  ['a condition on readers of the text’s own language', reader({ language: 'en' }, { vans: 140 }), 1, null],
  ['there is none in their language', reader({ language: 'pl' }), null, 'in English: there is no wording in Polish'],
  [
    'a wording under a condition is none for others',
    reader({ language: 'nl' }, { country: 'BE' }),
    null,
    'in English: there is no wording in Dutch',
  ],
  ['what is no language is not known', reader({ language: '??' }), null, null],
])('%s', (_name, scope, wording, fallback) => {
  expect(wordingFor(text, scope as never, 'p1')).toMatchObject({ wording, fallback });
});

test('a message in another wording has its words, its sentences and its figures', () => {
  const german = compose(reader({ language: 'de' }));
  expect(german).toMatchObject({ subject: 'Fahrzeuge bei Vossbruch', language: 'de', fallback: null, passed: true });
  expect(german.body).toBe('Guten Tag Mareike Petersen,\n\nSie fahren 1.400 Wagen.\n\nMit freundlichen Grüßen\nTomasz');
});

test('without sentences of its own, plain ones of its language quote the site', () => {
  expect(compose(reader({}, { country: 'NL' })).body).toMatch(/“fourteen hundred vans”/);
  expect(compose(reader({}, { country: 'NL' })).body).toMatch(/uw website/);
});

test('what a slot says for want of a name is no wrong name', () => {
  const nameless = compose({ ...reader({}, { country: 'NL' }), first_name: null });
  expect(nameless.body).toMatch(/^Beste lezer,/);
  expect(nameless.checks.filter((check) => !check.ok)).toEqual([]);
});

test('a wording that is gone is the text as it stands', () => {
  expect(inWordsOf(text, 7)).toEqual({ template: text, wording: null, fallback: null });
});

test('whatever the reader, exactly one wording is chosen, and it speaks their language or says why not', () => {
  fc.assert(
    fc.property(
      fc.option(fc.constantFrom('en', 'de', 'nl', 'pl', 'fr')),
      fc.option(fc.constantFrom('NL', 'GB')),
      fc.option(fc.integer({ min: 0, max: 300 })),
      (language, country, vans) => {
        const { template, fallback } = wordingFor(text, reader({ language }, { country, vans }), 'p1');
        expect(language === null || template.language === language).toBe(fallback === null);
      },
    ),
  );
});

describe('a wording that is tried', () => {
  const tried = templateSchema.parse({
    name: 'Hello',
    language: 'en',
    subject: 'Short',
    body: 'Would a call suit you?',
    wordings: [
      { language: 'de', subject: 'Kurz', body: 'Passt ein Anruf?' },
      { language: 'en', subject: 'Shorter', body: 'A call?', tried: true },
    ],
  });
  const people = Array.from({ length: 400 }, (_, i) => `person ${i}`);
  const of = (scope: object, seed: string) => wordingFor(tried, scope as never, seed);

  test('goes to every second reader of its language, always to the same ones', () => {
    const arms = people.map((seed) => of({ language: 'en' }, seed));
    const others = arms.filter((chosen) => chosen.tried?.arm === 'tried');
    expect(others.length).toBeGreaterThan(160);
    expect(others.length).toBeLessThan(240);
    expect(others.every(({ template, wording }) => template.subject === 'Shorter' && wording === 1)).toBe(true);
    expect(arms.filter((chosen) => chosen.tried?.arm === 'usual').every(({ template }) => template.subject === 'Short')).toBe(true);
    expect(people.map((seed) => of({ language: 'en' }, seed).tried?.arm)).toEqual(arms.map((chosen) => chosen.tried?.arm));
    expect(of({ language: 'de' }, 'person 1')).toMatchObject({ wording: 0, tried: null });
  });
  test('is nobody’s usual one, and other words are another pair', () => {
    const onlyTried = { ...tried, wordings: [{ ...tried.wordings![1]!, language: 'fr' }] };
    expect(wordingFor(onlyTried, { language: 'fr' }, 'p')).toMatchObject({ wording: null, tried: null });
    const [pair] = pairsOf(tried);
    expect(pairsOf(tried)).toEqual([{ pair: pair?.pair, usual: null, tried: 1 }]);
    expect(of({ language: 'en' }, 'p').tried?.pair).toBe(pair?.pair);
    expect(pairsOf({ ...tried, body: 'Other words' })[0]?.pair).not.toBe(pair?.pair);
  });
});
