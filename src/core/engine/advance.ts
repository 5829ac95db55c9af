import { never, type Instant } from '../base';
import { END, type Instruction, type Plan } from '../flow/plan';
import type { Shape } from '../flow/syntax';
import { Run, UTC, type WorkspaceTime } from './run';
import type { Advance, Answer, RecordView, Request, Trip, TripEvent } from './types';
import { runOf, type Asks, type Wakes } from './verbs';

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
  return {
    trip: run.result(),
    journal: run.journal,
    commands: run.commands,
    request: run.request,
    beside: run.request === undefined ? [] : besideOf(run),
    reload: run.reload,
  };
}

/** What the lines beside the present one would ask if they were reached now; they are run on a copy of which nothing else is kept. */
function besideOf(run: Run): readonly Request[] {
  const { plan, now, time, view } = run;
  return (plan.instructions[run.at]?.beside ?? []).flatMap((at) => {
    const line = plan.instructions[at];
    if (!line) return [];
    const ahead = new Run(plan, { ...run.result(), at, part: 0 }, now, view, time);
    runOf(line.step).run(line.step, line, ahead);
    return ahead.request ?? [];
  });
}

/** Applies the event; false when it does not fit and nothing may change. */
function take(event: TripEvent, line: Instruction | undefined, run: Run): boolean {
  const { state } = run;
  switch (event.kind) {
    case 'go':
      if (state.kind === 'waiting' && state.until !== null && state.until <= run.now) {
        run.state = { kind: 'ready' };
        if (line && (state.on === 'hand-over' || state.on === 'task')) runOf(line.step).wakes?.nothingBack?.(line.step, line, run);
      }
      return run.state.kind === 'ready';
    case 'signal':
      if (state.kind !== 'waiting' || (state.on !== 'reply' && state.on !== 'change')) return false;
      run.state = { kind: 'ready' };
      return true;
    case 'gathered':
      return wakes(line, state.kind === 'waiting' && state.on === 'batch', (by, at) => by.gathered?.(event, at.step, at, run));
    case 'handed over':
      return wakes(line, state.kind === 'waiting' && state.on === 'hand-over', (by, at) => by.handedOver?.(event, at.step, at, run));
    case 'handed back':
      return wakes(line, state.kind === 'waiting' && state.on === 'hand-over', (by, at) => by.handedBack?.(event, at.step, at, run));
    case 'task ended':
      return wakes(line, state.kind === 'waiting' && state.on === 'task', (by, at) => by.taskEnded?.(event, at.step, at, run));
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
      return wakes(line, state.kind === 'asking', (by, at) => by.decided?.(event.decision, at.step, at, run));
    case 'overdue': {
      if (state.kind !== 'asking' || state.until === null || state.until > run.now) return false;
      const { ref } = state;
      return wakes(line, true, (by, at) => by.overdue?.(ref, at.step, at, run));
    }
    case 'plan ended':
      return wakes(line, state.kind === 'following', (by, at) => by.planEnded?.(event, at.step, at, run));
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

/** Lets the line's verb take an event that fits the trip's state; false when it is none of its own. */
function wakes(line: Instruction | undefined, fits: boolean, take: (by: Wakes<Shape>, line: Instruction) => boolean | undefined): boolean {
  const by = line && runOf(line.step).wakes;
  return fits && by != null && line !== undefined && take(by, line) === true;
}

/** Goes on with what came back for the line's request. An answer of another kind than was asked for is a bug. */
function takeAnswer(answer: Answer, line: Instruction, run: Run): void {
  const { asks, verb } = runOf(line.step);
  if (asks?.kind !== answer.kind) throw new Error(`broken invariant: a ${verb} line was given an answer of kind ${answer.kind}`);
  // the kinds are the same
  (asks as Asks<Shape>).answered(answer, line.step, line, run);
}

/** Runs lines until one needs something, or the trip ends. */
function runLines(run: Run): void {
  for (let guard = run.plan.instructions.length * 2 + 10; run.state.kind === 'ready' && run.request === undefined; guard--) {
    if (guard < 0) throw new Error(`broken invariant: trip ${run.trip.id} does not come to an end`);
    const line = run.plan.instructions[run.at];
    if (run.at === END || line === undefined) {
      run.state = { kind: 'done' };
      return;
    }
    if (line.off) {
      run.log(line, 'off', 'switched off, passed over');
      run.pass(line);
      continue;
    }
    runOf(line.step).run(line.step, line, run);
    if (run.reload) return;
  }
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
export const fieldByHand = (line: Pick<Instruction, 'step'>): string | undefined => runOf(line.step).fills?.(line.step);
