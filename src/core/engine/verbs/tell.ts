import { stableId } from '../../base';
import type { StepOf } from '../../flow/syntax';
import { spokenFor, withTheOthers } from './batch';
import { PLAIN, type RunOf } from './verb';

export const tell: RunOf<StepOf<'tell'>> = {
  verb: 'tell',
  ...PLAIN,
  run(step, line, run) {
    const members = spokenFor(run);
    if (!members) {
      withTheOthers(line, run);
      return;
    }
    const own = line.expr?.(run.scope()) ?? null;
    const text =
      members.length > 0 ? members.map((member) => member.says).join('\n') : typeof own === 'string' ? own : 'nothing is known to say';
    const who = step.who.name.text;
    const paper = step.paper && run.vars[step.paper.text]?.id;
    if (!run.trip.trial)
      run.commands.push({
        kind: 'tell',
        noticeId: stableId('notice', run.trip.id, line.mark, String(run.nextSeq)),
        who,
        byEmail: step.byEmail,
        text,
        paper: typeof paper === 'string' ? paper : null,
      });
    run.log(line, 'passed', `${run.trip.trial ? 'would tell' : 'told'} ${who}${step.byEmail ? ' by e-mail too' : ''}: ${text}`, {
      who,
      text,
    });
    run.pass(line);
  },
};
