import { z } from 'zod';
import { plural } from '../../base';
import { printValue } from '../../fields';
import type { Instruction } from '../../flow/plan';
import type { StepOf } from '../../flow/syntax';
import type { Run } from '../run';
import { recorded, type AnswerOf, type RunOf } from './verb';

type LookUp = StepOf<'look up'>;

const detail = z.object({
  /** nobody, where it was known already */
  asked: z.array(
    z.object({
      provider: z.string().default(''),
      outcome: z.enum(['usable', 'not usable', 'failed', 'nothing']),
      value: z.string().nullable().default(null),
      why: z.string().default(''),
      costMicro: z.number().default(0),
    }),
  ),
});

export const lookUp = {
  verb: 'look up',
  run(step, line, run) {
    const field = step.field.text.split('.').at(-1) ?? '';
    const present = run.view.person[field];
    if (typeof present === 'string' && present !== '') {
      run.log(line, 'passed', 'known already, nobody was asked', { asked: [], value: present });
      run.pass(line);
      return;
    }
    const chain = run.plan.library.chains.find((entry) => entry.name === step.chain.text);
    if (chain) run.request = { kind: 'look up', field, chain };
    else run.stick(line, `the lookup chain “${step.chain.text}” is gone`);
  },
  asks: {
    kind: 'look up',
    answered: lookedUp,
    replayed({ field }, readings, missing) {
      const known = recorded(readings, 'look up', detail).at(-1);
      if (!known) missing.push(field);
      return { kind: 'look up', asked: (known?.asked ?? []).map((entry) => ({ ...entry, tookMs: 0 })) };
    },
  },
  wakes: null,
  detail,
  older: [],
  fills: (step) => step.field.text,
} satisfies RunOf<LookUp>;

function lookedUp({ asked }: AnswerOf<'look up'>, step: LookUp, line: Instruction, run: Run): void {
  const hit = asked.find((entry) => entry.outcome === 'usable');
  const costMicro = asked.reduce((sum, entry) => sum + entry.costMicro, 0);
  const tookMs = asked.reduce((sum, entry) => sum + entry.tookMs, 0);
  if (hit?.value != null) {
    const fact = run.record(step.field.text, hit.value, 'lookup', hit.provider, { confidence: 0.8 });
    if (fact) run.commands.push({ kind: 'record facts', mark: line.mark, facts: [fact] });
    run.see(step.field.text, hit.value);
  }
  run.log(
    line,
    'passed',
    hit ? `${hit.provider} had it: ${printValue(hit.value)}` : `nothing usable from ${plural(asked.length, 'provider')}`,
    { asked: asked.map((entry) => ({ ...entry })), value: hit?.value ?? null },
    { costMicro, tookMs },
  );
  run.pass(line);
}
