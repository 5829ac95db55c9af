import { around, interval, letter, sayValue, shown, tallyOf, verdictOf, type Place, type QuestionDraft, type Site } from './teach';

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
const draft: QuestionDraft = { words: [], not: [], least: null, shown: [], leftOut: [] };

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
