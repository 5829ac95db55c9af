import type { StepOf } from '../../flow/syntax';
import { shown } from './opened';
import { PLAIN, type RunOf } from './verb';

export const note: RunOf<StepOf<'note'>> = {
  verb: 'note',
  ...PLAIN,
  run(_step, line, run) {
    const text = shown(line.expr?.(run.scope()) ?? null);
    run.commands.push({ kind: 'note', text });
    run.log(line, 'passed', text, { text });
    run.pass(line);
  },
};
