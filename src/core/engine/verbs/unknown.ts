import type { StepOf } from '../../flow/syntax';
import { PLAIN, type RunOf } from './verb';

/** The checker keeps such a line from being released; a version that has it all the same waits for a person. */
export const unknown: RunOf<StepOf<'unknown'>> = {
  verb: 'unknown',
  ...PLAIN,
  run(_step, line, run) {
    run.stick(line, 'this line was never understood');
  },
};
