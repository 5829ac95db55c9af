import { plural, stableId, textIn, type JsonObject } from '../../base';
import type { Instruction } from '../../flow/plan';
import type { StepOf } from '../../flow/syntax';
import type { Composed, FollowUpPlan } from '../../writer';
import type { Run } from '../run';
import { compose, heldBy, shownMessage } from './compose';
import { JUST_SAID, type AnswerOf, type RunOf } from './verb';

type FollowUp = StepOf<'follow up'>;

/** The plan's texts are gathered under a name no flow can use, one answer at a time; the first touch is the approved message. */
const GATHERED = '·touches';

const planOf = (step: FollowUp, run: Run): FollowUpPlan | undefined =>
  run.plan.library.plans.find((entry) => entry.name === step.plan.text);

export const followUp: RunOf<FollowUp> = {
  verb: 'follow up',
  run(step, line, run) {
    const plan = planOf(step, run);
    const touch = plan?.touches[run.part];
    // The texts of the plan are composed one by one first, so that a failed check holds the whole plan before anything leaves.
    if (!plan) run.stick(line, `the plan “${step.plan.text}” is gone`);
    else if (!Object.values(run.vars).some((message) => message.approved === true))
      run.stick(line, 'nobody has approved a message of this trip: nothing leaves before that');
    else if (run.part === 0 && !leavesByPlan(plan, run))
      run.stick(line, `what was approved is no text of the plan “${step.plan.text}”: it would never leave, and others would unseen`);
    else if (touch) run.request = { kind: 'compose', template: touch.template };
  },
  asks: {
    kind: 'compose',
    answered: touchComposed,
    replayed: (_request, readings) => readings.compose,
  },
  wakes: {
    planEnded({ how }, _step, line, run) {
      const all = how === 'all sent';
      run.log(line, all ? 'passed' : 'stopped', all ? 'all touches sent, no answer' : `follow-up ended: ${how}`, { how });
      if (how === 'unsubscribed' || how === 'bounced') run.stop(how);
      else run.pass(line);
      return true;
    },
  },
  detail: JUST_SAID,
  older: [],
};

/** Of what was approved and has not been sent, the plan sends one; where all of it was sent, the plan goes on from there. */
function leavesByPlan(plan: FollowUpPlan, run: Run): boolean {
  const waiting = Object.values(run.vars).filter((message) => message.approved === true && message.sent !== true);
  return waiting.length === 0 || waiting.some((message) => plan.touches.some((touch) => touch.template === message.template));
}

function touchComposed(answer: AnswerOf<'compose'>, step: FollowUp, line: Instruction, run: Run): void {
  const plan = planOf(step, run);
  const touch = plan?.touches[run.part];
  const composed = touch && compose(answer, touch.template, run);
  if (!plan || !touch || !composed) {
    run.stick(line, `the plan “${step.plan.text}” or one of its texts is gone`);
    return;
  }
  const approved = Object.values(run.vars).find((message) => message.approved === true && message.template === touch.template);
  if (!approved && !composed.passed) {
    run.stick(line, `held: touch on day ${touch.day}: ${heldBy(composed)}`, true, shownMessage(composed));
    return;
  }
  const made: JsonObject = {
    messageId: typeof approved?.id === 'string' ? approved.id : stableId('message', run.trip.id, line.mark, String(run.part)),
    day: touch.day,
    template: touch.template,
    subject: textIn(approved?.subject) || composed.subject,
    body: textIn(approved?.body) || composed.body,
    composed: approved === undefined ? asJson(composed) : null,
  };
  const gathered = [...listOf(run.vars[GATHERED]), made];
  if (gathered.length < plan.touches.length) {
    run.vars[GATHERED] = { list: gathered };
    run.part += 1;
    run.state = { kind: 'ready' };
    return;
  }
  const { [GATHERED]: _, ...rest } = run.vars;
  run.vars = rest;
  begin(plan, gathered, line, run);
}

/** All texts are there: the touches are planned, and the trip follows them. */
function begin(plan: FollowUpPlan, touches: readonly JsonObject[], line: Instruction, run: Run): void {
  if (run.trip.trial) {
    run.log(line, 'sent', `would send ${plural(touches.length, 'message')}`, { touches: [...touches], plan: plan.name });
    run.pass(line);
    return;
  }
  const threadId = stableId('thread', run.trip.id, line.mark);
  run.commands.push({
    kind: 'plan touches',
    threadId,
    plan: run.plan.mailbox === null ? plan : { ...plan, mailbox: run.plan.mailbox },
    sameThread: false,
    touches: touches.map((entry) => ({
      messageId: textIn(entry.messageId),
      day: Number(entry.day),
      subject: textIn(entry.subject),
      body: textIn(entry.body),
      template: textIn(entry.template),
      // put there above, in this shape
      composed: entry.composed as Composed | null,
    })),
  });
  run.log(line, 'waiting', `${plural(touches.length, 'touch', 'touches')} planned, stops at an answer`, { plan: plan.name, threadId });
  run.state = { kind: 'following', threadId };
}

const asJson = (composed: Composed): JsonObject => ({
  ...composed,
  factsUsed: composed.factsUsed.map((fact) => ({ ...fact })),
  checks: composed.checks.map((check) => ({ ...check })),
  tried: composed.tried === null ? null : { ...composed.tried },
});

function listOf(held: JsonObject | undefined): readonly JsonObject[] {
  return Array.isArray(held?.list) ? (held.list as readonly JsonObject[]) : [];
}
