/**
 * Records that come in because they changed. Promises: whoever makes a change, it counts; a change the flow itself made begins
 * nothing, and a record that is on its way through the flow does not enter it again.
 */
import type { RecordKind } from '../../core/base';
import { parseFlow, type StepOf } from '../../core/flow/syntax';
import type { Tx } from '../db';
import { isOwnChange, subjectsOfChange, takeChanges, underWay, watchChanges, type ChangeRow, type Watched } from './store/changes';
import { versionsOf } from '../flows/store/flows';
import { duePeople } from '../records/store/records';
import { dueDeals } from '../records/store/deals';
import { conditionPieces } from '../records/conditions';
import { beginTrips } from '../trips/start';
import { workspace, type World } from '../platform/world';

const BATCH = 200;
/** A company's people, or its deals, that one change can bring in. */
const SUBJECTS = 500;

interface Ask {
  readonly about: 'person' | 'deal';
  readonly change: NonNullable<StepOf<'take in'>['change']>;
}
function askOf(text: string): Ask | undefined {
  const { tree } = parseFlow(text);
  const step = tree.lines.find((line) => !line.off && line.step.verb === 'take in')?.step;
  if (step?.verb !== 'take in' || !step.change) return undefined;
  return { about: tree.about?.text === 'deal' ? 'deal' : 'person', change: step.change };
}

/** Begins to watch what a flow that has just been released asks for, and nothing else of what it asked for before. */
export async function setFlowChanges(tx: Tx, flowId: string, text: string): Promise<void> {
  const ask = askOf(text);
  await watchChanges(
    tx,
    flowId,
    (ask?.change.fields ?? []).map(({ text: path }): Watched => {
      const [first = '', second] = path.split('.');
      return second === undefined ? { kind: ask?.about ?? 'person', field: first } : { kind: first as RecordKind, field: second };
    }),
  );
}

/** Begins the trips of what has changed. Returns how many changes were looked at. */
export async function runChanges(world: World): Promise<number> {
  const now = await world.clock.now();
  return world.db.begin(async (tx) => {
    const changes = await takeChanges(tx, BATCH);
    // Several fields changed at once are one occasion.
    const occasions = new Map(changes.map((change) => [`${change.flowId} ${change.recordId}`, change]));
    for (const change of occasions.values()) if (!(await isOwnChange(tx, change))) await takeIn(tx, change, now);
    return changes.length;
  });
}

async function takeIn(tx: Tx, change: ChangeRow, now: number): Promise<void> {
  if (change.versionId === null) return;
  const { flowId, versionId } = change;
  const [version] = await versionsOf(tx, [versionId]);
  const ask = askOf(version?.text ?? '');
  if (!ask) return;
  const subjects = await subjectsOfChange(tx, ask.about, change, SUBJECTS);
  const idOf = ({ personId, dealId }: (typeof subjects)[number]): string => dealId ?? personId;
  const ids = subjects.map(idOf);
  const where = await conditionPieces(tx, ask.change.when?.parsed.text, ask.about);
  const fit = new Set(
    ask.about === 'deal'
      ? (await dueDeals(tx, where, now, (await workspace(tx)).zone, SUBJECTS, ids)).map((deal) => deal.dealId)
      : await duePeople(tx, where, SUBJECTS, ids),
  );
  const busy = await underWay(tx, flowId, ask.about, ids);
  const trips = subjects
    .filter((subject) => fit.has(idOf(subject)) && !busy.has(idOf(subject)))
    .map((subject) => ({
      personId: subject.personId,
      intakeKey: `change ${change.id} ${idOf(subject)}`,
      ...(subject.dealId !== null && { dealId: subject.dealId }),
    }));
  if (trips.length > 0) await beginTrips(tx, { flowId, versionId, trips }, now);
}
