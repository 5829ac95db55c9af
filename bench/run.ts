/**
 * The figures of docs/bench.md, each as a ratio to a floor taken in the same run. `run.ts [TRIPS] [ROWS] [--only PART]`; prints
 * a table and writes bench/results.json. Started by scripts/bench.mjs, which gives it a database cluster.
 */
import fs from 'node:fs';
import { parseArgs } from 'node:util';
import postgres from 'postgres';
import { compileFeel, parseFeel } from '../src/core/feel';
import { checkFlow } from '../src/core/flow/check';
import { parseFlow } from '../src/core/flow/syntax';
import { compileScorecard, scorecardSchema } from '../src/core/score';
import { connect } from '../src/server/db';
import { createFlow, flow } from '../src/server/flows/flows';
import { release } from '../src/server/flows/releases';
import { lookAtFile, runImport, startImport } from '../src/server/intake/imports';
import { Worker, WORKER_DEFAULTS } from '../src/server/worker';
import { demoWorkspace, testWorld } from '../src/testing/world';
import { BENCH_FLOW, fill, startAll } from './engine-flow';
import { laneFigures } from './lanes';
import { longFlow, LONG_FLOW_LIBRARY } from './long-flow';
import { researchFigures } from './research';
import { copyFloor, timed, writeFloor } from './floor';

interface Row {
  readonly what: string;
  readonly measured: string;
  readonly floor: string;
  readonly ratio: number | null;
  readonly bar: string;
  readonly met: boolean;
}
const rows: Row[] = [];
const seconds = (ms: number): string => `${(ms / 1000).toFixed(2)} s`;
const { positionals, values: given } = parseArgs({ allowPositionals: true, options: { only: { type: 'string', multiple: true } } });
const [TRIPS, ROWS] = [Number(positionals[0] ?? 100_000), Number(positionals[1] ?? 100_000)];

async function engine(): Promise<void> {
  const world = await testWorld();
  const { ines } = await demoWorkspace(world);
  await fill(world, TRIPS);
  const made = await createFlow(world, ines, BENCH_FLOW);
  await release(world, ines, made.id);
  await startAll(world, ines, made.id);
  // The floor writes into a copy of the database as it stands before the run.
  const copy = `${new URL(world.url).pathname.slice(1)}_floor`;
  await world.db.end();
  const admin = postgres(process.env.TEST_DATABASE_ADMIN ?? '', { max: 1 });
  await admin.unsafe(`create database ${copy} template ${new URL(world.url).pathname.slice(1)}`);
  await admin.end();
  const again = { ...world, db: connect(world.url, { max: 6, name: 'bench' }) };
  await flow(again, made.id);

  let peak = 0;
  const watch = setInterval(() => {
    peak = Math.max(peak, process.memoryUsage().rss);
  }, 100);
  const worker = new Worker(again, { ...WORKER_DEFAULTS, batch: 1000, holder: 'bench' });
  const ms = await timed(() => worker.drain());
  clearInterval(watch);
  const [done] = await again.db<{ n: number }[]>`select count(*)::int as n from trip where state = 'done'`;
  if (done?.n !== TRIPS) throw new Error(`only ${done?.n ?? 0} of ${TRIPS} trips are done`);
  const [journal] = await again.db<{ n: number }[]>`select count(*)::int as n from journal`;
  if (journal?.n !== TRIPS * 8) throw new Error(`the journal has ${journal?.n ?? 0} entries`);
  await again.db.end();

  const floorUrl = new URL(world.url);
  floorUrl.pathname = `/${copy}`;
  const floor = await writeFloor(world.url, floorUrl.href);
  rows.push({
    what: `engine: ${TRIPS.toLocaleString('en-GB')} trips × 8 lines`,
    measured: `${seconds(ms)} · ${Math.round(TRIPS / (ms / 1000)).toLocaleString('en-GB')} trips/s`,
    floor: `${seconds(floor)} the same rows by plain SQL`,
    ratio: ms / floor,
    bar: '≤ 2.0 ×',
    met: ms / floor <= 2,
  });
  const mib = Math.round(peak / 1024 / 1024);
  rows.push({ what: 'engine: worker memory', measured: `${mib} MiB`, floor: '', ratio: null, bar: '≤ 512 MiB', met: mib <= 512 });
}

const FIRST = [
  'Mara',
  'Jonas',
  'Piet',
  'Nuria',
  'Ewa',
  'Tamsin',
  'Ruben',
  'Freya',
  'Owen',
  'Lucía',
  'Bernd',
  'Anouk',
  'Callum',
  'Heike',
  'Joaquín',
  'Imogen',
];
const SYLLABLES = [
  'ach',
  'bel',
  'cor',
  'dun',
  'elm',
  'far',
  'gro',
  'hol',
  'ing',
  'jor',
  'kel',
  'lin',
  'mor',
  'nor',
  'oak',
  'pen',
  'qui',
  'ros',
  'san',
  'tor',
  'ull',
  'ver',
  'wil',
  'yor',
];

/** A list of made-up people: names from syllables, one firm for every four. */
function csvOf(count: number): string {
  const syllable = (n: number): string => SYLLABLES[n % SYLLABLES.length] ?? '';
  const family = (i: number): string => {
    const name = syllable(i * 7) + syllable(Math.floor(i / 24) * 5 + 3) + syllable(Math.floor(i / 576) * 11 + 7) + syllable(i * 13 + 1);
    return name.charAt(0).toUpperCase() + name.slice(1);
  };
  const lines = Array.from({ length: count }, (_, i) => {
    const firm = Math.floor(i / 4);
    return `${FIRST[i % FIRST.length] ?? ''} ${family(i)},p${i}@firm${firm}.example,+44 1632 ${String(960000 + (i % 1000))},${family(firm * 3)} Growers ${firm},https://firm${firm}.example,${((firm % 90) / 10).toFixed(1)} ha,Hessle,GB,met at the fair`;
  });
  return ['Name,E-mail,Phone,Company,Web site,Area,City,Country,Notes', ...lines].join('\n');
}

async function importing(): Promise<void> {
  const world = await testWorld();
  const { ines } = await demoWorkspace(world);
  const csv = csvOf(ROWS);
  const floor = await copyFloor(world.url, csv, 9);
  const id = await lookAtFile(world, ines, { name: 'bench.csv', bytes: Buffer.from(csv) });
  await startImport(world, ines, id, { flowId: null });
  const ms = await timed(() => runImport(world));
  const [people] = await world.db<{ n: number }[]>`select count(*)::int as n from person`;
  const [facts] = await world.db<{ n: number }[]>`select count(*)::int as n from fact`;
  await world.close();
  rows.push({
    what: `import: ${ROWS.toLocaleString('en-GB')}-row CSV`,
    measured: `${seconds(ms)} · ${people?.n.toLocaleString('en-GB') ?? ''} people, ${facts?.n.toLocaleString('en-GB') ?? ''} facts`,
    floor: `${seconds(floor)} bare COPY`,
    ratio: ms / floor,
    bar: '≤ 6 ×',
    met: ms / floor <= 6,
  });
}

async function inMemory(): Promise<void> {
  const { expr } = parseFeel('a >= 75 and b != null');
  if (!expr) throw new Error('not parsed');
  const holds = compileFeel(expr);
  const scopes = Array.from({ length: 1000 }, (_, i) => ({ a: i % 150, b: i % 3 === 0 ? null : 'x' }));
  let hits = 0;
  const rate = async (count: number, work: (i: number) => void): Promise<number> => {
    for (let i = 0; i < count / 10; i++) work(i);
    const ms = await timed(async () => {
      for (let i = 0; i < count; i++) work(i);
    });
    return count / (ms / 1000);
  };
  const conditions = await rate(5_000_000, (i) => {
    if (holds(scopes[i % 1000] ?? {}) === true) hits += 1;
  });
  const floor = await rate(5_000_000, (i) => {
    const scope = scopes[i % 1000];
    if (scope && scope.a >= 75 && scope.b !== null) hits += 1;
  });
  rows.push({
    what: 'conditions: a >= 75 and b != null',
    measured: `${(conditions / 1e6).toFixed(1)} M/s`,
    floor: `${(floor / 1e6).toFixed(1)} M/s by hand-written JavaScript`,
    ratio: floor / conditions,
    bar: '≥ 2 M/s',
    met: conditions >= 2e6,
  });

  const card = compileScorecard(
    scorecardSchema.parse({
      name: 'x',
      target: 'company',
      criteria: Array.from({ length: 20 }, (_, i) => ({
        id: `c${i}`,
        text: `criterion ${i}`,
        levels: [{ when: `company.f${i} >= ${i}`, points: 5 }],
      })),
      bands: [{ name: 'hot', from: 50 }],
    }),
  );
  const company = Object.fromEntries(Array.from({ length: 20 }, (_, i) => [`f${i}`, (i * 7) % 20]));
  const scores = await rate(200_000, () => {
    hits += card({ company }).points;
  });
  rows.push({
    what: 'scoring: 20 criteria',
    measured: `${Math.round(scores).toLocaleString('en-GB')} records/s`,
    floor: '',
    ratio: null,
    bar: '≥ 300,000/s',
    met: scores >= 300_000,
  });

  const text = longFlow(10_000);
  const once = (): Promise<number> => timed(async () => checkFlow(parseFlow(text), LONG_FLOW_LIBRARY));
  const first = await once();
  const times = [];
  for (let i = 0; i < 15; i++) times.push(await once());
  const ms = times.slice(5).sort((x, y) => x - y)[5] ?? first;
  rows.push({
    what: `flow text: ${text.split('\n').length.toLocaleString('en-GB')} rows parse + check`,
    measured: `${Math.round(ms)} ms, median · ${Math.round(first)} ms the first time in a new process`,
    floor: '',
    ratio: null,
    bar: '≤ 100 ms',
    met: ms <= 100,
  });
  if (hits === 0) throw new Error('nothing was computed');
}

async function research(): Promise<void> {
  const figures = await researchFigures();
  const polite = figures.mostAtOnce === 1 && figures.shortestGapMs >= 35;
  if (figures.answered < 300) throw new Error(`only ${figures.answered} answers were found`);
  rows.push({
    what: 'research: 1,000 pages over 100 hosts, 7 questions each',
    measured: `${Math.round(figures.pagesPerSecond)} pages/s · one at a time and ${Math.round(figures.shortestGapMs)} ms apart for each host`,
    floor: `${Math.round(figures.barePerSecond).toLocaleString('en-GB')} pages/s fetched bare`,
    ratio: figures.barePerSecond / figures.pagesPerSecond,
    bar: '≥ 50 pages/s',
    met: figures.pagesPerSecond >= 50 && polite,
  });
}

async function lanes(): Promise<void> {
  const { alone, beside, listRows } = await laneFigures(csvOf(ROWS));
  const kept = Math.min(beside.trips / alone.trips, beside.sends / alone.sends);
  rows.push({
    what: 'lanes: 40 trips/s and 20 sends/s offered for 20 s, beside a site that answers after 20 s and a list',
    measured: `${beside.trips} trips, ${beside.sends} sends ended; ${listRows.toLocaleString('en-GB')} of ${ROWS.toLocaleString('en-GB')} rows taken in meanwhile`,
    floor: `${alone.trips} trips, ${alone.sends} sends alone`,
    ratio: 1 / kept,
    bar: '≥ 80 % kept',
    met: kept >= 0.8,
  });
}

const line = (cells: readonly string[]): string => `| ${cells.join(' | ')} |`;
const show = (row: Row): void => {
  console.log(
    line([row.what, row.measured, row.floor, row.ratio === null ? '' : `${row.ratio.toFixed(1)} ×`, row.bar, row.met ? 'yes' : 'no']),
  );
};
console.log(line(['what', 'measured', 'floor', 'ratio', 'bar', 'met']));
console.log(line(['---', '---', '---', '---', '---', '---']));
const PARTS = { memory: inMemory, research, lanes, engine, import: importing };
for (const [name, part] of Object.entries(PARTS)) {
  if (given.only && !given.only.includes(name)) continue;
  const before = rows.length;
  await part();
  rows.slice(before).forEach(show);
}
if (!given.only) fs.writeFileSync('bench/results.json', `${JSON.stringify({ trips: TRIPS, rows: ROWS, figures: rows }, null, 2)}\n`);
