/** Details of journal lines as they were kept then are read as they are today. */
import { readDetail } from './index';

test('findings of before news and registers were read have the site as their source', () => {
  const kept = {
    pages: 4,
    findings: [{ id: 'employees', found: true, value: 40, quote: 'a staff of 40', url: 'a.example/about', confidence: 0.9 }],
  };
  expect(readDetail('read', kept)?.findings).toEqual([
    {
      id: 'employees',
      found: true,
      value: 40,
      quote: 'a staff of 40',
      url: 'a.example/about',
      source: 'site',
      confidence: 0.9,
      date: null,
      says: '',
      unit: null,
    },
  ]);
  const today = { findings: [{ ...kept.findings[0], source: 'news', date: 1 }] };
  expect(readDetail('read', today)?.findings[0]).toMatchObject({ source: 'news', date: 1 });
});

test('a score, a split and a screening', () => {
  const score = { points: 62, of: 100, band: 'warm', out: false, working: [{ text: 'large', points: 30, of: 40, reads: [] }] };
  expect(readDetail('score', score)).toMatchObject({
    points: 62,
    band: 'warm',
    disqualifiedBy: [],
    working: [{ text: 'large', points: 30, of: 40 }],
  });
  expect(readDetail('split', { arm: 'k1' })).toEqual({ arm: 'k1', unknown: [] });
  expect(readDetail('keep', { verdicts: [] })).toEqual({ verdicts: [] });
});

test('what a line kept none of is not there', () => {
  expect(readDetail('score', { why: 'the scorecard is gone' })).toBeUndefined();
  expect(readDetail('read', {})).toBeUndefined();
  expect(readDetail('keep', { verdicts: [{ screen: 'made up', says: '', about: '' }] })).toBeUndefined();
});
