import { plural, type JsonObject } from '../base';
import type { Instruction } from '../flow/plan';
import type { StepOf } from '../flow/syntax';
import { answerQuestion, classify } from '../reader';
import type { Run } from './run';

function textOf(line: Instruction, run: Run): string {
  const text = line.expr?.(run.scope()) ?? null;
  return typeof text === 'string' ? text : '';
}

/** Puts one label on a text, or none. */
export function sort(step: StepOf<'sort'>, line: Instruction, run: Run): void {
  const labels = step.labels.map((label) => ({
    name: label.name.text,
    meaning: label.meaning.text,
    examples: label.examples.map((example) => example.text),
  }));
  const sorted = classify(textOf(line, run), labels);
  if (step.as) run.vars[step.as.text] = { ...sorted };
  run.log(line, 'passed', sorted.label === null ? 'fits no label clearly' : `${sorted.label}, ${Math.round(sorted.sure * 100)} % sure`, {
    ...sorted,
  });
  run.pass(line);
}

/** Answers typed questions from a text at hand; each answer with its words. */
export function pickOut(step: StepOf<'pick out'>, line: Instruction, run: Run): void {
  const passages = [{ url: '', text: textOf(line, run) }];
  const findings = step.questions.map((question) => ({
    ...answerQuestion({ id: question.id.text, type: question.type, wording: question.wording.text }, passages, run.now),
    id: question.id.text,
    url: null,
    unit: question.type.kind === 'number' ? (question.type.unit ?? null) : null,
  }));
  const found = findings.filter((finding) => finding.found).length;
  const values: JsonObject = Object.fromEntries(findings.map((finding) => [finding.id, finding.value]));
  if (step.as) run.vars[step.as.text] = values;
  run.log(line, 'passed', `${found} of ${plural(findings.length, 'answer')} in the text`, { findings });
  run.pass(line);
}
