import { durationMs, stableId, type JsonObject } from '../../base';
import type { Instruction } from '../../flow/plan';
import type { StepOf } from '../../flow/syntax';
import type { Run } from '../run';
import { spokenFor, withTheOthers, type Member } from './batch';
import { JUST_SAID, type RunOf } from './verb';

type HandOver = StepOf<'hand over'>;

export const handOver: RunOf<HandOver> = {
  verb: 'hand over',
  run(step, line, run) {
    const members = spokenFor(run);
    if (!members) {
      withTheOthers(line, run);
      return;
    }
    const body = bodyOf(members, run);
    if (run.trip.trial) {
      if (step.as) run.vars[step.as.text] = nothing(step);
      run.log(line, 'passed', `would hand over to ${step.to.text}`, { body });
      run.pass(line);
      return;
    }
    const effectId = stableId('hand over', run.trip.id, line.mark, String(run.nextSeq));
    run.commands.push({ kind: 'hand over', effectId, webhook: step.to.text, body, answered: step.answer !== undefined });
    run.log(line, 'waiting', `is handed over to ${step.to.text}`, { effectId });
    run.state = { kind: 'waiting', until: null, why: `is handed over to ${step.to.text}`, on: 'hand-over' };
  },
  asks: null,
  wakes: {
    /** The other side has it, or refused it for good. With an answer asked for, the trip waits on unless one came with it. */
    handedOver({ ok, says, body }, step, line, run) {
      const { answer } = step;
      if (!ok) run.stick(line, says);
      else if (!answer) {
        run.log(line, 'passed', `${step.to.text} has it: ${says}`);
        run.pass(line);
      } else if (body && answer.parts.some((part) => body[part.id.text] !== undefined)) handedBack(body, step, line, run);
      else {
        run.waitingSince();
        run.state = {
          kind: 'waiting',
          until: run.now + durationMs(answer.atMost.duration),
          why: `waits for an answer of ${step.to.text}`,
          on: 'hand-over',
        };
      }
      return true;
    },
    handedBack: ({ body }, step, line, run) => handedBack(body, step, line, run),
    nothingBack(step, line, run) {
      if (step.as) run.vars[step.as.text] = nothing(step);
      run.log(line, 'passed', `${step.to.text} did not answer in time`);
      run.pass(line);
    },
  },
  detail: JUST_SAID,
  older: [],
};

/** What is handed over: the record as it is known now and the results of the lines above. */
function bodyOf(members: readonly Member[], run: Run): JsonObject {
  const results = Object.fromEntries(Object.entries(run.vars).filter(([name]) => !name.startsWith('·')));
  const plain = (record: object | null): JsonObject | null => (record === null ? null : { ...record });
  return {
    flow: run.plan.name,
    trip: run.trip.id,
    person: plain(run.view.person),
    company: plain(run.view.company),
    deal: plain(run.view.deal),
    results,
    ...(members.length > 0 && { gathered: members.map((member) => ({ ...member })) }),
  };
}

const nothing = (step: HandOver): JsonObject => ({
  came: false,
  ...Object.fromEntries((step.answer?.parts ?? []).map((part) => [part.id.text, null])),
});

/** The answer's parts are read by their types; what does not fit is unknown, and the journal says so. */
function handedBack(body: JsonObject, step: HandOver, line: Instruction, run: Run): boolean {
  if (!step.answer) return false;
  const odd: string[] = [];
  const parts = Object.fromEntries(
    step.answer.parts.map(({ id, type }) => {
      const value = body[id.text];
      const wanted = type.kind === 'yes/no' ? 'boolean' : ['number', 'money', 'year'].includes(type.kind) ? 'number' : 'string';
      if (typeof value === wanted) return [id.text, value];
      if (value !== undefined && value !== null) odd.push(id.text);
      return [id.text, null];
    }),
  );
  if (step.as) run.vars[step.as.text] = { ...parts, came: true };
  run.log(line, 'passed', `${step.to.text} answered${odd.length > 0 ? `; not of the type asked for: ${odd.join(', ')}` : ''}`, parts);
  run.pass(line);
  return true;
}
