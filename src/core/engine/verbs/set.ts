import type { StepOf } from '../../flow/syntax';
import { scalar, setField, shown } from './opened';
import { PLAIN, type RunOf } from './verb';

export const set: RunOf<StepOf<'set'>> = {
  verb: 'set',
  ...PLAIN,
  run(step, line, run) {
    const field = step.assignment.field.text;
    const value = line.expr?.(run.scope()) ?? null;
    setField(run, field, value, line);
    run.log(line, 'passed', `${field} is now ${shown(value)}`, { field, value: scalar(value) });
    run.pass(line);
  },
  fills: (step) => step.assignment.field.text,
};
