/** Answers to what people write: which agreed ones fit, what a draft says and rests on, and what stops it. */
import fs from 'node:fs';
import { z } from 'zod';
import type { Fact } from '../facts';
import { ownFieldSchema } from '../fields';
import { problemsOf } from '../things';
import { agreedAnswerSchema, candidatesFor, checkReply, draftReply, saidIn, statementSchema, type DraftAsk } from './index';

const demo = z
  .object({ answers: z.array(agreedAnswerSchema), statements: z.array(statementSchema) })
  .parse(JSON.parse(fs.readFileSync('demo/workspace.json', 'utf8')));
const fields = z.object({ fields: z.array(ownFieldSchema) }).parse(JSON.parse(fs.readFileSync('demo/fields.json', 'utf8'))).fields;

const company = { name: 'Viveros Almenara', heated_area: 1.1, controls: 'Tessel 4', controls_since: 2014 };
const fact = (field: string, value: string | number): Fact => ({
  id: field,
  record: { kind: 'company', id: 'c1' },
  field,
  value,
  source: 'site',
  sourceRef: 'viveros-almenara.example',
  url: 'https://viveros-almenara.example/vivero',
  confidence: 0.9,
  observedAt: 1,
});
const asking = (words: string, more: Partial<DraftAsk> = {}): DraftAsk => ({
  words,
  reading: { kind: 'question', objection: null, quote: null },
  answers: demo.answers,
  statements: demo.statements,
  language: 'en',
  scope: { first_name: 'Nuria', name: 'Nuria Peralta', company, deal: null, sender: { name: 'Lucía Ferrer Mas' } },
  facts: [fact('heated_area', 1.1), fact('controls', 'Tessel 4')],
  fields,
  recipient: { name: 'Nuria Peralta', reach: 'n.peralta@viveros-almenara.example' },
  doNotContact: false,
  ...more,
});
const price = {
  reading: { kind: 'objection' as const, objection: 'price' as const, quote: 'The price is above what I can put in front of the board.' },
};
const wrong = (draft: { readonly checks: readonly { readonly id: string; readonly ok: boolean }[] }) =>
  draft.checks.filter((check) => !check.ok).map((check) => check.id);

describe('the demo’s book', () => {
  const library = { fields, templates: [], connections: [] };
  test.each(demo.answers.map((body) => [body.name, body] as const))('“%s” says nothing that no statement stands behind', (_name, body) => {
    expect(problemsOf({ kind: 'answer', body }, library, demo.statements).filter((problem) => problem.weight === 'error')).toEqual([]);
  });
});

describe('what they said', () => {
  test('is the objection first, then each question, each once', () => {
    const words = 'The price is above what I can put in front of the board. What would one bay cost? And who comes on a Sunday?';
    expect(saidIn(words, price.reading).map((said) => [said.kind, said.about])).toEqual([
      ['objection', 'price'],
      ['question', null],
      ['question', null],
    ]);
    const asks = { kind: 'question' as const, objection: null, quote: null };
    // Who says what they can spend objects to nothing.
    expect(saidIn('Our budget is 30,000 to 40,000 EUR. Could you visit us?', asks).map(({ kind }) => kind)).toEqual(['question']);
    expect(saidIn('That is above our budget. Could you visit us?', asks).map(({ about }) => about)).toEqual(['price', null]);
    expect(saidIn('Thank you, all clear.', { kind: 'thanks', objection: null, quote: null })).toEqual([]);
  });
});

describe('interest', () => {
  test('has an answer of its own, and where none is agreed a word of thanks', () => {
    const reading = { kind: 'interested' as const, objection: null, quote: 'Sounds good.' };
    const draft = draftReply(asking('Sounds good. Call me tomorrow morning.', { reading }));
    expect(draft.body).toContain('Which day suits you for twenty minutes');
    const none = draftReply(asking('Sounds good. Call me tomorrow morning.', { reading, answers: [] }));
    expect([none.taken, none.body]).toEqual([[], expect.stringContaining('Thank you for your answer.')]);
  });
});

describe('an agreed answer', () => {
  const { scope } = asking('');
  const names = (said: Parameters<typeof candidatesFor>[0], over: object = {}) =>
    candidatesFor(said, demo.answers, { scope: { ...scope, ...over }, language: 'en' }).map(({ answer, fits }) => [answer.name, fits]);
  test('to an objection fits where its condition holds; others are shown with why they do not', () => {
    const said = { kind: 'objection' as const, about: 'price', words: '' };
    expect(names(said)).toEqual([
      ['Start with one bay', true],
      ['What the old box costs', true],
    ]);
    expect(names(said, { company: { ...company, heated_area: 0.4, controls_since: null } })).toEqual([
      ['Start with one bay', false],
      ['What the old box costs', false],
    ]);
    const [first] = candidatesFor(said, demo.answers, { scope: { ...scope, company: {} }, language: 'en' });
    expect([first?.fits, first?.isKnown]).toEqual([false, false]);
  });
  test.each([
    ['How long would the work take?', 'Days, bay by bay'],
    ['Roughly how many days does it take you?', 'Days, bay by bay'],
    ['Do you also offer a service contract?', 'Who comes when it stands still'],
    ['Who comes if it stands still on a Sunday?', 'Who comes when it stands still'],
  ])('is found by how people ask it: %s', (words, name) => {
    expect(names({ kind: 'question', about: null, words })[0]?.[0]).toBe(name);
  });
  test.each(['What is the weather like in your place?', 'Could you call me tomorrow?', 'Do you lease?'])(
    'is not found for: %s',
    (words) => {
      expect(names({ kind: 'question', about: null, words })).toEqual([]);
    },
  );
});

describe('a draft', () => {
  test('takes the answer that fits, fills its slots, and says of each sentence what it rests on', () => {
    const draft = draftReply(asking('The price is above what I can put in front of the board.', price));
    expect(draft.body).toBe(
      'Hello Nuria,\n\nThat is a fair point. The smallest step we offer is one bay, its screens and vents, and at 1.1 ha that is a small part of the whole. Later bays join without new wiring. Shall I send the figure for one bay on its own?\n\nKind regards\nLucía Ferrer Mas',
    );
    const [, , step, later] = draft.sentences;
    expect(step?.rests).toEqual([
      {
        kind: 'fact',
        label: 'heated area',
        value: '1.1 ha',
        source: 'viveros-almenara.example',
        url: 'https://viveros-almenara.example/vivero',
      },
      expect.objectContaining({ kind: 'statement', proof: 'price list 2026, page 2' }),
    ]);
    expect(later?.rests).toEqual([expect.objectContaining({ kind: 'statement', proof: 'service sheet 3, page 1' })]);
    expect([draft.language, draft.fallback, wrong(draft)]).toEqual(['en', false, []]);
  });
  test('takes another answer when a person says so', () => {
    const draft = draftReply(asking('It is too dear for us at the moment.', { ...price, chosen: 'What the old box costs' }));
    expect(draft.body).toContain('Your Tessel 4 has been running since 2014');
  });
  test('answers in the language they write in, else in one there is, and says so', () => {
    const german = draftReply(asking('Das ist uns im Augenblick leider viel zu teuer.', price));
    expect([german.language, german.fallback]).toEqual(['de', false]);
    expect(german.body).toMatch(/^Hallo Nuria,[\s\S]*bei 1,1 ha[\s\S]*ein Schiff[\s\S]*Mit freundlichen Grüßen/);
    const french = draftReply(asking('C’est beaucoup trop cher pour nous cette année.', price));
    expect([french.language, french.fallback]).toEqual(['fr', true]);
  });
  test('answers two questions in their order, and a third from what we say of ourselves', () => {
    const draft = draftReply(
      asking('How long would the work take? Who comes when it stands still? Can later bays join without new wiring?'),
    );
    expect(draft.taken.map(({ by }) => by)).toEqual([
      { kind: 'agreed', name: 'Days, bay by bay' },
      { kind: 'agreed', name: 'Who comes when it stands still' },
      { kind: 'statement', id: 'later-parts' },
    ]);
    expect(draft.body.indexOf('two days')).toBeLessThan(draft.body.indexOf('from seven to seven'));
  });
  test('says of what nothing covers that a colleague is asked, and invents nothing', () => {
    const draft = draftReply(asking('Do you lease the cabinets?'));
    expect(draft.taken[0]?.by).toBeNull();
    expect(draft.body).toContain('You ask: “Do you lease the cabinets?” I will ask a colleague');
    expect(draft.sentences.every(({ loose }) => loose === null)).toBe(true);
  });
  test('thanks for an objection nothing is agreed on, and does not answer it', () => {
    const trust = { kind: 'objection' as const, objection: 'trust' as const, quote: 'We have heard mixed things about you.' };
    const draft = draftReply(asking('We have heard mixed things about you.', { reading: trust }));
    expect(draft.body).toContain('Thank you for saying so openly.');
    expect(draft.taken[0]?.by).toBeNull();
  });
  test('leaves out a sentence whose value is not known, and says which', () => {
    const draft = draftReply(
      asking('Too dear.', { ...price, chosen: 'Start with one bay', scope: { ...asking('').scope, company: { name: 'X' } } }),
    );
    expect(draft.body).not.toContain('{');
    expect(draft.leftOut).toEqual([expect.stringContaining('heated area not known')]);
    expect(draft.body).toContain('Later bays join');
  });
  test('is stopped by what may not be said, a wrong name, and who must not be written to', () => {
    const check = (body: string, more: object = {}) =>
      checkReply({ ...asking(''), body, notSay: ['discount'], loose: [], ...more })
        .filter(({ ok }) => !ok)
        .map(({ id }) => id);
    expect(check('Hello Nuria,\n\nA Discount is possible.')).toEqual(['may not say']);
    expect(check('Hello Peter,\n\nfine.')).toEqual(['wrong name']);
    expect(check('Hello Nuria,\n\nfine.', { doNotContact: true })).toEqual(['do not contact']);
    expect(check('Hello Nuria,\n\nfine.', { loose: ['we always deliver in a day'] })).toEqual(['not held']);
  });
});
