/** Holds the built-in reader against a key made by people: which answers are right, wrong, missed, and rightly not given. */
import fs from 'node:fs';
import path from 'node:path';
import { z } from 'zod';
import { fold } from '../core/base';
import { answerAll, type ReaderAnswer } from '../core/reader';
import { pageOf } from '../server/box';
import { questionOf } from '../server/usecases/questions';

const keySchema = z.object({
  /** the day the key was made for: what is “in the last 18 months” hangs on it */
  readOn: z.iso.date(),
  questions: z.array(z.object({ id: z.string(), type: z.string(), wording: z.string() })),
  /** by host and question; null: not to be found there */
  sites: z.record(z.string(), z.record(z.string(), z.union([z.string(), z.number(), z.boolean(), z.null()]))),
});
type Value = string | number | boolean | null;

export type Verdict = 'right' | 'wrong' | 'missed' | 'abstained';

export interface Judged {
  readonly host: string;
  readonly question: string;
  readonly type: string;
  readonly expected: Value;
  readonly answer: ReaderAnswer;
  readonly verdict: Verdict;
}

/** Numbers to one in a hundred, words whatever their case and accents. */
function agrees(expected: Value, given: Value): boolean {
  if (typeof expected === 'number' && typeof given === 'number') return Math.abs(expected - given) <= Math.abs(expected) * 0.01;
  return fold(String(expected)) === fold(String(given));
}

export function verdictOf(expected: Value, given: Value): Verdict {
  if (given === null) return expected === null ? 'abstained' : 'missed';
  return expected !== null && agrees(expected, given) ? 'right' : 'wrong';
}

/** Every site of the key, read from its folder under `web` as a visitor would see it. */
export function evaluate(web: string, keyFile: string): readonly Judged[] {
  const key = keySchema.parse(JSON.parse(fs.readFileSync(keyFile, 'utf8')));
  const now = Date.parse(`${key.readOn}T10:00:00Z`);
  const questions = key.questions.map((entry) => {
    const question = questionOf(entry);
    if (!question) throw new Error(`the key asks “${entry.id}” with a type that flows do not know: ${entry.type}`);
    return { question, type: entry.type };
  });
  const asked = questions.map(({ question }) => ({ id: question.id.text, type: question.type, wording: question.wording.text }));
  return Object.entries(key.sites).flatMap(([host, expected]) => {
    const folder = path.join(web, host);
    const pages = fs
      .readdirSync(folder)
      .filter((name) => /\.html?$/.test(name) && !/privacy/.test(name))
      .map((name) =>
        pageOf({ url: `http://${host}/${name}`, status: 200, type: 'text/html', bytes: fs.readFileSync(path.join(folder, name)) }),
      );
    return answerAll(asked, pages, now).map((answer, i): Judged => {
      const id = asked[i]?.id ?? '';
      const right = expected[id] ?? null;
      return { host, question: id, type: questions[i]?.type ?? '', expected: right, answer, verdict: verdictOf(right, answer.value) };
    });
  });
}

export interface Figures {
  readonly right: number;
  readonly wrong: number;
  readonly missed: number;
  readonly abstained: number;
  /** of the answers given, how many are right; 1 when none was given */
  readonly precision: number;
  /** of the answers to be had, how many were given rightly; 1 when there was none */
  readonly recall: number;
}

export function figuresOf(judged: readonly Judged[]): Figures {
  const count = (verdict: Verdict): number => judged.filter((entry) => entry.verdict === verdict).length;
  const [right, wrong, missed, abstained] = [count('right'), count('wrong'), count('missed'), count('abstained')];
  const toBeHad = judged.filter((entry) => entry.expected !== null).length;
  return {
    right,
    wrong,
    missed,
    abstained,
    precision: right + wrong === 0 ? 1 : right / (right + wrong),
    recall: toBeHad === 0 ? 1 : right / toBeHad,
  };
}
