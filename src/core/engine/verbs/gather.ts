import { plural, printDuration } from '../../base';
import type { Instruction } from '../../flow/plan';
import type { StepOf } from '../../flow/syntax';
import type { Run } from '../run';
import { BATCH } from './batch';
import { JUST_SAID, type RunOf } from './verb';

export const gather: RunOf<StepOf<'gather'>> = {
  verb: 'gather',
  run({ count, atMost, as }, line, run) {
    const [records, limit] = [plural(count.value, 'record'), printDuration(atMost.duration)];
    if (run.trip.trial) {
      if (as) run.vars[as.text] = { size: 1 };
      run.log(line, 'passed', `would gather ${records} or wait ${limit}`);
      run.pass(line);
      return;
    }
    const until = run.after(run.now, atMost.duration);
    run.log(line, 'waiting', `gathers ${records} or waits ${limit}`, { until });
    run.state = {
      kind: 'waiting',
      until: null,
      why: `gathers ${count.value}`,
      on: 'batch',
      batch: { count: count.value, limit: until, says: saysBelow(line, run) },
    };
  },
  asks: null,
  wakes: {
    gathered({ batch, place, members }, step, line, run) {
      const size = members.length;
      run.log(line, 'passed', `goes on with ${plural(size - 1, 'other')}`, { batch, size });
      run.pass(line);
      run.vars[BATCH] = { place, members: place === 0 ? members.map((member) => ({ ...member })) : [], size };
      if (step.as) run.vars[step.as.text] = { size };
      return true;
    },
  },
  detail: JUST_SAID,
  older: [],
};

/** What the line below `gather` will say of this record, worked out while its values are at hand. */
function saysBelow(line: Instruction, run: Run): string {
  const below = run.plan.instructions[line.next];
  const text = below?.step.verb === 'tell' ? (below.expr?.(run.scope()) ?? null) : null;
  return typeof text === 'string' ? text : run.view.person.name;
}
