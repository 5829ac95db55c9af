/** The built-in reader against the demo’s sites: the key was made by reading the pages, not by running the reader. */
import { MODEL } from '../../core/reader/learning';
import { agrees, readKey, verdictOf, type KeyQuestion } from './key';
import { figuresOf, judge } from './run';
import { demoSites } from './sets';

const judged = judge(demoSites(), MODEL, ['worded']);

test('at least sixty sites and seven questions, many of them not to be answered', () => {
  expect(new Set(judged.map((entry) => entry.host)).size).toBeGreaterThanOrEqual(60);
  expect(new Set(judged.map((entry) => entry.question)).size).toBeGreaterThanOrEqual(7);
  expect(judged.filter((entry) => !entry.mustSay).length).toBeGreaterThan(judged.length / 4);
});

test('wrong answers are worse than missing ones: the bars hold', () => {
  const { precision, recall } = figuresOf(judged);
  expect(precision).toBeGreaterThanOrEqual(0.96);
  expect(recall).toBeGreaterThanOrEqual(0.88);
});

test('every answer has the words it rests on and where they stand', () => {
  for (const { answer } of judged)
    if (answer.found) {
      expect(answer.quote).toBeTruthy();
      expect(answer.url).toMatch(/^http/);
      expect(answer.confidence).toBeGreaterThanOrEqual(MODEL.least);
    }
});

test('confidence tells right from wrong', () => {
  const share = (from: number, to: number): number => {
    const within = judged.filter(({ answer }) => answer.found && answer.confidence >= from && answer.confidence < to);
    return within.filter(({ verdict }) => verdict === 'right').length / within.length;
  };
  expect(share(0.9, 1.01)).toBeGreaterThanOrEqual(0.95);
  expect(share(0.7, 0.8)).toBeLessThan(share(0.8, 1.01));
});

const question = (type: string, more: Partial<KeyQuestion> = {}): KeyQuestion => ({ id: 'q', type, wording: 'What?', ...more });

test.each([
  [question('number'), 4, 4, true],
  [question('number'), 4, 5, false],
  [question('number in ha'), 4, 4.03, true],
  [question('number in ha'), 4, 4.2, false],
  [question('number', { unit: 'horses' }), 2009, 2010, false],
  [question('year'), 2009, 2010, false],
  [question('yes/no'), 'no', false, true],
  [question('yes/no'), true, false, false],
  [question('text'), 'Tessel 4', 'tessel 4', true],
  [question('text'), 'Anna Brand', 'Frau Anna Brand', true],
  [question('text'), 'Anna Brand', 'Anna', false],
  [question('choice', { options: ['gas', 'oil'] }), 'gas', 'Gas', true],
  [question('list'), ['English', 'Welsh'], 'Welsh, English', true],
  [question('list'), ['English', 'Welsh'], 'Welsh', false],
  [question('list'), ['English'], 'English, French', false],
  [question('list'), 'none', 'none', true],
] as const)('%j: %j and %j agree: %j', (asked, expected, given, same) => {
  expect(agrees(asked, expected as never, given)).toBe(same);
});

test('silence is right, wrong or left open, as the key says', () => {
  expect(verdictOf(question('text'), { value: null }, null)).toBe('abstained');
  expect(verdictOf(question('text'), { value: null }, 'x')).toBe('wrong');
  expect(verdictOf(question('text'), { value: 'x' }, null)).toBe('missed');
  expect(verdictOf(question('text'), { value: 'x', accept: [null] }, null)).toBe('abstained');
  expect(verdictOf(question('text'), { value: 'x', accept: ['y'] }, 'y')).toBe('right');
});

test('a key may be bare, and one that asks with an unknown type is refused by name', () => {
  const key = readKey('a', { questions: [{ id: 'q', type: 'number', unit: 't', wording: 'How much?' }], sites: { 'a.example': { q: 4 } } });
  expect(key.sites['a.example']?.q).toEqual({ value: 4 });
  expect(figuresOf([])).toEqual({ right: 0, wrong: 0, missed: 0, abstained: 0, precision: 1, recall: 1 });
});
