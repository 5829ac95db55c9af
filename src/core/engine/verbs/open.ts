import { stableId } from '../../base';
import type { StepOf } from '../../flow/syntax';
import { PLAIN, type RunOf } from './verb';

export const open: RunOf<StepOf<'open'>> = {
  verb: 'open',
  ...PLAIN,
  run(step, line, run) {
    const stage = step.stage.text;
    if (step.what === 'application') {
      const opening = step.opening.text;
      // One person applies once for an opening, however often the papers come.
      const applicationId = stableId('application', run.view.person.id, opening);
      run.commands.push({ kind: 'open application', applicationId, opening, stage });
      if (step.as) run.vars[step.as.text] = { id: applicationId, opening, stage };
      const says = `${run.trip.trial ? 'would apply' : 'applies'} for ${opening}, at ${stage}`;
      run.log(line, 'passed', says, { applicationId, opening, stage });
    } else {
      const dealId = stableId('deal', run.trip.id, line.mark);
      const pipeline = step.pipeline.text;
      const title = typeof run.view.company?.name === 'string' ? run.view.company.name : run.view.person.name;
      run.commands.push({ kind: 'open deal', dealId, pipeline, stage, title });
      run.dealId = dealId;
      if (step.as) run.vars[step.as.text] = { id: dealId, title, stage };
      run.log(line, 'passed', `opened at ${stage}`, { dealId, title, pipeline, stage });
    }
    run.pass(line);
  },
};
