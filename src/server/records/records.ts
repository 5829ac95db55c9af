import { z } from 'zod';
import { readDetail } from '../../core/engine';
import { byTrust, type Fact } from '../../core/facts';
import { companyKeys, normalisePhone, personKeys, reachOf } from '../../core/match';
import { factsOf } from './store/facts';
import { messagesOfPeople, type MessageRow } from '../messages/store/messages';
import {
  countRecords,
  countWhere as storeCountWhere,
  findCompany,
  findPerson,
  insertCompanies,
  insertPeople,
  pageCompanies,
  pagePeople,
  peopleOfCompany,
  type CompanyRow,
  type PersonRow,
  type RecordCounts,
} from './store/records';
import { insertDeal, moveDeal, pageDeals, type DealRow } from './store/deals';
import { mergesInto, type MergeRow } from './store/merges';
import { reviewsOfPeople, type ReviewRow } from '../desk/store/reviews';
import { applicationsOf, type ApplicationRow } from '../intake/store/openings';
import { insertHappenings, timelineOf, type Happening } from './store/timeline';
import { journalOf, wakeOnChange, type StoredEntry } from '../trips/store/trips';
import { listTrips, type TripListRow } from '../trips/store/trip-lists';
import { maySet, readValues } from './by-hand';
import { conditionPieces } from './conditions';
import { loadCatalogue } from './fields';
import { knownFields, type KnownField } from './known-fields';
import { recordFacts } from './facts';
import { figure } from '../platform/figures';
import { loadLibrary } from '../flows/library';
import { found, readCursor, Refusal, workspace, writeCursor, type Actor, type World } from '../platform/world';

export interface Page<T> {
  readonly items: readonly T[];
  readonly next: string | null;
}
export interface PageAsk {
  readonly search?: string | undefined;
  readonly cursor?: string | undefined;
  readonly limit?: number | undefined;
  /** a condition, as it is written in flows */
  readonly where?: string | undefined;
}
const DEFAULT_LIMIT = 50;

async function page<T extends { readonly id: string; readonly createdAt: number }>(
  ask: PageAsk,
  load: (ask: { search: string; before: { at: number; id: string } | null; limit: number }) => Promise<T[]>,
): Promise<Page<T>> {
  const limit = Math.min(200, ask.limit ?? DEFAULT_LIMIT);
  const rows = await load({ search: ask.search?.trim() ?? '', before: readCursor(ask.cursor), limit: limit + 1 });
  const last = rows[limit - 1];
  return { items: rows.slice(0, limit), next: rows.length > limit && last ? writeCursor({ id: last.id, at: last.createdAt }) : null };
}

export const people = async (world: World, ask: PageAsk): Promise<Page<PersonRow>> => {
  const where = await conditionPieces(world.db, ask.where, 'person');
  return page(ask, (inner) => pagePeople(world.db, { ...inner, where }));
};
export const companies = async (world: World, ask: PageAsk): Promise<Page<CompanyRow>> => {
  const where = await conditionPieces(world.db, ask.where, 'company');
  return page(ask, (inner) => pageCompanies(world.db, { ...inner, where }));
};
export const deals = async (world: World, ask: PageAsk): Promise<Page<DealRow>> => {
  const where = {
    pieces: await conditionPieces(world.db, ask.where, 'deal'),
    now: await world.clock.now(),
    zone: (await workspace(world.db)).zone,
  };
  return page(ask, (inner) => pageDeals(world.db, { ...inner, where }));
};
/** How many people or companies a condition holds for. */
export const countWhere = async (world: World, about: 'person' | 'company', where: string): Promise<number> => {
  const pieces = await conditionPieces(world.db, where, about);
  return figure(world, { key: `${about} where ${where}`, topic: 'records' }, z.number(), () => storeCountWhere(world.db, about, pieces));
};
export const counts = (world: World): Promise<RecordCounts> =>
  figure(world, { key: 'records', topic: 'records' }, recordCountsSchema, () => countRecords(world.db));
const recordCountsSchema = z.object({ people: z.number(), companies: z.number(), deals: z.number() });

export interface PersonPage {
  readonly person: PersonRow;
  readonly company: CompanyRow | null;
  readonly known: readonly KnownField[];
  readonly happened: readonly Happening[];
  readonly messages: readonly MessageRow[];
  readonly reviews: readonly ReviewRow[];
  readonly trips: readonly TripListRow[];
  readonly deals: readonly DealRow[];
  readonly applications: readonly ApplicationRow[];
  readonly merges: readonly MergeRow[];
  /** the last score line of any trip */
  readonly score: StoredEntry | null;
}

/** All about a person: what we know, what happened, what comes next. A merged person leads to the one it was joined into. */
export async function personPage(world: World, id: string): Promise<PersonPage> {
  const { db } = world;
  const person = found(await findPerson(db, id), 'this person');
  if (person.mergedInto !== null) return personPage(world, person.mergedInto);
  const ids = [person.id, ...(person.companyId ? [person.companyId] : [])];
  const applications = await applicationsOf(db, { personId: id }, 20);
  const [company, facts, happened, messages, reviews, trips, own, merges] = await Promise.all([
    person.companyId ? findCompany(db, person.companyId) : undefined,
    factsOf(db, [...ids, ...applications.map((application) => application.id)]),
    timelineOf(db, ids, 200),
    messagesOfPeople(db, [id]),
    reviewsOfPeople(db, [id]),
    listTrips(db, { personIds: [id], limit: 20 }),
    pageDeals(db, { search: '', before: null, limit: 20, personId: id }),
    mergesInto(db, ids),
  ]);
  const journal = await journalOf(
    db,
    trips.map((trip) => trip.id),
  );
  return {
    person,
    company: company ?? null,
    known: inApplications(await knownFields(world, facts), applications),
    happened: [...happened, ...researched(person.id, journal)].sort((a, b) => b.at - a.at),
    messages,
    reviews,
    trips,
    deals: own,
    applications,
    merges,
    score: journal.filter((entry) => entry.verb === 'score').at(-1) ?? null,
  };
}

/** With several applications, what is known of each is told apart by its opening. */
function inApplications(known: readonly KnownField[], applications: readonly ApplicationRow[]): readonly KnownField[] {
  if (applications.length < 2) return known;
  const openings = new Map(applications.map((application) => [application.id, application.openingName]));
  return known.map((field) => {
    const opening = openings.get(field.recordId);
    return opening === undefined ? field : { ...field, label: `${field.label}, ${opening}` };
  });
}

/** Lines of trips that found something out about a record: told on its timeline beside what was done to it. */
const TOLD: Readonly<Record<string, string>> = { read: 'read', score: 'score', 'look up': 'lookup' };
function researched(personId: string, journal: readonly StoredEntry[]): readonly Happening[] {
  // Newest first, as the timeline is: lines of one instant keep their order.
  return [...journal].reverse().flatMap((entry) => {
    const kind = TOLD[entry.verb];
    const askedNobody = entry.verb === 'look up' && readDetail('look up', entry.detail)?.asked.length === 0;
    return kind === undefined || entry.outcome === 'retry' || askedNobody
      ? []
      : [
          {
            recordKind: 'person',
            recordId: personId,
            at: entry.at,
            kind,
            says: entry.says,
            detail: { ...entry.detail, costMicro: entry.costMicro, tookMs: entry.tookMs, tripId: entry.tripId },
          },
        ];
  });
}

export interface ScoreView {
  readonly tripId: string;
  readonly points: number;
  readonly band: string;
  readonly out: boolean;
  readonly working: readonly { readonly text: string; readonly points: number; readonly of: number }[];
}
/** A score line's working, read back from the journal. */
export function scoreOf(entry: StoredEntry | null): ScoreView | null {
  const read = entry && readDetail('score', entry.detail);
  return entry && read ? { tripId: entry.tripId, points: read.points, band: read.band, out: read.out, working: read.working } : null;
}

/** The facts of a person and of their company, most trusted first. */
export async function factsBehind(world: World, personId: string): Promise<readonly Fact[]> {
  const person = found(await findPerson(world.db, personId), 'this person');
  return (await factsOf(world.db, [person.id, ...(person.companyId ? [person.companyId] : [])])).sort(byTrust);
}

export interface CompanyPage {
  readonly company: CompanyRow;
  readonly people: readonly PersonRow[];
  readonly known: readonly KnownField[];
  readonly happened: readonly Happening[];
  readonly deals: readonly DealRow[];
  readonly merges: readonly MergeRow[];
}
export async function companyPage(world: World, id: string): Promise<CompanyPage> {
  const { db } = world;
  const company = found(await findCompany(db, id), 'this company');
  if (company.mergedInto !== null) return companyPage(world, company.mergedInto);
  const staff = await peopleOfCompany(db, id);
  const [facts, happened, own, merges] = await Promise.all([
    factsOf(db, [id]),
    timelineOf(db, [id, ...staff.map((person) => person.id)], 200),
    pageDeals(db, { search: '', before: null, limit: 20, companyId: id }),
    mergesInto(db, [id]),
  ]);
  return {
    company,
    people: staff,
    known: await knownFields(world, facts),
    happened,
    deals: own,
    merges,
  };
}

export interface DealView {
  readonly deal: DealRow;
  readonly known: readonly KnownField[];
  /** with the person it is with */
  readonly happened: readonly Happening[];
}
export async function dealPage(world: World, id: string): Promise<DealView> {
  const [row] = await pageDeals(world.db, { search: '', before: null, limit: 1, id });
  const deal = found(row, 'this deal');
  const [facts, happened] = await Promise.all([
    factsOf(world.db, [id]),
    timelineOf(world.db, [id, ...(deal.personId === null ? [] : [deal.personId])], 100),
  ]);
  return { deal, known: await knownFields(world, facts), happened };
}

export async function createPerson(
  world: World,
  actor: Actor,
  ask: {
    readonly values: Readonly<Record<string, string | number | boolean | null>>;
    readonly companyId?: string | null | undefined;
    readonly source: 'hand' | 'api' | 'reply';
    /** where it comes from, as it is shown; left out: who added it */
    readonly sourceRef?: string;
  },
): Promise<PersonRow> {
  const fields = await loadCatalogue(world.db);
  const values = readValues(fields, 'person', ask.values);
  await maySet(world, actor, fields, 'person', Object.keys(values));
  const name = values.name ?? [values.first_name, values.last_name].filter(Boolean).join(' ');
  if (typeof name !== 'string' || name === '') throw new Refusal('not valid', 'a person needs a name');
  const now = await world.clock.now();
  const id = world.newId();
  const space = await workspace(world.db);
  const numbers = (['phone', 'mobile'] as const).flatMap((key) => {
    const value = values[key];
    return typeof value === 'string' ? [[key, normalisePhone(value, space.defaultCountry) ?? value] as const] : [];
  });
  const all = { ...values, name, ...Object.fromEntries(numbers) };
  await world.db.begin(async (tx) => {
    if (ask.companyId && !(await findCompany(tx, ask.companyId))) throw new Refusal('not found', 'this company does not exist');
    await insertPeople(
      tx,
      [
        {
          id,
          values: all,
          companyId: ask.companyId ?? null,
          matchKeys: personKeys({ name, ...reachOf(all) }),
        },
      ],
      now,
    );
    await recordFacts(
      tx,
      Object.entries(all).map(([field, value]) => ({
        fact: {
          record: { kind: 'person', id },
          field,
          value,
          source: ask.source,
          sourceRef: ask.sourceRef ?? actor.name,
          confidence: 1,
          observedAt: now,
        },
        meta: { tripId: null, mark: null, userId: actor.userId },
      })),
    );
    await insertHappenings(tx, [
      { recordKind: 'person', recordId: id, at: now, kind: 'intake', says: `Added by ${actor.name}`, detail: {} },
    ]);
  });
  return found(await findPerson(world.db, id), 'this person');
}

export async function createCompany(
  world: World,
  actor: Actor,
  ask: { readonly values: Readonly<Record<string, string | number | boolean | null>>; readonly source: 'hand' | 'api' },
): Promise<CompanyRow> {
  const fields = await loadCatalogue(world.db);
  const values = readValues(fields, 'company', ask.values);
  await maySet(world, actor, fields, 'company', Object.keys(values));
  const { name } = values;
  if (typeof name !== 'string' || name === '') throw new Refusal('not valid', 'a company needs a name');
  const now = await world.clock.now();
  const id = world.newId();
  const text = (value: unknown): string | null => (typeof value === 'string' ? value : null);
  await world.db.begin(async (tx) => {
    await insertCompanies(
      tx,
      [{ id, values: { ...values }, matchKeys: companyKeys({ name, website: text(values.website), phone: text(values.phone) }) }],
      now,
    );
    await recordFacts(
      tx,
      Object.entries(values).map(([field, value]) => ({
        fact: { record: { kind: 'company', id }, field, value, source: ask.source, sourceRef: actor.name, confidence: 1, observedAt: now },
        meta: { tripId: null, mark: null, userId: actor.userId },
      })),
    );
    await insertHappenings(tx, [
      { recordKind: 'company', recordId: id, at: now, kind: 'intake', says: `Added by ${actor.name}`, detail: {} },
    ]);
  });
  return found(await findCompany(world.db, id), 'this company');
}

export async function createDeal(
  world: World,
  actor: Actor,
  ask: {
    readonly source: 'hand' | 'api';
    readonly title: string;
    readonly pipeline: string;
    readonly stage: string;
    readonly amount: number | null;
    readonly companyId: string | null;
    readonly personId: string | null;
  },
): Promise<DealRow> {
  const pipeline = (await loadLibrary(world.db)).pipelines.find((entry) => entry.name === ask.pipeline);
  if (!pipeline?.stages.includes(ask.stage))
    throw new Refusal(
      'not valid',
      pipeline ? `${ask.pipeline} has the stages ${pipeline.stages.join(', ')}` : `there is no pipeline “${ask.pipeline}”`,
    );
  if (ask.companyId) found(await findCompany(world.db, ask.companyId), 'this company');
  if (ask.personId) found(await findPerson(world.db, ask.personId), 'this person');
  const id = world.newId();
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    await insertDeal(tx, { ...ask, id, tripId: null }, now);
    const said = { title: ask.title, ...(ask.amount !== null && { amount: ask.amount }) };
    await recordFacts(
      tx,
      Object.entries(said).map(([field, value]) => ({
        fact: { record: { kind: 'deal', id }, field, value, source: ask.source, sourceRef: actor.name, confidence: 1, observedAt: now },
        meta: { tripId: null, mark: null, userId: actor.userId },
      })),
    );
  });
  return (await dealPage(world, id)).deal;
}

export async function changeDeal(world: World, id: string, stage: string): Promise<DealRow> {
  const { deal } = await dealPage(world, id);
  const pipeline = (await loadLibrary(world.db)).pipelines.find((entry) => entry.name === deal.pipeline);
  if (!pipeline?.stages.includes(stage))
    throw new Refusal('not valid', `${deal.pipeline} has the stages ${pipeline?.stages.join(', ') ?? 'none'}`);
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    await moveDeal(tx, id, stage, now);
    await wakeOnChange(tx, [id], now);
  });
  return (await dealPage(world, id)).deal;
}

export async function addNote(world: World, actor: Actor, kind: 'person' | 'company', id: string, text: string): Promise<void> {
  const now = await world.clock.now();
  await insertHappenings(world.db, [{ recordKind: kind, recordId: id, at: now, kind: 'note', says: text, detail: { by: actor.name } }]);
}
