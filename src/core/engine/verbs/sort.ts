import type { StepOf } from '../../flow/syntax';
import { classify } from '../../reader';
import { PLAIN, type RunOf } from './verb';

/** Puts one label on a text, or none. */
export const sort: RunOf<StepOf<'sort'>> = {
  verb: 'sort',
  ...PLAIN,
  run(step, line, run) {
    const labels = step.labels.map((label) => ({
      name: label.name.text,
      meaning: label.meaning.text,
      examples: label.examples.map((example) => example.text),
    }));
    const sorted = classify(run.textAt(line), labels);
    if (step.as) run.vars[step.as.text] = { ...sorted };
    const says = sorted.label === null ? 'fits no label clearly' : `${sorted.label}, ${Math.round(sorted.sure * 100)} % sure`;
    run.log(line, 'passed', says, { ...sorted });
    run.pass(line);
  },
};
