/** The demo's questions as its workspace keeps them, for tests of what is read with them. */
import fs from 'node:fs';
import path from 'node:path';
import type { Asked } from '../core/reader';
import { askedWith } from '../server/research/asked';
import { questionOf, standingQuestionsSchema } from '../server/research/questions';

const FILE = path.resolve(__dirname, '../../demo/questions.json');
const KEPT = standingQuestionsSchema.parse((JSON.parse(fs.readFileSync(FILE, 'utf8')) as { readonly questions: unknown }).questions);

/** One of them, as a flow asks it; no dictionary is needed for that. */
export function demoQuestion(id: string): Asked {
  const kept = KEPT.find((question) => question.id === id);
  const question = kept && questionOf(kept);
  if (!kept || !question) throw new Error(`the demo asks nothing called ${id}`);
  return askedWith({ id, type: question.type, wording: question.wording.text }, kept, { glosses: () => ({}), knows: () => false });
}
