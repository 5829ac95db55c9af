/**
 * How the engine grows: the same trips by 1, 2 and 4 worker processes on one database, and an idle engine with many waiting
 * trips. `scale.ts [TRIPS] [WAITING]`; prints two tables and writes bench/scale.json. Started by scripts/bench.mjs scale.
 */
import { spawn, type ChildProcess } from 'node:child_process';
import fs from 'node:fs';
import { wakeWorkers } from '../src/server/platform/store/wake';
import { claimTrips } from '../src/server/trips/store/trips';
import { createFlow } from '../src/server/flows/flows';
import { release } from '../src/server/flows/releases';
import { demoWorkspace, testWorld, type TestWorld } from '../src/testing/world';
import { BENCH_FLOW, fill, startAll } from './engine-flow';

const [TRIPS, WAITING] = [Number(process.argv[2] ?? 20_000), Number(process.argv[3] ?? 1_000_000)];
const LOOK_MS = 100;
const sleep = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

function workerOn(url: string): Promise<ChildProcess> {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, ['dist/server/wire/worker.mjs'], {
      env: { ...process.env, DATABASE_URL: url, MILLRACE_INBOUND_PORT: '0', MILLRACE_LOG: 'error', NODE_ENV: 'production' },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    child.once('exit', () => {
      reject(new Error('a worker ended before it was ready'));
    });
    child.stdout.on('data', (chunk: Buffer) => {
      if (chunk.toString().includes('worker ready')) resolve(child);
    });
  });
}

async function throughput(workers: number): Promise<number> {
  const world: TestWorld = await testWorld();
  const { ines } = await demoWorkspace(world);
  await fill(world, TRIPS);
  const made = await createFlow(world, ines, BENCH_FLOW);
  await release(world, ines, made.id);
  await startAll(world, ines, made.id);
  // Held back until every worker is up, so that starting them is not measured.
  await world.db`update trip set hold = 'paused', due_at = '2020-01-01'`;
  const crew = await Promise.all(Array.from({ length: workers }, () => workerOn(world.url)));
  const started = performance.now();
  await world.db`update trip set hold = null`;
  await wakeWorkers(world.db);
  for (;;) {
    const [open] = await world.db<{ n: number }[]>`select count(*)::int as n from trip where ended_at is null`;
    if (open?.n === 0) break;
    await sleep(LOOK_MS);
  }
  const ms = performance.now() - started;
  for (const child of crew) {
    child.removeAllListeners('exit');
    child.kill('SIGTERM');
    await new Promise((resolve) => child.once('exit', resolve));
  }
  await world.close();
  return TRIPS / (ms / 1000);
}

async function idle(): Promise<{
  readonly p50: number;
  readonly p99: number;
  readonly claimed: number;
  readonly scans: readonly string[];
}> {
  const world = await testWorld();
  const { ines } = await demoWorkspace(world, { crm: true });
  const made = await createFlow(world, ines, BENCH_FLOW);
  const { versionId } = await release(world, ines, made.id);
  // A hundred fall due every second for a minute; the others wait for days.
  await world.db`insert into trip (id, flow_id, version_id, person_id, intake_key, state, state_detail, due_at, created_at)
    select gen_random_uuid(), ${made.id}, ${versionId}, (select id from person limit 1), i::text, 'waiting', '{"why":"waits"}',
      now() + interval '3 days' + i * interval '1 second', now() from generate_series(1, ${WAITING}) i`;
  await world.db`vacuum analyze trip`;
  await world.db`update trip set due_at = clock_timestamp() + intake_key::int * interval '10 ms' where intake_key::int <= 6000`;
  const took: number[] = [];
  let claimed = 0;
  for (const end = performance.now() + 30_000; performance.now() < end; await sleep(20)) {
    const began = performance.now();
    const held = await claimTrips(world.db, { holder: 'bench', now: Date.now(), leaseMs: 60_000, limit: 250 });
    took.push(performance.now() - began);
    claimed += held.length;
    if (held.length > 0)
      await world.db`update trip set due_at = now() + interval '3 days', lease_until = null, lease_by = null where id = any(${held.map((entry) => entry.trip.id)})`;
  }
  const plan = await world.db<
    { 'QUERY PLAN': string }[]
  >`explain select id from trip where due_at <= now() and hold is null and (lease_until is null or lease_until < clock_timestamp()) order by due_at, id limit 250 for update skip locked`;
  await world.close();
  took.sort((a, b) => a - b);
  const at = (share: number): number => took[Math.floor(took.length * share)] ?? 0;
  const text = plan.map((row) => Object.values(row).join(' ')).join('\n');
  return { p50: at(0.5), p99: at(0.99), claimed, scans: text.match(/(?:Seq|Index(?: Only)?|Bitmap \w+) Scan[^(]*/g) ?? [] };
}

console.log(`| workers | trips/s (${TRIPS.toLocaleString('en-GB')} × 8 lines) | against one |\n| --- | --- | --- |`);
const figures: { readonly workers: number; readonly perSecond: number }[] = [];
for (const workers of [1, 2, 4]) {
  const perSecond = await throughput(workers);
  figures.push({ workers, perSecond });
  console.log(
    `| ${workers} | ${Math.round(perSecond).toLocaleString('en-GB')} | ${(perSecond / (figures[0]?.perSecond ?? 1)).toFixed(2)} × |`,
  );
}
const waiting = await idle();
console.log(
  `\n${WAITING.toLocaleString('en-GB')} waiting trips, 100 due a second: claim p50 ${waiting.p50.toFixed(1)} ms, p99 ${waiting.p99.toFixed(1)} ms (bar ≤ 20 ms), ${waiting.claimed} claimed; ${waiting.scans.join('; ')}`,
);
fs.writeFileSync('bench/scale.json', `${JSON.stringify({ trips: TRIPS, figures, waiting: { trips: WAITING, ...waiting } }, null, 2)}\n`);
