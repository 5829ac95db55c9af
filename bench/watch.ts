/**
 * What it costs to be looked at: 40 open pages while one flow takes in 20 trips a second, then the same pages while nothing
 * happens. Started by scripts/bench.mjs watch, which gives it a running Millrace with the demo world. The pages are played by
 * this program: each holds its stream of events and asks again when and how a browser does (`ui/client/asking.ts`). Prints what
 * the web process used and what was asked, and writes bench/watch.json.
 */
import fs from 'node:fs';
import { shownAt } from '../src/ui/shell/state/shown';
import { asking, COUNTED, COUNTS_EVERY_MS, PAGE_EVERY_MS } from '../src/ui/client/asking';
import type { LiveEvent } from '../src/api';
import { api, signIn, sql, url } from './demo-world';
import { BENCH_FLOW } from './engine-flow';

const [TRIPS_A_SECOND, SECONDS, WARM_SECONDS] = [20, 30, 8];
const BAR_SHARE = 0.3;
const PEOPLE = TRIPS_A_SECOND * (SECONDS + WARM_SECONDS + 5);
const sleep = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

await sql`insert into company (id, name, custom, country, created_at)
  select md5('c' || i)::uuid, 'Company ' || i, jsonb_build_object('heated_area', (i % 90) / 10.0), 'GB', now() from generate_series(1, ${PEOPLE}) i`;
await sql`insert into person (id, name, email, company_id, created_at)
  select gen_random_uuid(), 'Person ' || i, 'p' || i || '@x.example', md5('c' || i)::uuid, now() from generate_series(1, ${PEOPLE}) i`;
const { id: flow } = await api<{ id: string }>('POST', '/flows', { text: BENCH_FLOW });
await api('POST', `/flows/${flow}/release`, {});
const people = await sql<{ id: string }[]>`select id from person where name like 'Person %' order by id`;
const others = await sql<{ id: string }[]>`select id from flow where id <> ${flow} limit 2`;
/** One person may have so many pages open; two have all of these. */
const cookies = [await signIn('Ines'), await signIn('Ruud')];

/** As a team has them open: the desk most of all, and several who watch the busy flow. */
const OPEN: readonly (readonly [at: string, count: number])[] = [
  ['/', 10],
  ['/messages', 4],
  ['/flows', 3],
  [`/flows/${flow}`, 5],
  [`/flows/${flow}/trips`, 2],
  ...others.map(({ id }) => [`/flows/${id}`, 2] as const),
  ['/records', 3],
  ...people.slice(0, 4).map(({ id }) => [`/records/people/${id}`, 1] as const),
  ['/pipeline', 2],
  ['/sources', 2],
  ['/settings', 1],
];
const asked = new Map<string, number>();
const counted = (what: string): void => void asked.set(what, (asked.get(what) ?? 0) + 1);

/** One open page: its stream, what it asks when it hears something, and the rail around it. */
async function open(at: string, cookie: string): Promise<() => void> {
  const get = async (path: string, headers: Record<string, string>): Promise<void> => {
    counted(path === at ? path.replace(/[0-9a-f-]{36}/, '…') : 'rail');
    const response = await fetch(url + path, { headers: { cookie, ...headers } });
    if (!response.ok) throw new Error(`${path}: ${response.status}`);
    await response.text();
  };
  const page = asking(shownAt(at) ?? [], PAGE_EVERY_MS, () => get(at, { RSC: '1' }));
  const rail = asking(COUNTED, COUNTS_EVERY_MS, () => get('/api/v1/rail', {}));
  const stop = new AbortController();
  const flowId = /^\/flows\/([0-9a-f-]{36})/.exec(at)?.[1];
  const stream = await fetch(`${url}/live${flowId === undefined ? '' : `?flow=${flowId}`}`, { headers: { cookie }, signal: stop.signal });
  if (!stream.ok || !stream.body) throw new Error(`no stream: ${stream.status}`);
  void (async () => {
    let text = '';
    for await (const piece of stream.body!.pipeThrough(new TextDecoderStream())) {
      const lines = (text + piece).split('\n\n');
      text = lines.pop() ?? '';
      for (const line of lines) {
        if (!line.startsWith('data: ')) continue;
        const event = JSON.parse(line.slice(6)) as LiveEvent;
        if (event.kind !== 'new') continue;
        page.heard(event.topics);
        rail.heard(event.topics);
      }
    }
  })().catch(() => undefined);
  return () => {
    page.stop();
    rail.stop();
    stop.abort();
  };
}

/** Seconds of a core that the web process has used. */
async function used(): Promise<number> {
  const text = await (
    await fetch(`${url}/metrics`, { headers: { authorization: `Bearer ${process.env.BENCH_METRICS_KEY ?? ''}` } })
  ).text();
  const found = /^process_cpu_seconds_total (\S+)/m.exec(text)?.[1];
  if (found === undefined) throw new Error('the web process tells no figures');
  return Number(found);
}

/** The share of a core that the web process took in that time, and what was asked in it. */
async function watched(seconds: number): Promise<{ readonly share: number; readonly asked: Readonly<Record<string, number>> }> {
  asked.clear();
  const [before, began] = [await used(), performance.now()];
  await sleep(seconds * 1_000);
  const share = (await used()) - before;
  return { share: share / ((performance.now() - began) / 1_000), asked: Object.fromEntries(asked) };
}

const leave: (() => void)[] = [];
for (const [at, count] of OPEN) for (let i = 0; i < count; i++) leave.push(await open(at, cookies[leave.length % cookies.length] ?? ''));
let given = 0;
const feeding = setInterval(() => {
  const ids = people.slice(given, given + TRIPS_A_SECOND / 2).map(({ id }) => id);
  given += ids.length;
  if (ids.length > 0) api('POST', `/flows/${flow}/start`, { recordIds: ids }).catch((error: unknown) => console.error(String(error)));
}, 500);
await sleep(WARM_SECONDS * 1_000);
const busy = await watched(SECONDS);
clearInterval(feeding);
const [done] = await sql<{ n: number }[]>`select count(*)::int as n from trip where flow_id = ${flow} and state in ('done', 'stopped')`;
await sleep(6_000);
const idle = await watched(SECONDS);
for (const close of leave) close();
await sql.end();
const figures = { pages: leave.length, tripsASecond: TRIPS_A_SECOND, tripsDone: done?.n ?? 0, seconds: SECONDS, busy, idle };
const total = (of: Readonly<Record<string, number>>): number => Object.values(of).reduce((sum, n) => sum + n, 0);
const line = (name: string, { share, asked: of }: typeof busy): string =>
  `| ${name} | ${(share * 100).toFixed(1)} % | ${(total(of) / SECONDS).toFixed(1)} |`;
console.log(`${leave.length} open pages\n\n| | web process, of a core | asked a second |\n| --- | --- | --- |`);
console.log(`${line(`${TRIPS_A_SECOND} trips/s`, busy)}\n${line('nothing happens', idle)}`);
console.log(busy.asked);
console.log(
  `bar: at most ${BAR_SHARE * 100} % of a core: ${busy.share <= BAR_SHARE ? 'yes' : 'no'}; an idle workspace is asked nothing: ${total(idle.asked) === 0 ? 'yes' : 'no'}`,
);
fs.writeFileSync('bench/watch.json', `${JSON.stringify(figures, null, 2)}\n`);
