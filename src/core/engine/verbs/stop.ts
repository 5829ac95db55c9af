import type { StepOf } from '../../flow/syntax';
import { PLAIN, type RunOf } from './verb';

export const stop: RunOf<StepOf<'stop'>> = {
  verb: 'stop',
  ...PLAIN,
  run(step, line, run) {
    const why = step.reason?.text ?? 'the flow stops here';
    run.log(line, 'stopped', why);
    run.stop(why);
  },
};
