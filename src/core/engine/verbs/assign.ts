import type { StepOf } from '../../flow/syntax';
import { openedAs } from './opened';
import { PLAIN, type RunOf } from './verb';

export const assign: RunOf<StepOf<'assign'>> = {
  verb: 'assign',
  ...PLAIN,
  run({ what, team }, line, run) {
    const other = what && what.text !== 'person' ? what.text : undefined;
    const named = other === undefined ? undefined : openedAs(other, run);
    const record = named ?? (other !== undefined && run.dealId ? ({ kind: 'deal', id: run.dealId } as const) : null);
    const seq = run.log(line, 'passed', `${run.trip.trial ? 'would assign' : 'assigned'} in turn among ${team.text}`, {
      team: team.text,
      what: record?.kind ?? 'person',
    });
    if (!run.trip.trial) run.commands.push({ kind: 'assign', record, team: team.text, seq });
    run.pass(line);
  },
};
