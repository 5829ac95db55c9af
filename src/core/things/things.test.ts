/** Named things: what is wrong with one, what it claims, and its name in flows. */
import fc from 'fast-check';
import type { OwnField } from '../fields';
import { parseFlow, printFlow } from '../flow/syntax';
import { scorecardSchema } from '../score';
import { planSchema, templateSchema } from '../writer';
import { claimsIn, type Statement } from '../answers';
import { beginningOf, namedIn, problemsOf, renamedIn, THING_KINDS, thingBody } from './index';

const own = (key: string, more: Partial<OwnField> = {}): OwnField => ({
  record: 'company',
  key,
  label: key,
  type: 'number',
  group: 'Own',
  sample: '1',
  words: [],
  ...more,
});
const text = (more: object) => ({
  kind: 'template' as const,
  body: templateSchema.parse({ name: 'Hello', subject: 'A word', body: 'Hello', ...more }),
});
const LIBRARY = {
  fields: [own('vans', { unit: 'vans' }), own('born', { type: 'year', isProtected: true })],
  templates: [text({}).body],
  connections: ['mail'],
};
const says = (thing: Parameters<typeof problemsOf>[0], statements: readonly Statement[] = []) =>
  problemsOf(thing, LIBRARY, statements).map((problem) => `${problem.at}: ${problem.says}`);
const card = (more: object) => ({
  kind: 'scorecard' as const,
  body: scorecardSchema.parse({
    name: 'Fit',
    target: 'company',
    criteria: [{ id: 'a', text: 'vans', levels: [{ when: 'company.vans >= 3', points: 10 }] }],
    bands: [
      { name: 'hot', from: 5 },
      { name: 'cold', from: 0 },
    ],
    ...more,
  }),
});
const criterion = (when: string, more: object = {}) => ({ id: 'x', text: 'x', levels: [{ when, points: 10 }], ...more });

describe('a scorecard', () => {
  test('that is right has nothing wrong', () => {
    expect(says(card({}))).toEqual([]);
  });
  test.each([
    ['company.vanns >= 3', /criteria.0.levels.0.when: .*vanns/],
    ['company.vans >=', /criteria.0.levels.0.when: /],
    ['company.vans + 3', /a condition must be true or false/],
    ['company.vans >= 3 ha', /levels.0.when: /],
    ['vans >= 3', /write company.vans: a name alone is the person’s/],
    ['company.born <= 1980', /“born” is protected: nobody is judged by it/],
  ])('%s is wrong, and where', (when, wrong) => {
    expect(says(card({ criteria: [criterion(when)] })).join(' ')).toMatch(wrong);
  });
  test('what never counts is told', () => {
    const lower = {
      levels: [
        { when: 'company.vans >= 3', points: 5 },
        { when: 'company.vans >= 1', points: 8 },
      ],
    };
    expect(says(card({ criteria: [criterion('', lower)] })).join(' ')).toContain('this one never gives more');
    expect(says(card({ criteria: [criterion('company.vans >= 3', { whenUnknown: 12 })] })).join(' ')).toContain('not knowing gives more');
    expect(
      says(
        card({
          bands: [
            { name: 'hot', from: 40 },
            { name: 'hot', from: 0 },
          ],
        }),
      ),
    ).toEqual(['bands.0.from: nobody can reach 40: all criteria give 10', 'bands.1.name: “hot” stands twice']);
  });
});

describe('a text', () => {
  test.each([
    ['{company.vans}', undefined],
    ['{vans}', 'body: no person has a field “vans”: write company.vans'],
    ['{company.vanns}', 'body: no company has a field “vanns”'],
    ['{sender.mood}', 'body: a sender has a name and a first_name, not “mood”'],
    ['{fit.band}', undefined],
    ['{first_name', 'body: a brace stands alone: a slot is written {first_name}'],
    ['{personal line}', 'body: a personal line is asked for, and nothing says what it may rest on'],
  ])('%s', (body, wrong) => {
    expect(says(text({ body }))).toEqual(wrong === undefined ? [] : [wrong]);
  });
  test('its sentences rest on facts it may rest on', () => {
    const personal = {
      fields: ['vans', 'vanns'],
      required: true,
      lines: [
        { field: 'vans', says: 'You run {value}.' },
        { field: 'vans', says: 'You run {number}.' },
        { field: 'crew', says: 'A word.', when: 'value >' },
      ],
    };
    const wrong = says(text({ body: '{personal line}', personal }));
    expect(wrong).toHaveLength(5);
    expect(wrong.join(' ')).toMatch(/lines.1.says.*lines.2.field.*lines.2.says.*lines.2.when.*personal.fields.1/);
  });
});

describe('a wording', () => {
  const worded = (wordings: readonly object[]) => says(text({ language: 'en', personal: { fields: ['vans'], required: false }, wordings }));
  const german = { language: 'de', subject: 'Ein Wort', body: 'Guten Tag' };
  test('is looked at like the text, at its own place', () => {
    expect(worded([german])).toEqual([]);
    expect(worded([{ ...german, body: 'Guten Tag {vans}', lines: [{ field: 'crew', says: '{value}' }] }])).toEqual([
      'wordings.0.body: no person has a field “vans”: write company.vans',
      'wordings.0.lines.0.field: the personal line may not rest on “crew”: this sentence is never used',
    ]);
  });
  test('says for whom it is, where others would get it too', () => {
    expect(worded([german, german])).toEqual([
      'wordings.1.language: there is a wording in this language already: say for whom this one is',
    ]);
    expect(worded([{ ...german, language: 'en' }])).toEqual([
      'wordings.0.when: who reads this language gets the text itself: say for whom this wording is, or try it',
    ]);
    expect(worded([german, { ...german, when: 'company.vans > 3' }])).toEqual([]);
    expect(worded([{ ...german, when: 'company.vanns > 3' }])[0]).toMatch(/^wordings.0.when: .*vanns/);
    expect(worded([{ ...german, when: 'company.born > 1980' }])).toEqual(['wordings.0.when: “born” is protected: nobody is judged by it']);
  });
});

describe('a wording that is tried', () => {
  const worded = (wordings: readonly object[]) => says(text({ language: 'en', wordings }));
  const other = { language: 'en', subject: 'A word', body: 'Hello', tried: true };
  test('is tried against usual words of its language, one at a time', () => {
    expect(worded([other])).toEqual([]);
    expect(worded([{ ...other, language: 'de' }])).toEqual([
      'wordings.0.language: it is tried against nothing: there are no usual words in this language',
    ]);
    expect(
      worded([
        { ...other, language: 'de' },
        { ...other, language: 'de', tried: false },
      ]),
    ).toEqual([]);
    expect(worded([other, { ...other, body: 'Hello again' }])).toEqual([
      'wordings.1.language: another wording of this language is tried already: one after the other',
    ]);
    expect(worded([{ ...other, when: 'company.vanns > 3' }])[0]).toMatch(/^wordings.0.when: .*vanns/);
  });
});

describe('what we say of ourselves', () => {
  const proof: Statement = { id: 's', says: 'We fit every oven ourselves, in eleven countries.', by: 'Ida', proof: '' };
  test.each([
    ['We fit 300 ovens a year.', true],
    ['Our ovens are the fastest.', true],
    ['Wir arbeiten mit mehreren Bäckereien.', false],
    ['Wir beliefern viele Bäckereien.', true],
    ['Nous travaillons avec plusieurs boulangeries.', true],
    ['Onze ovens besparen gas.', true],
    ['Somos una casa de Lugo. Nuestros hornos son los mejores.', true],
    ['We would like to hear from you.', false],
    ['Shall we come on Tuesday at 10?', false],
    ['You bake 4 t a day.', false],
    ['We read that you use {company.vans} vans.', false],
  ])('%s: claimed %j', (body, claimed) => {
    expect(claimsIn(body, []).length > 0).toBe(claimed);
  });
  test('a statement stands behind what says the same', () => {
    expect(claimsIn('We fit every oven ourselves.', [proof])[0]?.coveredBy?.id).toBe('s');
    expect(claimsIn('We sell every oven at a loss.', [proof])[0]?.coveredBy).toBeNull();
    expect(says(text({ body: 'We fit every oven ourselves.' }), [proof])).toEqual([]);
    expect(says(text({ body: 'We fit every oven ourselves.' }))[0]).toContain('no statement of ours stands behind');
  });
});

test('a plan knows its texts, its mailbox and its days', () => {
  const plan = planSchema.parse({
    name: 'P',
    mailbox: 'post',
    hours: { from: '17:00', to: '09:00' },
    touches: [
      { day: 2, template: 'Hello' },
      { day: 1, template: 'Bye' },
    ],
  });
  expect(says({ kind: 'plan', body: plan })).toEqual([
    'mailbox: there is no mailbox “post”',
    'hours: the window ends before it begins',
    'touches.1.template: there is no text “Bye”',
    'touches.1.day: comes on working day 1, and the touch before it on 2',
  ]);
});

test.each(THING_KINDS)('a new %s has nothing wrong', (kind) => {
  const thing = beginningOf(kind, 'New', { mailboxes: ['mail'], texts: ['Hello'], providers: ['Pennant'] });
  expect(says(thing)).toEqual([]);
  expect(thingBody(kind, thing.body)).toEqual({ thing });
  expect('says' in thingBody(kind, { name: '' })).toBe(true);
});

describe('a name in flows', () => {
  const flow = (score: string, write: string): string =>
    printFlow(
      parseFlow(
        `flow "F"\n\ntake in from list\nscore company with "${score}" as fit\nsplit\n  when fit.points >= 50\n    write email "${write}" as mail\n  else\n    stop "${score}"\n`,
      ).tree,
      { marks: false },
    );
  test('is found and follows, in arms too; what only reads alike stays', () => {
    const before = flow('Fit', 'Hello');
    expect([namedIn(before, 'scorecard'), namedIn(before, 'template'), namedIn(before, 'plan')]).toEqual([['Fit'], ['Hello'], []]);
    expect(namedIn(renamedIn(before, 'template', 'Hello', 'Good day'), 'template')).toEqual(['Good day']);
    const after = renamedIn(before, 'scorecard', 'Fit', 'Best fit');
    expect(after).toContain('score company with "Best fit" as fit');
    expect(after).toContain('stop "Fit"');
  });
  test('there and back is the same flow, whatever the names', () => {
    const name = fc.string({ minLength: 1, maxLength: 20 }).filter((each) => /^[^"\\\p{C}\n]+$/u.test(each) && each.trim() === each);
    fc.assert(
      fc.property(name, name, (from, to) => {
        const before = flow(from, 'Hello');
        expect(renamedIn(renamedIn(before, 'scorecard', from, to), 'scorecard', to, from)).toBe(before);
      }),
    );
  });
});

describe('a lookup chain', () => {
  const chain = (providers: readonly object[], field = 'email') => {
    const read = thingBody('chain', { name: 'Work', field, providers });
    if (!('thing' in read)) throw new Error(read.says);
    return problemsOf(read.thing, { fields: [], templates: [], connections: [], providers: ['Pennant'] }).map(({ at, weight }) => [
      at,
      weight,
    ]);
  };
  test('asks each provider once, within what it may cost, and says which nothing describes', () => {
    expect(chain([{ name: 'Pennant', priceMicro: 20_000 }])).toEqual([]);
    expect(
      chain([
        { name: 'Pennant', priceMicro: 1 },
        { name: 'Pennant', priceMicro: 1 },
      ]),
    ).toEqual([['providers.1.name', 'error']]);
    expect(chain([{ name: 'Fernpost', priceMicro: 1 }])).toEqual([['providers.0.name', 'warning']]);
    expect(chain([{ name: 'Pennant', priceMicro: 9, dayBudgetMicro: 5 }])).toEqual([['providers.0.dayBudgetMicro', 'error']]);
    expect(chain([{ name: 'Pennant', priceMicro: 1 }], 'phone')).toEqual([['field', 'error']]);
  });
});
