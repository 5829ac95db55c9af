import { z } from 'zod';
import type { Question } from '../../core/flow/syntax';
import { parseFlow } from '../../core/flow/syntax';
import type { Tx } from '../db';
import { getSetting } from '../store/settings';

/** What is asked of every company, as flow text writes questions: `number in ha`. */
export const standingQuestionsSchema = z.array(z.object({ id: z.string(), type: z.string(), wording: z.string() }));
export type StandingQuestion = z.infer<typeof standingQuestionsSchema>[number];

const FIRST: readonly StandingQuestion[] = [
  { id: 'employees', type: 'number', wording: 'How many people work there?' },
  { id: 'founded', type: 'year', wording: 'When was it founded?' },
  { id: 'decider', type: 'text', wording: 'Who decides on investments?' },
];

/** What is asked until a workspace has said what it asks. */
export const usualQuestions = (): readonly StandingQuestion[] => FIRST;

/** The workspace's standing questions, ready to be asked; one that no longer reads is left out. */
export async function standingQuestions(tx: Tx): Promise<readonly Question[]> {
  const read = standingQuestionsSchema.safeParse(await getSetting(tx, 'questions'));
  return (read.success ? read.data : FIRST).flatMap((question) => questionOf(question) ?? []);
}

/** A question from its parts; undefined when its type is none that flows know. */
export function questionOf({ id, type, wording }: StandingQuestion): Question | undefined {
  const { tree, problems } = parseFlow(
    `flow "q"\nabout person\n\nread company from website as answers\n  ${id}: ${type} ${JSON.stringify(wording)}\n`,
  );
  const step = tree.lines[0]?.step;
  return problems.length === 0 && step?.verb === 'read' ? step.questions[0] : undefined;
}
