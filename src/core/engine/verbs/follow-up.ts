import { plural, stableId, textIn, type JsonObject } from '../../base';
import type { Instruction } from '../../flow/plan';
import type { StepOf } from '../../flow/syntax';
import { channelOf, countedChannels, isByHand, type Channel, type Composed, type FollowUpPlan, type Touch } from '../../writer';
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
    else if (touch) run.request = { kind: 'compose', template: textOf(touch, run) };
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

/** The text a touch takes now: its own, or the other one where its own was found not to reach them. */
const textOf = (touch: Touch, run: Run): string => (insteadOf(run) === null ? touch.template : (touch.otherwise ?? touch.template));
/** Why the other text of the present touch is taken; null: it is not. */
const insteadOf = (run: Run): string | null => {
  const says = run.vars[GATHERED]?.instead;
  return typeof says === 'string' ? says : null;
};
const channelIn = (run: Run, name: string): Channel =>
  channelOf(run.plan.library.templates.find((text) => text.name === name) ?? { channel: undefined });

function touchComposed(answer: AnswerOf<'compose'>, step: FollowUp, line: Instruction, run: Run): void {
  const plan = planOf(step, run);
  const touch = plan?.touches[run.part];
  const template = touch && textOf(touch, run);
  const composed = template === undefined ? undefined : compose(answer, template, run);
  if (!plan || !touch || template === undefined || !composed) {
    run.stick(line, `the plan “${step.plan.text}” or one of its texts is gone`);
    return;
  }
  const approved = Object.values(run.vars).find((message) => message.approved === true && message.template === template);
  const channel = channelIn(run, template);
  const unreached = approved ? undefined : composed.checks.find((check) => check.id === 'recipient' && !check.ok);
  if (unreached && touch.otherwise !== undefined && insteadOf(run) === null) {
    run.vars[GATHERED] = { list: listOf(run.vars[GATHERED]), instead: `${channel} on day ${touch.day}: ${unreached.says}` };
    run.request = { kind: 'compose', template: touch.otherwise };
    return;
  }
  if (unreached && isByHand(channel)) {
    const before = insteadOf(run);
    gathered(
      { left: `${before === null ? `${channel} on day ${touch.day}` : `${before}, ${channel}`}: ${unreached.says}` },
      plan,
      line,
      run,
    );
    return;
  }
  if (!approved && !composed.passed) {
    run.stick(line, `held: touch on day ${touch.day}: ${heldBy(composed)}`, true, shownMessage(composed));
    return;
  }
  const made: JsonObject = {
    messageId: typeof approved?.id === 'string' ? approved.id : stableId('message', run.trip.id, line.mark, String(run.part)),
    day: touch.day,
    template,
    channel,
    when: touch.when === undefined || touch.when.trim() === '' ? null : touch.when,
    instead: insteadOf(run),
    subject: textIn(approved?.subject) || composed.subject,
    body: textIn(approved?.body) || composed.body,
    composed: approved === undefined ? asJson(composed) : null,
  };
  gathered(made, plan, line, run);
}

/** One touch more is there, or is known not to be; after the last one the plan begins. */
function gathered(one: JsonObject, plan: FollowUpPlan, line: Instruction, run: Run): void {
  const list = [...listOf(run.vars[GATHERED]), one];
  if (list.length < plan.touches.length) {
    run.vars[GATHERED] = { list };
    run.part += 1;
    run.state = { kind: 'ready' };
    return;
  }
  const { [GATHERED]: _, ...rest } = run.vars;
  run.vars = rest;
  begin(plan, list, line, run);
}

/** All texts are there: the touches are planned, and the trip follows them. */
function begin(plan: FollowUpPlan, list: readonly JsonObject[], line: Instruction, run: Run): void {
  const touches = list.filter((entry) => entry.left === undefined);
  if (touches.length === 0) {
    run.stick(line, `no touch of the plan “${plan.name}” reaches them`, true);
    return;
  }
  // What was gathered before there were channels has none.
  const channels = touches.map((entry) => (entry.channel ?? 'e-mail') as Channel);
  const notes = list.flatMap(({ left, instead }) =>
    typeof left === 'string' ? [`left out: ${left}`] : typeof instead === 'string' ? [`another way: ${instead}`] : [],
  );
  const also = notes.length === 0 ? '' : `; ${notes.join('; ')}`;
  if (run.trip.trial) {
    const says = channels.some(isByHand) ? countedChannels(channels) : plural(touches.length, 'message');
    run.log(line, 'sent', `would send ${says}${also}`, { touches: [...touches], plan: plan.name });
    run.pass(line);
    return;
  }
  const threadId = stableId('thread', run.trip.id, line.mark);
  run.commands.push({
    kind: 'plan touches',
    threadId,
    plan: run.plan.mailbox === null ? plan : { ...plan, mailbox: run.plan.mailbox },
    sameThread: false,
    touches: touches.map((entry, i) => ({
      messageId: textIn(entry.messageId),
      day: Number(entry.day),
      subject: textIn(entry.subject),
      body: textIn(entry.body),
      template: textIn(entry.template),
      channel: channels[i] ?? 'e-mail',
      when: textIn(entry.when) || null,
      // put there above, in this shape
      composed: entry.composed as Composed | null,
    })),
  });
  const says = channels.some(isByHand) ? countedChannels(channels) : plural(touches.length, 'touch', 'touches');
  run.log(line, 'waiting', `${says} planned, stops at an answer${also}`, { plan: plan.name, threadId });
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
