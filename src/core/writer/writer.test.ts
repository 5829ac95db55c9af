import fc from 'fast-check';
import { composeMessage, personalLine, planSchema, templateSchema, type ComposeInput, type LineFact } from './index';

const fact = (field: string, value: LineFact['value'], more: Partial<LineFact> = {}): LineFact => ({
  id: field,
  field,
  value,
  source: 'site',
  confidence: 0.9,
  ...more,
});
const template = templateSchema.parse({
  name: 'First contact',
  subject: 'Climate control at {company.name}',
  body: 'Hello {first_name or "there"},\n\n{personal line}\n\nKind regards\n{sender.name}',
  personal: {
    fields: ['expansion', 'heated_area'],
    required: true,
    lines: [
      { field: 'heated_area', says: 'You write that you have {value} ha under glass.' },
      { field: 'heated_area', says: 'With {value} ha of glass, small differences cost money.' },
      { field: 'heated_area', says: 'Your site mentions {value} ha.' },
      { field: 'expansion', when: 'value = true', says: 'I read: “{quote}”.' },
      { field: 'expansion', when: 'value = true', says: 'Your plans (“{quote}”) are why I write.' },
    ],
  },
  maxLength: 400,
});
const input = (more: Partial<ComposeInput> = {}): ComposeInput => ({
  template,
  scope: { first_name: 'Mara', company: { name: 'Oakmere Glass' }, sender: { name: 'Tomasz Wierzba' } },
  recipient: { name: 'Mara Quill', reach: 'm.quill@oakmere-glass.example' },
  facts: [fact('heated_area', 4.2)],
  recentLines: [],
  doNotContact: false,
  seed: 'p1',
  ...more,
});
const failed = (more: Partial<ComposeInput>): string[] =>
  composeMessage(input(more))
    .checks.filter((check) => !check.ok)
    .map((check) => check.id);

describe('a message', () => {
  test('fills its slots and rests its personal line on a fact', () => {
    const message = composeMessage(input());
    expect(message.subject).toBe('Climate control at Oakmere Glass');
    expect(message.body).toMatch(/^Hello Mara,\n\n.*4\.2 ha.*\n\nKind regards\nTomasz Wierzba$/);
    expect(message).toMatchObject({ passed: true, factsUsed: [expect.objectContaining({ field: 'heated_area', value: 4.2 })] });
  });

  test('uses a slot’s fallback when the value is missing', () => {
    expect(composeMessage(input({ scope: { company: { name: 'Oakmere Glass' }, sender: { name: 'T' } } })).body).toMatch(/^Hello there,/);
  });

  test.each<[string, Partial<ComposeInput>, string[]]>([
    ['a slot without value and fallback', { scope: { first_name: 'Mara', sender: { name: 'T' } } }, ['slot left']],
    ['no address', { recipient: { name: 'Mara Quill', reach: null } }, ['recipient']],
    ['a broken address', { recipient: { name: 'Mara Quill', reach: 'mara@' } }, ['recipient']],
    ['two addresses in one', { recipient: { name: 'Mara Quill', reach: 'a@b.example, c@d.example' } }, ['recipient']],
    ['a person who wants no mail', { doNotContact: true }, ['do not contact']],
    ['no fact to rest on', { facts: [] }, ['slot left', 'fact missing']],
    ['an unsure fact', { facts: [fact('heated_area', 4.2, { confidence: 0.3 })] }, ['slot left', 'fact missing']],
    ['a greeting for somebody else', { scope: { first_name: 'Nuria', company: { name: 'O' }, sender: { name: 'T' } } }, ['wrong name']],
    ['too many characters', { template: { ...template, maxLength: 60 } }, ['too long']],
  ])('is stopped by %s', (_name, more, checks) => {
    expect(failed(more)).toEqual(checks);
  });

  test('never repeats one of the last personal lines while it knows another', () => {
    const first = composeMessage(input()).personalLine ?? '';
    const second = composeMessage(input({ recentLines: [first] })).personalLine ?? '';
    const third = composeMessage(input({ recentLines: [first, second] })).personalLine ?? '';
    expect(new Set([first, second, third]).size).toBe(3);
    expect(failed({ recentLines: [first, second, third] })).toEqual(['same line']);
  });

  test('what a page says can never fill a slot or add one', () => {
    const evil = fact('expansion', true, { quote: 'We expand {sender.name} and [YOUR NAME] undefined' });
    expect(failed({ facts: [evil] })).toEqual(['slot left']);
  });
});

const line = (facts: readonly LineFact[], fields: readonly string[], seed = 's', avoid: readonly string[] = []) =>
  personalLine(facts, { fields, lines: template.personal?.lines ?? [] }, 'en', seed, avoid);
const neutral = (facts: readonly LineFact[], language: string, field = 'vans') =>
  personalLine(facts, { fields: [field], lines: [] }, language, 's', [])?.text;

describe('the personal line', () => {
  test('without patterns says no more than the words found, in the reader’s language', () => {
    const found = fact('vans', 4, { quote: 'Wir haben vier Wagen.' });
    expect(neutral([found], 'de')).toMatch(/^Auf Ihrer Website .*„Wir haben vier Wagen“\.$/);
    expect(neutral([found], 'fr')).toContain('« Wir haben vier Wagen »');
    expect(neutral([found], 'xx')).toBeUndefined();
    expect(neutral([{ ...found, source: 'register' }], 'de')).toBeUndefined();
    expect(neutral([fact('vans', false, { quote: 'Keine.' })], 'de')).toBeUndefined();
    expect(neutral([fact('vans', 4)], 'de')).toBeUndefined();
  });

  test('a pattern used lately is known again whatever fact it was made of', () => {
    const before = ['You write that you have 9.9 ha under glass.', 'Your site mentions 7 ha.'];
    for (const seed of ['a', 'b', 'c', 'd', 'e', 'f'])
      expect(line([fact('heated_area', 4.2)], ['heated_area'], seed, before)?.text).toBe(
        'With 4.2 ha of glass, small differences cost money.',
      );
  });

  test('figures are written as readers of the language do', () => {
    const lines = [{ field: 'load', says: '{value} t', when: '' }];
    expect(personalLine([fact('load', 1234.5)], { fields: ['load'], lines }, 'de', 's', [])?.text).toBe('1.234,5 t');
  });

  test('takes the first allowed field that has a sure fact', () => {
    const facts = [fact('heated_area', 4.2), fact('expansion', true, { quote: 'Two new bays in 2027.' })];
    expect(line(facts, ['expansion', 'heated_area'])?.fact.field).toBe('expansion');
    expect(line(facts, ['heated_area'])?.fact.field).toBe('heated_area');
    expect(line(facts, ['main_crop'])).toBeUndefined();
  });

  test('says nothing about an expansion that has no quoted words or is none', () => {
    expect(line([fact('expansion', true)], ['expansion'])).toBeUndefined();
    expect(line([fact('expansion', false, { quote: 'no plans' })], ['expansion'])).toBeUndefined();
  });

  test('is the same for the same reader, and carries no figure that its fact does not', () => {
    fc.assert(
      fc.property(fc.string(), fc.double({ min: 0.1, max: 90, noNaN: true }), (seed, area) => {
        const facts = [fact('heated_area', Math.round(area * 10) / 10)];
        const made = line(facts, ['heated_area'], seed);
        expect(made).toEqual(line(facts, ['heated_area'], seed));
        for (const figure of made?.text.match(/\d+(?:\.\d+)?/g) ?? []) expect(String(facts[0]?.value)).toContain(figure);
      }),
    );
  });
});

describe('schemas', () => {
  test('refuse a plan without touches, negative days and odd hours', () => {
    const plan = { name: 'P', mailbox: 'M', touches: [{ day: 0, template: 'T' }], hours: { from: '09:00', to: '17:00' } };
    expect(planSchema.safeParse(plan).success).toBe(true);
    expect(planSchema.safeParse({ ...plan, touches: [] }).success).toBe(false);
    expect(planSchema.safeParse({ ...plan, touches: [{ day: -1, template: 'T' }] }).success).toBe(false);
    expect(planSchema.safeParse({ ...plan, hours: { from: '9', to: '17:00' } }).success).toBe(false);
  });
});

test('a sentence that speaks of their site is said only of what was read there', () => {
  const lines = [
    { field: 'heated_area', says: 'Your site mentions {value} ha.', when: '' },
    { field: 'heated_area', says: 'With {value} ha, small differences cost money.', when: '' },
  ];
  const said = (source: LineFact['source'], of = lines) =>
    personalLine([fact('heated_area', 4.2, { source })], { fields: ['heated_area'], lines: of }, 'en', 'p1', [])?.text;
  const both = new Set(
    ['a', 'b', 'c', 'd', 'e'].map(
      (seed) => personalLine([fact('heated_area', 4.2)], { fields: ['heated_area'], lines }, 'en', seed, [])?.text,
    ),
  );
  expect(both.size).toBe(2);
  expect(said('crm')).toBe('With 4.2 ha, small differences cost money.');
  expect(said('crm', lines.slice(0, 1))).toBeUndefined();
  expect(said('site', lines.slice(0, 1))).toBe('Your site mentions 4.2 ha.');
});
