import { catalogueOf, ownFieldSchema, STANDARD_FIELDS } from '../fields';
import { compileScorecard } from '../score';
import { addCriterion, readAsked, readGood, readPlace, readSells, readStages, sellsText } from './index';

const OWN = [
  { key: 'horses', label: 'horses', type: 'number' },
  { key: 'buy_bedding_in_bulk', label: 'buy bedding in bulk', type: 'yes/no' },
  { key: 'arena', label: 'arena', type: 'number', unit: 'm²' },
].map((field) => ownFieldSchema.parse({ record: 'company', group: 'Yard', ...field }));
const FIELDS = catalogueOf([...STANDARD_FIELDS, ...OWN]);

describe('where we are', () => {
  test.each([
    ['United Kingdom', 'GB', 'Europe/London'],
    ['Falmouth, United Kingdom', 'GB', 'Europe/London'],
    ['Berlin', 'DE', 'Europe/Berlin'],
    ['Amsterdam', 'NL', 'Europe/Amsterdam'],
    ['Deutschland', 'DE', 'Europe/Berlin'],
  ])('%s is %s by the clock of %s', (text, country, zone) => {
    expect(readPlace(text)).toEqual({ ok: true, country, zone });
  });
  test('a small town alone is asked about', () => {
    expect(readPlace('Falmouth')).toEqual({ ok: false, why: 'where is Falmouth? say the country with it' });
    expect(readPlace(' ')).toMatchObject({ ok: false });
  });
});

describe('what a deal goes through', () => {
  test.each([
    'Asked → Quoted → Ordered, or it is Lost',
    'Asked, Quoted, Ordered, Lost',
    'Asked\nQuoted\nOrdered\nLost',
    'Asked > Quoted -> Ordered; Lost',
  ])('%j', (text) => {
    expect(readStages(text)).toEqual({ ok: true, stages: ['Asked', 'Quoted', 'Ordered', 'Lost'] });
  });
  test('one stage is no way to go, and none stands there twice', () => {
    expect(readStages('Asked')).toMatchObject({ ok: false });
    expect(readStages('Asked, Won, asked')).toEqual({ ok: false, why: '“asked” stands there twice' });
    expect(readStages(Array.from({ length: 31 }, (_, i) => `S${i}`).join(','))).toEqual({ ok: false, why: '31 stages: 30 at most' });
  });
});

describe('what is wanted of every company', () => {
  test.each([
    ['how many horses they keep', 'horses', 'number', 'How many horses do they keep?'],
    ['whether they buy bedding in bulk', 'buy bedding in bulk', 'yes/no', 'Do they buy bedding in bulk?'],
    ['where the yard is', 'yard', 'text', 'Where is the yard?'],
    ['their busiest months, months', 'busiest months', 'list', 'Their busiest months?'],
    ['who decides', 'who decides', 'text', 'Who decides?'],
    ['how large their arena is, number in m²', 'arena', 'number in m²', 'How large is their arena?'],
    ['since when they breed (year)', 'breed', 'year', 'Since when do they breed?'],
  ])('%s', (text, label, typeText, wording) => {
    expect(readAsked(text)).toMatchObject({ ok: true, asked: { label, typeText, wording } });
  });
  test('a name in flows is made of it', () => {
    expect(readAsked('how many horses they keep')).toMatchObject({ asked: { key: 'horses', type: 'number', unit: undefined } });
  });
  test('nothing typed, and nothing with a word, is said so', () => {
    expect(readAsked('  ')).toMatchObject({ ok: false });
    expect(readAsked('???')).toMatchObject({ ok: false });
  });
});

describe('what a good one is', () => {
  test.each([
    ['keeps between 5 and 40 horses', ['company.horses between 5 and 40']],
    ['more than 10 horses', ['company.horses > 10']],
    ['buys bedding in bulk', ['company.buy_bedding_in_bulk = true']],
    ['company.horses >= 5', ['company.horses >= 5']],
  ])('%s', (text, feel) => {
    expect(readGood(text, FIELDS)).toEqual({ ok: true, feel });
  });
  test('what is no field is said so', () => {
    expect(readGood('has blue doors', FIELDS).ok).toBe(false);
    expect(readGood('company.nothing > 3', FIELDS).ok).toBe(false);
  });
  test('each adds a criterion of the same weight; a good one has three fifths of all, unless somebody moved that', () => {
    const one = addCriterion(undefined, 'keeps horses', 'company.horses >= 5');
    const two = addCriterion(one, 'buys in bulk', 'company.buy_bedding_in_bulk = true');
    expect(two.criteria.map(({ id }) => id)).toEqual(['c1', 'c2']);
    expect(two.bands).toEqual([
      { name: 'good', from: 12 },
      { name: 'rest', from: 0 },
    ]);
    expect(compileScorecard(two)({ company: { horses: 12, buy_bedding_in_bulk: true } })).toMatchObject({ points: 20, band: 'good' });
    const moved = {
      ...two,
      bands: [
        { name: 'good', from: 20 },
        { name: 'rest', from: 0 },
      ],
    };
    expect(addCriterion(moved, 'more', 'company.arena > 100').bands[0]).toEqual({ name: 'good', from: 20 });
  });
});

test('what we sell to whom is one sentence, and is read back from it', () => {
  const sells = { what: 'bedding and feed, by the pallet', whom: 'riding schools and livery yards' };
  expect(sellsText(sells)).toBe('We sell bedding and feed, by the pallet to riding schools and livery yards.');
  expect(readSells(sellsText(sells))).toEqual(sells);
  expect(readSells(sellsText({ what: 'mats', whom: '' }))).toEqual({ what: 'mats', whom: '' });
  expect(readSells(sellsText({ what: '', whom: 'yards.' }))).toEqual({ what: '', whom: 'yards' });
  expect(sellsText({ what: ' ', whom: '' })).toBe('');
});
