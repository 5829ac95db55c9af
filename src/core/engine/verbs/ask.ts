import { durationMs, stableId } from '../../base';
import type { StepOf } from '../../flow/syntax';
import { PLAIN, type RunOf } from './verb';

export const ask: RunOf<StepOf<'ask'>> = {
  verb: 'ask',
  ...PLAIN,
  run(step, line, run) {
    const message = run.vars[step.message.text];
    if (typeof message?.id !== 'string') {
      run.stick(line, `there is no message “${step.message.text}” to approve`);
      return;
    }
    const who = step.who.text;
    if (run.trip.trial) {
      run.log(line, 'asked', `would ask ${who}`, { who });
      run.vars[step.message.text] = { ...message, approved: true };
      run.pass(line);
      return;
    }
    const reviewId = stableId('review', run.trip.id, line.mark);
    const dueAt = step.within ? run.now + durationMs(step.within.duration) : null;
    run.commands.push({ kind: 'ask approval', reviewId, messageId: message.id, who, dueAt, followUps: [] });
    run.log(line, 'asked', `asked ${who}`, { who, reviewId, dueAt });
    run.state = { kind: 'asking', what: 'approval', ref: reviewId, until: dueAt };
  },
  wakes: {
    decided(decision, step, line, run) {
      if (decision.kind === 'approve') {
        const message = run.vars[step.message.text] ?? {};
        const { subject, body, by, edited } = decision;
        run.vars[step.message.text] = { ...message, subject, body, approved: true, approvedBy: by };
        run.log(line, 'passed', `approved by ${by}${edited ? ', with changes' : ''}`, { by, edited });
        run.pass(line);
        return true;
      }
      if (decision.kind !== 'refuse') return false;
      run.log(line, 'stopped', `refused by ${decision.by}${decision.why ? `: ${decision.why}` : ''}`, { by: decision.by });
      run.stop(`refused by ${decision.by}`);
      return true;
    },
    overdue(reviewId, { otherwise }, line, run) {
      if (otherwise?.does === 'stop') {
        run.commands.push({ kind: 'close review', reviewId });
        run.log(line, 'stopped', otherwise.text.text);
        run.stop(otherwise.text.text);
        return true;
      }
      const to = otherwise?.who.text ?? 'owner';
      const text = otherwise?.text.text ?? 'an approval is overdue';
      run.commands.push({ kind: 'escalate review', reviewId, to, text });
      run.log(line, 'asked', `told ${to}: ${text}`, { to });
      run.state = { kind: 'asking', what: 'approval', ref: reviewId, until: null };
      return true;
    },
  },
};
