import { readDetail } from '../../core/engine';
import { parseFlow } from '../../core/flow/syntax';
import type { Tx } from '../db';
import { findFlow, lastTrials } from '../flows/store/flows';
import { peopleOfIntake } from '../intake/store/intakes';
import { loadViews, pagePeople } from '../records/store/records';
import { pageDeals } from '../records/store/deals';
import { journalOf, recentTrips } from '../trips/store/trips';
import { trialTrips } from '../trips/store/trip-lists';
import { conditionPieces } from '../records/conditions';
import { intakeOf } from '../intake/entries';
import { found, workspace, type World } from '../platform/world';

/** A record a draft may be tried on: a person, or in a flow about deals a deal. */
export interface Specimen {
  readonly id: string;
  readonly name: string;
  /** the person’s company, or whom the deal is with */
  readonly companyName: string | null;
}

const SPECIMENS = 12;
/** Among so many of the newest a spread is taken. */
const NEWEST = 400;

export const aboutOf = (text: string): 'person' | 'deal' => (parseFlow(text).tree.about?.text === 'deal' ? 'deal' : 'person');

/** Whose trip a specimen's is: the person, and the deal where the flow is about deals. Deals with nobody are left out. */
export async function subjectsOf(
  tx: Tx,
  about: 'person' | 'deal',
  ids: readonly string[],
): Promise<readonly { readonly personId: string; readonly dealId: string | null }[]> {
  if (about === 'person') return ids.map((personId) => ({ personId, dealId: null }));
  const deals = await Promise.all(ids.map((id) => pageDeals(tx, { search: '', before: null, limit: 1, id })));
  return deals.flatMap(([deal]) => (deal?.personId ? [{ personId: deal.personId, dealId: deal.id }] : []));
}

/** The last trial's specimens, so that trials can be compared, else a fresh spread. */
export async function specimens(world: World, flowId: string): Promise<readonly Specimen[]> {
  const about = await aboutFlow(world, flowId);
  const [last] = await lastTrials(world.db, flowId, 1);
  const rows = last ? await trialTrips(world.db, last.id) : [];
  const ids = rows.flatMap((row) => (about === 'deal' ? (row.dealId ?? []) : row.personId));
  return ids.length > 0 ? named(world.db, about, ids) : usual(world, flowId, about);
}

const aboutFlow = async (world: World, flowId: string): Promise<'person' | 'deal'> =>
  aboutOf(found(await findFlow(world.db, flowId), 'this flow').draftText);

export const PICKS = ['typical', 'odd', 'last failed'] as const;
export type Pick = (typeof PICKS)[number];

/** Twelve records: a spread over the newest, or over those a condition holds for; or picked by how earlier trips went. */
export async function suggested(
  world: World,
  flowId: string,
  ask: { readonly where?: string | undefined; readonly pick?: Pick | undefined } = {},
): Promise<readonly Specimen[]> {
  const about = await aboutFlow(world, flowId);
  if (ask.pick === undefined && ask.where === undefined) return usual(world, flowId, about);
  return ask.pick === undefined ? spread(world, about, ask.where) : named(world.db, about, await picked(world, flowId, about, ask.pick));
}

/** Trips looked back on. */
const LOOKED_AT = 400;

/**
 * By the points of the last score: typical lie nearest the middle, odd at both ends or have none; last failed are those that
 * got stuck, newest first. Without scores the newest trips are as typical as any.
 */
async function picked(world: World, flowId: string, about: 'person' | 'deal', pick: Pick): Promise<readonly string[]> {
  const recent = await recentTrips(world.db, flowId, LOOKED_AT);
  const idOf = ({ trip }: (typeof recent)[number]): string => (about === 'deal' ? (trip.dealId ?? '') : trip.record.id);
  const distinct = (list: readonly (typeof recent)[number][]): readonly string[] =>
    [...new Set(list.map(idOf))].filter((id) => id !== '').slice(0, SPECIMENS);
  if (pick === 'last failed') return distinct(recent.filter(({ trip }) => trip.state.kind === 'stuck'));
  const journal = await journalOf(
    world.db,
    recent.map(({ trip }) => trip.id),
  );
  const points = new Map<string, number>();
  for (const entry of journal) {
    const scored = entry.verb === 'score' ? readDetail('score', entry.detail) : undefined;
    if (scored) points.set(entry.tripId, scored.points);
  }
  const scores = [...points.values()].sort((a, b) => a - b);
  const middle = scores[Math.floor(scores.length / 2)] ?? 0;
  const away = ({ trip }: (typeof recent)[number]): number => {
    const own = points.get(trip.id);
    return own === undefined ? (pick === 'odd' ? 1_000 : 500) : Math.abs(own - middle);
  };
  return distinct([...recent].sort((a, b) => (pick === 'odd' ? away(b) - away(a) : away(a) - away(b))));
}

/** Those who came by the flow's own intake, when it has one and some did; else a spread. */
async function usual(world: World, flowId: string, about: 'person' | 'deal'): Promise<readonly Specimen[]> {
  const intake = about === 'person' ? intakeOf(found(await findFlow(world.db, flowId), 'this flow').draftText) : undefined;
  const came = intake ? await peopleOfIntake(world.db, intake.kind, intake.name, SPECIMENS) : [];
  return came.length > 0 ? named(world.db, about, came) : spread(world, about);
}

/** People whose company has a site come first: on them every line has something to do. */
async function spread(world: World, about: 'person' | 'deal', where?: string): Promise<readonly Specimen[]> {
  const { db } = world;
  const pieces = await conditionPieces(db, where, about);
  if (about === 'deal') {
    const { zone } = await workspace(db);
    const counted = { pieces, now: await world.clock.now(), zone };
    const deals = (await pageDeals(db, { search: '', before: null, limit: NEWEST, where: counted })).filter(
      (deal) => deal.personId !== null,
    );
    return every(deals).map((deal) => ({ id: deal.id, name: deal.title, companyName: deal.personName }));
  }
  const people = await pagePeople(db, { search: '', before: null, limit: NEWEST, where: pieces });
  const views = await loadViews(
    db,
    people.map((person) => person.id),
  );
  const hasSite = people.filter((person) => typeof views.get(person.id)?.company?.website === 'string');
  return every(hasSite.length >= SPECIMENS ? hasSite : people).map(({ id, name, companyName }) => ({ id, name, companyName }));
}

function every<T>(records: readonly T[]): readonly T[] {
  const step = Math.max(1, Math.floor(records.length / SPECIMENS));
  return records.filter((_, i) => i % step === 0).slice(0, SPECIMENS);
}

async function named(tx: Tx, about: 'person' | 'deal', ids: readonly string[]): Promise<readonly Specimen[]> {
  if (about === 'deal') {
    const deals = await Promise.all(ids.map((id) => pageDeals(tx, { search: '', before: null, limit: 1, id })));
    return deals.flatMap(([deal]) => (deal ? [{ id: deal.id, name: deal.title, companyName: deal.personName }] : []));
  }
  const views = await loadViews(tx, ids);
  return ids.flatMap((id) => {
    const view = views.get(id);
    return view ? [{ id, name: view.person.name, companyName: typeof view.company?.name === 'string' ? view.company.name : null }] : [];
  });
}
