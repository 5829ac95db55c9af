/** How much script each main page loads first, and what comes later when it is needed; gzip, from a running Millrace. */
import fs from 'node:fs';
import zlib from 'node:zlib';
import { chromium, type Page } from '@playwright/test';

const BAR_KB = 300;
const url = process.env.BENCH_URL ?? '';
const token = process.env.BENCH_TOKEN ?? '';

interface Weight {
  readonly page: string;
  readonly firstKb: number;
  readonly laterKb: number;
  readonly largest: string;
}

const api = async (path: string): Promise<{ readonly items: readonly { readonly id: string; readonly kind?: string }[] }> =>
  (await (await fetch(`${url}/api/v1${path}`, { headers: { authorization: `Bearer ${token}` } })).json()) as never;

const KB = 1024;
const CHUNK = /_next\/static\/chunks\/([\w~-]+)\.js/g;

/** A chunk by what is in it, where one of the large libraries is. */
function named(body: string): string {
  const marks = [
    [/hydrateRoot|react-dom/, 'react'],
    [/recharts/, 'charts'],
    [/cm-content/, 'editor'],
    [/ZodError/, 'schemas'],
    [/\bMui[A-Z]\w+-root/, 'components'],
    [/flightRouterState|app-router/i, 'router'],
  ] as const;
  return marks.find(([mark]) => mark.test(body))?.[1] ?? 'own';
}

async function weigh(page: Page, path: string): Promise<Weight> {
  const bodies = new Map<string, Buffer>();
  const loads: Promise<void>[] = [];
  const listen = (response: { url(): string; body(): Promise<Buffer> }): void => {
    const name = new RegExp(CHUNK.source).exec(response.url())?.[1];
    if (name !== undefined)
      loads.push(
        response.body().then(
          (body) => void bodies.set(name, body),
          () => undefined,
        ),
      );
  };
  page.on('response', listen);
  const html = (await (await page.goto(`${url}${path}`))?.text()) ?? '';
  await page.waitForLoadState('networkidle').catch(() => undefined);
  await page.waitForTimeout(1_200);
  await Promise.all(loads);
  page.off('response', listen);
  // What the page itself names is loaded first; all else was asked for by scripts that ran.
  const first = new Set([...html.matchAll(/<script[^>]+src="[^"]*\/chunks\/([\w~-]+)\.js/g)].map((found) => found[1]));
  const sizes = [...bodies].map(([name, body]) => ({ name, kb: zlib.gzipSync(body).length / KB, what: named(body.toString('utf8')) }));
  const sum = (isFirst: boolean): number =>
    Math.round(sizes.filter((entry) => first.has(entry.name) === isFirst).reduce((all, entry) => all + entry.kb, 0));
  const largest = sizes
    .filter((entry) => first.has(entry.name))
    .sort((a, b) => b.kb - a.kb)
    .slice(0, 4)
    .map((entry) => `${entry.what} ${Math.round(entry.kb)}`)
    .join(', ');
  return { page: path.replace(/[0-9a-f-]{36}/g, '…'), firstKb: sum(true), laterKb: sum(false), largest };
}

const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: JSON.parse(fs.readFileSync('scripts/chromium.json', 'utf8')) as string[],
});
const page = await browser.newPage();
const session = await page.context().newCDPSession(page);
await session.send('Network.setCacheDisabled', { cacheDisabled: true });
const rows = [await weigh(page, '/sign-in')];
await page.getByRole('button', { name: /Ines/ }).click();
await page.waitForURL(`${url}/`);
const id = async (path: string): Promise<string> => (await api(path)).items[0]?.id ?? '';
const flow = await id('/flows');
for (const path of [
  '/',
  '/sources',
  '/sources/set-aside',
  `/sources/forms/${await id('/forms')}`,
  `/sources/watched/${await id('/watched')}`,
  '/flows',
  `/flows/${flow}`,
  `/flows/${flow}/release`,
  `/flows/${flow}/trips`,
  '/records',
  `/records/people/${await id('/people')}`,
  `/records/companies/${await id('/companies')}`,
  '/pipeline',
  '/openings',
  '/duplicates',
  '/lookups',
  '/messages',
  '/settings',
  '/audit',
  '/account',
  '/f/project-enquiry',
])
  rows.push(await weigh(page, path));
await browser.close();
console.log('\nscript of each page, KB gzip\n');
for (const row of rows)
  console.log(
    `${row.firstKb > BAR_KB ? 'over ' : 'met  '} ${row.page.padEnd(26)} ${String(row.firstKb).padStart(4)} first  ${String(row.laterKb).padStart(4)} later   ${row.largest}`,
  );
fs.writeFileSync('bench/weight.json', `${JSON.stringify({ barKb: BAR_KB, rows }, null, 2)}\n`);
if (rows.some((row) => row.firstKb > BAR_KB)) process.exitCode = 1;
