import type { Instant } from '../../core/base';
import type { MatchEvidence } from '../../core/engine';
import type { Tx } from '../db';
import { moveFacts, returnFacts } from './store/facts';
import { findCompany, findPerson, lockRecords } from './store/records';
import { endMerge, findMerge, insertMerge, moveHanging, returnHanging } from './store/merges';
import { insertHappenings, moveTimeline, returnTimeline } from './store/timeline';
import { endTwins, moveTrips } from '../trips/store/trips';
import { loadCatalogue } from './fields';
import { chooseValues } from './facts';
import { found, Refusal, type Actor, type World } from '../platform/world';

export interface MergeAsk {
  readonly kind: 'person' | 'company';
  readonly fromId: string;
  readonly intoId: string;
  readonly confidence: number;
  readonly evidence: readonly MatchEvidence[];
  readonly by: string;
}

/** Every field a record of the kind can have a value of, retired ones too. */
async function keysOf(tx: Tx, kind: 'person' | 'company'): Promise<readonly string[]> {
  const fields = await loadCatalogue(tx);
  return [...new Set([...fields.all(kind), ...fields.own.filter((field) => field.record === kind)].map((field) => field.key))];
}

/** Joins one record into another: all facts, trips, deals and messages go over, and what went is kept so that it can come back. */
export async function merge(tx: Tx, ask: MergeAsk, now: Instant): Promise<void> {
  await lockRecords(tx, ask.kind, [ask.fromId, ask.intoId]);
  const [from, into] =
    ask.kind === 'person'
      ? await Promise.all([findPerson(tx, ask.fromId), findPerson(tx, ask.intoId)])
      : await Promise.all([findCompany(tx, ask.fromId), findCompany(tx, ask.intoId)]);
  if (!from || !into || from.mergedInto !== null || into.mergedInto !== null) return;
  const facts = await moveFacts(tx, { kind: ask.kind, id: ask.fromId }, { kind: ask.kind, id: ask.intoId });
  const trips = ask.kind === 'person' ? await moveTrips(tx, ask.fromId, ask.intoId) : [];
  const moved = { trips, ...(await moveHanging(tx, ask.kind, ask.fromId, ask.intoId)) };
  if (ask.kind === 'person') await endTwins(tx, moved.trips, `joined with ${into.name}, who is in this flow already`, now);
  const timeline = await moveTimeline(tx, ask.fromId, ask.intoId);
  await insertMerge(tx, { ...ask, moved: { facts, timeline, ...moved } }, now);
  await chooseValues(tx, [{ kind: ask.kind, id: ask.intoId, fields: await keysOf(tx, ask.kind) }]);
  await insertHappenings(tx, [
    {
      recordKind: ask.kind,
      recordId: ask.intoId,
      at: now,
      kind: 'merge',
      says: `Known already: joined with ${from.name}`,
      detail: { confidence: ask.confidence, by: ask.by, evidence: ask.evidence.map((entry) => ({ ...entry })) },
    },
  ]);
}

/** Takes a merge back: what moved goes back, both records stand alone again. */
export async function undoMerge(world: World, mergeId: number, actor: Actor): Promise<void> {
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    const done = found(await findMerge(tx, mergeId), 'this merge');
    if (done.undoneAt !== null) throw new Refusal('conflict', 'this merge was undone already');
    await returnFacts(tx, done.moved.facts, done.fromId);
    await returnTimeline(tx, done.moved.timeline, done.fromId);
    await returnHanging(tx, done);
    await endMerge(tx, mergeId, now);
    const fields = await keysOf(tx, done.kind);
    await chooseValues(tx, [
      { kind: done.kind, id: done.intoId, fields },
      { kind: done.kind, id: done.fromId, fields },
    ]);
    await insertHappenings(tx, [
      { recordKind: done.kind, recordId: done.intoId, at: now, kind: 'merge', says: `Parted again by ${actor.name}`, detail: {} },
    ]);
  });
}
