import { never, printDuration, type Instant, type JsonObject } from '../../base';
import { atClock, zoneOf } from '../../calendar';
import type { Instruction } from '../../flow/plan';
import { clockText, type StepOf, type Wait } from '../../flow/syntax';
import type { Run } from '../run';
import { JUST_SAID, type RunOf } from './verb';

export const wait: RunOf<StepOf<'wait'>> = {
  verb: 'wait',
  run: begin,
  asks: {
    kind: 'reply',
    answered(answer, step, line, run) {
      if (answer.came) came(step, line, run, `answered: ${answer.came.kind}`, { ...answer.came });
      else stay(step, line, run, step.for.kind === 'reply' ? step.for.atMost : undefined, 'reply', 'for a reply');
    },
    replayed: () => ({ kind: 'reply', came: null }),
  },
  wakes: null,
  detail: JUST_SAID,
  older: [],
};

/** A condition that nobody signals is looked at again after this long: it may hang on the clock alone. */
const LOOK_AGAIN_MS = 3_600_000;

/** Waits until an instant and then goes on behind the line. */
function sleep(line: Instruction, run: Run, until: Instant, says: string): void {
  if (run.trip.trial || until <= run.now) {
    run.log(line, 'passed', run.trip.trial ? `would wait ${says}` : `no need to wait ${says}`);
    run.pass(line);
    return;
  }
  run.log(line, 'waiting', `waits ${says}`, { until });
  run.pass(line);
  run.state = { kind: 'waiting', until, why: `waits ${says}` };
}

function begin(step: StepOf<'wait'>, line: Instruction, run: Run): void {
  const until = step.for;
  switch (until.kind) {
    case 'while':
      sleep(line, run, run.after(run.now, until.length.duration), printDuration(until.length.duration));
      return;
    case 'clock': {
      const country = run.view.company?.country;
      const zone = until.readerTime ? zoneOf(typeof country === 'string' ? country : null, run.time.zone) : run.time.zone;
      const at = atClock(run.now, until.time.minute, { zone, daysOff: run.time.daysOff }, until.workingDay);
      sleep(line, run, at, `until ${clockText(until.time.minute)}${until.workingDay ? ' on a working day' : ''}`);
      return;
    }
    case 'date': {
      const day = line.expr?.(run.scope()) ?? null;
      const at = typeof day === 'string' ? atClock(Date.parse(day), 0, run.time, false) : Number.NaN;
      if (Number.isNaN(at)) run.stick(line, 'the day to wait for is unknown');
      else sleep(line, run, at, `until ${typeof day === 'string' ? day : ''}`);
      return;
    }
    case 'reply': {
      const message = run.vars[until.message.text];
      if (run.trip.trial) {
        wouldWait(line, run, step, `for a reply${most(until.atMost)}`);
        return;
      }
      if (typeof message?.id !== 'string') run.stick(line, `there is no message “${until.message.text}” to be answered`);
      else run.request = { kind: 'reply', messageId: message.id };
      return;
    }
    case 'condition': {
      const holds = line.expr?.(run.scope()) === true;
      if (run.trip.trial && !holds) wouldWait(line, run, step, `for it${most(until.atMost)}`);
      else if (holds) came(step, line, run, 'it holds', {});
      else stay(step, line, run, until.atMost, 'change', 'for it to hold');
      return;
    }
    default:
      never(until);
  }
}

const most = (limit: Wait | undefined): string => (limit ? `, at most ${printDuration(limit.duration)}` : '');

/** A trial cannot know what will come: it goes on as if nothing did, and says so. */
function wouldWait(line: Instruction, run: Run, step: StepOf<'wait'>, says: string): void {
  if (step.as) run.vars[step.as.text] = { came: false };
  run.log(line, 'passed', `would wait ${says}; goes on as if nothing came`);
  run.pass(line);
}

function came(step: StepOf<'wait'>, line: Instruction, run: Run, says: string, result: JsonObject): void {
  if (step.as) run.vars[step.as.text] = { ...result, came: true };
  run.log(line, 'passed', says, result);
  run.pass(line);
}

/** Waits on, or goes on without when the limit, counted from the first look, has passed. */
function stay(step: StepOf<'wait'>, line: Instruction, run: Run, limit: Wait | undefined, on: 'reply' | 'change', says: string): void {
  const since = run.waitingSince();
  const end = limit ? run.after(since, limit.duration) : null;
  if (end !== null && end <= run.now) {
    if (step.as) run.vars[step.as.text] = { came: false };
    run.log(line, 'passed', `waited ${printDuration(limit?.duration ?? { amount: 0, unit: 'minute' })} ${says}: nothing came`);
    run.pass(line);
    return;
  }
  if (since === run.now) run.log(line, 'waiting', `waits ${says}${most(limit)}`, { until: end });
  const look = on === 'change' ? run.now + LOOK_AGAIN_MS : null;
  run.state = { kind: 'waiting', until: look === null ? end : Math.min(look, end ?? look), why: `waits ${says}`, on };
}
