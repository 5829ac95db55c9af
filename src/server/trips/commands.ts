import { insertAnswerUses } from '../messages/store/answers';
import { never, type Instant } from '../../core/base';
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
import { findPerson, insertDeal, moveDeal, pipelineOfDeal, setOwner, stageNow } from '../records/store/records';
import { closeReview, escalateReview, insertPair, insertReview } from '../desk/store/reviews';
import { insertHappenings, type Happening } from '../records/store/timeline';
import { addJournalDetail, type HeldTrip } from './store/trips';
import { takeTurn } from '../flows/store/flows';
import { ENTRY_ID } from '../intake/entries';
import { recordFacts } from '../records/facts';
import { merge } from '../records/merge';
import { rfcIdOf } from '../messages/message-id';
import { tellPeople } from './tell';
import { planTouches } from '../messages/touches';
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

async function applyOne(tx: Tx, entry: TripCommand, now: Instant, happenings: Happening[]): Promise<void> {
  const { held, command, personId } = entry;
  const tell = (kind: string, says: string, detail: Happening['detail'] = {}): void => {
    happenings.push({ recordKind: 'person', recordId: personId, at: now, kind, says, detail: { ...detail, tripId: held.trip.id } });
  };
  switch (command.kind) {
    case 'record facts':
      return;
    case 'note':
      tell('note', command.text);
      return;
    case 'merge':
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
      return;
    case 'ask about pair':
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
      return;
    case 'open deal': {
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
      return;
    }
    case 'assign': {
      const rep = await takeTurn(tx, command.team, dayKey(now, (await workspace(tx)).zone));
      if (!rep) {
        await addJournalDetail(tx, held.trip.id, command.seq, `nobody of the team ${command.team} is here: nobody was assigned`, {});
        return;
      }
      if (command.record) await setOwner(tx, command.record.kind, command.record.id, rep.id);
      await setOwner(tx, 'person', personId, rep.id);
      await addJournalDetail(tx, held.trip.id, command.seq, `it is ${rep.name}’s turn`, { owner: rep.name });
      tell('assign', `Assigned to ${rep.name}`);
      return;
    }
    case 'keep message':
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
      return;
    case 'ask approval':
      await insertReview(
        tx,
        { id: command.reviewId, tripId: held.trip.id, messageId: command.messageId, who: command.who, dueAt: command.dueAt },
        now,
      );
      return;
    case 'escalate review':
      await escalateReview(tx, command.reviewId, command.to, command.text);
      return;
    case 'close review':
      if (await closeReview(tx, command.reviewId, 'closed', null, now)) tell('review', 'Approval not given in time');
      return;
    case 'plan touches':
      await planTouches(tx, { ...command, tripId: held.trip.id, personId, answers: await mailBehind(tx, held.trip.vars) }, now);
      tell('plan', `Follow-up planned: ${command.touches.length} ${command.touches.length === 1 ? 'touch' : 'touches'}`, {
        threadId: command.threadId,
      });
      return;
    case 'drop what is planned':
      await dropOfTrip(tx, held.trip.id, command.why, now);
      return;
    case 'move deal': {
      const stage = await stageNow(tx, await pipelineOfDeal(tx, command.dealId), command.stage);
      await moveDeal(tx, command.dealId, stage, now);
      tell('deal', `Deal moved to ${stage}`, { dealId: command.dealId });
      return;
    }
    case 'open application': {
      const opening = found(await openingNamed(tx, command.opening), `the opening “${command.opening}”`);
      const { applicationId: id, stage } = command;
      if (await insertApplication(tx, { id, openingId: opening.id, personId, stage, tripId: held.trip.id }, now))
        tell('application', `Applied for ${command.opening}`, { applicationId: id });
      return;
    }
    case 'move application':
      await moveApplication(tx, command.applicationId, command.stage, now);
      tell('application', `Application moved to ${command.stage}`, { applicationId: command.applicationId });
      return;
    case 'tell':
      await tellPeople(tx, command, { tripId: held.trip.id, personId }, now);
      return;
    case 'hand over':
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
      return;
    default:
      never(command);
  }
}

/** The id of the mail that brought a record in; undefined when something else did. */
async function mailBehind(tx: Tx, vars: HeldTrip['trip']['vars']): Promise<string | undefined> {
  const id = vars[ENTRY]?.[ENTRY_ID];
  return typeof id === 'string' ? mailOfEntry(tx, id) : undefined;
}
