import { insertAnswerUses } from '../messages/store/answers';
import type { Instant } from '../../core/base';
import { dayKey } from '../../core/calendar';
import type { Command } from '../../core/engine';
import { ENTRY } from '../../core/flow/check';
import type { Tx } from '../db';
import type { FactMeta } from '../records/store/facts';
import { dropOfTrip } from '../messages/store/effects';
import { mailOfEntry } from '../intake/store/intakes';
import { insertMessage } from '../messages/store/messages';
import { insertCall } from './store/outbox';
import { insertApplication, moveApplication, openingNamed } from '../intake/store/openings';
import { findPerson, setOwner } from '../records/store/records';
import { insertDeal, moveDeal, pipelineOfDeal, stageNow } from '../records/store/deals';
import { closeReview, escalateReview, insertPair, insertReview } from '../desk/store/reviews';
import { insertHappenings, type Happening } from '../records/store/timeline';
import { addJournalDetail, type HeldTrip } from './store/trips';
import { takeTurn } from '../flows/store/flows';
import { ENTRY_ID } from '../intake/entries';
import { recordFacts } from '../records/facts';
import { merge } from '../records/merge';
import { rfcIdOf } from '../messages/message-id';
import { tellPeople } from './tell';
import { giveTask, planTouches } from '../messages/touches';
import { found, workspace } from '../platform/world';
import type { FactDraft } from '../../core/facts';

export interface TripCommand {
  readonly held: HeldTrip;
  readonly personId: string;
  readonly command: Command;
}

/**
 * Does in the database what the engine decided, inside the transaction that saves the trips. Facts of all trips go in together; those of
 * deals and applications that are opened here when they are there.
 */
export async function applyCommands(tx: Tx, commands: readonly TripCommand[], now: Instant): Promise<void> {
  const facts: { fact: FactDraft; meta: FactMeta }[] = [];
  const happenings: Happening[] = [];
  for (const { held, command } of commands) {
    if (command.kind === 'record facts')
      for (const fact of command.facts) facts.push({ fact, meta: { tripId: held.trip.id, mark: command.mark, userId: null } });
  }
  const opened = new Set(
    commands.flatMap(({ command }) =>
      command.kind === 'open deal' ? [command.dealId] : command.kind === 'open application' ? [command.applicationId] : [],
    ),
  );
  await recordFacts(
    tx,
    facts.filter(({ fact }) => !opened.has(fact.record.id)),
  );
  for (const entry of commands) await applyOne(tx, entry, now, happenings);
  await recordFacts(
    tx,
    facts.filter(({ fact }) => opened.has(fact.record.id)),
  );
  await insertHappenings(tx, happenings);
}

/** What a command is carried out with. */
interface Carrying {
  readonly held: HeldTrip;
  readonly personId: string;
  readonly now: Instant;
  /** puts a line into the person's timeline */
  readonly tell: (kind: string, says: string, detail?: Happening['detail']) => void;
}

type OfKind<K extends Command['kind']> = Extract<Command, { readonly kind: K }>;

/** What each command does in the database. */
const DOES: { readonly [K in Command['kind']]: (tx: Tx, command: OfKind<K>, carrying: Carrying) => Promise<void> } = {
  // Facts of all trips go in together.
  'record facts': () => Promise.resolve(),
  note: async (_tx, command, { tell }) => {
    tell('note', command.text);
  },
  merge: async (tx, command, { now }) => {
    await merge(
      tx,
      {
        kind: command.target,
        fromId: command.fromId,
        intoId: command.intoId,
        confidence: command.confidence,
        evidence: command.evidence,
        by: command.by,
      },
      now,
    );
  },
  'ask about pair': async (tx, command, { held, now }) => {
    await insertPair(
      tx,
      {
        id: command.pairId,
        kind: command.target,
        aId: command.aId,
        bId: command.bId,
        confidence: command.confidence,
        evidence: command.evidence,
        tripId: held.trip.id,
      },
      now,
    );
  },
  'open deal': async (tx, command, { held, personId, now, tell }) => {
    const person = await findPerson(tx, personId);
    const stage = await stageNow(tx, command.pipeline, command.stage);
    await insertDeal(
      tx,
      {
        id: command.dealId,
        title: command.title,
        pipeline: command.pipeline,
        stage,
        amount: null,
        companyId: person?.companyId ?? null,
        personId,
        tripId: held.trip.id,
      },
      now,
    );
    tell('deal', `Deal opened at ${stage}`, { dealId: command.dealId });
  },
  assign: async (tx, command, { held, personId, now, tell }) => {
    const rep = await takeTurn(tx, command.team, dayKey(now, (await workspace(tx)).zone));
    if (!rep) {
      await addJournalDetail(tx, held.trip.id, command.seq, `nobody of the team ${command.team} is here: nobody was assigned`, {});
      return;
    }
    if (command.record) await setOwner(tx, command.record.kind, command.record.id, rep.id);
    await setOwner(tx, 'person', personId, rep.id);
    await addJournalDetail(tx, held.trip.id, command.seq, `it is ${rep.name}’s turn`, { owner: rep.name });
    tell('assign', `Assigned to ${rep.name}`);
  },
  'keep message': async (tx, command, { held, personId, now }) => {
    await insertMessage(
      tx,
      {
        id: command.messageId,
        threadId: null,
        tripId: held.trip.id,
        personId,
        template: command.template,
        touch: 0,
        composed: command.composed,
        state: 'written',
        rfcId: rfcIdOf(command.messageId),
        inReplyTo: null,
        refs: [],
      },
      now,
    );
    await insertAnswerUses(
      tx,
      (command.uses ?? []).map((use) => ({ ...use, messageId: command.messageId })),
      now,
    );
  },
  'ask approval': async (tx, command, { held, now }) => {
    await insertReview(
      tx,
      { id: command.reviewId, tripId: held.trip.id, messageId: command.messageId, who: command.who, dueAt: command.dueAt },
      now,
    );
  },
  'escalate review': async (tx, command) => {
    await escalateReview(tx, command.reviewId, command.to, command.text);
  },
  'close review': async (tx, command, { now, tell }) => {
    if (await closeReview(tx, command.reviewId, 'closed', null, now)) tell('review', 'Approval not given in time');
  },
  'plan touches': async (tx, command, { held, personId, now, tell }) => {
    await planTouches(tx, { ...command, tripId: held.trip.id, personId, answers: await mailBehind(tx, held.trip.vars) }, now);
    tell('plan', `Follow-up planned: ${command.touches.length} ${command.touches.length === 1 ? 'touch' : 'touches'}`, {
      threadId: command.threadId,
    });
  },
  'give task': async (tx, command, { held, personId, now, tell }) => {
    await giveTask(tx, { ...command, tripId: held.trip.id, personId }, now);
    tell('plan', `To be done: ${command.composed.subject}`, { messageId: command.messageId });
  },
  'drop what is planned': async (tx, command, { held, now }) => {
    await dropOfTrip(tx, held.trip.id, command.why, now);
  },
  'move deal': async (tx, command, { now, tell }) => {
    const stage = await stageNow(tx, await pipelineOfDeal(tx, command.dealId), command.stage);
    await moveDeal(tx, command.dealId, stage, now);
    tell('deal', `Deal moved to ${stage}`, { dealId: command.dealId });
  },
  'open application': async (tx, command, { held, personId, now, tell }) => {
    const opening = found(await openingNamed(tx, command.opening), `the opening “${command.opening}”`);
    const { applicationId: id, stage } = command;
    if (await insertApplication(tx, { id, openingId: opening.id, personId, stage, tripId: held.trip.id }, now))
      tell('application', `Applied for ${command.opening}`, { applicationId: id });
  },
  'move application': async (tx, command, { now, tell }) => {
    await moveApplication(tx, command.applicationId, command.stage, now);
    tell('application', `Application moved to ${command.stage}`, { applicationId: command.applicationId });
  },
  tell: async (tx, command, { held, personId, now }) => {
    await tellPeople(tx, command, { tripId: held.trip.id, personId }, now);
  },
  'hand over': async (tx, command, { held, personId, now }) => {
    await insertCall(
      tx,
      {
        id: command.effectId,
        kind: 'hand over',
        tripId: held.trip.id,
        personId,
        payload: { webhook: command.webhook, body: command.body, answered: command.answered },
      },
      now,
    );
  },
};

async function applyOne(tx: Tx, { held, command, personId }: TripCommand, now: Instant, happenings: Happening[]): Promise<void> {
  const tell: Carrying['tell'] = (kind, says, detail = {}) => {
    happenings.push({ recordKind: 'person', recordId: personId, at: now, kind, says, detail: { ...detail, tripId: held.trip.id } });
  };
  // A command and what is done for its kind belong together, which TypeScript cannot see in a union.
  const does = DOES[command.kind] as (tx: Tx, command: Command, carrying: Carrying) => Promise<void>;
  await does(tx, command, { held, personId, now, tell });
}

/** The id of the mail that brought a record in; undefined when something else did. */
async function mailBehind(tx: Tx, vars: HeldTrip['trip']['vars']): Promise<string | undefined> {
  const id = vars[ENTRY]?.[ENTRY_ID];
  return typeof id === 'string' ? mailOfEntry(tx, id) : undefined;
}
