import type { Answer, Request } from '../../../core/engine';
import { answerQuestion, worthReading, type PageLink } from '../../../core/reader';
import { WorldFailure, type FetchedPage } from '../../ports';
import { cachedPages, keepPage } from '../../store/settings';
import type { World } from '../world';

/** Pages read within this time are not fetched again. */
const FRESH_MS = 7 * 86_400_000;
const HARD_MAX_PAGES = 40;

/**
 * Reads a company's site page by page, best links first, and answers each question from all pages; `afresh` takes no page from the cache. A site that refuses or
 * is not there is an answer ("not found"); a site that fails for now is a failure to be tried again.
 */
export async function read(
  world: World,
  request: Extract<Request, { kind: 'read' }>,
  afresh = false,
): Promise<Extract<Answer, { kind: 'read' }>> {
  const started = performance.now();
  const now = await world.clock.now();
  const host = request.website.replace(/^https?:\/\//, '').split('/')[0] ?? '';
  const limit = Math.min(HARD_MAX_PAGES, request.maxPages);
  const pages: FetchedPage[] = [];
  const queue: string[] = [`http://${host}/`];
  const seen = new Set(queue);
  const links: PageLink[] = [];
  let says = '';
  while (queue.length > 0 && pages.length < limit) {
    const url = queue.shift() ?? '';
    try {
      const page = await fetchPage(world, url, now, afresh);
      pages.push(page);
      // Only the site's own pages are followed: what a page says can never send the reader elsewhere.
      links.push(...page.links.filter((link) => new URL(link.url).hostname.replace(/^www\./, '') === host.replace(/^www\./, '')));
      for (const link of worthReading(links))
        if (!seen.has(link.url)) {
          seen.add(link.url);
          queue.push(link.url);
        }
    } catch (error) {
      if (!(error instanceof WorldFailure)) throw error;
      if (pages.length === 0 && error.retryable) throw error;
      if (pages.length === 0) says = error.message;
    }
  }
  const passages = pages.map((page) => ({ url: page.url, text: page.text }));
  const findings = request.questions.map((question) => {
    const answer = answerQuestion({ id: question.id.text, type: question.type, wording: question.wording.text }, passages, now);
    return {
      id: question.id.text,
      found: answer.found,
      value: answer.value,
      quote: answer.quote,
      url: answer.url,
      confidence: answer.confidence,
      says: answer.says,
    };
  });
  return { kind: 'read', findings, pages: pages.length, tookMs: Math.round(performance.now() - started), costMicro: 0, says };
}

async function fetchPage(world: World, url: string, now: number, afresh: boolean): Promise<FetchedPage> {
  const [kept] = afresh ? [] : await cachedPages(world.db, [url], now - FRESH_MS);
  if (kept) return kept;
  const page = await world.web.page(url);
  await keepPage(world.db, { ...page, url, fetchedAt: now });
  return page;
}
