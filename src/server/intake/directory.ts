/** The directory as a door: searched by criteria, counted and looked at before anything is taken in. */
import { planRows, readRow, type DirectoryHit, type RowPlan, type Target } from '../../core/intake';
import { findFlow } from '../flows/store/flows';
import { insertAudit } from '../access/store/audit';
import { loadCatalogue } from '../records/fields';
import { firstHits, searched, type SearchCriteria } from './directory-search';
import { planCompanies, takeInCompanies } from './directory-companies';
import { startTrips } from '../trips/start';
import { BARS, knownFor, takeInRows } from './take-in';
import { found, Refusal, workspace, type Actor, type World } from '../platform/world';

/** Hits shown before anything is taken in. */
const SHOWN = 50;
/** At most so many are taken in by one search. */
const MOST = 1_000;

export interface DirectoryLook {
  /** how many there are; of a service that does not say, as many as it has given */
  readonly count: number;
  /** there are more than it has given */
  readonly more: boolean;
  /** of those shown, how many are not in the CRM yet */
  readonly fresh: number;
  readonly hits: readonly (DirectoryHit & { readonly becomes: RowPlan['kind']; readonly why: string })[];
}

const COLUMNS: readonly { readonly target: Target }[] = [
  { target: 'person.name' },
  { target: 'person.job_title' },
  { target: 'company.name' },
  { target: 'company.website' },
  { target: 'company.city' },
  { target: 'company.country' },
];

interface Planned {
  readonly hit: DirectoryHit;
  readonly plan: RowPlan;
  readonly reading: ReturnType<typeof readRow>;
}

async function planHits(world: World, hits: readonly DirectoryHit[], defaultCountry: string): Promise<readonly Planned[]> {
  const searchId = world.newId();
  const fields = await loadCatalogue(world.db);
  const rows = hits.map((hit, i) => ({
    row: i + 1,
    reading: readRow(
      [hit.name, hit.title ?? '', hit.company ?? '', hit.host, hit.place ?? '', hit.country ?? ''],
      COLUMNS,
      defaultCountry,
      fields,
    ),
  }));
  const plans = planRows(rows, await knownFor(world.db, searchId, rows), { importId: searchId, ...BARS });
  return plans.flatMap((plan, i) => {
    const [hit, row] = [hits[i], rows[i]];
    return hit && row ? [{ hit, plan, reading: row.reading }] : [];
  });
}

/** How many there are, and what the first of them would become. Nothing is taken in. */
export async function lookInDirectory(world: World, criteria: SearchCriteria): Promise<DirectoryLook> {
  const { count, more, hits } = await firstHits(world, criteria, SHOWN);
  if (criteria.what === 'companies') {
    const companies = await planCompanies(world.db, hits);
    return {
      count,
      more,
      fresh: companies.filter(({ kind }) => kind === 'new').length,
      hits: companies.map(({ hit, kind, why }) => ({ ...hit, becomes: kind, why })),
    };
  }
  const planned = await planHits(world, hits, (await workspace(world.db)).defaultCountry);
  return {
    count,
    more,
    fresh: planned.filter(({ plan }) => plan.kind === 'new').length,
    hits: planned.map(({ hit, plan }) => ({ ...hit, becomes: plan.kind, why: plan.why })),
  };
}

/** Takes the first so many in, or so many that are new, and puts them in a flow when one is named. */
export async function takeFromDirectory(
  world: World,
  actor: Actor,
  ask: { readonly criteria: SearchCriteria; readonly most: number; readonly onlyNew: boolean; readonly flowId: string | null },
): Promise<{ readonly taken: number; readonly known: number; readonly started: number }> {
  if (ask.most < 1 || ask.most > MOST) throw new Refusal('not valid', `between 1 and ${MOST.toLocaleString('en-GB')} at a time`);
  if (ask.criteria.what === 'companies') return takeCompanies(world, actor, ask);
  const flow = ask.flowId === null ? undefined : found(await findFlow(world.db, ask.flowId), 'the flow');
  if (flow && flow.liveVersionId === null) throw new Refusal('conflict', `${flow.name} has no live version: release it first`);
  const { defaultCountry } = await workspace(world.db);
  const now = await world.clock.now();
  const from = askedOf(ask.criteria);
  let [taken, known, started] = [0, 0, 0];
  for await (const hits of searched(world, ask.criteria)) {
    const planned = (await planHits(world, hits, defaultCountry)).filter(
      ({ plan }) => plan.personId !== null && (!ask.onlyNew || plan.kind === 'new'),
    );
    const wanted = planned.slice(0, ask.most - taken - known);
    await world.db.begin(async (tx) => {
      await takeInRows(
        tx,
        wanted,
        {
          source: 'directory',
          says: `Taken in from ${from === 'directory' ? 'the directory' : from}`,
          userId: actor.userId,
          refOf: (row) => wanted.find(({ plan }) => plan.row === row)?.hit.url ?? from,
          detailOf: (row) => ({ directory: wanted.find(({ plan }) => plan.row === row)?.hit.id ?? '' }),
        },
        now,
      );
      const personIds = wanted.flatMap(({ plan }) => plan.personId ?? []);
      if (flow?.liveVersionId != null && personIds.length > 0)
        started += await startTrips(tx, { flowId: flow.id, versionId: flow.liveVersionId, intake: 'directory', personIds }, now);
    });
    taken += wanted.filter(({ plan }) => plan.kind !== 'known').length;
    known += wanted.filter(({ plan }) => plan.kind === 'known').length;
    if (taken + known >= ask.most) break;
  }
  await insertAudit(world.db, { at: now, userId: actor.userId, what: 'took in from the directory', detail: { taken, known, from } });
  return { taken, known, started };
}

/** Who is asked, by name. */
const askedOf = ({ service }: SearchCriteria): string => (service === '' ? 'directory' : service);

/** Companies go through no flow by themselves: flows are about people and deals. */
async function takeCompanies(
  world: World,
  actor: Actor,
  ask: { readonly criteria: SearchCriteria; readonly most: number; readonly onlyNew: boolean; readonly flowId: string | null },
): Promise<{ readonly taken: number; readonly known: number; readonly started: number }> {
  if (ask.flowId !== null) throw new Refusal('not valid', 'companies go into no flow: take in people, or leave the flow out');
  const now = await world.clock.now();
  let [taken, known] = [0, 0];
  for await (const hits of searched(world, ask.criteria)) {
    const planned = await planCompanies(world.db, hits);
    const wanted = planned.filter(({ kind }) => !ask.onlyNew || kind === 'new').slice(0, ask.most - taken - known);
    await world.db.begin((tx) => takeInCompanies(tx, wanted, { userId: actor.userId }, now));
    taken += wanted.filter(({ kind }) => kind !== 'known').length;
    known += wanted.filter(({ kind }) => kind === 'known').length;
    if (taken + known >= ask.most) break;
  }
  await insertAudit(world.db, {
    at: now,
    userId: actor.userId,
    what: 'took in from the directory',
    detail: { taken, known, what: 'companies', from: askedOf(ask.criteria) },
  });
  return { taken, known, started: 0 };
}
