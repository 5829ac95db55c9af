import type { Topic } from '../../api';
import type { Instant } from '../../core/base';
import { advance, type Advance, type RecordView, type Request, type Trip, type TripEvent, type WorkspaceTime } from '../../core/engine';
import { chooseCurrent, type Fact } from '../../core/facts';
import { transact, type Tx } from '../db';
import { factsOf, insertTrialFacts, trialFactsOf } from '../records/store/facts';
import { applicationValues, openingValues } from '../intake/store/openings';
import { loadViews } from '../records/store/records';
import { loadDeals } from '../records/store/deals';
import {
  claimTrips,
  deleteEvents,
  dueWhereCalled,
  firstEvents,
  insertJournal,
  interrupted,
  renewTrips,
  saveTrips,
  wakeOnChange,
  type HeldTrip,
} from './store/trips';
import { applyCommands, type TripCommand } from './commands';
import { shownOf } from './shown';
import type { Plan } from '../../core/flow/plan';
import { loadPlans } from '../flows/library';
import { answerRequest, beginRequest } from './requests';
import { LAST_LINES } from './requests/compose';
import { changed } from '../platform/live';
import type { World } from '../platform/world';

export interface WorkerAsk {
  readonly holder: string;
  readonly leaseMs: number;
  readonly batch: number;
  readonly calls: number;
}

/** One trip in a worker's hand. */
export interface Going {
  readonly held: HeldTrip;
  readonly plan: Plan | undefined;
  trip: Trip;
  /** what was posted before it */
  posted: { readonly id: number; readonly event: TripEvent } | undefined;
  next: TripEvent | undefined;
  request: Request | undefined;
  /** what lines below will ask that need nothing of the present one */
  beside: readonly Request[];
  /** names of what was begun so */
  readonly begun: Set<string>;
  rounds: number;
}

const MAX_ROUNDS = 200;

/** Takes due trips into the hand, with what they need to go on. */
export async function claimGoing(world: World, ask: WorkerAsk, limit: number, now: Instant): Promise<Going[]> {
  const claimed = await claimTrips(world.db, { holder: ask.holder, now, leaseMs: ask.leaseMs, limit });
  if (claimed.length === 0) return [];
  const [events, planOf] = await Promise.all([
    firstEvents(
      world.db,
      claimed.map((held) => held.trip.id),
    ),
    loadPlans(world.db, claimed),
  ]);
  const posted = new Map(events.map((event) => [event.tripId, event]));
  return claimed.map((held) => ({
    held,
    plan: planOf(held),
    trip: held.trip,
    posted: posted.get(held.trip.id),
    next: undefined,
    request: undefined,
    beside: [],
    begun: new Set(),
    rounds: 0,
  }));
}

/** Renews the leases of trips in hand. Returns the ids of those that are still the holder's. */
export async function renewGoing(world: World, going: readonly Going[], ask: WorkerAsk): Promise<Set<string>> {
  return renewTrips(
    world.db,
    going.map(({ trip, held }) => ({ id: trip.id, fence: held.fence })),
    ask,
  );
}

/** Finds out what a trip's line asked for; whatever breaks is an event of that trip alone. */
export async function outcomeOf(world: World, entry: Going, view: RecordView, request: Request): Promise<TripEvent> {
  try {
    return await answerRequest(world, { ...entry.held, trip: entry.trip }, view, request);
  } catch (error) {
    world.log.error('a request broke', { trip: entry.trip.id, error: String(error) });
    return {
      kind: 'failed',
      why: 'something broke inside Millrace while this line was asked for',
      retryable: true,
      retryAfterMs: null,
    };
  }
}

/** Begins what a line below will ask for. It asks itself when it is reached and finds it there; what breaks on the way, it is told. */
export async function beginBeside(world: World, { held, trip }: Going, view: RecordView, request: Request): Promise<void> {
  try {
    await beginRequest(world, { ...held, trip }, view, request);
  } catch (error) {
    world.log.warn('could not be begun beside another', { trip: trip.id, error: String(error) });
  }
}

/** One round: every trip takes its next event; all are saved in one transaction. Returns those that go on. */
export async function moveAll(
  world: World,
  ask: WorkerAsk,
  { now, time }: { readonly now: Instant; readonly time: WorkspaceTime },
  going: readonly Going[],
  views: ReadonlyMap<string, RecordView>,
): Promise<Going[]> {
  const moved = await decideAll(world, { now, time }, going, views);
  const saved = await saveAll(world, ask, moved, now);
  const goOn: Going[] = [];
  for (const { entry, result, used } of moved) {
    const held = saved.get(entry.trip.id);
    if (held !== undefined) changed(world, ...shownOfTrip(entry, result));
    if (held === undefined) world.log.warn('lease lost', { trip: entry.trip.id });
    if (held !== true) continue;
    entry.trip = mergedTrip(result);
    entry.request = result.request;
    entry.beside = result.beside;
    entry.next = undefined;
    if (used !== undefined) entry.posted = undefined;
    entry.rounds += 1;
    goOn.push(entry);
  }
  return goOn;
}

interface Moved {
  readonly entry: Going;
  readonly result: Advance;
  /** the posted event that was taken in */
  readonly used: number | undefined;
  /** whether its lease is kept for a next round */
  readonly keep: boolean;
}

/** What the core decides of each; nothing is saved yet. */
async function decideAll(
  world: World,
  { now, time }: { readonly now: Instant; readonly time: WorkspaceTime },
  going: readonly Going[],
  views: ReadonlyMap<string, RecordView>,
): Promise<readonly Moved[]> {
  const moved: Moved[] = [];
  const lines = new Map<string, string[]>();
  // Finding out takes its time: what was asked for is taken in, but whoever is to rest or to end goes no further.
  const halted = await interrupted(
    world.db,
    going.filter((entry) => entry.next).map((entry) => entry.trip.id),
  );
  for (const entry of going) {
    const { plan } = entry;
    const view = viewOf(views, entry);
    if (!plan || !view) {
      world.log.error('trip without plan or record', { trip: entry.trip.id });
      continue;
    }
    const used = entry.next ? undefined : entry.posted;
    let event = withBatchLines(entry.next ?? used?.event, entry.request, lines);
    event ??= entry.trip.state.kind === 'asking' ? { kind: 'overdue' } : { kind: 'go' };
    const result = safely(world, entry, () => advance(plan, entry.trip, event, now, view, time, halted.has(entry.trip.id)));
    for (const command of result.commands)
      if (command.kind === 'keep message' && command.template !== null && command.composed.personalLine !== null)
        lines.set(command.template, [command.composed.personalLine, ...(lines.get(command.template) ?? [])]);
    const more = result.request !== undefined || result.reload || result.trip.state.kind === 'ready';
    moved.push({ entry, result, used: used?.id, keep: more && entry.rounds < MAX_ROUNDS });
  }
  return moved;
}

/** Saves all in one transaction, with what they decided; by id of those whose lease was ours, whether they go on. */
function saveAll(world: World, ask: WorkerAsk, moved: readonly Moved[], now: Instant): Promise<Map<string, boolean>> {
  return transact(world.db, async (tx) => {
    const ok = await saveTrips(
      tx,
      moved.map(({ entry, result, keep }) => ({ held: entry.held, trip: result.trip, keep })),
      { holder: ask.holder, now, leaseMs: ask.leaseMs },
    );
    const kept = moved.filter(({ entry }) => ok.has(entry.trip.id));
    await insertJournal(
      tx,
      kept.flatMap(({ entry, result }) => result.journal.map((line) => ({ tripId: entry.trip.id, entry: line }))),
    );
    await deleteEvents(
      tx,
      kept.flatMap(({ used }) => used ?? []),
    );
    for (const id of await dueWhereCalled(tx, [...ok.keys()], now)) ok.set(id, false);
    await applyAll(tx, kept, now);
    return ok;
  });
}

/** The way of a trip is shown where its flow is, on its own page and on that of its record. */
const shownOfTrip = ({ held, trip }: Going, { commands }: Advance): Topic[] => [
  `flow:${held.flowId}`,
  `trip:${trip.id}`,
  `record:${trip.record.id}`,
  ...(trip.trial ? [] : commands.flatMap(shownOf)),
];

export const viewOf = (views: ReadonlyMap<string, RecordView>, { trip }: Going): RecordView | undefined =>
  views.get(trip.id) ?? views.get(trip.record.id);

/** Personal lines written earlier in this very round count among the last ones, though they are not stored yet. */
function withBatchLines(
  event: TripEvent | undefined,
  request: Request | undefined,
  lines: ReadonlyMap<string, readonly string[]>,
): TripEvent | undefined {
  if (event?.kind !== 'answer' || event.answer.kind !== 'compose' || request?.kind !== 'compose') return event;
  const recentLines = [...(lines.get(request.template) ?? []), ...event.answer.recentLines].slice(0, LAST_LINES);
  return { kind: 'answer', answer: { ...event.answer, recentLines } };
}

/** One trip's broken invariant stops that trip, with its reason, and no other. */
function safely(world: World, entry: Going, move: () => Advance): Advance {
  try {
    return move();
  } catch (error) {
    world.log.error('a trip broke', { trip: entry.trip.id, error: String(error) });
    return {
      trip: {
        ...entry.trip,
        state: {
          kind: 'stuck',
          why: `something broke inside Millrace: ${error instanceof Error ? error.message : 'unknown'}`,
          held: false,
        },
      },
      journal: [],
      commands: [],
      request: undefined,
      beside: [],
      reload: false,
    };
  }
}

/** After a merge of the person the trip belongs to the survivor; the database says so, and so does the worker's copy. */
function mergedTrip(result: Advance): Trip {
  const joined = result.commands.find((command) => command.kind === 'merge' && command.target === 'person');
  return joined?.kind === 'merge' ? { ...result.trip, record: { kind: 'person', id: joined.intoId } } : result.trip;
}

async function applyAll(tx: Tx, kept: readonly { entry: Going; result: Advance }[], now: Instant): Promise<void> {
  const live: TripCommand[] = [];
  const trialFacts: { fact: Fact | Parameters<typeof insertTrialFacts>[1][number]['fact']; tripId: string }[] = [];
  for (const { entry, result } of kept) {
    for (const command of result.commands) {
      if (!entry.trip.trial)
        live.push({
          held: { ...entry.held, trip: result.trip },
          personId: result.trip.record.id,
          command,
        });
      else if (command.kind === 'record facts') for (const fact of command.facts) trialFacts.push({ fact, tripId: entry.trip.id });
    }
  }
  await insertTrialFacts(tx, trialFacts);
  await applyCommands(tx, live, now);
  await wakeOnChange(
    tx,
    live.flatMap(({ command }) =>
      command.kind === 'record facts' ? command.facts.map((fact) => fact.record.id) : command.kind === 'move deal' ? [command.dealId] : [],
    ),
    now,
  );
}

/** Records as trips see them, by person; trials see their own facts on top, by trip. */
export async function viewsFor(tx: Tx, going: readonly Going[], now: Instant, zone: string): Promise<ReadonlyMap<string, RecordView>> {
  const base = await loadViews(tx, [...new Set(going.map((entry) => entry.trip.record.id))]);
  const dealIds = [...new Set(going.flatMap((entry) => entry.trip.dealId ?? []))];
  if (dealIds.length > 0) {
    const deals = await loadDeals(tx, dealIds, now, zone);
    for (const { trip } of going) {
      const view = base.get(trip.record.id);
      const deal = deals.get(trip.dealId ?? '');
      if (view && deal) base.set(trip.id, { ...view, deal });
    }
  }
  await withHiring(tx, going, base);
  const trials = going.filter((entry) => entry.trip.trial);
  if (trials.length === 0) return base;
  const overlay = await trialFactsOf(
    tx,
    trials.map((entry) => entry.trip.id),
  );
  if (overlay.length === 0) return base;
  const stored = await factsOf(tx, [...new Set(overlay.map((fact) => fact.record.id))], [...new Set(overlay.map((fact) => fact.field))]);
  const views = new Map(base);
  for (const entry of trials) {
    const own = overlay.filter((fact) => fact.tripId === entry.trip.id);
    const view = base.get(entry.trip.id) ?? base.get(entry.trip.record.id);
    if (view && own.length > 0) views.set(entry.trip.id, withFacts(view, own, stored));
  }
  return views;
}

/** Beside their records, trips whose flow opens applications see what the openings say, and the applications they have opened. */
async function withHiring(tx: Tx, going: readonly Going[], views: Map<string, RecordView>): Promise<void> {
  const hiring = going.filter((entry) => openingsIn(entry.plan).length > 0);
  if (hiring.length === 0) return;
  const opened = hiring.flatMap(({ trip }) =>
    Object.values(trip.vars).flatMap((held) => (typeof held.opening === 'string' && typeof held.id === 'string' ? [held.id] : [])),
  );
  const openings = await openingValues(tx, [...new Set(hiring.flatMap((entry) => openingsIn(entry.plan)))]);
  const applications = opened.length === 0 ? {} : await applicationValues(tx, opened);
  for (const { trip } of hiring) {
    const view = views.get(trip.id) ?? views.get(trip.record.id);
    if (view) views.set(trip.id, { ...view, openings, applications });
  }
}
const openingsIn = (plan: Plan | undefined): readonly string[] =>
  (plan?.instructions ?? []).flatMap(({ step }) => (step.verb === 'open' && step.what === 'application' ? [step.opening.text] : []));

function withFacts(view: RecordView, own: readonly Fact[], stored: readonly Fact[]): RecordView {
  let { person, company } = view;
  for (const fact of own) {
    const value =
      chooseCurrent([
        ...stored.filter((other) => other.record.id === fact.record.id && other.field === fact.field),
        ...own.filter((other) => other.record.id === fact.record.id && other.field === fact.field),
      ])?.value ?? null;
    if (fact.record.id === person.id) person = { ...person, [fact.field]: value };
    else if (company && fact.record.id === company.id) company = { ...company, [fact.field]: value };
  }
  return { ...view, person, company };
}
