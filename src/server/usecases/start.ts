import { stableId } from '../../core/base';
import { parseFlow } from '../../core/flow/syntax';
import type { Tx } from '../db';
import { versionsOf } from '../store/flows';
import { loadViews } from '../store/records';
import { insertTrips, peopleInFlow } from '../store/trips';

/**
 * Starts the live version for people. `once per email` makes the address the intake key, so that a person who comes twice,
 * by whatever list, is taken once; without it a person is taken once per intake. Returns how many trips are new.
 */
export async function startTrips(
  tx: Tx,
  ask: { readonly flowId: string; readonly versionId: string; readonly intake: string; readonly personIds: readonly string[] },
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
  const made = await insertTrips(
    tx,
    people.map((personId) => ({
      id: stableId('trip', ask.flowId, keyOf(personId)),
      flowId: ask.flowId,
      versionId: ask.versionId,
      trialId: null,
      personId,
      intakeKey: keyOf(personId),
    })),
    now,
  );
  return made.length;
}
