#!/usr/bin/env node
// `npm run bench [TRIPS] [ROWS]`: the figures of the bench, on a database cluster of its own.
// `npm run bench -- scale [TRIPS] [WAITING]`: how it grows with workers, and an idle engine.
// `npm run bench -- weight`: how much script each main page loads.
// `npm run bench -- watch`: what it costs to be looked at: 40 open pages beside a busy flow, and beside nothing.
// `npm run bench -- pages [PEOPLE]`: how long the server takes for every main screen on a large workspace.
import { spawn, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import {
  buildPrograms,
  ensureDebian,
  ensurePackages,
  freshWorld,
  ROOT,
  run,
  startDatabase,
  stopDatabase,
  WORKER,
  WORKER_ENV,
} from './lib.mjs';

ensurePackages();
ensureDebian(['postgresql']);
const HOME = path.join(ROOT, '.local/bench');
if (process.argv[2] === 'pages') process.exit(await onDemo('pages', 'bench/pages.ts', process.argv.slice(3)));
if (process.argv[2] === 'watch') process.exit(await onDemo('watch', 'bench/watch.ts', []));
if (process.argv[2] === 'weight') {
  ensureDebian(['chromium']);
  process.exit(await onDemo('weight', 'bench/weight.ts', []));
}

/** Runs a bench against a demo world of its own. */
async function onDemo(name, program, args) {
  const home = path.join(ROOT, `.local/bench-${name}`);
  const { password } = JSON.parse(fs.readFileSync(path.join(ROOT, 'demo/workspace.json'), 'utf8'));
  const metricsKey = 'the key of a bench';
  const world = await freshWorld(home, { workers: 1, env: { MILLRACE_PACE: '1000', MILLRACE_METRICS_KEY: metricsKey } });
  try {
    const env = {
      ...process.env,
      BENCH_URL: world.url,
      BENCH_TOKEN: world.token,
      DATABASE_URL: startDatabase(home),
      BENCH_PASSWORD: password,
      BENCH_METRICS_KEY: metricsKey,
    };
    // Not waited for in one go: the processes of the world are watched by this one meanwhile.
    const bench = spawn(process.execPath, ['--import', 'tsx', program, ...args], { cwd: ROOT, stdio: 'inherit', env });
    return await new Promise((resolve) => bench.once('exit', (code) => resolve(code ?? 1)));
  } finally {
    await world.stop();
    stopDatabase(home, 'destroy');
  }
}
const at = (name) => {
  const url = new URL(startDatabase(HOME));
  url.pathname = `/${name}`;
  return url.href;
};
const scale = process.argv[2] === 'scale';
if (scale) await buildPrograms();
const env = { TEST_DATABASE_ADMIN: at('postgres'), TEST_DATABASE_TEMPLATE: at('template_millrace') };
let status = 1;
try {
  run(process.execPath, ['--import', 'tsx', 'src/testing/make-template.ts'], { env });
  ({ status } = spawnSync(
    process.execPath,
    [...WORKER, '--import', 'tsx', scale ? 'bench/scale.ts' : 'bench/run.ts', ...process.argv.slice(scale ? 3 : 2)],
    {
      cwd: ROOT,
      stdio: 'inherit',
      env: { ...process.env, ...WORKER_ENV, ...env },
    },
  ));
} finally {
  stopDatabase(HOME, 'destroy');
}
process.exit(status ?? 1);
