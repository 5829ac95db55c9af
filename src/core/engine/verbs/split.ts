import { z } from 'zod';
import type { StepOf } from '../../flow/syntax';
import type { RunOf } from './verb';

const detail = z.object({
  /** the mark of the arm that was taken; null: none held */
  arm: z.string().nullable(),
  /** arms above it of which nobody knows whether they hold */
  unknown: z.array(z.string()).default([]),
});

export const split = {
  verb: 'split',
  run(_step, line, run) {
    const scope = run.scope();
    const unknown: string[] = [];
    for (const arm of line.arms) {
      const holds = arm.when === undefined ? true : arm.when(scope);
      if (holds === null) unknown.push(arm.mark);
      if (holds !== true) continue;
      run.log(line, 'passed', arm.says, { arm: arm.mark, unknown });
      run.pass(line, arm.target);
      return;
    }
    run.log(line, 'passed', 'no arm held', { arm: null, unknown });
    run.pass(line);
  },
  asks: null,
  wakes: null,
  detail,
  older: [],
} satisfies RunOf<StepOf<'split'>>;
