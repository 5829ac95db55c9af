import { z } from 'zod';
import { type Instant, type JsonObject, stableId } from '../../core/base';
import { OUTCOMES, type TripState } from '../../core/engine';
import type { Finding } from '../../core/flow/check';
import { numberedLines, parseFlow } from '../../core/flow/syntax';
import type { Tx } from '../db';
import {
  draftTexts,
  findFlow,
  flowNameTaken,
  flowVersions,
  insertDraft,
  insertFlow,
  insertTrial,
  lastTrials,
  listFlows,
  saveDraft as storeDraft,
  type FlowRow,
  versionsOf,
} from './store/flows';
import { notifyViewers } from '../platform/store/live';
import { loadViews } from '../records/store/records';
import { insertAudit } from '../access/store/audit';
import { insertTrips, journalOf, type StoredEntry } from '../trips/store/trips';
import { beganBefore, countLines, joinLineCounts, lineCounts, type LineCount } from '../trips/store/line-counts';
import { countTrips, trialTrips, type FlowCounts } from '../trips/store/trip-lists';
import { trialFactsOf, factsOf } from '../records/store/facts';
import { byTrust, type Fact } from '../../core/facts';
import { figure } from '../platform/figures';
import { lastVars } from '../intake/entries';
import { draftOf, findingsOf } from './flow-text';
import { loadLibrary } from './library';
import { aboutOf, specimens, subjectsOf } from '../research/specimens';
import { beginTrips, startTrips } from '../trips/start';
import { found, Refusal, type Actor, type World } from '../platform/world';

const whole = z.number().int();
const flowCountsSchema = z.array(
  z.object({ flowId: z.string(), underWay: whole, asking: whole, stuck: whole, done: whole, stopped: whole, costMicro: whole }),
);
const lineCountsSchema = z.array(
  z.object({ mark: z.string(), outcome: z.enum(OUTCOMES), arm: z.string().nullable(), trips: whole, costMicro: whole, tookMs: whole }),
);

/** Undo reaches back so many saved drafts. */
const DRAFTS_KEPT = 200;

/** What one trial may spend on lookups unless it is told. */
const TRIAL_LIMIT_MICRO = 2_000_000;

export interface FlowSummary extends FlowRow {
  readonly counts: FlowCounts | undefined;
}

/** Every flow with what is under way and what it cost since local midnight. */
export async function flows(world: World, since: Instant): Promise<readonly FlowSummary[]> {
  const [rows, counts] = await Promise.all([
    listFlows(world.db),
    figure(world, { key: `flow counts since ${since}`, topic: 'flows' }, flowCountsSchema, () => countTrips(world.db, since)),
  ]);
  return rows.map((row) => ({ ...row, counts: counts.find((entry) => entry.flowId === row.id) }));
}

export interface FlowName {
  readonly id: string;
  readonly name: string;
}
/** The flows that records of a kind can be put in: those with a live version that is about them. */
export async function liveFlows(world: World, about: 'person' | 'deal' = 'person'): Promise<readonly FlowName[]> {
  return (await listFlows(world.db))
    .filter((row) => row.liveVersionId !== null && aboutOf(row.draftText) === about)
    .map(({ id, name }) => ({ id, name }));
}

export async function flow(world: World, id: string): Promise<FlowRow> {
  return found(await findFlow(world.db, id), 'this flow');
}
export async function versions(world: World, id: string) {
  return flowVersions(world.db, id);
}

/** A new flow from its text; its name comes from the text. */
export async function createFlow(world: World, actor: Actor, text: string): Promise<FlowRow> {
  const now = await world.clock.now();
  const id = await world.db.begin((tx) => makeFlow(world, tx, actor, text, now));
  return flow(world, id);
}

/** The same within a transaction; gives the new flow's id. */
export async function makeFlow(world: World, tx: Tx, actor: Actor, text: string, now: Instant): Promise<string> {
  const { name, text: printed } = await draftOf(world, text, null);
  if (name === '') throw new Refusal('not valid', 'the flow has no name: its first line is flow "Name"');
  const id = world.newId();
  if (!(await insertFlow(tx, { id, name, text: printed }, now))) throw new Refusal('conflict', `there is a flow named “${name}” already`);
  await insertDraft(tx, { flowId: id, no: 1, text: printed, userId: actor.userId, keep: DRAFTS_KEPT }, now);
  await insertAudit(tx, { at: now, userId: actor.userId, what: 'made a flow', detail: { flowId: id, name } });
  return id;
}

/** Texts of the drafts saved so far, oldest first: what undo can go back to. */
export async function drafts(world: World, id: string): Promise<readonly string[]> {
  return draftTexts(world.db, id);
}

/** Saves a draft that was begun on draft number `base`; marks are kept for lines that stayed. */
export async function saveDraft(
  world: World,
  actor: Actor,
  id: string,
  ask: { readonly text: string; readonly base: number },
): Promise<FlowRow> {
  const before = await flow(world, id);
  const draft = await draftOf(world, ask.text, before.draftText);
  const { text } = draft;
  const name = draft.name || before.name;
  if (await flowNameTaken(world.db, name, id)) throw new Refusal('conflict', `there is another flow named “${name}”`);
  const now = await world.clock.now();
  const no = await world.db.begin(async (tx) => {
    const saved = await storeDraft(tx, { id, name, text, base: ask.base }, now);
    if (saved === undefined) return undefined;
    await insertDraft(tx, { flowId: id, no: saved, text, userId: actor.userId, keep: DRAFTS_KEPT }, now);
    await notifyViewers(tx, { kind: 'draft', flowId: id, no: saved, userId: actor.userId, name: actor.name });
    return saved;
  });
  if (no === undefined)
    throw new Refusal('conflict', 'somebody saved this draft meanwhile: load it again, your text is still in the editor', {
      draftNo: before.draftNo,
    });
  return flow(world, id);
}

export async function checkText(world: World, text: string): Promise<readonly Finding[]> {
  return findingsOf(world, text, await loadLibrary(world.db));
}

/** Puts records into the live version: people, or deals where the flow is about deals. Those who are in it already are not taken twice. */
export async function startOn(
  world: World,
  actor: Actor,
  id: string,
  ids: readonly string[],
): Promise<{ readonly started: number; readonly already: number }> {
  const row = await flow(world, id);
  const { liveVersionId } = row;
  if (liveVersionId === null) throw new Refusal('conflict', `${row.name} has no live version: release it first`);
  const [version] = await versionsOf(world.db, [liveVersionId]);
  const about = aboutOf(version?.text ?? '');
  const subjects = await subjectsOf(world.db, about, [...new Set(ids)]);
  const views = await loadViews(
    world.db,
    subjects.map((subject) => subject.personId),
  );
  const unknown = subjects.find((subject) => !views.has(subject.personId));
  if (unknown) throw new Refusal('not found', `there is no person ${unknown.personId}`);
  if (about === 'deal' && subjects.length < new Set(ids).size)
    throw new Refusal('not valid', 'one of these is no deal, or a deal with nobody to write to: this flow is about deals');
  const now = await world.clock.now();
  const started = await world.db.begin((tx) =>
    about === 'deal'
      ? beginTrips(
          tx,
          {
            flowId: id,
            versionId: liveVersionId,
            trips: subjects.map(({ personId, dealId }) => ({ personId, dealId: dealId ?? '', intakeKey: `hand ${dealId ?? ''}` })),
          },
          now,
        )
      : startTrips(tx, { flowId: id, versionId: liveVersionId, intake: 'hand', personIds: ids }, now),
  );
  await insertAudit(world.db, { at: now, userId: actor.userId, what: 'put records in a flow', detail: { flowId: id, started } });
  return { started, already: new Set(ids).size - started };
}

/** Sends specimens through the draft with nothing sent; the worker runs them by the same engine. */
export async function startTrial(
  world: World,
  actor: Actor,
  id: string,
  ask: {
    readonly recordIds?: readonly string[] | undefined;
    readonly limitMicro?: number | undefined;
    /** read and look up everything again, also what earlier trials know */
    readonly afresh?: boolean | undefined;
  },
): Promise<string> {
  const row = await flow(world, id);
  const library = await loadLibrary(world.db);
  const errors = (await findingsOf(world, row.draftText, library)).filter((finding) => finding.severity === 'error');
  if (errors.length > 0) throw new Refusal('not valid', `mend the draft first: ${errors[0]?.message ?? ''}`, { findings: errors });
  const ids = ask.recordIds ?? (await specimens(world, id)).map((specimen) => specimen.id);
  const subjects = await subjectsOf(world.db, aboutOf(row.draftText), ids);
  if (subjects.length === 0) throw new Refusal('conflict', 'there is nobody to try this on yet: take in a list first');
  const trialId = world.newId();
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    await insertTrial(
      tx,
      {
        id: trialId,
        flowId: id,
        text: row.draftText,
        library,
        userId: actor.userId,
        limitMicro: ask.limitMicro ?? TRIAL_LIMIT_MICRO,
        afresh: ask.afresh ?? false,
      },
      now,
    );
    const came = await lastVars(
      tx,
      row.draftText,
      subjects.map((subject) => subject.personId),
    );
    await insertTrips(
      tx,
      subjects.map(({ personId, dealId }, i) => ({
        id: stableId('trial', trialId, dealId ?? personId),
        flowId: id,
        versionId: null,
        trialId,
        personId,
        intakeKey: String(i).padStart(4, '0'),
        ...(dealId !== null && { dealId }),
        ...(came.has(personId) && { vars: came.get(personId) ?? {} }),
      })),
      now,
    );
  });
  return trialId;
}

export interface TrialTripView {
  readonly id: string;
  readonly personId: string;
  readonly personName: string;
  /** what the specimen is called: the deal where the flow is about deals, else the person */
  readonly title: string;
  readonly companyName: string | null;
  readonly state: TripState['kind'];
  readonly why: string;
  readonly journal: readonly StoredEntry[];
  readonly facts: readonly Fact[];
}
export interface TrialView {
  readonly id: string;
  readonly text: string;
  readonly at: Instant;
  readonly running: number;
  readonly trips: readonly TrialTripView[];
  readonly lines: readonly LineCount[];
  readonly costMicro: number;
  readonly limitMicro: number;
  /** answers that were taken from earlier trials, and lookups that were paid before */
  readonly reused: number;
}

/** A line whose answer came from before: a site read by an earlier trial, or a lookup of which nothing was asked again. */
function isReused({ detail }: StoredEntry): boolean {
  const asked = Array.isArray(detail.asked) ? (detail.asked as readonly JsonObject[]) : [];
  return detail.reusedFrom !== undefined || (asked.length > 0 && asked.every((entry) => entry.kept === true));
}

/** A trial as the workbench shows it: every specimen with its journal, and the facts its score rests on. */
export async function trial(world: World, flowId: string, trialId: string): Promise<TrialView | undefined> {
  const row = (await lastTrials(world.db, flowId, 20)).find((entry) => entry.id === trialId);
  if (!row) return undefined;
  const trips = await trialTrips(world.db, trialId);
  const ids = trips.map((trip) => trip.id);
  const [journal, own, stored, lines] = await Promise.all([
    journalOf(world.db, ids),
    trialFactsOf(world.db, ids),
    factsOf(
      world.db,
      trips.flatMap((trip) => [trip.personId, ...(trip.companyId ? [trip.companyId] : [])]),
    ),
    countLines(world.db, { flowId, trialId }),
  ]);
  return {
    id: row.id,
    text: row.text,
    at: row.createdAt,
    lines,
    running: trips.filter((trip) => !['done', 'stopped', 'stuck'].includes(trip.state)).length,
    costMicro: journal.reduce((sum, entry) => sum + entry.costMicro, 0),
    limitMicro: row.limitMicro,
    reused: journal.filter(isReused).length,
    trips: trips.map((trip) => ({
      id: trip.id,
      personId: trip.personId,
      personName: trip.personName,
      title: aboutOf(row.text) === 'deal' ? (trip.dealTitle ?? trip.personName) : trip.personName,
      companyName: trip.companyName,
      state: trip.state,
      why: typeof trip.stateDetail.why === 'string' ? trip.stateDetail.why : '',
      journal: journal.filter((entry) => entry.tripId === trip.id),
      facts: [
        ...own.filter((fact) => fact.tripId === trip.id),
        ...stored.filter((fact) => fact.record.id === trip.personId || fact.record.id === trip.companyId),
      ].sort(byTrust),
    })),
  };
}

/** The newest trial of a flow and the one before it, for "was …". */
export async function latestTrials(world: World, flowId: string): Promise<readonly TrialView[]> {
  const rows = await lastTrials(world.db, flowId, 2);
  const views = await Promise.all(rows.map((row) => trial(world, flowId, row.id)));
  return views.filter((view) => view !== undefined);
}

/** How many trips got to each line, of those that moved since then, with their whole way; `range` names the time so that the figures can be kept. */
export async function ribbon(
  world: World,
  flowId: string,
  since: Instant | undefined,
  range?: 'day' | 'week',
): Promise<readonly LineCount[]> {
  if (since === undefined || !(await beganBefore(world.db, flowId, since))) return lineCounts(world.db, flowId);
  const count = (): Promise<LineCount[]> => countLines(world.db, { flowId, since });
  return range === undefined
    ? count()
    : figure(world, { key: `ribbon ${range} ${flowId}`, topic: `flow:${flowId}` }, lineCountsSchema, count);
}

/** The ribbon of the last day in small: how many of those that moved got to each line or beyond - the shape of the whole, not of one arm. */
export async function narrowRibbon(world: World, row: Pick<FlowRow, 'id' | 'draftText'>, since: Instant): Promise<readonly number[]> {
  const trips = new Map<string, number>();
  for (const line of await ribbon(world, row.id, since, 'day')) trips.set(line.mark, (trips.get(line.mark) ?? 0) + line.trips);
  const reached = numberedLines(parseFlow(row.draftText).tree.lines).map((entry) => trips.get(entry.line.mark) ?? 0);
  return reached.map((_, i) => Math.max(...reached.slice(i)));
}

/** So many differences are summed up in no time; more are joined first. */
const DIFFERENCES_KEPT = 300;
/** Joins what batches have added to the line counts. */
export async function joinCounts(world: World): Promise<void> {
  await joinLineCounts(world.db, DIFFERENCES_KEPT);
}
