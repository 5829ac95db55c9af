import type { StepOf } from '../../flow/syntax';
import { PLAIN, type RunOf } from './verb';

export const takeIn: RunOf<StepOf<'take in'>> = {
  verb: 'take in',
  ...PLAIN,
  run(step, line, run) {
    run.log(line, 'passed', `taken in from ${step.from.text}${step.name ? ` “${step.name.text}”` : ''}`);
    run.pass(line);
  },
};
