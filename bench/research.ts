/** A thousand pages over a hundred hosts, read politely, answered from; beside it the same pages fetched bare. */
import http from 'node:http';
import path from 'node:path';
import { answerAll } from '../src/core/reader';
import { boxPool } from '../src/server/adapters/box';
import { webReader } from '../src/server/adapters/web';
import type { Box, FetchedPage } from '../src/server/ports';
import { timed } from './floor';

const HOSTS = 100;
const PAGES = 10;
const QUESTIONS = [
  { id: 'heated_area', type: { kind: 'number', unit: 'ha' }, wording: 'How large is the area under heated glass?' },
  { id: 'main_crop', type: { kind: 'text' }, wording: 'What is their main crop?' },
  { id: 'controls', type: { kind: 'text' }, wording: 'Which climate computer do they use?' },
  { id: 'controls_since', type: { kind: 'year' }, wording: 'Since when do they have it?' },
  { id: 'expansion', type: { kind: 'yes/no' }, wording: 'Was an expansion announced?' },
  { id: 'energy', type: { kind: 'text' }, wording: 'What do they heat with?' },
  { id: 'decider', type: { kind: 'text' }, wording: 'Who decides?' },
] as const;

const pageOf = (host: number, page: number): string =>
  `<!doctype html><html lang="en"><head><title>Firm ${host}</title></head><body><nav><a href="/">Home</a></nav><main><h1>Page ${page}</h1>${Array.from(
    { length: 12 },
    (_, i) =>
      `<p>Paragraph ${i} of page ${page}: deliveries leave every morning before six, and the packing line was built in ${1990 + i}.</p>`,
  ).join(
    '',
  )}${page === 3 ? `<p>We grow tomatoes on ${(host % 9) + 1} ha of heated glass. A Tessel 4 climate computer has run the vents since 2013.</p>` : ''}</main></body></html>`;

export interface ResearchFigures {
  readonly pagesPerSecond: number;
  readonly barePerSecond: number;
  /** the most requests that any host had open at once, and the shortest pause between two of one host, in ms */
  readonly mostAtOnce: number;
  readonly shortestGapMs: number;
  readonly answered: number;
}

export async function researchFigures(): Promise<ResearchFigures> {
  const open = new Map<string, number>();
  const lastEnd = new Map<string, number>();
  let [mostAtOnce, shortestGapMs, polite] = [0, Number.POSITIVE_INFINITY, false];
  const server = http.createServer((request, response) => {
    const host = request.headers.host ?? '';
    const now = performance.now();
    const at = (open.get(host) ?? 0) + 1;
    open.set(host, at);
    if (polite) {
      mostAtOnce = Math.max(mostAtOnce, at);
      const before = lastEnd.get(host);
      if (before !== undefined) shortestGapMs = Math.min(shortestGapMs, now - before);
    }
    const [, hostNo = '0'] = /firm-(\d+)/.exec(host) ?? [];
    const [, pageNo = '0'] = /p(\d+)/.exec(request.url ?? '') ?? [];
    const robots = request.url === '/robots.txt';
    response.on('finish', () => {
      open.set(host, (open.get(host) ?? 1) - 1);
      lastEnd.set(host, performance.now());
    });
    response.writeHead(robots ? 404 : 200, { 'content-type': 'text/html' }).end(robots ? '' : pageOf(Number(hostNo), Number(pageNo)));
  });
  await new Promise<void>((resolve) => {
    server.listen(0, '127.0.0.1', resolve);
  });
  const address = server.address();
  const port = typeof address === 'object' && address ? address.port : 0;
  let box: Box | undefined;
  try {
    const bare = await timed(async () => {
      for (let page = 0; page < PAGES; page++)
        await Promise.all(
          Array.from({ length: HOSTS }, (_, host) =>
            fetch(`http://127.0.0.1:${port}/p${page}`, { headers: { 'x-host': `firm-${host}` } }).then((response) => response.text()),
          ),
        );
    });
    polite = true;
    box = boxPool(
      { file: path.resolve('dist/server/wire/box.mjs') },
      { info: () => undefined, warn: () => undefined, error: () => undefined },
    );
    const web = webReader(`127.0.0.1:${port}`, box);
    let answered = 0;
    const ms = await timed(async () => {
      await Promise.all(
        Array.from({ length: HOSTS }, async (_, host) => {
          const pages: FetchedPage[] = [];
          for (let page = 0; page < PAGES; page++) pages.push(await web.page(`http://firm-${host}.example/p${page}`));
          answered += answerAll(QUESTIONS, pages, Date.parse('2026-11-24')).filter((answer) => answer.found).length;
        }),
      );
    });
    const count = HOSTS * PAGES;
    return { pagesPerSecond: count / (ms / 1000), barePerSecond: count / (bare / 1000), mostAtOnce, shortestGapMs, answered };
  } finally {
    await box?.close();
    server.closeAllConnections();
    server.close();
  }
}
