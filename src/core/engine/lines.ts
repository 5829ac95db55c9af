import { durationMs, stableId, textIn, type JsonObject } from '../base';
import { printValue } from '../fields';
import type { FeelValue } from '../feel';
import { END, type Instruction } from '../flow/plan';
import { ENTRY } from '../flow/check';
import { isScreen, type Step, type StepOf, type Verb } from '../flow/syntax';
import { handOver, tell } from './outside';
import type { Run } from './run';
import { pickOut, sort } from './texts';
import type { Verdict } from './types';
import { gather, wait } from './waits';

/** Runs a line that has just been reached. Lines that need the outside set a request or a waiting state instead of passing. */
type RunLine<V extends Verb> = (step: StepOf<V>, line: Instruction, run: Run) => void;

function shown(value: FeelValue): string {
  return typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean' || value === null
    ? printValue(value)
    : JSON.stringify(value);
}

const scalar = (value: FeelValue): string | number | boolean | null =>
  typeof value === 'object' && value !== null ? JSON.stringify(value) : value;

function setField(run: Run, path: string, value: FeelValue, line: Instruction): void {
  const [name = '', key] = path.split('.');
  const opened = key === undefined || (name === 'deal' && run.plan.about === 'deal') ? undefined : openedAs(name, run);
  const fact = run.record(path, scalar(value), 'flow', `${run.plan.name}, line ${line.number}`, opened ? { record: opened } : {});
  if (!fact) return;
  run.commands.push({ kind: 'record facts', mark: line.mark, facts: [fact] });
  if (opened && key !== undefined) run.seeOpened(name, opened, key, scalar(value));
  else run.see(path, value);
}

/** What speaks against the record stops it, with its reasons; nothing does: it goes on. */
export function screened(verdicts: readonly Verdict[], step: StepOf<'keep'>, line: Instruction, run: Run): void {
  if (verdicts.length === 0) {
    run.log(line, 'passed', 'kept, nothing speaks against it', { verdicts: [] });
    run.pass(line);
    return;
  }
  if (step.otherwise && line.elseExpr) setField(run, step.otherwise.field.text, line.elseExpr(run.scope()), line);
  const why = `screened out: ${verdicts.map((verdict) => `${verdict.screen}, ${verdict.says}`).join('; ')}`;
  run.log(line, 'stopped', why, { verdicts: verdicts.map((verdict) => ({ ...verdict })) });
  run.stop(why);
}

const keep: RunLine<'keep'> = (step, line, run) => {
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
  if (step.otherwise && line.elseExpr) setField(run, step.otherwise.field.text, line.elseExpr(run.scope()), line);
  const why = holds === null ? 'unknown, so not kept' : 'not kept';
  run.log(line, 'stopped', why, { unknown: holds === null });
  run.stop(why);
};

const split: RunLine<'split'> = (_step, line, run) => {
  const scope = run.scope();
  const unknown: string[] = [];
  for (const arm of line.arms) {
    const holds = arm.when === undefined ? true : arm.when(scope);
    if (holds === null) unknown.push(arm.mark);
    if (holds !== true) continue;
    run.log(line, 'passed', arm.says, { arm: arm.mark, unknown });
    run.pass(line, arm.target);
    return;
  }
  run.log(line, 'passed', 'no arm held', { arm: null, unknown });
  run.pass(line);
};

const score: RunLine<'score'> = (step, line, run) => {
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
};

const match: RunLine<'match'> = (step, line, run) => {
  const target = step.targets[run.part]?.text;
  if (target === undefined) {
    run.pass(line);
    return;
  }
  if (target === 'company' && run.view.company === null) {
    run.log(line, 'passed', 'no company to match', { target });
    run.part += 1;
    return;
  }
  run.request = {
    kind: 'match',
    target: target === 'company' ? 'company' : 'person',
    askAbove: step.askAbove?.value ?? 0.6,
    sameAbove: step.sameAbove?.value ?? 0.95,
  };
};

const read: RunLine<'read'> = (step, line, run) => {
  const { person, company } = run.view;
  const ofPerson = step.target.text === 'person';
  const site = typeof company?.website === 'string' && company.website !== '' ? company.website : null;
  const places = step.places.map((place) => place.text).filter((place) => place !== 'website' || site !== null);
  if (places.length === 0 || (!ofPerson && company === null)) {
    if (step.as) run.vars[step.as.text] = Object.fromEntries(step.questions.map((question) => [question.id.text, null]));
    run.log(line, 'passed', 'no site to read: nothing found', { findings: [], pages: 0 });
    run.pass(line);
    return;
  }
  run.request = {
    kind: 'read',
    target: ofPerson ? { kind: 'person', id: person.id } : { kind: 'company', id: company?.id ?? '' },
    companyName: typeof company?.name === 'string' ? company.name : null,
    personName: ofPerson ? person.name : null,
    website: site,
    places,
    questions: step.questions,
    maxPages: step.maxPages?.value ?? 8,
    maxCostMicro: step.maxCost === undefined ? null : Math.round(step.maxCost.value * 1_000_000),
    ...(step.noOlder && { noOlderMs: durationMs(step.noOlder.duration) }),
  };
};

const lookUp: RunLine<'look up'> = (step, line, run) => {
  const present = run.view.person[step.field.text.split('.').at(-1) ?? ''];
  if (typeof present === 'string' && present !== '') {
    run.log(line, 'passed', 'known already, nobody was asked', { asked: [], value: present });
    run.pass(line);
    return;
  }
  const chain = run.plan.library.chains.find((entry) => entry.name === step.chain.text);
  if (!chain) {
    run.stick(line, `the lookup chain “${step.chain.text}” is gone`);
    return;
  }
  run.request = { kind: 'look up', field: step.field.text.split('.').at(-1) ?? '', chain };
};

const open: RunLine<'open'> = (step, line, run) => {
  if (step.what === 'application') {
    openApplication(step, line, run);
    return;
  }
  const dealId = stableId('deal', run.trip.id, line.mark);
  const title = typeof run.view.company?.name === 'string' ? run.view.company.name : run.view.person.name;
  run.commands.push({ kind: 'open deal', dealId, pipeline: step.pipeline.text, stage: step.stage.text, title });
  run.dealId = dealId;
  if (step.as) run.vars[step.as.text] = { id: dealId, title, stage: step.stage.text };
  run.log(line, 'passed', `opened at ${step.stage.text}`, { dealId, title, pipeline: step.pipeline.text, stage: step.stage.text });
  run.pass(line);
};

function openApplication(step: Extract<StepOf<'open'>, { what: 'application' }>, line: Instruction, run: Run): void {
  const opening = step.opening.text;
  const stage = step.stage.text;
  // One person applies once for an opening, however often the papers come.
  const applicationId = stableId('application', run.view.person.id, opening);
  run.commands.push({ kind: 'open application', applicationId, opening, stage });
  if (step.as) run.vars[step.as.text] = { id: applicationId, opening, stage };
  run.log(line, 'passed', `${run.trip.trial ? 'would apply' : 'applies'} for ${opening}, at ${stage}`, { applicationId, opening, stage });
  run.pass(line);
}

/** What a line calls by a name, when it is a deal or an application: the trip's own deal, or one opened above. */
function openedAs(name: string, run: Run): { readonly kind: 'deal' | 'application'; readonly id: string } | undefined {
  const held = name === 'deal' && run.plan.about === 'deal' ? run.view.deal : run.vars[name];
  if (typeof held?.id !== 'string') return undefined;
  return { kind: 'opening' in held ? 'application' : 'deal', id: held.id };
}

const ask: RunLine<'ask'> = (step, line, run) => {
  const message = run.vars[step.message.text];
  if (typeof message?.id !== 'string') {
    run.stick(line, `there is no message “${step.message.text}” to approve`);
    return;
  }
  if (run.trip.trial) {
    run.log(line, 'asked', `would ask ${step.who.text}`, { who: step.who.text });
    run.vars[step.message.text] = { ...message, approved: true };
    run.pass(line);
    return;
  }
  const reviewId = stableId('review', run.trip.id, line.mark);
  const dueAt = step.within ? run.now + durationMs(step.within.duration) : null;
  run.commands.push({ kind: 'ask approval', reviewId, messageId: message.id, who: step.who.text, dueAt, followUps: [] });
  run.log(line, 'asked', `asked ${step.who.text}`, { who: step.who.text, reviewId, dueAt });
  run.state = { kind: 'asking', what: 'approval', ref: reviewId, until: dueAt };
};

const followUp: RunLine<'follow up'> = (step, line, run) => {
  const plan = run.plan.library.plans.find((entry) => entry.name === step.plan.text);
  if (!plan) {
    run.stick(line, `the plan “${step.plan.text}” is gone`);
    return;
  }
  const touch = plan.touches[run.part];
  // The texts of the plan are composed one by one first, so that a failed check holds the whole plan before anything leaves.
  if (touch) {
    run.request = { kind: 'compose', template: touch.template };
    return;
  }
};

const send: RunLine<'send'> = (step, line, run) => {
  const message = run.vars[step.message.text];
  const mailbox = run.plan.mailbox ?? run.plan.library.plans[0]?.mailbox ?? run.plan.library.connections[0];
  if (typeof message?.id !== 'string' || mailbox === undefined) {
    run.stick(line, `there is no approved message “${step.message.text}” or no mailbox to send it from`);
    return;
  }
  const threadId = stableId('thread', run.trip.id, line.mark);
  if (run.trip.trial) run.log(line, 'sent', 'would send', { subject: message.subject ?? '', body: message.body ?? '' });
  else {
    run.commands.push({
      kind: 'plan touches',
      threadId,
      sameThread: step.sameThread,
      plan: { name: '', mailbox, touches: [{ day: 0, template: textIn(message.template) }], hours: { from: '09:00', to: '17:00' } },
      touches: [
        {
          messageId: message.id,
          day: 0,
          subject: textIn(message.subject),
          body: textIn(message.body),
          template: textIn(message.template),
          composed: null,
        },
      ],
    });
    run.log(line, 'sent', step.sameThread ? 'in the send ledger, for their last conversation' : 'in the send ledger', { threadId });
  }
  run.pass(line);
};

/** The checker keeps such a line from being released; a version that has it all the same waits for a person. */
function notConnected(step: Step, line: Instruction, run: Run): void {
  run.stick(line, `“${step.verb}” needs a connection that this workspace does not have`);
}

/** Keyed by verb: a new verb does not compile until it runs. */
const RUN: { readonly [V in Verb]: RunLine<V> } = {
  'take in': (step, line, run) => {
    run.log(line, 'passed', `taken in from ${step.from.text}${step.name ? ` “${step.name.text}”` : ''}`);
    run.pass(line);
  },
  keep,
  match,
  read,
  score,
  split,
  'look up': lookUp,
  open,
  ask,
  send,
  'follow up': followUp,
  assign: (step, line, run) => {
    const named = step.what && step.what.text !== 'person' ? openedAs(step.what.text, run) : undefined;
    const record = named ?? (step.what && step.what.text !== 'person' && run.dealId ? ({ kind: 'deal', id: run.dealId } as const) : null);
    const seq = run.log(
      line,
      'passed',
      run.trip.trial ? `would assign in turn among ${step.team.text}` : `assigned in turn among ${step.team.text}`,
      { team: step.team.text, what: record?.kind ?? 'person' },
    );
    if (!run.trip.trial) run.commands.push({ kind: 'assign', record, team: step.team.text, seq });
    run.pass(line);
  },
  set: (step, line, run) => {
    const value = line.expr?.(run.scope()) ?? null;
    setField(run, step.assignment.field.text, value, line);
    run.log(line, 'passed', `${step.assignment.field.text} is now ${shown(value)}`, {
      field: step.assignment.field.text,
      value: scalar(value),
    });
    run.pass(line);
  },
  note: (_step, line, run) => {
    const text = shown(line.expr?.(run.scope()) ?? null);
    run.commands.push({ kind: 'note', text });
    run.log(line, 'passed', text, { text });
    run.pass(line);
  },
  write: (step, _line, run) => {
    run.request = { kind: 'compose', template: step.template.text };
  },
  wait,
  gather,
  sort,
  'pick out': pickOut,
  tell,
  'hand over': handOver,
  move: (step, line, run) => {
    const record = openedAs(step.what.text, run);
    const stage = step.stage.text;
    if (!record) {
      run.stick(line, `there is no deal or application “${step.what.text}” to move`);
      return;
    }
    run.commands.push(
      record.kind === 'deal'
        ? { kind: 'move deal', dealId: record.id, stage }
        : { kind: 'move application', applicationId: record.id, stage },
    );
    run.seeOpened(step.what.text, record, 'stage', stage);
    run.log(line, 'passed', `${run.trip.trial ? 'would move' : 'moved'} to ${stage}`, { [`${record.kind}Id`]: record.id, stage });
    run.pass(line);
  },
  call: notConnected,
  book: notConnected,
  prepare: (step, line, run) => {
    const id = stableId('paper', run.trip.id, line.mark);
    if (!run.trip.trial) {
      run.request = { kind: 'prepare', document: step.document.text, id };
      return;
    }
    if (step.as) run.vars[step.as.text] = { id, address: '' };
    run.log(line, 'passed', `would make the ${step.document.text.toLowerCase()}`);
    run.pass(line);
  },
  stop: (step, line, run) => {
    const why = step.reason?.text ?? 'the flow stops here';
    run.log(line, 'stopped', why);
    run.stop(why);
  },
  unknown: (_step, line, run) => {
    run.stick(line, 'this line was never understood');
  },
};

function runStep<V extends Verb>(verb: V, step: Step, line: Instruction, run: Run): void {
  RUN[verb](step as StepOf<V>, line, run);
}

/** Runs lines until one needs something, or the trip ends. */
export function runLines(run: Run): void {
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
    runStep(line.step.verb, line.step, line, run);
    if (run.reload) return;
  }
}
