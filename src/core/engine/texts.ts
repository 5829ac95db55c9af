import { plural, type JsonObject } from '../base';
import type { Instruction } from '../flow/plan';
import type { StepOf } from '../flow/syntax';
import { answerAll, classify, passageOf } from '../reader';
import type { Run } from './run';
import { unitOf } from './stated';

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
  const asked = step.questions.map((question) => ({ id: question.id.text, type: question.type, wording: question.wording.text }));
  const findings = answerAll(asked, [passageOf('', textOf(line, run))], run.now).map((answer, i) => ({
    ...answer,
    others: answer.others.map((other) => ({ ...other })),
    id: asked[i]?.id ?? '',
    url: null,
    unit: unitOf(asked[i]?.type),
  }));
  const found = findings.filter((finding) => finding.found).length;
  const values: JsonObject = Object.fromEntries(findings.map((finding) => [finding.id, finding.value]));
  if (step.as) run.vars[step.as.text] = values;
  run.log(line, 'passed', `${found} of ${plural(findings.length, 'answer')} in the text`, { findings });
  run.pass(line);
}
