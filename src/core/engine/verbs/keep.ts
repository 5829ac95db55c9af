import { z } from 'zod';
import { ENTRY } from '../../flow/check';
import type { Instruction } from '../../flow/plan';
import { isScreen, SCREENS, type StepOf } from '../../flow/syntax';
import type { Run } from '../run';
import type { Verdict } from '../types';
import { setField } from './opened';
import { recorded, type RunOf } from './verb';

type Keep = StepOf<'keep'>;

const detail = z.object({
  unknown: z.boolean().optional(),
  /** why it was screened out; none: it was looked at, and nothing speaks against it */
  verdicts: z.array(z.object({ screen: z.enum(SCREENS), says: z.string(), about: z.string() })).optional(),
});

export const keep = {
  verb: 'keep',
  run(step, line, run) {
    const holds = line.expr?.(run.scope()) ?? null;
    if (holds === true && step.unless) {
      run.request = {
        kind: 'screen',
        screens: step.unless.map((screen) => screen.text).filter(isScreen),
        entry: run.vars[ENTRY] ?? {},
      };
      return;
    }
    if (holds === true) {
      run.log(line, 'passed', 'kept');
      run.pass(line);
      return;
    }
    orElse(step, line, run);
    const why = holds === null ? 'unknown, so not kept' : 'not kept';
    run.log(line, 'stopped', why, { unknown: holds === null });
    run.stop(why);
  },
  asks: {
    kind: 'screen',
    answered({ verdicts }, step, line, run) {
      screened(verdicts, step, line, run);
    },
    replayed(request, readings) {
      const known = recorded(readings, 'keep', detail).flatMap(({ verdicts = [] }) => verdicts);
      return { kind: 'screen', verdicts: known.filter((verdict) => request.screens.includes(verdict.screen)) };
    },
  },
  wakes: null,
  detail,
  older: [],
} satisfies RunOf<Keep>;
/** What speaks against the record stops it, with its reasons; nothing does: it goes on. */
function screened(verdicts: readonly Verdict[], step: Keep, line: Instruction, run: Run): void {
  if (verdicts.length === 0) {
    run.log(line, 'passed', 'kept, nothing speaks against it', { verdicts: [] });
    run.pass(line);
    return;
  }
  orElse(step, line, run);
  const why = `screened out: ${verdicts.map((verdict) => `${verdict.screen}, ${verdict.says}`).join('; ')}`;
  run.log(line, 'stopped', why, { verdicts: verdicts.map((verdict) => ({ ...verdict })) });
  run.stop(why);
}

function orElse(step: Keep, line: Instruction, run: Run): void {
  if (step.otherwise && line.elseExpr) setField(run, step.otherwise.field.text, line.elseExpr(run.scope()), line);
}
