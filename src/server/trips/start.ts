import { stableId, type Instant, type JsonObject } from '../../core/base';
import { startOfLocalDay } from '../../core/calendar';
import { parseFlow } from '../../core/flow/syntax';
import type { Tx } from '../db';
import { begunOf, lockStarts } from './store/control';
import { findFlow, versionsOf } from '../flows/store/flows';
import { loadViews } from '../records/store/records';
import { existingTrips, insertTrips, peopleInFlow } from './store/trips';
import { workspace } from '../platform/world';

/**
 * Starts the live version for people. `once per email` makes the address the intake key, so that a person who comes twice,
 * by whatever list, is taken once; without it a person is taken once per intake. Returns how many trips are new.
 */
export async function startTrips(
  tx: Tx,
  ask: {
    readonly flowId: string;
    readonly versionId: string;
    readonly intake: string;
    readonly personIds: readonly string[];
    readonly vars?: JsonObject;
  },
  now: number,
): Promise<number> {
  const [version] = await versionsOf(tx, [ask.versionId]);
  const takeIn = parseFlow(version?.text ?? '')
    .tree.lines.map((line) => line.step)
    .find((step) => step.verb === 'take in');
  const field = takeIn?.verb === 'take in' ? takeIn.oncePer?.text : undefined;
  // Somebody whose address was found only on the way has another key now, but has been taken in all the same.
  const already = field === undefined ? new Set<string>() : new Set(await peopleInFlow(tx, ask.flowId, ask.personIds));
  const people = [...new Set(ask.personIds)].filter((personId) => !already.has(personId));
  const views = field === undefined ? undefined : await loadViews(tx, people);
  const keyOf = (personId: string): string => {
    const value = field === undefined ? undefined : views?.get(personId)?.person[field];
    if (field === undefined) return `${ask.intake} ${personId}`;
    return typeof value === 'string' && value !== '' ? `${field} ${value}` : `person ${personId}`;
  };
  const planned = people.map((personId) => ({ personId, intakeKey: keyOf(personId), ...(ask.vars && { vars: ask.vars }) }));
  return beginTrips(tx, { flowId: ask.flowId, versionId: ask.versionId, trips: planned }, now);
}

/**
 * Begins trips on a version within what it was released with: so many at first, so many a day, not before its time, and
 * held while the flow rests. A record that is in the flow under that key already is left out. Returns how many are new.
 */
export async function beginTrips(
  tx: Tx,
  ask: {
    readonly flowId: string;
    readonly versionId: string;
    readonly trips: readonly {
      readonly personId: string;
      readonly intakeKey: string;
      readonly dealId?: string;
      readonly vars?: JsonObject;
    }[];
  },
  now: Instant,
): Promise<number> {
  await lockStarts(tx, ask.flowId);
  const [[version], flow, { zone }] = await Promise.all([versionsOf(tx, [ask.versionId]), findFlow(tx, ask.flowId), workspace(tx)]);
  const all = ask.trips.map((trip) => ({ ...trip, id: stableId('trip', ask.flowId, trip.intakeKey) }));
  const known = new Set(
    await existingTrips(
      tx,
      all.map((trip) => trip.id),
    ),
  );
  const begun = await begunOf(tx, ask.versionId, startOfLocalDay(now, zone));
  const earliest = Math.max(now, version?.startAt ?? now);
  const made = await insertTrips(
    tx,
    all
      .filter((trip) => !known.has(trip.id))
      .map((trip, i) => {
        const day = version?.dailyLimit ? Math.floor((begun.since + i) / version.dailyLimit) : 0;
        const first = version?.firstN != null && begun.all + i >= version.firstN;
        const hold = flow?.pausedAt != null ? 'paused' : first ? 'first' : undefined;
        return {
          ...trip,
          flowId: ask.flowId,
          versionId: ask.versionId,
          trialId: null,
          dueAt: day === 0 ? earliest : Math.max(earliest, startOfLocalDay(now, zone, day)),
          ...(hold && { hold }),
        };
      }),
    now,
  );
  return made.length;
}
