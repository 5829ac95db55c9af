/** What the rules of a mailbox decide on a draft, and what people make of it. */
import type { HoldDecisionView } from '../../api';
import type { Instant } from '../../core/base';
import { catalogueOf } from '../../core/fields';
import {
  agreementOf,
  alwaysHeld,
  decideHold,
  earned,
  isLookedAt,
  readHoldRules,
  type Agreement,
  type Facing,
  type HoldRule,
} from '../../core/holding';
import { draftReply, type ReplyDraft } from '../../core/answers';
import type { Tx } from '../db';
import {
  agreementRows,
  decidedByPeople,
  decisionOn,
  holdRulesOf,
  insertDecision,
  settleDecision,
  type DecisionRow,
  type Outcome,
} from './store/holding';
import { isAwaiting, type Awaiting, type Standing } from './answer-standing';
import type { Actor } from '../platform/world';

/** Without a word of anybody: a fifth of what could go alone is looked at all the same. */
export const LOOKED_AT = 0.2;
/** What people did with so many drafts of a kind lately is what counts. */
export const LATELY = 50;

export interface RulesInForce {
  readonly no: number | null;
  readonly rules: readonly HoldRule[];
  readonly lookedAt: number;
  readonly decided: number;
  /** what people made of drafts, by what they answered */
  readonly agreements: ReadonlyMap<string, Agreement>;
}
/** What an answer is to, as it is counted: a kind, and of objections what about. */
export const groupOf = (kind: string, objection: string | null): string => (objection === null ? kind : `${kind} ${objection}`);

/** The rules of a mailbox as they stand, or as somebody has written them and not yet kept. */
export async function rulesInForce(
  tx: Tx,
  mailbox: string,
  fields: Standing['ask']['fields'],
  draft?: { readonly rules: string; readonly lookedAt: number },
): Promise<RulesInForce> {
  const [kept, decided, rows] = await Promise.all([
    holdRulesOf(tx, mailbox),
    decidedByPeople(tx, mailbox),
    agreementRows(tx, mailbox, LATELY),
  ]);
  return {
    no: draft ? null : (kept?.no ?? null),
    rules: readHoldRules((draft ?? kept)?.rules ?? '', catalogueOf(fields)).rules,
    lookedAt: (draft ?? kept)?.lookedAt ?? LOOKED_AT,
    decided,
    agreements: new Map(rows.map((row) => [groupOf(row.kind, row.objection), agreementOf(row)])),
  };
}

export type Decided = Omit<DecisionRow, 'outcome' | 'answerId' | 'at'>;
/** What is decided on a draft that answers their last message. */
export function decide(
  { no, rules, lookedAt, decided, agreements }: RulesInForce,
  { thread, theirs, ask }: Awaiting,
  draft: ReplyDraft,
): Decided {
  const { kind = 'unclear', objection = null, confidence = 0, tone, toMachines = [] } = theirs.reading ?? {};
  const facing: Facing = { reading: { kind, objection, confidence, toMachines, ...(tone && { tone }) }, draft, scope: ask.scope, decided };
  const couldGo = alwaysHeld(facing) === undefined;
  const decision = decideHold(rules, facing);
  const about = { messageId: theirs.id, mailbox: thread.mailbox, kind, objection, couldGo, no, line: decision.line };
  const agreement = agreements.get(groupOf(kind, objection));
  if (decision.does === 'send' && agreement && earned(agreement) === 'lost')
    return {
      ...about,
      does: 'hold',
      lookedAt: false,
      says: `of the last ${agreement.decided} drafts of this kind people sent only ${agreement.unchanged} as they stood`,
    };
  const looked = decision.does === 'send' && isLookedAt(theirs.id, lookedAt);
  return looked
    ? {
        ...about,
        does: 'hold',
        lookedAt: true,
        says: `could go alone (${decision.says}), and is one of those a person looks at all the same`,
      }
    : { ...about, does: decision.does, lookedAt: false, says: decision.says };
}

/** The decision on what they wrote last: the one that was made, or the one that would be. */
export async function decisionFor(tx: Tx, stands: Standing): Promise<HoldDecisionView | null> {
  if (!isAwaiting(stands)) return null;
  const { theirs, thread, ask } = stands;
  const made = await decisionOn(tx, theirs.id);
  const { does, line, says, lookedAt } = made ?? decide(await rulesInForce(tx, thread.mailbox, ask.fields), stands, draftReply(ask));
  return { does, line, says, lookedAt, mailbox: thread.mailbox };
}

/** Keeps what a person made of the draft; where no rule had looked at it yet, what the rules would have decided with it. */
export async function personDecided(
  tx: Tx,
  stands: Standing,
  by: { readonly actor: Actor; readonly answerId: string | null; readonly outcome: Outcome },
  now: Instant,
): Promise<void> {
  if (!isAwaiting(stands)) return;
  const { theirs, thread, ask } = stands;
  if (!(await decisionOn(tx, theirs.id))) {
    const decided = decide(await rulesInForce(tx, thread.mailbox, ask.fields), stands, draftReply(ask));
    await insertDecision(tx, { ...decided, does: 'hold', at: now, answerId: null });
  }
  await settleDecision(tx, theirs.id, { outcome: by.outcome, answerId: by.answerId, userId: by.actor.userId }, now);
}
