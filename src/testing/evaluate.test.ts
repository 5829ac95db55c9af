/** The built-in reader against the demo’s sites: the key was made by reading the pages, not by running the reader. */
import fs from 'node:fs';
import path from 'node:path';
import { evaluate, figuresOf, verdictOf } from './evaluate';

const DEMO = path.resolve(__dirname, '../../demo');
const judged = evaluate(path.join(DEMO, 'web'), path.join(DEMO, 'answers.json'));

test('at least sixty sites and seven questions, many of them not to be answered', () => {
  expect(new Set(judged.map((entry) => entry.host)).size).toBeGreaterThanOrEqual(60);
  expect(new Set(judged.map((entry) => entry.question)).size).toBeGreaterThanOrEqual(7);
  expect(judged.filter((entry) => entry.expected === null).length).toBeGreaterThan(judged.length / 4);
});

test('wrong answers are worse than missing ones: the bars hold', () => {
  const { precision, recall } = figuresOf(judged);
  expect(precision).toBeGreaterThanOrEqual(0.97);
  expect(recall).toBeGreaterThanOrEqual(0.85);
});

test.each([...new Set(judged.map((entry) => entry.question))])('%s: no question is answered at the cost of another', (question) => {
  const { precision, recall } = figuresOf(judged.filter((entry) => entry.question === question));
  expect(precision).toBeGreaterThanOrEqual(0.95);
  expect(recall).toBeGreaterThanOrEqual(0.85);
});

test('every answer has the words it rests on and where they stand', () => {
  for (const { answer } of judged)
    if (answer.found) {
      expect(answer.quote).toBeTruthy();
      expect(answer.url).toMatch(/^http/);
      expect(answer.confidence).toBeGreaterThan(0);
    }
});

test.each([
  [4, 4.03, 'right'],
  [4, 4.2, 'wrong'],
  ['Tessel 4', 'tessel 4', 'right'],
  [null, 'x', 'wrong'],
  ['x', null, 'missed'],
  [null, null, 'abstained'],
  [false, false, 'right'],
  [false, null, 'missed'],
] as const)('%j against %j is %s', (expected, given, verdict) => {
  expect(verdictOf(expected, given)).toBe(verdict);
});

test('a folder without answers has nothing wrong in it', () => {
  expect(figuresOf([])).toEqual({ right: 0, wrong: 0, missed: 0, abstained: 0, precision: 1, recall: 1 });
  expect(fs.existsSync(path.join(DEMO, 'answers.json'))).toBe(true);
});
