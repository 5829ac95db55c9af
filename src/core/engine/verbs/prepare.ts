import { stableId } from '../../base';
import type { StepOf } from '../../flow/syntax';
import { JUST_SAID, type RunOf } from './verb';

export const prepare: RunOf<StepOf<'prepare'>> = {
  verb: 'prepare',
  run(step, line, run) {
    const id = stableId('paper', run.trip.id, line.mark);
    if (!run.trip.trial) {
      run.request = { kind: 'prepare', document: step.document.text, id };
      return;
    }
    if (step.as) run.vars[step.as.text] = { id, address: '' };
    run.log(line, 'passed', `would make the ${step.document.text.toLowerCase()}`);
    run.pass(line);
  },
  asks: {
    kind: 'prepare',
    answered({ paper, address, costMicro }, step, line, run) {
      if (step.as) run.vars[step.as.text] = { id: paper, address };
      run.log(line, 'passed', `${step.document.text.toLowerCase()} made`, { paper, address }, { costMicro });
      run.pass(line);
    },
    replayed: ({ id }) => ({ kind: 'prepare', paper: id, address: '', costMicro: 0 }),
  },
  wakes: null,
  detail: JUST_SAID,
  older: [],
};
