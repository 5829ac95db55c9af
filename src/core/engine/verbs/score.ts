import { z } from 'zod';
import type { JsonObject } from '../../base';
import type { StepOf } from '../../flow/syntax';
import type { RunOf } from './verb';

const detail = z.object({
  points: z.number(),
  of: z.number().optional(),
  band: z.string(),
  out: z.boolean(),
  why: z.string().optional(),
  weakest: z.string().nullable().optional(),
  /** criterion by criterion, in words */
  working: z.array(z.object({ text: z.string(), points: z.number(), of: z.number() })),
  disqualifiedBy: z.array(z.string()).default([]),
});

export const score = {
  verb: 'score',
  run(step, line, run) {
    const card = run.plan.scorecards.get(step.scorecard.text);
    if (!card) {
      run.stick(line, `the scorecard “${step.scorecard.text}” is gone`);
      return;
    }
    const result = card(run.scope());
    const kept: JsonObject = {
      points: result.points,
      of: result.of,
      band: result.band,
      why: result.why,
      out: result.out,
      weakest: result.weakest,
    };
    if (step.as) run.vars[step.as.text] = kept;
    run.log(line, 'passed', `${result.points} of ${result.of}, ${result.band}`, {
      ...kept,
      scorecard: step.scorecard.text,
      working: result.working.map((entry) => ({ ...entry })),
      disqualifiedBy: result.disqualifiedBy,
    });
    run.pass(line);
  },
  asks: null,
  wakes: null,
  detail,
  older: [],
} satisfies RunOf<StepOf<'score'>>;
