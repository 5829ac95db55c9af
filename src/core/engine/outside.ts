import { durationMs, plural, stableId, textIn, type JsonObject } from '../base';
import type { Instruction } from '../flow/plan';
import type { StepOf } from '../flow/syntax';
import type { Run } from './run';
import { BATCH } from './waits';

interface Member {
  readonly name: string;
  readonly says: string;
}

/** Those this line speaks for: the trip alone, or all that were gathered with it. Undefined: another trip speaks for it. */
function spokenFor(run: Run): readonly Member[] | undefined {
  const batch = run.vars[BATCH];
  if (!batch) return [];
  if (batch.place !== 0) return undefined;
  return (Array.isArray(batch.members) ? (batch.members as readonly JsonObject[]) : []).map((member) => ({
    name: textIn(member.name),
    says: textIn(member.says),
  }));
}

function withTheOthers(line: Instruction, run: Run): void {
  run.log(line, 'passed', `told with the ${plural(Number(run.vars[BATCH]?.size ?? 1) - 1, 'other')} gathered`);
  run.pass(line);
}

export function tell(step: StepOf<'tell'>, line: Instruction, run: Run): void {
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
}

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

export function handOver(step: StepOf<'hand over'>, line: Instruction, run: Run): void {
  const members = spokenFor(run);
  if (!members) {
    withTheOthers(line, run);
    return;
  }
  const body = bodyOf(members, run);
  if (run.trip.trial) {
    if (step.as) run.vars[step.as.text] = nothingBack(step);
    run.log(line, 'passed', `would hand over to ${step.to.text}`, { body });
    run.pass(line);
    return;
  }
  const effectId = stableId('hand over', run.trip.id, line.mark, String(run.nextSeq));
  run.commands.push({ kind: 'hand over', effectId, webhook: step.to.text, body, answered: step.answer !== undefined });
  run.log(line, 'waiting', `is handed over to ${step.to.text}`, { effectId });
  run.state = { kind: 'waiting', until: null, why: `is handed over to ${step.to.text}`, on: 'hand-over' };
}

const nothingBack = (step: StepOf<'hand over'>): JsonObject => ({
  came: false,
  ...Object.fromEntries((step.answer?.parts ?? []).map((part) => [part.id.text, null])),
});

/** The other side has it, or refused it for good. With an answer asked for, the trip waits on unless one came with it. */
export function handedOver(event: { ok: boolean; says: string; body: JsonObject | null }, line: Instruction, run: Run): boolean {
  const { step } = line;
  if (step.verb !== 'hand over') return false;
  if (!event.ok) {
    run.stick(line, event.says);
    return true;
  }
  if (!step.answer) {
    run.log(line, 'passed', `${step.to.text} has it: ${event.says}`);
    run.pass(line);
    return true;
  }
  if (event.body && step.answer.parts.some((part) => event.body?.[part.id.text] !== undefined)) return handedBack(event.body, line, run);
  run.waitingSince();
  run.state = {
    kind: 'waiting',
    until: run.now + durationMs(step.answer.atMost.duration),
    why: `waits for an answer of ${step.to.text}`,
    on: 'hand-over',
  };
  return true;
}

/** The answer's parts are read by their types; what does not fit is unknown, and the journal says so. */
export function handedBack(body: JsonObject, line: Instruction, run: Run): boolean {
  const { step } = line;
  if (step.verb !== 'hand over' || !step.answer) return false;
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

/** No answer within the limit. */
export function notHandedBack(line: Instruction, run: Run): void {
  const { step } = line;
  if (step.verb !== 'hand over') return;
  if (step.as) run.vars[step.as.text] = nothingBack(step);
  run.log(line, 'passed', `${step.to.text} did not answer in time`);
  run.pass(line);
}
