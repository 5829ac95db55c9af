/** Stuck trips: seen together where line and reason are the same, and dealt with one by one or all that are alike. */
import { fieldByHand, stuckKey, type Choice, type TripEvent } from '../../core/engine';
import { catalogueOf, readTyped, type Field } from '../../core/fields';
import { fieldAt } from '../../core/flow/check';
import { postToStuck, stuckRows, stuckTrips, type StuckRow, type StuckTrip } from './store/stuck';
import { postEvent } from './store/trips';
import { loadPlans } from '../flows/library';
import { Refusal, type Actor, type World } from '../platform/world';

/** One decision: trips stuck at one line of a flow for one reason, whichever version they run on. */
export interface StuckGroup {
  readonly key: string;
  readonly flowId: string;
  readonly flowName: string;
  /** the line they stand at, as it is numbered there: “line 5 read” */
  readonly line: string;
  readonly why: string;
  readonly held: boolean;
  readonly count: number;
  /** since when the first of them is stuck */
  readonly since: number;
  /** those that came first */
  readonly trips: readonly StuckTrip[];
  /** what may be set by hand in the line's place */
  readonly byHand: { readonly label: string; readonly unit: string | null } | null;
}

type Stood = { readonly versionId: string | null; readonly trialId: string | null; readonly at: number };
type Plans = Awaited<ReturnType<typeof loadPlans>>;

const lineOf = (plans: Plans, trip: Stood) => plans(trip)?.instructions[trip.at];

/** The field that the line a trip is stuck at is there to fill, when there is one. */
function handField(plans: Plans, trip: Stood): Field | undefined {
  const line = lineOf(plans, trip);
  const path = line && fieldByHand(line);
  const plan = plans(trip);
  return path === undefined || !plan ? undefined : fieldAt(catalogueOf(plan.library.fields), plan.about, path);
}

const stood = (row: StuckRow): Stood => ({ versionId: row.versionId, trialId: null, at: row.at });

/** Stuck trips by flow, line and reason, each with the rows it is made of. */
async function keyed(world: World, flowId?: string): Promise<{ readonly plans: Plans; readonly groups: ReadonlyMap<string, StuckRow[]> }> {
  const rows = await stuckRows(world.db, flowId);
  const plans = await loadPlans(world.db, rows.map(stood));
  const groups = new Map<string, StuckRow[]>();
  for (const row of rows) {
    const key = stuckKey({ flowId: row.flowId, mark: lineOf(plans, stood(row))?.mark ?? null, why: row.why });
    const same = groups.get(key);
    if (same) same.push(row);
    else groups.set(key, [row]);
  }
  return { plans, groups };
}

/** How many decisions the stuck trips are. */
export async function countStuck(world: World): Promise<number> {
  return (await keyed(world)).groups.size;
}

/** Stuck trips of one flow or of all, together where line and reason are the same; the largest groups first. */
export async function stuckGroups(world: World, flowId?: string): Promise<readonly StuckGroup[]> {
  const { plans, groups } = await keyed(world, flowId);
  const first = await stuckTrips(
    world.db,
    [...groups.values()].flatMap((rows) => rows.flatMap((row) => row.firstIds)),
  );
  const byId = new Map(first.map((trip) => [trip.id, trip]));
  const out = [...groups].flatMap(([key, rows]): StuckGroup[] => {
    const [row] = rows;
    const trips = rows.flatMap((entry) => entry.firstIds.flatMap((id) => byId.get(id) ?? [])).sort((a, b) => a.since - b.since);
    if (!row) return [];
    const [field, line] = [handField(plans, stood(row)), lineOf(plans, stood(row))];
    return [
      {
        key,
        flowId: row.flowId,
        flowName: row.flowName,
        line: line ? `line ${line.number} ${line.step.verb}` : 'a line that is gone',
        why: row.why,
        held: row.held,
        count: rows.reduce((sum, entry) => sum + entry.trips, 0),
        since: trips[0]?.since ?? 0,
        trips,
        byHand: field ? { label: field.label, unit: field.unit ?? null } : null,
      },
    ];
  });
  return out.sort((a, b) => b.count - a.count || a.since - b.since);
}

/** What is done with stuck trips: these, or one with all that are stuck at the same line of its flow for the same reason. */
export interface StuckChoice {
  readonly tripIds?: readonly string[] | undefined;
  readonly alike?: string | undefined;
  readonly choice: Choice;
  /** with `set by hand`: what was typed */
  readonly value?: string | undefined;
}

/** Deals with stuck trips; how many they were. */
export async function chooseStuck(world: World, actor: Actor, ask: StuckChoice): Promise<number> {
  const now = await world.clock.now();
  const named = await stuckTrips(world.db, ask.alike === undefined ? (ask.tripIds ?? []) : [ask.alike]);
  const plans = await loadPlans(world.db, named);
  const eventFor = (trip: Stood): TripEvent => {
    if (ask.choice !== 'set by hand') return { kind: 'choice', choice: ask.choice, by: actor.name };
    const field = handField(plans, trip);
    if (!field) throw new Refusal('not valid', 'this line is not there to fill one field: try again, skip it, or end');
    const typed = readTyped(field, ask.value ?? '');
    if (!typed.ok) throw new Refusal('not valid', `${field.label}: ${typed.why}`);
    return { kind: 'choice', choice: 'set by hand', by: actor.name, value: typed.value };
  };
  if (ask.alike === undefined) {
    const events = named.map((trip) => ({ id: trip.id, event: eventFor(trip) }));
    await world.db.begin(async (tx) => {
      for (const { id, event } of events) await postEvent(tx, id, event, now);
    });
    return events.length;
  }
  const [one] = named;
  if (!one) return 0;
  const event = eventFor(one);
  const key = stuckKey({ flowId: one.flowId, mark: lineOf(plans, one)?.mark ?? null, why: one.why });
  const rows = (await keyed(world, one.flowId)).groups.get(key) ?? [];
  return world.db.begin(async (tx) => {
    let posted = 0;
    for (const row of rows) posted += await postToStuck(tx, row, event, now);
    return posted;
  });
}
