import { printDuration, stableId, type JsonObject } from '../../base';
import type { Instruction } from '../../flow/plan';
import type { StepOf } from '../../flow/syntax';
import { channelOf } from '../../writer';
import type { Run } from '../run';
import { compose, heldBy, shownMessage } from './compose';
import { JUST_SAID, type RunOf } from './verb';

type Task = StepOf<'task'>;

export const task: RunOf<Task> = {
  verb: 'task',
  run(step, _line, run) {
    run.request = { kind: 'compose', template: step.template.text };
  },
  asks: {
    kind: 'compose',
    answered(answer, step, line, run) {
      const composed = compose(answer, step.template.text, run);
      const text = run.plan.library.templates.find(({ name }) => name === step.template.text);
      if (!text || !composed) {
        run.stick(line, `the text “${step.template.text}” is gone`);
        return;
      }
      const channel = channelOf(text);
      const unreached = composed.checks.find((check) => check.id === 'recipient' && !check.ok);
      if (unreached) {
        goOn({ done: false, outcome: 'no way', words: unreached.says }, `no ${channel}: ${unreached.says}`, step, line, run);
        return;
      }
      if (!composed.passed) {
        run.stick(line, `held: ${heldBy(composed)}`, true, shownMessage(composed));
        return;
      }
      if (run.trip.trial) {
        goOn(NOT_DONE, `would be a ${channel} to do: ${composed.subject}`, step, line, run, shownMessage(composed));
        return;
      }
      const messageId = stableId('message', run.trip.id, line.mark, String(run.nextSeq));
      run.commands.push({ kind: 'give task', messageId, template: text.name, channel, composed });
      const says = `a ${channel} is to be done: ${composed.subject}`;
      if (!step.atMost) {
        run.log(line, 'passed', says, { messageId });
        run.pass(line);
        return;
      }
      run.waitingSince();
      run.vars[GIVEN] = { messageId };
      run.log(line, 'waiting', `${says}; waits, at most ${printDuration(step.atMost.duration)}`, { messageId });
      run.state = { kind: 'waiting', until: run.after(run.now, step.atMost.duration), why: `a ${channel} is to be done`, on: 'task' };
    },
    replayed: (_request, readings) => readings.compose,
  },
  wakes: {
    taskEnded({ messageId, done, outcome, words }, step, line, run) {
      // One that an earlier line gave, done too late for it.
      if (run.vars[GIVEN]?.messageId !== messageId) return false;
      const said = words === '' ? '' : `: ${words}`;
      goOn({ done, outcome, words }, done ? `done, ${outcome}${said}` : `not done, ${outcome}${said}`, step, line, run);
      return true;
    },
    /** The task stays: it may still be done, and the trip goes on without. */
    nothingBack(step, line, run) {
      goOn(NOT_DONE, 'not done in time; it stays on the desk', step, line, run);
    },
  },
  detail: JUST_SAID,
  older: [],
};

/** Which task the trip waits for, under a name no flow can use. */
const GIVEN = '·task';
const NOT_DONE: JsonObject = { done: false, outcome: null, words: null };

function goOn(result: JsonObject, says: string, step: Task, line: Instruction, run: Run, detail: JsonObject = {}): void {
  const { [GIVEN]: _, ...rest } = run.vars;
  run.vars = rest;
  if (step.as) run.vars[step.as.text] = result;
  run.log(line, 'passed', says, { ...detail, ...result });
  run.pass(line);
}
