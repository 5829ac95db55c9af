import { stableId, textIn } from '../../base';
import type { StepOf } from '../../flow/syntax';
import { PLAIN, type RunOf } from './verb';

export const send: RunOf<StepOf<'send'>> = {
  verb: 'send',
  ...PLAIN,
  run({ message: { text: name }, sameThread }, line, run) {
    const message = run.vars[name];
    const mailbox = run.plan.mailbox ?? run.plan.library.plans[0]?.mailbox ?? run.plan.library.connections[0];
    if (typeof message?.id !== 'string' || message.approved !== true || mailbox === undefined) {
      run.stick(line, `there is no approved message “${name}” or no mailbox to send it from`);
      return;
    }
    run.vars[name] = { ...message, sent: true };
    const threadId = stableId('thread', run.trip.id, line.mark);
    if (run.trip.trial) run.log(line, 'sent', 'would send', { subject: message.subject ?? '', body: message.body ?? '' });
    else {
      const template = textIn(message.template);
      const touch = {
        messageId: message.id,
        day: 0,
        subject: textIn(message.subject),
        body: textIn(message.body),
        template,
        channel: 'e-mail' as const,
        when: null,
        composed: null,
      };
      run.commands.push({
        kind: 'plan touches',
        threadId,
        sameThread,
        plan: { name: '', mailbox, touches: [{ day: 0, template }], hours: { from: '09:00', to: '17:00' } },
        touches: [touch],
      });
      run.log(line, 'sent', sameThread ? 'in the send ledger, for their last conversation' : 'in the send ledger', { threadId });
    }
    run.pass(line);
  },
};
