import {
  alikeAsTyped,
  around,
  corrections,
  interval,
  learntIn,
  letter,
  sayValue,
  shown,
  tallyOf,
  verdictOf,
  type Place,
  type QuestionDraft,
  type QuestionView,
  type Site,
} from './teach';

const site = (was: Site['was'], is: Site['is']): Site => ({
  host: 'a.example',
  companyId: 'c',
  name: 'A',
  known: 1,
  knownFrom: 'hand',
  before: null,
  after: null,
  was,
  is,
});
const place: Place = { value: 4, says: 'We run 4 yards.', under: '', url: 'http://a.example/', date: null, before: 0.1, after: 0.9 };
const draft: QuestionDraft = { words: [], not: [], least: null, shown: [], leftOut: [], months: null, optionWords: {} };

test('sites are counted by what came of them; those without a known answer are not', () => {
  const sites = [site('right', 'right'), site('wrong', 'right'), site('missing', 'wrong'), site('unknown', 'unknown')];
  expect(tallyOf(sites, 'was')).toEqual({ right: 1, wrong: 1, missing: 1, of: 3 });
  expect(tallyOf(sites, 'is')).toEqual({ right: 2, wrong: 1, missing: 0, of: 3 });
});

test('a share of few says little', () => {
  expect(interval(17, 20)).toEqual([64, 95]);
  expect(interval(0, 0)).toEqual([0, 100]);
  expect(interval(0, 1)[1]).toBeGreaterThan(70);
});

test('what is shown of an answer replaces what was shown of it', () => {
  const once = shown(draft, 'a.example', place, 'this');
  expect(verdictOf(once, 'a.example', place)).toBe('this');
  const twice = shown(once, 'a.example', place, 'not', 'planned');
  expect(twice.shown).toEqual([{ host: 'a.example', value: 4, says: place.says, verdict: 'not', reason: 'planned' }]);
  expect(verdictOf(twice, 'b.example', place)).toBeUndefined();
});

test.each([
  ['We run 4 yards.', 4, ['We run ', '4', ' yards.']],
  ['We run 14 yards.', 4, undefined],
  ['Auf 10,2 Hektar.', 10.2, ['Auf ', '10,2', ' Hektar.']],
  ['Op 12.000 meter.', 12000, ['Op ', '12.000', ' meter.']],
  ['Ask Anna Brand.', 'anna brand', ['Ask ', 'Anna Brand', '.']],
  ['Yes, we do.', true, undefined],
] as const)('the value stands out in “%s”', (says, value, parts) => {
  expect(around(says, value)).toEqual(parts);
});

test('values and letters as people read them', () => {
  expect([null, true, false, 4.2, 'x'].map(sayValue)).toEqual(['–', 'yes', 'no', '4.2', 'x']);
  expect([0, 2].map(letter)).toEqual(['a', 'c']);
});

describe('what was set by hand and is read otherwise', () => {
  const view = (sites: readonly Site[], shown: QuestionDraft['shown'] = []): QuestionView =>
    ({ sites: [...sites], draft: { ...draft, shown } }) as Partial<QuestionView> as QuestionView;
  test('is offered as an example until it is one', () => {
    const sites = [
      { ...site('wrong', 'wrong'), host: 'a.example' },
      { ...site('right', 'right'), host: 'b.example' },
      { ...site('missing', 'missing'), host: 'c.example' },
      { ...site('wrong', 'wrong'), host: 'd.example', knownFrom: 'answered' },
    ];
    expect(corrections(view(sites)).map(({ host }) => host)).toEqual(['a.example', 'c.example']);
    const taught = [{ host: 'a.example', value: 4, says: 'We run 4 yards.', verdict: 'this' as const }];
    expect(corrections(view(sites, taught)).map(({ host }) => host)).toEqual(['c.example']);
  });
  test.each([
    [4, 4, true],
    ['Tessel 5', 'tessel 5', true],
    ['Tessel 5', 'Tessel 4', false],
    [true, 'true', false],
  ])('%j is %j as typed: %s', (read, typed, same) => {
    expect(alikeAsTyped(read, typed)).toBe(same);
  });
});

test.each([
  [{ phrase: 'yard', weight: 0.7 }, 'yard'],
  [{ phrase: 'planned', weight: -1, isStanding: true }, 'what is planned'],
  [{ phrase: 'others’', weight: -1, isStanding: true }, 'what is said of others'],
  [{ phrase: 'planned', weight: -0.7 }, 'planned'],
])('%j is learnt as “%s”', (learnt, says) => {
  expect(learntIn(learnt)).toBe(says);
});
