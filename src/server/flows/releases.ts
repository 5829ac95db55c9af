import { DateTime } from 'luxon';
import {
  difference,
  replay,
  type CameTo,
  type DifferenceKind,
  type Readings,
  type RecordView,
  type WorkspaceTime,
} from '../../core/engine';
import { chooseCurrent } from '../../core/facts';
import { compilePlan, type Plan } from '../../core/flow/plan';
import { parseFlow } from '../../core/flow/syntax';
import { forecast, judge, type Forecast, type Judged, type LineSeen } from '../../core/forecast';
import type { Tx } from '../db';
import { repliesSoFar } from '../trips/store/control';
import { factsOf } from '../records/store/facts';
import { flowVersions, insertVersion, lastTrials, NO_LIMITS, versionsOf, type ReleaseLimits, type VersionRow } from './store/flows';
import { listMailboxes } from '../messages/store/mailboxes';
import { loadViews } from '../records/store/records';
import { loadDeals } from '../records/store/deals';
import { insertAudit } from '../access/store/audit';
import { journalOf, recentTrips, type StoredEntry } from '../trips/store/trips';
import { countLines, type LineCount } from '../trips/store/line-counts';
import { cameBefore, takeInCameBefore, type CameBefore } from '../intake/came-before';
import { setFlowChanges } from '../intake/change-intake';
import { findingsOf } from './flow-text';
import { setFlowClock } from '../intake/clock-intake';
import { moveTrips } from '../trips/control';
import { flow, ribbon } from './flows';
import { loadLibrary, loadPlans } from './library';
import { found, Refusal, workspace, type Actor, type World } from '../platform/world';

export interface ReleaseAsk {
  /** so many begin, then a person is asked */
  readonly firstN?: number | undefined;
  /** trips that may begin a day */
  readonly dailyLimit?: number | undefined;
  readonly dayBudgetMicro?: number | undefined;
  /** local time of the workspace, `2026-11-30T08:00` */
  readonly startAt?: string | undefined;
  readonly underWay?: 'finish' | 'move' | undefined;
  /** who came by the flow's intake before; left out, they stay as they are */
  readonly cameBefore?: 'leave' | 'take in' | undefined;
  /** the number of records the forecast that is kept with the version is for */
  readonly forecastFor?: number | undefined;
}

/** Makes the draft the live version, within limits. Refused while errors stand. Trips under way finish on theirs, or are moved. */
export async function release(
  world: World,
  actor: Actor,
  id: string,
  ask: ReleaseAsk = {},
): Promise<{ readonly no: number; readonly versionId: string }> {
  const row = await flow(world, id);
  const library = await loadLibrary(world.db);
  const errors = (await findingsOf(world, row.draftText, library)).filter((finding) => finding.severity === 'error');
  if (errors.length > 0)
    throw new Refusal(
      'not valid',
      `the draft has ${errors.length} ${errors.length === 1 ? 'error' : 'errors'}: ${errors[0]?.message ?? ''}`,
      { findings: errors },
    );
  const limits: ReleaseLimits = {
    firstN: ask.firstN ?? null,
    dailyLimit: ask.dailyLimit ?? null,
    dayBudgetMicro: ask.dayBudgetMicro ?? null,
    startAt: await localInstant(world, ask.startAt),
    forecast: ask.forecastFor ? kept(await forecastDraft(world, id, { records: ask.forecastFor, beginPerDay: ask.dailyLimit })) : null,
  };
  const made = await putLive(world, actor, { flowId: id, text: row.draftText, library, limits }, 'released a flow');
  if (ask.underWay === 'move') await moveTrips(world, actor, id);
  if (ask.cameBefore === 'take in') await takeInCameBefore(world, { flowId: id, versionId: made.versionId, text: row.draftText });
  return made;
}

/** Who would be taken in by a release that does not only begin from now on. */
export async function whoCameBefore(world: World, id: string): Promise<CameBefore | null> {
  return cameBefore(world.db, id, (await flow(world, id)).draftText);
}

async function localInstant(world: World, text: string | undefined): Promise<number | null> {
  if (text === undefined) return null;
  const { zone } = await workspace(world.db);
  const at = DateTime.fromISO(text, { zone });
  if (!at.isValid) throw new Refusal('not valid', 'write the start as a date and a time: 2026-11-30T08:00');
  return at.toMillis();
}

/** Only what is looked at again later: the figures by line. */
const kept = ({ records, lines, costMicro, sends, lastDay }: Forecast) => ({ records, lines, costMicro, sends, lastDay });

async function putLive(
  world: World,
  actor: Actor,
  ask: { readonly flowId: string; readonly text: string; readonly library: unknown; readonly limits: ReleaseLimits },
  what: string,
): Promise<{ readonly no: number; readonly versionId: string }> {
  const now = await world.clock.now();
  const versionId = world.newId();
  const no = await world.db.begin(async (tx) => {
    const made = await insertVersion(tx, { id: versionId, userId: actor.userId, ...ask }, now);
    await setFlowClock(tx, ask.flowId, ask.text, now);
    await setFlowChanges(tx, ask.flowId, ask.text);
    await insertAudit(tx, { at: now, userId: actor.userId, what, detail: { flowId: ask.flowId, no: made } });
    return made;
  });
  return { no, versionId };
}

/** Makes an older version live again, as a version of its own with that text and those named things. The draft stays. */
export async function returnTo(world: World, actor: Actor, id: string, versionId: string): Promise<{ readonly no: number }> {
  const version = (await flowVersions(world.db, id)).find((entry) => entry.id === versionId);
  const old = found(version, 'this version');
  if ((await flow(world, id)).liveVersionId === versionId) throw new Refusal('conflict', 'this version is live already');
  return putLive(world, actor, { flowId: id, text: old.text, library: old.library, limits: NO_LIMITS }, `returned to version ${old.no}`);
}

/** Every version, newest first. */
export async function history(world: World, id: string): Promise<readonly VersionRow[]> {
  await flow(world, id);
  return flowVersions(world.db, id);
}

const WENT_ON = new Set(['passed', 'sent', 'off']);

/** Line counts as the forecast reads them. What is still under way at a line says nothing yet; in a trial it went on. */
function seenIn(counts: readonly LineCount[], trial: boolean): readonly LineSeen[] {
  const marks = [...new Set(counts.map((count) => count.mark))];
  return marks.map((mark) => {
    const here = counts.filter((count) => count.mark === mark);
    const passed = here.filter(
      (count) => WENT_ON.has(count.outcome) || (trial && (count.outcome === 'asked' || count.outcome === 'waiting')),
    );
    const ended = here.filter((count) => count.outcome === 'stopped' || count.outcome === 'stuck');
    const sum = (list: readonly LineCount[], of: (count: LineCount) => number): number =>
      list.reduce((total, count) => total + of(count), 0);
    return {
      mark,
      passed: sum(passed, (count) => count.trips),
      ended: sum(ended, (count) => count.trips),
      arms: passed.map((count) => ({ mark: count.arm, trips: count.trips })),
      costMicro: sum([...passed, ...ended], (count) => count.costMicro),
    };
  });
}

function together(a: readonly LineSeen[], b: readonly LineSeen[]): readonly LineSeen[] {
  const marks = [...new Set([...a, ...b].map((line) => line.mark))];
  return marks.map((mark) => {
    const both = [...a, ...b].filter((line) => line.mark === mark);
    return {
      mark,
      passed: both.reduce((sum, line) => sum + line.passed, 0),
      ended: both.reduce((sum, line) => sum + line.ended, 0),
      arms: both.flatMap((line) => line.arms),
      costMicro: both.reduce((sum, line) => sum + line.costMicro, 0),
    };
  });
}

export interface DraftForecast extends Forecast {
  readonly from: { readonly trials: number; readonly trips: number };
  readonly sendsPerDay: number;
}

/** What releasing the draft on so many records would bring, from the last trial and from every trip so far. */
export async function forecastDraft(
  world: World,
  id: string,
  ask: { readonly records: number; readonly beginPerDay?: number | undefined },
): Promise<DraftForecast> {
  const row = await flow(world, id);
  const [[trial], library, boxes, replies, space, past, now] = await Promise.all([
    lastTrials(world.db, id, 1),
    loadLibrary(world.db),
    listMailboxes(world.db),
    repliesSoFar(world.db, id),
    workspace(world.db),
    ribbon(world, id, undefined),
    world.clock.now(),
  ]);
  const tried = trial ? await countLines(world.db, { flowId: id, trialId: trial.id }) : [];
  const plan = compilePlan(parseFlow(row.draftText).tree, library);
  const first = plan.instructions[0]?.mark;
  const reached = (counts: readonly LineCount[]): number =>
    counts.filter((count) => count.mark === first).reduce((sum, count) => sum + count.trips, 0);
  const sendsPerDay = boxes.reduce((sum, box) => sum + box.dailyLimit, 0);
  const made = forecast(plan, {
    records: ask.records,
    seen: together(seenIn(tried, true), seenIn(past, false)),
    replies,
    from: now,
    time: { zone: space.zone, fromMinute: 9 * 60, toMinute: 17 * 60, daysOff: new Set(space.daysOff) },
    sendsPerDay,
    ...(ask.beginPerDay !== undefined && { beginPerDay: ask.beginPerDay }),
  });
  return { ...made, from: { trials: reached(tried), trips: reached(past) }, sendsPerDay };
}

export interface Outcome {
  readonly tripId: string;
  readonly personId: string;
  readonly personName: string;
  readonly companyName: string | null;
  readonly kind: DifferenceKind;
  readonly mark: string | null;
  readonly before: CameTo;
  readonly after: CameTo;
  readonly beforeSays: string;
  readonly afterSays: string;
  readonly missing: readonly string[];
}
export interface Changes {
  readonly liveNo: number;
  readonly trips: readonly Outcome[];
}

/** The draft against the live version on the last trips, both replayed with what was read then: nothing outside is asked. */
export async function whatWouldChange(world: World, id: string, last: number): Promise<Changes | null> {
  const row = await flow(world, id);
  if (row.liveVersionId === null) return null;
  const { db } = world;
  const [library, planOf, space, recent, now] = await Promise.all([
    loadLibrary(db),
    loadPlans(db, [{ versionId: row.liveVersionId, trialId: null }]),
    workspace(db),
    recentTrips(db, id, last),
    world.clock.now(),
  ]);
  const live = planOf({ versionId: row.liveVersionId, trialId: null });
  if (!live) return null;
  const draft = compilePlan(parseFlow(row.draftText).tree, library);
  const time: WorkspaceTime = { zone: space.zone, daysOff: new Set(space.daysOff) };
  const [views, readings] = [await viewsOf(db, recent, now, space.zone), await readingsOf(db, recent)];
  const bands = [
    ...new Set(library.scorecards.flatMap((card) => [...card.bands].sort((a, b) => b.from - a.from).map((band) => band.name))),
  ];
  const run = (plan: Plan, entry: (typeof recent)[number], view: RecordView, read: Readings) =>
    replay(plan, entry.trip, view, read, now, time);
  return {
    liveNo: row.liveNo ?? 0,
    trips: recent.flatMap((entry) => {
      const [view, read] = [views.get(entry.trip.id), readings.get(entry.trip.id)];
      if (!view || !read) return [];
      const { personName, companyName } = entry;
      const differs = difference(run(live, entry, view, read), run(draft, entry, view, read), bands);
      return [{ tripId: entry.trip.id, personId: entry.trip.record.id, personName, companyName, ...differs }];
    }),
  };
}

type Recent = Awaited<ReturnType<typeof recentTrips>>;

async function viewsOf(tx: Tx, recent: Recent, now: number, zone: string): Promise<ReadonlyMap<string, RecordView>> {
  const people = await loadViews(tx, [...new Set(recent.map((entry) => entry.trip.record.id))]);
  const deals = await loadDeals(tx, [...new Set(recent.flatMap((entry) => entry.trip.dealId ?? []))], now, zone);
  return new Map(
    recent.flatMap(({ trip }) => {
      const view = people.get(trip.record.id);
      return view ? [[trip.id, { ...view, deal: deals.get(trip.dealId ?? '') ?? null }] as const] : [];
    }),
  );
}

/** The journals of the trips, and for messages the facts known now; that two messages share a line is no matter here. */
async function readingsOf(tx: Tx, recent: Recent): Promise<ReadonlyMap<string, Readings>> {
  const journals = new Map<string, StoredEntry[]>();
  for (const entry of await journalOf(
    tx,
    recent.map(({ trip }) => trip.id),
  ))
    journals.set(entry.tripId, [...(journals.get(entry.tripId) ?? []), entry]);
  const facts = await factsOf(tx, [
    ...new Set(recent.flatMap((entry) => [entry.trip.record.id, ...(entry.companyId ? [entry.companyId] : [])])),
  ]);
  const byField = new Map<string, Map<string, typeof facts>>();
  for (const fact of facts) {
    const fields = byField.get(fact.record.id) ?? new Map<string, typeof facts>();
    fields.set(fact.field, [...(fields.get(fact.field) ?? []), fact]);
    byField.set(fact.record.id, fields);
  }
  const known = (recordId: string | null) =>
    recordId === null ? [] : [...(byField.get(recordId)?.values() ?? [])].flatMap((list) => chooseCurrent(list) ?? []);
  return new Map(
    recent.map(({ trip, companyId }) => [
      trip.id,
      {
        journal: journals.get(trip.id) ?? [],
        compose: {
          kind: 'compose' as const,
          facts: [...known(trip.record.id), ...known(companyId)],
          recentLines: [],
          sender: { name: '…', first_name: '…' },
          doNotContact: false,
        },
      },
    ]),
  );
}

/** What was expected of the live version, against what has come about since. Null when no forecast was kept. */
export async function forecastAndReal(
  world: World,
  id: string,
): Promise<{ readonly no: number; readonly records: number; readonly lines: readonly Judged[] } | null> {
  const row = await flow(world, id);
  const [version] = row.liveVersionId === null ? [] : await versionsOf(world.db, [row.liveVersionId]);
  const expected = version?.forecast as Pick<Forecast, 'records' | 'lines'> | null | undefined;
  if (!version || !expected) return null;
  const counts = await countLines(world.db, { flowId: id, versionId: version.id });
  const reach = new Map<string, number>();
  for (const count of counts) reach.set(count.mark, (reach.get(count.mark) ?? 0) + count.trips);
  const records = reach.get(expected.lines[0]?.mark ?? '') ?? 0;
  return { no: version.no, records, lines: judge(expected, { records, reach }) };
}
