import { plural, stableId, textIn, type JsonObject } from '../base';
import { SOURCE_LABELS } from '../facts';
import { printValue } from '../fields';
import type { Instruction } from '../flow/plan';
import type { StepOf } from '../flow/syntax';
import { composeMessage, type Composed } from '../writer';
import { screened } from './lines';
import type { Run } from './run';
import { replyLookedFor } from './waits';
import { factsFound, unitOf } from './stated';
import type { Answer } from './types';

type AnswerOf<K extends Answer['kind']> = Extract<Answer, { kind: K }>;

/** Goes on with what came back for the line's request. An answer of another kind than was asked for is a bug. */
export function takeAnswer(answer: Answer, line: Instruction, run: Run): void {
  const { step } = line;
  if (answer.kind === 'match' && step.verb === 'match') matched(answer, step, line, run);
  else if (answer.kind === 'read' && step.verb === 'read') wasRead(answer, step, line, run);
  else if (answer.kind === 'look up' && step.verb === 'look up') lookedUp(answer, step, line, run);
  else if (answer.kind === 'compose' && step.verb === 'write') written(answer, step, line, run);
  else if (answer.kind === 'compose' && step.verb === 'follow up') touchComposed(answer, step, line, run);
  else if (answer.kind === 'reply' && step.verb === 'wait') replyLookedFor(answer, step, line, run);
  else if (answer.kind === 'screen' && step.verb === 'keep') screened(answer.verdicts, step, line, run);
  else if (answer.kind === 'prepare' && step.verb === 'prepare') prepared(answer, step, line, run);
  else throw new Error(`broken invariant: a ${step.verb} line was given an answer of kind ${answer.kind}`);
}

function prepared(answer: AnswerOf<'prepare'>, step: StepOf<'prepare'>, line: Instruction, run: Run): void {
  const { paper, address } = answer;
  if (step.as) run.vars[step.as.text] = { id: paper, address };
  run.log(line, 'passed', `${step.document.text.toLowerCase()} made`, { paper, address }, { costMicro: answer.costMicro });
  run.pass(line);
}

function matched(answer: AnswerOf<'match'>, step: StepOf<'match'>, line: Instruction, run: Run): void {
  const target = step.targets[run.part]?.text === 'company' ? 'company' : 'person';
  const ours = target === 'company' ? (run.view.company?.id ?? '') : run.view.person.id;
  const detail: JsonObject = {
    target,
    how: answer.how,
    otherId: answer.otherId,
    otherName: answer.otherName,
    confidence: answer.confidence,
    evidence: answer.evidence.map((entry) => ({ ...entry })),
  };
  if (answer.how === 'doubt' && answer.otherId !== null) {
    const pairId = stableId('pair', ...[ours, answer.otherId].sort());
    if (run.trip.trial) {
      run.log(line, 'asked', `would ask: same ${target} as ${answer.otherName}?`, detail);
      nextPart(step, line, run);
      return;
    }
    run.commands.push({
      kind: 'ask about pair',
      pairId,
      target,
      aId: ours,
      bId: answer.otherId,
      confidence: answer.confidence,
      evidence: answer.evidence,
    });
    run.log(line, 'asked', `same ${target} as ${answer.otherName}?`, { ...detail, pairId });
    run.state = { kind: 'asking', what: 'pair', ref: pairId, until: null };
    return;
  }
  if (answer.how === 'same' && answer.otherId !== null) {
    run.log(line, 'passed', `same ${target} as ${answer.otherName}: ${run.trip.trial ? 'would be joined' : 'joined'}`, detail);
    if (!run.trip.trial) join(target, ours, answer.otherId, answer, 'rule: above the bar for “same”', run);
  } else
    run.log(
      line,
      'passed',
      answer.how === 'none' ? `known already: nothing else in the CRM is like this ${target}` : `new ${target}`,
      detail,
    );
  nextPart(step, line, run);
}

/** Joins ours into the other one and has the trip go on with the survivor. */
export function join(
  target: 'person' | 'company',
  fromId: string,
  intoId: string,
  about: Pick<AnswerOf<'match'>, 'confidence' | 'evidence'>,
  by: string,
  run: Run,
): void {
  run.commands.push({ kind: 'merge', target, fromId, intoId, confidence: about.confidence, evidence: about.evidence, by });
  run.reload = true;
}

export function nextPart(step: StepOf<'match'>, line: Instruction, run: Run): void {
  if (run.part + 1 >= step.targets.length) {
    run.pass(line);
    return;
  }
  run.part += 1;
  run.state = { kind: 'ready' };
}

function wasRead(answer: AnswerOf<'read'>, step: StepOf<'read'>, line: Instruction, run: Run): void {
  const kind = step.target.text === 'person' ? 'person' : 'company';
  const record = kind === 'person' ? run.view.person : run.view.company;
  const site = run.view.company?.website;
  const facts = record
    ? factsFound(answer.findings, { kind, id: record.id }, typeof site === 'string' ? site : null, run.now, run.fields)
    : [];
  if (facts.length > 0) {
    run.commands.push({ kind: 'record facts', mark: line.mark, facts });
    run.reload = true;
  }
  const fresh = answer.fresh ?? [];
  const news = fresh.map((entry) => `${SOURCE_LABELS[entry.source]}: ${entry.title}`).join('; ');
  if (step.as)
    run.vars[step.as.text] = {
      ...Object.fromEntries(answer.findings.map((finding) => [finding.id, finding.value])),
      changes: fresh.length,
      news,
    };
  const found = answer.findings.filter((finding) => finding.found).length;
  run.log(
    line,
    'passed',
    `${found} of ${plural(answer.findings.length, 'answer')} from ${plural(answer.pages, 'page')}${fresh.length > 0 ? ` · ${fresh.length} new since the last reading` : ''}${answer.says ? ` · ${answer.says}` : ''}${answer.reusedFrom === undefined ? '' : ' · as read before'}`,
    {
      findings: answer.findings.map((finding, i) => ({
        ...finding,
        others: finding.others.map((other) => ({ ...other })),
        unit: unitOf(step.questions[i]?.type) ?? run.fields.of(kind, finding.id)?.unit ?? null,
      })),
      places: step.places.map((place) => place.text),
      pages: answer.pages,
      ...(fresh.length > 0 && { fresh: fresh.map((entry) => ({ ...entry })) }),
      ...(answer.reusedFrom !== undefined && { reusedFrom: answer.reusedFrom }),
    },
    answer,
  );
  run.pass(line);
}

function lookedUp(answer: AnswerOf<'look up'>, step: StepOf<'look up'>, line: Instruction, run: Run): void {
  const hit = answer.asked.find((entry) => entry.outcome === 'usable');
  const costMicro = answer.asked.reduce((sum, entry) => sum + entry.costMicro, 0);
  const tookMs = answer.asked.reduce((sum, entry) => sum + entry.tookMs, 0);
  if (hit?.value != null) {
    const fact = run.record(step.field.text, hit.value, 'lookup', hit.provider, { confidence: 0.8 });
    if (fact) run.commands.push({ kind: 'record facts', mark: line.mark, facts: [fact] });
    run.see(step.field.text, hit.value);
  }
  run.log(
    line,
    'passed',
    hit ? `${hit.provider} had it: ${printValue(hit.value)}` : `nothing usable from ${plural(answer.asked.length, 'provider')}`,
    { asked: answer.asked.map((entry) => ({ ...entry })), value: hit?.value ?? null },
    { costMicro, tookMs },
  );
  run.pass(line);
}

function compose(answer: AnswerOf<'compose'>, templateName: string, run: Run): Composed | undefined {
  const template = run.plan.library.templates.find((entry) => entry.name === templateName);
  if (!template) return undefined;
  const email = run.view.person.email;
  return composeMessage({
    template,
    scope: run.messageScope(answer.sender),
    recipient: { name: run.view.person.name, email: typeof email === 'string' && email !== '' ? email : null },
    facts: answer.facts,
    recentLines: answer.recentLines,
    doNotContact: answer.doNotContact,
    seed: run.view.person.id,
  });
}

const failed = (composed: Composed): string =>
  composed.checks
    .filter((check) => !check.ok)
    .map((check) => check.says)
    .join('; ');
const shownMessage = (composed: Composed): JsonObject => ({
  subject: composed.subject,
  body: composed.body,
  personalLine: composed.personalLine,
  checks: composed.checks.map((check) => ({ ...check })),
  facts: composed.factsUsed.map((fact) => ({
    field: fact.field,
    value: fact.value,
    quote: fact.quote ?? null,
    url: fact.url ?? null,
    says: fact.says,
  })),
});

function written(answer: AnswerOf<'compose'>, step: StepOf<'write'>, line: Instruction, run: Run): void {
  const composed = compose(answer, step.template.text, run);
  if (!composed) {
    run.stick(line, `the text “${step.template.text}” is gone`);
    return;
  }
  if (!composed.passed) {
    run.stick(line, `held: ${failed(composed)}`, true, shownMessage(composed));
    return;
  }
  const messageId = stableId('message', run.trip.id, line.mark);
  run.commands.push({ kind: 'keep message', messageId, template: step.template.text, composed });
  if (step.as) run.vars[step.as.text] = { id: messageId, subject: composed.subject, body: composed.body, template: step.template.text };
  run.log(line, 'passed', `“${composed.subject}”, ${plural(composed.body.length, 'character')}`, { messageId, ...shownMessage(composed) });
  run.pass(line);
}

/** The plan's texts are gathered under a name no flow can use, one answer at a time; the first touch is the approved message. */
const GATHERED = '·touches';

function touchComposed(answer: AnswerOf<'compose'>, step: StepOf<'follow up'>, line: Instruction, run: Run): void {
  const plan = run.plan.library.plans.find((entry) => entry.name === step.plan.text);
  const touch = plan?.touches[run.part];
  const composed = touch && compose(answer, touch.template, run);
  if (!plan || !touch || !composed) {
    run.stick(line, `the plan “${step.plan.text}” or one of its texts is gone`);
    return;
  }
  const approved = Object.values(run.vars).find((message) => message.approved === true && message.template === touch.template);
  if (!approved && !composed.passed) {
    run.stick(line, `held: touch on day ${touch.day}: ${failed(composed)}`, true, shownMessage(composed));
    return;
  }
  const made: JsonObject = {
    messageId: typeof approved?.id === 'string' ? approved.id : stableId('message', run.trip.id, line.mark, String(run.part)),
    day: touch.day,
    template: touch.template,
    subject: textIn(approved?.subject) || composed.subject,
    body: textIn(approved?.body) || composed.body,
    composed:
      approved === undefined
        ? {
            ...composed,
            factsUsed: composed.factsUsed.map((fact) => ({ ...fact })),
            checks: composed.checks.map((check) => ({ ...check })),
          }
        : null,
  };
  const gathered = [...listOf(run.vars[GATHERED]), made];
  run.vars[GATHERED] = { list: gathered };
  if (gathered.length < plan.touches.length) {
    run.part += 1;
    run.state = { kind: 'ready' };
    return;
  }
  const { [GATHERED]: _, ...rest } = run.vars;
  run.vars = rest;
  if (run.trip.trial) {
    run.log(line, 'sent', `would send ${plural(plan.touches.length, 'message')}`, { touches: gathered, plan: plan.name });
    run.pass(line);
    return;
  }
  const threadId = stableId('thread', run.trip.id, line.mark);
  run.commands.push({
    kind: 'plan touches',
    threadId,
    plan: run.plan.mailbox === null ? plan : { ...plan, mailbox: run.plan.mailbox },
    sameThread: false,
    touches: gathered.map((entry) => ({
      messageId: textIn(entry.messageId),
      day: Number(entry.day),
      subject: textIn(entry.subject),
      body: textIn(entry.body),
      template: textIn(entry.template),
      // put there above, in this shape
      composed: entry.composed as Composed | null,
    })),
  });
  run.log(line, 'waiting', `${plural(plan.touches.length, 'touch', 'touches')} planned, stops at an answer`, { plan: plan.name, threadId });
  run.state = { kind: 'following', threadId };
}

function listOf(held: JsonObject | undefined): readonly JsonObject[] {
  return Array.isArray(held?.list) ? (held.list as readonly JsonObject[]) : [];
}
