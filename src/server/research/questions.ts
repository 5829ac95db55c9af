import { z } from 'zod';
import type { Question } from '../../core/flow/syntax';
import { parseFlow } from '../../core/flow/syntax';
import type { Tx } from '../db';
import { getSetting } from '../platform/store/settings';
import type { Asked } from '../../core/reader';
import { askedWith } from './asked';
import type { World } from '../platform/world';

/**
 * What is asked of every company, as flow text writes questions (`number in ha`), and what is known of the question: all of that may
 * be left out. A question of a flow by the same name is read with it.
 */
export const standingQuestionsSchema = z.array(
  z.object({
    id: z.string(),
    type: z.string(),
    wording: z.string(),
    /** a text that is one of these */
    options: z.array(z.string()).optional(),
    /** other words for an option */
    optionWords: z.record(z.string(), z.array(z.string())).optional(),
    /** phrases it goes by, in any language */
    words: z.array(z.string()).optional(),
    /** phrases whose sentences do not count */
    not: z.array(z.string()).optional(),
    /** only what was said within so many months counts */
    months: z.number().positive().optional(),
    /** least confidence with which an answer is taken */
    least: z.number().min(0).max(1).optional(),
    learnt: z.array(z.object({ phrase: z.string(), weight: z.number().min(-1).max(1), isStanding: z.boolean().optional() })).optional(),
    /** answers shown on pages, from which `learnt` came */
    shown: z
      .array(
        z.object({
          host: z.string(),
          value: z.union([z.string(), z.number(), z.boolean()]),
          says: z.string(),
          verdict: z.enum(['this', 'not']),
          reason: z.string().optional(),
        }),
      )
      .optional(),
    /** words that were learnt and left out by hand */
    leftOut: z.array(z.string()).optional(),
  }),
);
export type StandingQuestion = z.infer<typeof standingQuestionsSchema>[number];

const FIRST: readonly StandingQuestion[] = [
  { id: 'employees', type: 'number', wording: 'How many people work there?' },
  { id: 'founded', type: 'year', wording: 'When was it founded?' },
  { id: 'decider', type: 'text', wording: 'Who decides on investments?' },
];

/** What is asked until a workspace has said what it asks. */
export const usualQuestions = (): readonly StandingQuestion[] => FIRST;

export async function keptQuestions(tx: Tx): Promise<readonly StandingQuestion[]> {
  const read = standingQuestionsSchema.safeParse(await getSetting(tx, 'questions'));
  return read.success ? read.data : FIRST;
}

/** Questions as the reader takes them: with what the workspace knows of those by the same name, and words of other languages. */
export async function askedOf(world: Pick<World, 'db' | 'dictionary'>, questions: readonly Question[]): Promise<readonly Asked[]> {
  const known = new Map((await keptQuestions(world.db)).map((entry) => [entry.id, entry]));
  return questions.map((question) =>
    askedWith({ id: question.id.text, type: question.type, wording: question.wording.text }, known.get(question.id.text), world.dictionary),
  );
}

/** The workspace's standing questions, ready to be asked; one that no longer reads is left out. */
export async function standingQuestions(tx: Tx): Promise<readonly Question[]> {
  return (await keptQuestions(tx)).flatMap((question) => questionOf(question) ?? []);
}

/** A question from its parts; undefined when its type is none that flows know. */
export function questionOf({ id, type, wording }: Pick<StandingQuestion, 'id' | 'type' | 'wording'>): Question | undefined {
  const { tree, problems } = parseFlow(
    `flow "q"\nabout person\n\nread company from website as answers\n  ${id}: ${type} ${JSON.stringify(wording)}\n`,
  );
  const step = tree.lines[0]?.step;
  return problems.length === 0 && step?.verb === 'read' ? step.questions[0] : undefined;
}
