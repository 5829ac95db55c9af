import { stableId, type Instant } from '../../../core/base';
import type { Answer, Finding, Fresh, Request, Stated } from '../../../core/engine';
import type { SourceKind } from '../../../core/facts';
import { answerAll, linkJudge, type Asked, type OtherAnswer, type PageLink, type ReaderAnswer } from '../../../core/reader';
import { WorldFailure, type FetchedPage } from '../../ports';
import { keepSeen, seenSince, tellCosts } from '../../research/store/research';
import { cachedPages, keepPage } from '../../platform/store/settings';
import type { HeldTrip } from '../store/trips';
import { HeldBack } from '../../workspace/connections';
import { askedOf } from '../../research/questions';
import type { World } from '../../platform/world';
import { searchSources, SOURCE_KIND, type Searched } from './sources';

/** Pages and searches from within this time are not asked for again. */
export const FRESH_MS = 7 * 86_400_000;
const HARD_MAX_PAGES = 40;
/** A site that is slower than this is left with what was read until then. */
const SITE_MS = 20_000;

type ReadRequest = Extract<Request, { kind: 'read' }>;

/** What a reading may take from before, and whose money it spends. */
export interface Reading {
  readonly held: HeldTrip | null;
  /** set when nothing from before is to be taken: a name for this reading's own searches */
  readonly afresh: string | null;
}

/**
 * Reads a company or a person where the line says: the site page by page, best links first, and every source. All begin at
 * once; while a search goes on `HeldBack` is thrown, and what was read meanwhile is kept. A place that refuses or is not
 * there is an answer; a site that fails for now, with nothing else to read, is a failure to be tried again.
 */
export async function read(world: World, request: ReadRequest, reading: Reading): Promise<Extract<Answer, { kind: 'read' }>> {
  const began = performance.now();
  const now = await world.clock.now();
  const { asked, pages, says, searched } = await gather(world, request, reading, now);
  const open = searched.filter((entry) => entry.done === undefined);
  if (open.length > 0) throw new HeldBack('waits for searches to end', Math.min(...open.map((entry) => entry.askAt)), true);
  const done = searched.flatMap((entry) => entry.done ?? []);
  const kinds = new Map<string, SourceKind>(
    done.flatMap((entry) => entry.documents.map((document) => [document.url, SOURCE_KIND[entry.source]] as const)),
  );
  const documents = done.flatMap((entry) => entry.documents);
  const findings = answerAll(asked, [...pages, ...documents], now, world.dictionary).map((answer, i) =>
    finding(asked[i]?.id ?? '', answer, kinds),
  );
  const fresh = await whatIsNew(world, request.target.id, done, reading.held?.trialId == null, now);
  return {
    kind: 'read',
    findings,
    ...(fresh && { fresh }),
    pages: pages.length + documents.length,
    tookMs: Math.round(performance.now() - began),
    costMicro: await tellCosts(
      world.db,
      done.flatMap((entry) => entry.key ?? []),
    ),
    says: [says, ...done.map((entry) => entry.says)].filter(Boolean).join(' · '),
  };
}

/** Fetches what there is to read, and keeps it: pages of the site, and what searches have found so far. */
export async function gather(world: World, request: ReadRequest, reading: Reading, now: Instant) {
  const since = now - (request.noOlderMs ?? FRESH_MS);
  const searching = searchSources(world, reading.held, {
    subject: {
      recordId: request.target.id,
      companyName: request.companyName,
      host: request.website === null ? null : hostOf(request.website),
      personName: request.personName,
    },
    places: request.places,
    maxCostMicro: request.maxCostMicro,
    since,
    afresh: reading.afresh,
  });
  const readsSite = request.website !== null && request.places.includes('website');
  const asked = await askedOf(world, request.questions);
  const site = async (): Promise<SiteRead> =>
    readsSite && request.website !== null
      ? readSite(
          world,
          { host: hostOf(request.website), asked, maxPages: request.maxPages },
          now,
          await freshSince(searching, reading, since, now),
        )
      : { pages: [], says: '' };
  const alone = request.places.every((place) => place === 'website');
  const [{ pages, says }, searched] = await Promise.all([
    site().catch((error: unknown): SiteRead => {
      // Beside other places to look at, a site that is down holds nothing up.
      if (alone || !(error instanceof WorldFailure)) throw error;
      return { pages: [], says: error.message };
    }),
    searching,
  ]);
  return { asked, pages, says, searched };
}

/** A reading that begins again within this time still has the same things to tell. */
const SAME_READING_MS = 10 * 60_000;

/** What the sources have now and had not at the reading before; undefined at the first one. A profile that has changed is new. */
async function whatIsNew(
  world: World,
  recordId: string,
  done: readonly Searched[],
  keep: boolean,
  now: Instant,
): Promise<readonly Fresh[] | undefined> {
  const documents = done.flatMap((entry) =>
    entry.documents.map((document) => ({
      key: entry.source === 'people' ? stableId('profile', document.url, ...document.blocks.map((block) => block.text)) : document.url,
      fresh: { source: SOURCE_KIND[entry.source], title: document.title, url: document.url, date: document.published },
    })),
  );
  if (documents.length === 0) return undefined;
  const before = await seenSince(world.db, recordId, now - SAME_READING_MS);
  if (keep)
    await keepSeen(
      world.db,
      recordId,
      documents.map((document) => document.key),
      now,
    );
  return before.size === 0 ? undefined : documents.filter((document) => !before.has(document.key)).map((document) => document.fresh);
}

/** The host of a site as it stands on a record. */
export const hostOf = (website: string): string => website.replace(/^https?:\/\//, '').split('/')[0] ?? '';

/** A reading that takes nothing from before takes what it has read itself, when it comes again after a wait. */
async function freshSince(
  searching: Promise<readonly { readonly done: Searched | undefined }[]>,
  reading: Reading,
  since: Instant,
  now: Instant,
): Promise<Instant> {
  if (reading.afresh === null) return since;
  const own = (await searching).flatMap((entry) => entry.done?.startedAt ?? []);
  return own.length === 0 ? now + 1 : Math.min(...own);
}

function finding(id: string, answer: ReaderAnswer, kinds: ReadonlyMap<string, SourceKind>): Finding {
  const stated = (given: ReaderAnswer | OtherAnswer): Stated => ({
    value: given.value,
    quote: given.quote,
    url: given.url,
    source: kinds.get(given.url ?? '') ?? 'site',
    confidence: given.confidence,
    date: given.date,
  });
  return { ...stated(answer), id, found: answer.found, says: answer.says, others: answer.others.map(stated) };
}

interface SiteRead {
  readonly pages: readonly FetchedPage[];
  readonly says: string;
}
interface SiteAsk {
  readonly host: string;
  readonly asked: readonly Asked[];
  readonly maxPages: number;
}

async function readSite(world: World, ask: SiteAsk, now: Instant, since: Instant): Promise<SiteRead> {
  const { host, asked } = ask;
  const began = performance.now();
  const limit = Math.min(HARD_MAX_PAGES, ask.maxPages);
  const pages: FetchedPage[] = [];
  const home = `http://${host}/`;
  const read = new Set<string>();
  const links: PageLink[] = [];
  const worthReading = linkJudge(asked);
  let says = '';
  for (let url: string | undefined = home; url !== undefined && pages.length < limit;) {
    read.add(url);
    try {
      const page = await fetchPage(world, url, now, since);
      read.add(page.url);
      pages.push(page);
      // Only the site's own pages are followed: what a page says can never send the reader elsewhere.
      links.push(...page.links.filter((link) => new URL(link.url).hostname.replace(/^www\./, '') === host.replace(/^www\./, '')));
    } catch (error) {
      if (!(error instanceof WorldFailure)) throw error;
      if (pages.length === 0 && error.retryable) throw error;
      if (pages.length === 0) says = error.message;
    }
    if (performance.now() - began > SITE_MS) break;
    url = worthReading(links).find((link) => !read.has(link.url))?.url;
  }
  return { pages, says };
}

async function fetchPage(world: World, url: string, now: Instant, since: Instant): Promise<FetchedPage> {
  const [kept] = await cachedPages(world.db, [url], since);
  if (kept) return kept;
  const page = await world.web.page(url);
  await keepPage(world.db, { ...page, url, fetchedAt: now });
  return page;
}
