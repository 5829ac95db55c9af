/** The built-in reader on keyed sites: cold (wording only), worded (with words somebody adds), taught (after examples). */
import { fold } from '../../core/base';
import type { Asked, Passage, ReaderAnswer } from '../../core/reader';
import {
  answerFrom,
  calibrate,
  familyOf,
  featuresOf,
  fit,
  formOf,
  learn,
  PRIORS,
  saidIn,
  sceneOf,
  type Case,
  type Model,
  type Said,
  type Told,
  type Weights,
} from '../../core/reader/learning';
import { unitOf } from '../../core/units';
import { Dictionaries } from '../../server/adapters/dictionary';
import { askedWith } from '../../server/research/asked';
import {
  answerTypeOf,
  isRight,
  maySaySilent,
  mustSay,
  passagesOf,
  verdictOf,
  type Key,
  type KeyAnswer,
  type KeyQuestion,
  type Verdict,
} from './key';

export const STEPS = ['cold', 'worded', 'taught'] as const;
export type Step = (typeof STEPS)[number];

export interface Judged {
  readonly trade: string;
  readonly step: Step;
  readonly host: string;
  readonly question: string;
  readonly form: string;
  readonly expected: KeyAnswer;
  readonly answer: ReaderAnswer;
  readonly verdict: Verdict;
  readonly mustSay: boolean;
}

/** A key with its sites read. */
export interface Read {
  readonly key: Key;
  readonly now: number;
  readonly sites: ReadonlyMap<string, { readonly said: readonly Said[]; readonly pages: number }>;
}

const dictionaries = new Dictionaries();

export function readSites(key: Key, folder: string): Read {
  const sites = new Map(
    Object.keys(key.sites).map((host) => {
      const passages: readonly Passage[] = passagesOf(folder, host);
      return [host, { said: saidIn(passages, dictionaries), pages: passages.length }];
    }),
  );
  return { key, now: Date.parse(`${key.today}T10:00:00Z`), sites };
}

/** What is expected before any training: with it the first examples teach. */
export const PRIOR_MODEL: Model = { weights: PRIORS, calibration: {}, least: 0 };

function askedOf(question: KeyQuestion, step: Step): Asked {
  const plain = { id: question.id, type: answerTypeOf(question), wording: question.wording };
  const known = {
    options: question.options,
    optionWords: question.optionWords,
    months: question.window?.months,
    ...(step === 'cold' ? {} : { words: question.words, not: question.not }),
  };
  return askedWith(plain, known, dictionaries);
}

/** The questions of a key at a step; `taught` learns from the sites shown. */
export function questionsAt(read: Read, step: Step, model: Model): readonly Asked[] {
  return read.key.questions.map((question) => {
    const asked = askedOf(question, step);
    if (step !== 'taught') return asked;
    const examples = read.key.teach.flatMap((host) => {
      const site = read.sites.get(host);
      const answer = read.key.sites[host]?.[question.id];
      if (!site || !answer) return [];
      return [
        {
          said: site.said,
          now: read.now,
          right: (value: string | number | boolean) => isRight(question, answer, value),
          ...(answer.quote === undefined ? {} : { quote: answer.quote }),
        },
      ];
    });
    return { ...asked, learnt: learn(asked, examples, model) };
  });
}

/** Every question before every site of the key, at each step, as cases to learn from. */
/** `model`: with which the taught step learns; the weights that come out of the cases are the next one's. */
export function casesOf(read: Read, model: Model, weight = 1, steps: readonly Step[] = STEPS): readonly Case[] {
  return steps.flatMap((step) => {
    const questions = questionsAt(read, step, model);
    return [...read.sites].flatMap(([host, site]) => {
      if (step === 'taught' && read.key.teach.includes(host)) return [];
      return questions.flatMap((asked, i): Case[] => {
        const question = read.key.questions[i];
        const answer = question && read.key.sites[host]?.[question.id];
        if (!question || !answer) return [];
        const scene = sceneOf(asked, site.said, read.now);
        const right = scene.candidates.map((candidate) => isRight(question, answer, candidate.value));
        const silence = maySaySilent(answer) || !right.includes(true);
        return [{ family: familyOf(scene.form), candidates: featuresOf(scene), right, silence, weight }];
      });
    });
  });
}

export function judge(read: Read, model: Model, steps: readonly Step[] = STEPS, all = false): readonly Judged[] {
  const { key } = read;
  return steps.flatMap((step) => {
    const questions = questionsAt(read, step, model);
    return [...read.sites].flatMap(([host, site]) => {
      // Sites that taught are no test of what was learnt.
      if (!all && key.teach.includes(host)) return [];
      return questions.flatMap((asked, i): Judged[] => {
        const question = key.questions[i];
        const expected = question && key.sites[host]?.[question.id];
        if (!question || !expected) return [];
        const answer = answerFrom(asked, site.said, site.pages, read.now, model);
        const unit = asked.type.kind === 'number' ? asked.type.unit : undefined;
        const form = formOf(asked, fold(asked.wording), unit !== undefined && unitOf(unit) !== undefined);
        return [
          {
            trade: key.name,
            step,
            host,
            question: question.id,
            form,
            expected,
            answer,
            verdict: verdictOf(question, expected, answer.value),
            mustSay: mustSay(expected),
          },
        ];
      });
    });
  });
}

export interface Training {
  readonly read: Read;
  readonly weight: number;
}
const RIDGE = 0.05;
const OWN = 1;
/** Below this an answer is not given, where a question says nothing else. */
const LEAST = 0.7;

interface Left {
  readonly read: Read;
  readonly weights: Weights;
}

/** For each set the weights learnt from all the others. */
function leftOut(sets: readonly Training[], cases: readonly (readonly Case[])[]): readonly Left[] {
  return sets.map(({ read }, i) => ({ read, weights: fit(cases.filter((_, k) => k !== i).flat(), RIDGE, OWN) }));
}

/** Answers given to a set by what others taught; every set counts alike, however many sites it has. */
const toldOf = ({ read, weights }: Left): readonly Told[] => {
  const given = judge(read, { weights, calibration: {}, least: 0 }).filter(({ answer }) => answer.found);
  return given.map(({ answer, verdict }) => ({ share: answer.confidence, right: verdict === 'right', weight: PER_SET / given.length }));
};
const PER_SET = 200;

/** Weights from keyed sites, calibrated on answers to sites of other sets than those learnt from. */
export function train(sets: readonly Training[]): Model {
  const cases = sets.map(({ read, weight }) => casesOf(read, PRIOR_MODEL, weight));
  return { weights: fit(cases.flat(), RIDGE, OWN), calibration: { all: calibrate(leftOut(sets, cases).flatMap(toldOf)) }, least: LEAST };
}

/** Every set read with what was learnt, and calibrated, on all others: the figure that counts for a trade nobody has seen. */
export function leaveOneOut(sets: readonly Training[]): readonly Judged[] {
  const cases = sets.map(({ read, weight }) => casesOf(read, PRIOR_MODEL, weight));
  const left = leftOut(sets, cases);
  const told = left.map(toldOf);
  return left.flatMap(({ read, weights }, i) =>
    judge(read, { weights, calibration: { all: calibrate(told.filter((_, k) => k !== i).flat()) }, least: LEAST }),
  );
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
  const must = judged.filter((entry) => entry.mustSay);
  return {
    right,
    wrong,
    missed,
    abstained,
    precision: right + wrong === 0 ? 1 : right / (right + wrong),
    recall: must.length === 0 ? 1 : must.filter((entry) => entry.verdict === 'right').length / must.length,
  };
}
