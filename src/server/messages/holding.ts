/**
 * Hold or send: the rules of each mailbox, tried on what came before they are kept; and the round that looks at what came in. Promises:
 * an answer that goes alone waits a while in which a person can stop it; rules only loosen where people have sent such drafts as they
 * stood often enough. Refuses: keeping rules that cannot be read.
 */
import type { HoldRulesView, HoldTrialView } from '../../api';
import { draftReply } from '../../core/answers';
import type { Instant } from '../../core/base';
import { catalogueOf } from '../../core/fields';
import { earned, readHoldRules, REPLY_MEANS, type RuleProblem } from '../../core/holding';
import { consequenceOf, REPLY_KINDS } from '../../core/reply';
import { dropPlanned } from './store/effects';
import {
  decisionOn,
  holdRulesOf,
  holdRulesVersions,
  insertDecision,
  insertHoldRules,
  lastWanting,
  setDecisionAnswer,
  settleDecision,
  undecided,
  unhandleMessage,
  unsettleDecision,
} from './store/holding';
import { findMessage, findThread, handleMessage, lockThread, messagesOfThread, setThread } from './store/messages';
import { listMailboxes } from './store/mailboxes';
import { insertAudit } from '../access/store/audit';
import { insertHappenings } from '../records/store/timeline';
import { BY_RULE, isAwaiting, madeOf, materialOf, standing, unanswered, type Awaiting, type Material } from './answer-standing';
import { decide, groupOf, LOOKED_AT, personDecided, rulesInForce, type Decided, type RulesInForce } from './hold-decisions';
import { loadCatalogue } from '../records/fields';
import { mustHave } from './holders';
import { planAnswer } from './replies';
import { changed } from '../platform/live';
import { found, Refusal, type Actor, type World } from '../platform/world';

/** An answer that goes alone leaves no sooner: so long can a person stop it. */
const GRACE_MS = 15 * 60_000;
const AT_ONCE = 20;
const VERSIONS = 20;
/** Rules are tried on so many mails that came. */
const TRIED = 60;
const WANTING = REPLY_KINDS.filter((kind) => consequenceOf(kind).wantsPerson);

/** The rules of every mailbox, what they can speak of, and what people made of drafts that could have gone alone. */
export async function holdRules(world: World): Promise<HoldRulesView> {
  const { db } = world;
  const [boxes, catalogue] = await Promise.all([listMailboxes(db), loadCatalogue(db)]);
  const mailboxes = await Promise.all(
    boxes.map(async ({ name, address }) => {
      const [versions, force] = await Promise.all([holdRulesVersions(db, name, VERSIONS), rulesInForce(db, name, catalogue.own)]);
      const [kept] = versions;
      return {
        name,
        address,
        rules: kept?.rules ?? '',
        lookedAt: kept?.lookedAt ?? LOOKED_AT,
        no: kept?.no ?? 0,
        decided: force.decided,
        problems: problemsOf(kept?.rules ?? '', catalogue.own),
        versions: versions.map(({ no, rules, lookedAt, savedBy, savedAt }) => ({ no, rules, lookedAt, savedBy, savedAt })),
        agreements: [...force.agreements].map(([group, agreement]) => ({
          group,
          ...agreement,
          state: earned(agreement),
          offer: offerOf(group, kept?.rules ?? ''),
        })),
      };
    }),
  );
  return { mailboxes, means: Object.entries(REPLY_MEANS).map(([name, means]) => ({ name: `reply.${name}`, means })) };
}

const problemsOf = (rules: string, fields: Material['fields']): RuleProblem[] => [...readHoldRules(rules, catalogueOf(fields)).problems];

/** The rule that would let a kind go; null where the rules have it. */
function offerOf(group: string, rules: string): string | null {
  const kind = [...WANTING].sort((a, b) => b.length - a.length).find((name) => group === name || group.startsWith(`${name} `)) ?? group;
  const about = group.slice(kind.length + 1);
  const rule = `send when reply.kind = "${kind}"${about === '' ? '' : ` and reply.objection = "${about}"`} and reply.covered = true`;
  return rules.split('\n').some((line) => line.trim() === rule) ? null : rule;
}

export interface RulesAsk {
  readonly mailbox: string;
  readonly rules: string;
  readonly lookedAt: number;
}

/** What rules would do with the last mails that came, beside what those in force do. Nothing is kept. */
export async function tryHoldRules(world: World, ask: RulesAsk): Promise<HoldTrialView> {
  const { db } = world;
  const material = await materialOf(db, await world.clock.now());
  const [now, then, rows] = await Promise.all([
    rulesInForce(db, ask.mailbox, material.fields),
    rulesInForce(db, ask.mailbox, material.fields, ask),
    lastWanting(db, ask.mailbox, WANTING, TRIED),
  ]);
  const items: HoldTrialView['items'][number][] = [];
  for (const { messageId, threadId } of rows) {
    const stands = await standing(db, material, BY_RULE, threadId, messageId);
    if (isAwaiting(stands)) items.push(tried(stands, now, then));
  }
  return { problems: problemsOf(ask.rules, material.fields), items };
}
function tried(stands: Awaiting, now: RulesInForce, then: RulesInForce): HoldTrialView['items'][number] {
  const { thread, theirs } = stands;
  const draft = draftReply(stands.ask);
  const [before, after] = [decide(now, stands, draft), decide(then, stands, draft)];
  const short = ({ does, line, says, lookedAt }: Decided) => ({ does, line, says, lookedAt });
  return {
    messageId: theirs.id,
    threadId: thread.id,
    personName: thread.personName,
    group: groupOf(after.kind, after.objection),
    quote: theirs.reading?.quote ?? null,
    at: theirs.at,
    before: short(before),
    after: short(after),
  };
}

/** Keeps rules as the mailbox's next version. */
export async function saveHoldRules(
  world: World,
  actor: Actor,
  ask: RulesAsk & { readonly seen: number },
): Promise<{ readonly no: number }> {
  const now = await world.clock.now();
  const catalogue = await loadCatalogue(world.db);
  const [problem] = problemsOf(ask.rules, catalogue.own);
  if (problem) throw new Refusal('not valid', `line ${problem.line}: ${problem.says}`, { problems: [problem] });
  return world.db.begin(async (tx) => {
    found(
      (await listMailboxes(tx)).find(({ name }) => name === ask.mailbox),
      'this mailbox',
    );
    const kept = (await holdRulesOf(tx, ask.mailbox))?.no ?? 0;
    if (kept !== ask.seen)
      throw new Refusal('conflict', 'somebody has changed these rules since you opened them: read them first', { no: kept });
    const no = await insertHoldRules(tx, { ...ask, userId: actor.userId }, now);
    await insertAudit(tx, {
      at: now,
      userId: actor.userId,
      what: 'changed when answers wait',
      detail: { mailbox: ask.mailbox, no, rules: ask.rules },
    });
    return { no };
  });
}

/** Looks at what came in and no rule has looked at yet; lets go what may. How many were looked at. */
export async function decideReplies(world: World): Promise<number> {
  const rows = await undecided(world.db, AT_ONCE);
  if (rows.length === 0) return 0;
  const now = await world.clock.now();
  const material = await materialOf(world.db, now);
  for (const { messageId, threadId } of rows) {
    try {
      changed(world, `thread:${threadId}`);
      const stands = await standing(world.db, material, BY_RULE, threadId, messageId);
      if (isAwaiting(stands)) await letGo(world, stands, now);
    } catch (error) {
      // One that cannot be drafted waits for a person, and holds up no other.
      if (!(error instanceof Refusal)) throw error;
      await insertDecision(world.db, { ...UNDRAFTED, messageId, mailbox: '', says: error.message, at: now });
    }
  }
  return rows.length;
}

const UNDRAFTED = {
  does: 'hold',
  no: null,
  line: null,
  couldGo: false,
  lookedAt: false,
  kind: 'unclear',
  objection: null,
  answerId: null,
} as const;

async function letGo(world: World, stands: Awaiting, now: Instant): Promise<void> {
  const { theirs, thread, messages, book } = stands;
  // What is not their last any more, or was answered meanwhile, is no longer anybody's question.
  const draft = draftReply(stands.ask);
  const isLast = unanswered(messages)?.id === theirs.id && thread.state !== 'ended';
  await world.db.begin(async (tx) => {
    const force = await rulesInForce(tx, thread.mailbox, stands.ask.fields);
    const decision = decide(force, stands, draft);
    const decided = isLast ? decision : { ...decision, does: 'hold' as const, says: 'they have written again since', line: null };
    if (!(await insertDecision(tx, { ...decided, at: now, answerId: null })) || decided.does === 'hold') return;
    const used = madeOf(draft, book);
    const actor = { userId: null, name: `the rule “${decided.says}”` };
    const planned = await planAnswer(tx, world, stands, { actor, body: draft.body, used, earliest: now + GRACE_MS, now });
    await setDecisionAnswer(tx, theirs.id, planned.id);
  });
}

/** Takes an answer back that has not left, whoever let it go: what they wrote waits for a person again. */
export async function takeBackAnswer(world: World, actor: Actor, answerId: string): Promise<void> {
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    const { threadId, personId, tripId, inReplyTo } = found(await findMessage(tx, answerId), 'this answer');
    if (threadId === null || tripId !== null) throw new Refusal('conflict', 'this message is of a plan: stop the plan instead');
    await mustHave(world, actor, found(await findThread(tx, threadId), 'this conversation'));
    await lockThread(tx, threadId);
    const dropped = await dropPlanned(tx, threadId, `taken back by ${actor.name}`, now);
    if (!dropped.includes(answerId)) throw new Refusal('conflict', 'it has left already: it cannot be taken back');
    await setThread(tx, threadId, 'answered', null);
    const theirs = (await messagesOfThread(tx, threadId)).find(({ direction, rfcId }) => direction === 'in' && rfcId === inReplyTo);
    if (theirs) {
      await unhandleMessage(tx, theirs.id);
      // A rule’s answer counts as one it should not have let go; a person’s is as if it had not been decided.
      if ((await decisionOn(tx, theirs.id))?.outcome === null)
        await settleDecision(tx, theirs.id, { outcome: 'taken back', answerId: null, userId: actor.userId }, now);
      else await unsettleDecision(tx, theirs.id);
    }
    if (personId)
      await insertHappenings(tx, [
        {
          recordKind: 'person',
          recordId: personId,
          at: now,
          kind: 'review',
          says: `${actor.name} took an answer back before it left`,
          detail: { messageId: answerId, threadId },
        },
      ]);
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'took an answer back', detail: { threadId, messageId: answerId } });
  });
}

/** A reply has been taken care of by a person, without an answer or with one given elsewhere. */
export async function handleReply(world: World, actor: Actor, messageId: string): Promise<void> {
  const now = await world.clock.now();
  const message = found(await findMessage(world.db, messageId), 'this message');
  const material = await materialOf(world.db, now);
  await world.db.begin(async (tx) => {
    await handleMessage(tx, messageId, now);
    if (message.threadId !== null) {
      await mustHave(world, actor, found(await findThread(tx, message.threadId), 'this conversation'));
      const stands = await standing(tx, material, actor, message.threadId, messageId);
      await personDecided(tx, stands, { actor, answerId: null, outcome: 'none' }, now);
    }
    if (message.personId)
      await insertHappenings(tx, [
        {
          recordKind: 'person',
          recordId: message.personId,
          at: now,
          kind: 'review',
          says: `${actor.name} takes care of the answer`,
          detail: { messageId },
        },
      ]);
  });
}
