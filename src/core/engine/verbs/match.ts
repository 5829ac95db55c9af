import { z } from 'zod';
import { stableId, type JsonObject } from '../../base';
import type { Instruction } from '../../flow/plan';
import type { StepOf } from '../../flow/syntax';
import type { Run } from '../run';
import { recorded, type AnswerOf, type RunOf } from './verb';

type Match = StepOf<'match'>;
type Target = 'person' | 'company';

const detail = z.object({
  target: z.enum(['person', 'company']),
  how: z.enum(['same', 'doubt', 'new', 'none']),
  otherId: z.string().nullable().default(null),
  otherName: z.string().default(''),
  confidence: z.number().default(0),
});

/** Goes target by target: one part of the line after the other. */
export const match = {
  verb: 'match',
  run(step, line, run) {
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
  },
  asks: {
    kind: 'match',
    answered: matched,
    replayed({ target }, readings, missing) {
      const known = recorded(readings, 'match', detail).find((entry) => entry.target === target);
      if (!known) missing.push(`whether the ${target} is known`);
      const { how, otherId, otherName, confidence } = known ?? { how: 'new' as const, otherId: null, otherName: '', confidence: 0 };
      return { kind: 'match', how, otherId, otherName, confidence, evidence: [] };
    },
  },
  wakes: {
    decided(decision, step, line, run) {
      if (decision.kind !== 'same' && decision.kind !== 'different') return false;
      const target = targetOf(step, run);
      run.log(line, 'passed', `${decision.kind} ${target}, says ${decision.by}`, { by: decision.by, target });
      if (decision.kind === 'same') {
        const ours = oursOf(target, run);
        if (ours !== decision.otherId) join(target, ours, decision.otherId, { confidence: 1, evidence: [] }, decision.by, run);
      }
      nextPart(step, line, run);
      return true;
    },
  },
  detail,
  older: [],
} satisfies RunOf<Match>;

const targetOf = (step: Match, run: Run): Target => (step.targets[run.part]?.text === 'company' ? 'company' : 'person');
const oursOf = (target: Target, run: Run): string => (target === 'company' ? (run.view.company?.id ?? '') : run.view.person.id);

function matched(answer: AnswerOf<'match'>, step: Match, line: Instruction, run: Run): void {
  const target = targetOf(step, run);
  const kept: JsonObject = {
    target,
    how: answer.how,
    otherId: answer.otherId,
    otherName: answer.otherName,
    confidence: answer.confidence,
    evidence: answer.evidence.map((entry) => ({ ...entry })),
  };
  if (answer.how === 'doubt' && answer.otherId !== null) {
    inDoubt({ ...answer, otherId: answer.otherId }, target, kept, step, line, run);
    return;
  }
  if (answer.how === 'same' && answer.otherId !== null) {
    run.log(line, 'passed', `same ${target} as ${answer.otherName}: ${run.trip.trial ? 'would be joined' : 'joined'}`, kept);
    if (!run.trip.trial) join(target, oursOf(target, run), answer.otherId, answer, 'rule: above the bar for “same”', run);
  } else
    run.log(
      line,
      'passed',
      answer.how === 'none' ? `known already: nothing else in the CRM is like this ${target}` : `new ${target}`,
      kept,
    );
  nextPart(step, line, run);
}

/** A person says whether the two are one. */
function inDoubt(
  answer: AnswerOf<'match'> & { readonly otherId: string },
  target: Target,
  kept: JsonObject,
  step: Match,
  line: Instruction,
  run: Run,
): void {
  const ours = oursOf(target, run);
  if (run.trip.trial) {
    run.log(line, 'asked', `would ask: same ${target} as ${answer.otherName}?`, kept);
    nextPart(step, line, run);
    return;
  }
  const pairId = stableId('pair', ...[ours, answer.otherId].sort());
  run.commands.push({
    kind: 'ask about pair',
    pairId,
    target,
    aId: ours,
    bId: answer.otherId,
    confidence: answer.confidence,
    evidence: answer.evidence,
  });
  run.log(line, 'asked', `same ${target} as ${answer.otherName}?`, { ...kept, pairId });
  run.state = { kind: 'asking', what: 'pair', ref: pairId, until: null };
}

/** Joins ours into the other one and has the trip go on with the survivor. */
function join(
  target: Target,
  fromId: string,
  intoId: string,
  about: Pick<AnswerOf<'match'>, 'confidence' | 'evidence'>,
  by: string,
  run: Run,
): void {
  run.commands.push({ kind: 'merge', target, fromId, intoId, confidence: about.confidence, evidence: about.evidence, by });
  run.reload = true;
}

function nextPart(step: Match, line: Instruction, run: Run): void {
  if (run.part + 1 >= step.targets.length) {
    run.pass(line);
    return;
  }
  run.part += 1;
  run.state = { kind: 'ready' };
}
