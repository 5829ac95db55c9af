import { never, type Instant } from '../base';
import type { Instruction, Plan } from '../flow/plan';
import { join, nextPart, takeAnswer } from './answers';
import { runLines } from './lines';
import { handedBack, handedOver, notHandedBack } from './outside';
import { Run, UTC, type WorkspaceTime } from './run';
import { gathered } from './waits';
import type { Advance, Decision, RecordView, Trip, TripEvent } from './types';

/**
 * Moves a trip by one event: pure, so that replaying the same events gives the same trip. Returns what to journal, what
 * to change, and at most one thing to find out. Events that do not fit the trip's state leave it as it is. `halt` takes the
 * event in and goes to no further line.
 */
export function advance(
  plan: Plan,
  trip: Trip,
  event: TripEvent,
  now: Instant,
  view: RecordView,
  time: WorkspaceTime = UTC,
  halt = false,
): Advance {
  const run = new Run(plan, trip, now, view, time);
  const line = plan.instructions[trip.at];
  if (take(event, line, run) && run.state.kind === 'ready' && !run.reload && !halt) runLines(run);
  return { trip: run.result(), journal: run.journal, commands: run.commands, request: run.request, reload: run.reload };
}

/** Applies the event; false when it does not fit and nothing may change. */
function take(event: TripEvent, line: Instruction | undefined, run: Run): boolean {
  const { state } = run;
  switch (event.kind) {
    case 'go':
      if (state.kind === 'waiting' && state.until !== null && state.until <= run.now) {
        run.state = { kind: 'ready' };
        if (line && state.on === 'hand-over') notHandedBack(line, run);
      }
      return run.state.kind === 'ready';
    case 'signal':
      if (state.kind !== 'waiting' || (state.on !== 'reply' && state.on !== 'change')) return false;
      run.state = { kind: 'ready' };
      return true;
    case 'gathered':
      return line !== undefined && state.kind === 'waiting' && state.on === 'batch' && gathered(event, line, run);
    case 'handed over':
      return line !== undefined && state.kind === 'waiting' && state.on === 'hand-over' && handedOver(event, line, run);
    case 'handed back':
      return line !== undefined && state.kind === 'waiting' && state.on === 'hand-over' && handedBack(event.body, line, run);
    case 'answer':
      if (line === undefined || state.kind !== 'ready') return false;
      takeAnswer(event.answer, line, run);
      return true;
    case 'failed':
      if (line === undefined || state.kind !== 'ready') return false;
      if (event.retryable) run.retry(line, event.why, event.retryAfterMs);
      else run.stick(line, event.why);
      return true;
    case 'decided':
      return line !== undefined && state.kind === 'asking' && decided(event.decision, line, run);
    case 'overdue':
      return (
        line !== undefined && state.kind === 'asking' && state.until !== null && state.until <= run.now && overdue(line, run, state.ref)
      );
    case 'plan ended':
      if (line === undefined || state.kind !== 'following') return false;
      run.log(
        line,
        event.how === 'all sent' ? 'passed' : 'stopped',
        event.how === 'all sent' ? 'all touches sent, no answer' : `follow-up ended: ${event.how}`,
        { how: event.how },
      );
      if (event.how === 'unsubscribed' || event.how === 'bounced') run.stop(event.how);
      else run.pass(line);
      return true;
    case 'ended':
      if (state.kind === 'done' || state.kind === 'stopped') return false;
      if (state.kind === 'asking' && state.what === 'approval') run.commands.push({ kind: 'close review', reviewId: state.ref });
      run.commands.push({ kind: 'drop what is planned', why: `ended by ${event.by}` });
      if (line) run.log(line, 'stopped', `ended with all others by ${event.by}`, { by: event.by });
      run.stop(`ended by ${event.by}`);
      return true;
    case 'held back':
      if (line === undefined || state.kind !== 'ready') return false;
      run.holdBack(line, event.why, event.until, event.soon === true);
      return true;
    case 'choice':
      return line !== undefined && state.kind === 'stuck' && chosen(event, line, run);
    default:
      return never(event);
  }
}

function decided(decision: Decision, line: Instruction, run: Run): boolean {
  const { step } = line;
  if (step.verb === 'ask' && decision.kind === 'approve') {
    const message = run.vars[step.message.text] ?? {};
    run.vars[step.message.text] = { ...message, subject: decision.subject, body: decision.body, approved: true, approvedBy: decision.by };
    run.log(line, 'passed', `approved by ${decision.by}${decision.edited ? ', with changes' : ''}`, {
      by: decision.by,
      edited: decision.edited,
    });
    run.pass(line);
    return true;
  }
  if (step.verb === 'ask' && decision.kind === 'refuse') {
    run.log(line, 'stopped', `refused by ${decision.by}${decision.why ? `: ${decision.why}` : ''}`, { by: decision.by });
    run.stop(`refused by ${decision.by}`);
    return true;
  }
  if (step.verb !== 'match' || (decision.kind !== 'same' && decision.kind !== 'different')) return false;
  const target = step.targets[run.part]?.text === 'company' ? 'company' : 'person';
  run.log(line, 'passed', decision.kind === 'same' ? `same ${target}, says ${decision.by}` : `different ${target}, says ${decision.by}`, {
    by: decision.by,
    target,
  });
  if (decision.kind === 'same') {
    const ours = target === 'company' ? (run.view.company?.id ?? '') : run.view.person.id;
    if (ours !== decision.otherId) join(target, ours, decision.otherId, { confidence: 1, evidence: [] }, decision.by, run);
  }
  nextPart(step, line, run);
  return true;
}

function overdue(line: Instruction, run: Run, reviewId: string): boolean {
  if (line.step.verb !== 'ask') return false;
  const then = line.step.otherwise;
  if (then?.does === 'stop') {
    run.commands.push({ kind: 'close review', reviewId });
    run.log(line, 'stopped', then.text.text);
    run.stop(then.text.text);
    return true;
  }
  const to = then?.who.text ?? 'owner';
  const text = then?.text.text ?? 'an approval is overdue';
  run.commands.push({ kind: 'escalate review', reviewId, to, text });
  run.log(line, 'asked', `told ${to}: ${text}`, { to });
  run.state = { kind: 'asking', what: 'approval', ref: reviewId, until: null };
  return true;
}

function chosen({ choice, by, value }: Extract<TripEvent, { kind: 'choice' }>, line: Instruction, run: Run): boolean {
  const field = fieldByHand(line);
  if (choice === 'set by hand' && (field === undefined || value === undefined)) return false;
  run.log(line, choice === 'end' ? 'stopped' : 'passed', `${choice}, says ${by}`, { by, choice, ...(value !== undefined && { value }) });
  if (choice === 'end') run.stop(`ended by ${by}`);
  else if (choice === 'try again') {
    run.tries = 0;
    run.state = { kind: 'ready' };
  } else {
    const fact = field === undefined || value === undefined ? undefined : run.record(field, value, 'hand', by);
    if (choice === 'set by hand' && fact) {
      run.commands.push({ kind: 'record facts', mark: line.mark, facts: [fact] });
      run.see(fact.record.kind === run.plan.about ? fact.field : `${fact.record.kind}.${fact.field}`, fact.value);
    }
    run.pass(line);
  }
  return true;
}

/** The one field a line is there to fill, which a person may fill in its place; undefined for all other lines. */
export function fieldByHand(line: Pick<Instruction, 'step'>): string | undefined {
  if (line.step.verb === 'look up') return line.step.field.text;
  return line.step.verb === 'set' ? line.step.assignment.field.text : undefined;
}
