/**
 * Searching for people and companies: in the directory this installation was started with, or by a described service. Page
 * after page, each paid for once; nothing is taken in by it.
 */
import { setTimeout as sleep } from 'node:timers/promises';
import { hitsIn, type DirectoryHit } from '../../core/intake';
import { searchValues } from '../../core/lookup';
import { WorldFailure, type DirectoryCriteria } from '../ports';
import { askService, type Answered, type Service } from '../workspace/ask-service';
import { counted, HeldBack } from '../workspace/connections';
import { describedService } from '../workspace/providers';
import { setAside, settleReservation } from '../trips/requests/paid';
import { found, Refusal, type World } from '../platform/world';

export interface SearchCriteria extends DirectoryCriteria {
  /** a described service that finds records; empty: the directory */
  readonly service: string;
}

/** Hits the directory gives at once. */
const AT_ONCE = 100;
/** So long is an answer waited for that comes later. */
const WAITED_MS = 25_000;

/** Hits page by page, as many as there are. */
export async function* searched(world: World, criteria: SearchCriteria): AsyncGenerator<readonly DirectoryHit[], void> {
  if (criteria.service !== '') {
    yield* fromService(world, criteria);
    return;
  }
  for (let from = 0; ;) {
    const { count, hits } = await inDirectory(world, criteria, from);
    yield hits;
    from += hits.length;
    if (from >= count || hits.length === 0) return;
  }
}

/** The first hits, how many there are as far as it is told, and whether there are more. */
export async function firstHits(
  world: World,
  criteria: SearchCriteria,
  most: number,
): Promise<{ readonly count: number; readonly more: boolean; readonly hits: readonly DirectoryHit[] }> {
  if (criteria.service === '') {
    const { count, hits } = await inDirectory(world, criteria, 0);
    return { count, more: false, hits: hits.slice(0, most) };
  }
  const hits: DirectoryHit[] = [];
  const pages = fromService(world, criteria);
  for (let page = await pages.next(); ; page = await pages.next()) {
    if (page.done === true) return { count: hits.length, more: false, hits: hits.slice(0, most) };
    hits.push(...page.value);
    if (hits.length >= most) return { count: hits.length, more: true, hits: hits.slice(0, most) };
  }
}

async function inDirectory(
  world: World,
  { service: _, ...criteria }: SearchCriteria,
  from: number,
): Promise<{ readonly count: number; readonly hits: readonly DirectoryHit[] }> {
  try {
    return await counted(world, 'directory', () => world.sources.directory(criteria, from, AT_ONCE));
  } catch (error) {
    throw refused(error);
  }
}

async function* fromService(world: World, criteria: SearchCriteria): AsyncGenerator<readonly DirectoryHit[], void> {
  const service = found(await describedService(world, world.db, criteria.service), `the service “${criteria.service}”`);
  if (service.provider.finds !== 'records')
    throw new Refusal('not valid', `${criteria.service} finds a value of one person: it is asked by lookup chains`);
  const until = performance.now() + WAITED_MS;
  try {
    const answers = askService(world, service, { values: searchValues(criteria) });
    for (;;) {
      const next = await paid(world, service, () => counted(world, service.provider.name, () => answers.next()));
      if (next.done === true) return;
      const came = next.value;
      if (came.kind === 'failed') throw new Refusal('conflict', `${criteria.service}: ${came.says}. Nothing was taken in`);
      if (came.kind === 'page')
        yield hitsIn(service.provider, came.entries).filter(({ id }, i, all) => all.findIndex((hit) => hit.id === id) === i);
      else if (performance.now() + came.ms > until)
        throw new Refusal('conflict', `${criteria.service} has not answered after ${WAITED_MS / 1_000} s: nothing was taken in`);
      else await sleep(came.ms);
    }
  } catch (error) {
    throw refused(error);
  }
}

/** Sets the price of a page aside before it is asked for, and gives it back when none came or nothing stood on it. */
async function paid<T extends IteratorResult<Answered, void>>(
  world: World,
  { provider: { name, priceMicro } }: Service,
  call: () => Promise<T>,
): Promise<T> {
  const ledger = { reserved: null, remember: () => Promise.resolve() };
  const reservation = await setAside(world, null, { name, priceMicro }, ledger, await world.clock.now());
  let spent = 0;
  try {
    const next = await call();
    spent = next.done !== true && next.value.kind === 'page' && next.value.entries.length > 0 ? priceMicro : 0;
    return next;
  } finally {
    await settleReservation(world.db, ledger, reservation, spent);
  }
}

/** What keeps a search from being made, as it is said to who asked. */
function refused(error: unknown): unknown {
  if (error instanceof WorldFailure) return new Refusal('conflict', `${error.message}: nothing was taken in`);
  return error instanceof HeldBack ? new Refusal('conflict', `${error.message}: no page was asked for`) : error;
}
