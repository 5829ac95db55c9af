import { z } from 'zod';
import { stableId } from '../../base';
import type { StepOf } from '../../flow/syntax';
import { compose, heldBy, shownMessage, sizeText } from './compose';
import type { RunOf } from './verb';

const detail = z.object({
  subject: z.string(),
  body: z.string(),
  personalLine: z.string().nullable().default(null),
  language: z.string().nullable().default(null),
  fallback: z.string().nullable().default(null),
  checks: z.array(z.object({ id: z.string(), ok: z.boolean(), says: z.string() })).default([]),
});

export const write = {
  verb: 'write',
  run(step, _line, run) {
    run.request = { kind: 'compose', template: step.template.text };
  },
  asks: {
    kind: 'compose',
    answered(answer, step, line, run) {
      const composed = compose(answer, step.template.text, run);
      if (!composed) run.stick(line, `the text “${step.template.text}” is gone`);
      else if (!composed.passed) run.stick(line, `held: ${heldBy(composed)}`, true, shownMessage(composed));
      else {
        const messageId = stableId('message', run.trip.id, line.mark);
        const { subject, body } = composed;
        run.commands.push({ kind: 'keep message', messageId, template: step.template.text, composed });
        if (step.as) run.vars[step.as.text] = { id: messageId, subject, body, template: step.template.text };
        run.log(line, 'passed', `“${subject}”, ${sizeText(composed)}`, { messageId, ...shownMessage(composed) });
        run.pass(line);
      }
    },
    replayed: (_request, readings) => readings.compose,
  },
  wakes: null,
  detail,
  older: [],
} satisfies RunOf<StepOf<'write'>>;
