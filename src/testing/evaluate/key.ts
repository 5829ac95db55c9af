/** Keys made by people: what a folder of sites says to typed questions. */
import fs from 'node:fs';
import path from 'node:path';
import robotsParser from 'robots-parser';
import { z } from 'zod';
import { fold } from '../../core/base';
import type { Passage } from '../../core/reader';
import type { AnswerType } from '../../core/flow/syntax';
import { unitOf } from '../../core/units';
import { pageOf } from '../../server/box';

const valueSchema = z.union([z.string(), z.number(), z.boolean(), z.null(), z.array(z.string())]);
export type KeyValue = z.output<typeof valueSchema>;

const answerSchema = z.object({
  value: valueSchema,
  /** other right values; null: saying nothing is right too */
  accept: z.array(valueSchema).optional(),
  /** items of a list that may be there or not */
  optional: z.array(z.string()).optional(),
  quote: z.string().optional(),
});
export type KeyAnswer = z.output<typeof answerSchema>;

const questionSchema = z.object({
  id: z.string(),
  type: z.string(),
  unit: z.string().optional(),
  options: z.array(z.string()).optional(),
  optionWords: z.record(z.string(), z.array(z.string())).optional(),
  wording: z.string(),
  words: z.array(z.string()).optional(),
  not: z.array(z.string()).optional(),
  window: z.object({ months: z.number() }).optional(),
});
export type KeyQuestion = z.output<typeof questionSchema>;

/** `docs/questions.md` shows one. A site's answers may stand in `answers`, or be bare values. */
const keySchema = z.object({
  today: z.iso.date().optional(),
  questions: z.array(questionSchema),
  sites: z.record(z.string(), z.record(z.string(), z.unknown())),
  teach: z.array(z.string()).optional(),
});

export interface Key {
  readonly name: string;
  readonly today: string;
  readonly questions: readonly KeyQuestion[];
  readonly sites: Readonly<Record<string, Readonly<Record<string, KeyAnswer>>>>;
  readonly teach: readonly string[];
}

const TODAY = '2026-11-24';

export function readKey(name: string, json: unknown, today = TODAY): Key {
  const key = keySchema.parse(json);
  const answer = (raw: unknown): KeyAnswer => {
    const bare = valueSchema.safeParse(raw);
    return bare.success ? { value: bare.data } : answerSchema.parse(raw);
  };
  return {
    name,
    today: key.today ?? today,
    questions: key.questions,
    teach: key.teach ?? [],
    sites: Object.fromEntries(
      Object.entries(key.sites).map(([host, site]) => {
        const answers = typeof site.answers === 'object' && site.answers !== null ? (site.answers as Record<string, unknown>) : site;
        return [host, Object.fromEntries(key.questions.map(({ id }) => [id, answer(answers[id] ?? null)]))];
      }),
    ),
  };
}

/** The keys of a file: one, or one for each of its trades. */
export function readKeys(file: string): readonly Key[] {
  const json = z
    .looseObject({ today: z.string().optional(), trades: z.record(z.string(), z.unknown()).optional() })
    .parse(JSON.parse(fs.readFileSync(file, 'utf8')));
  if (!json.trades) return [readKey(path.basename(file, '.json'), json)];
  return Object.entries(json.trades).map(([name, trade]) => readKey(name, trade, json.today));
}

const files = (folder: string): readonly string[] =>
  fs
    .readdirSync(folder, { withFileTypes: true })
    .flatMap((entry) => (entry.isDirectory() ? files(path.join(folder, entry.name)) : [path.join(folder, entry.name)]));

/** A site from its folder, as a visitor who keeps to robots.txt sees it. */
export function passagesOf(folder: string, host: string): readonly Passage[] {
  const root = path.join(folder, host);
  const robots = path.join(root, 'robots.txt');
  const rules = robotsParser(`http://${host}/robots.txt`, fs.existsSync(robots) ? fs.readFileSync(robots, 'utf8') : '');
  return files(root)
    .filter((file) => /\.html?$/.test(file))
    .map((file) => ({ file, url: `http://${host}/${path.relative(root, file)}` }))
    .filter(
      ({ url }) =>
        rules.isAllowed(url, 'Millrace') !== false && rules.isAllowed(url.replace(/(?:index)?\.html?$/, ''), 'Millrace') !== false,
    )
    .map(({ file, url }) => pageOf({ url, status: 200, type: 'text/html', bytes: fs.readFileSync(file) }));
}

export function answerTypeOf(question: KeyQuestion): AnswerType {
  const [type = '', , unit] = question.type.split(' ');
  switch (type) {
    case 'number': {
      const named = question.unit ?? unit;
      return named === undefined ? { kind: 'number' } : { kind: 'number', unit: named };
    }
    case 'choice':
      return { kind: 'choice', options: question.options ?? [] };
    case 'text':
      return question.options && question.options.length > 0 ? { kind: 'choice', options: question.options } : { kind: 'text' };
    case 'list':
    case 'yes/no':
    case 'year':
    case 'date':
      return { kind: type };
    default:
      throw new Error(`the key asks “${question.id}” with a type that questions do not have: ${question.type}`);
  }
}

const TITLES = new Set('mr mrs ms miss dr herr frau dhr mevr don dona sr sra m mme'.split(' '));
const wordsOf = (text: string): readonly string[] => (fold(text).match(/[\p{L}\p{N}]+/gu) ?? []).filter((word) => !TITLES.has(word));
const itemsOf = (value: string | readonly string[]): readonly string[] =>
  (typeof value === 'string' ? value.split(/[,;/]|\s+(?:and|und|en|y|et|&)\s+/) : value)
    .map((item) => wordsOf(item).join(' '))
    .filter((item) => item !== '');
const NONE = new Set(['none', 'no', 'keine', 'geen', 'ninguno', 'aucun', 'nothing']);

/** Whether a value says what the key says: numbers exactly, areas and the like to one in a hundred, lists item by item. */
export function agrees(
  question: KeyQuestion,
  expected: KeyValue,
  given: string | number | boolean,
  optional: readonly string[] = [],
): boolean {
  if (expected === null) return false;
  if (question.type.startsWith('list')) {
    const got = itemsOf(String(given));
    if (typeof expected === 'string' && NONE.has(fold(expected))) return got.length === 1 && NONE.has(got[0] ?? '');
    const wanted = itemsOf(Array.isArray(expected) ? expected : String(expected));
    const may = [...wanted, ...itemsOf(optional)];
    const meets = (a: string, b: string): boolean =>
      a === b || (a.split(' ').length - b.split(' ').length <= 2 && ` ${a} `.includes(` ${b} `));
    return (
      got.length > 0 &&
      wanted.every((item) => got.some((each) => meets(each, item))) &&
      got.every((each) => may.some((item) => meets(each, item)))
    );
  }
  if (typeof given === 'number') {
    const wanted = Number(expected);
    const unit = question.unit ?? question.type.split(' ')[2];
    const tolerance = unit !== undefined && unitOf(unit) ? 0.01 : 0;
    return Math.abs(given - wanted) <= Math.abs(wanted) * tolerance + 1e-9;
  }
  if (typeof given === 'boolean')
    return (expected === true || expected === 'yes') === given && (typeof expected === 'boolean' || /^(?:yes|no)$/.test(String(expected)));
  const got = wordsOf(given);
  const wanted = wordsOf(String(expected));
  if (got.join(' ') === wanted.join(' ')) return true;
  if (question.type.startsWith('choice')) return false;
  return wanted.length > 0 && ` ${got.join(' ')} `.includes(` ${wanted.join(' ')} `) && got.length - wanted.length <= 2;
}

export const isRight = (question: KeyQuestion, answer: KeyAnswer, given: string | number | boolean): boolean =>
  [answer.value, ...(answer.accept ?? [])].some((expected) => agrees(question, expected, given, answer.optional));

/** Saying nothing is right, or as right as something. */
export const maySaySilent = (answer: KeyAnswer): boolean => answer.value === null || (answer.accept ?? []).includes(null);
export const mustSay = (answer: KeyAnswer): boolean => !maySaySilent(answer);
export type Verdict = 'right' | 'wrong' | 'missed' | 'abstained';

export function verdictOf(question: KeyQuestion, answer: KeyAnswer, given: string | number | boolean | null): Verdict {
  if (given === null) return mustSay(answer) ? 'missed' : 'abstained';
  return isRight(question, answer, given) ? 'right' : 'wrong';
}
