import type { StepOf } from '../../flow/syntax';
import { openedAs } from './opened';
import { PLAIN, type RunOf } from './verb';

export const move: RunOf<StepOf<'move'>> = {
  verb: 'move',
  ...PLAIN,
  run(step, line, run) {
    const record = openedAs(step.what.text, run);
    const stage = step.stage.text;
    if (!record) {
      run.stick(line, `there is no deal or application “${step.what.text}” to move`);
      return;
    }
    run.commands.push(
      record.kind === 'deal'
        ? { kind: 'move deal', dealId: record.id, stage }
        : { kind: 'move application', applicationId: record.id, stage },
    );
    run.seeOpened(step.what.text, record, 'stage', stage);
    run.log(line, 'passed', `${run.trip.trial ? 'would move' : 'moved'} to ${stage}`, { [`${record.kind}Id`]: record.id, stage });
    run.pass(line);
  },
};
