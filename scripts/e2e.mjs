#!/usr/bin/env node
// `npm run test:e2e`: fresh Millraces with the demo world on free ports, and Playwright against them, in two groups side by side.
// Arguments go to Playwright, and then there is one world: `npm run test:e2e -- e2e/teach.spec.ts`.
import { spawn } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { ensureBuilt, ensureDebian, ensurePackages, freshWorld, ROOT } from './lib.mjs';

ensurePackages();
ensureDebian(['chromium']);
await ensureBuilt();
/** The long way and what is looked at on what it left; everything else needs a world, and nothing of another's. */
const WAY = ['way', 'wayside', 'withstands', 'first-day'].map((name) => `e2e/${name}.spec.ts`);
const all = fs
  .readdirSync(path.join(ROOT, 'e2e'))
  .filter((file) => file.endsWith('.spec.ts'))
  .map((file) => `e2e/${file}`);
const asked = process.argv.slice(2);
const groups = asked.length > 0 ? [asked] : [WAY, all.filter((file) => !WAY.includes(file))];

/** The demo world before anything has come in by its doors: each test opens those it is about. */
const quiet = (home) => () => {
  const { entries: _sent, watched, ...seed } = JSON.parse(fs.readFileSync(path.join(ROOT, 'demo/workspace.json'), 'utf8'));
  const file = path.join(home, 'workspace.json');
  fs.writeFileSync(file, JSON.stringify({ ...seed, watched: watched.map((door) => ({ ...door, isOn: false })) }));
  return file;
};

/** Who has a mailbox on the first day of a business of its own: it writes and reads by real servers. */
const FIRST_DAY = { 'wenna@hartsmead.example': 'lamp oil and rope', 'j.fern@fernley-propagators.example': 'under the fern' };

/** What has been started; it is stopped at the end, however that comes. */
const worlds = [];
const begin = async (...world) => {
  worlds.push(await freshWorld(...world));
  return worlds.at(-1);
};

/** A world for one group; with a second one of another trade where a test asks for it: what holds in one must hold in the other. */
async function worldFor(args, no) {
  const home = path.join(ROOT, `.local/e2e${no === 0 ? '' : `-${no}`}`);
  const world = await begin(home, { workers: 2, seed: quiet(home), forgets: true });
  const laundry = args.some((arg) => arg.includes('laundry'))
    ? await begin(`${home}-laundry`, {
        seed: () => 'demo/laundry/workspace.json',
        forgets: true,
        env: { MILLRACE_WORLD: 'demo/laundry' },
      })
    : undefined;
  const empty = args.some((arg) => arg.includes('first-day'))
    ? await begin(`${home}-empty`, { isEmpty: true, forgets: true, accounts: FIRST_DAY })
    : undefined;
  return {
    E2E_URL: world.url,
    E2E_TOKEN: world.token,
    E2E_MAIL: `http://127.0.0.1:${world.ports.mail}`,
    E2E_HOOKS: `http://127.0.0.1:${world.ports.hooks}`,
    E2E_OUTPUT: `.local/playwright/${no}`,
    ...(process.env.E2E_JSON && { E2E_JSON: path.join(process.env.E2E_JSON, `${no}.json`) }),
    ...(empty && {
      E2E_EMPTY_ADDRESS: empty.firstAddress,
      E2E_EMPTY_PORTS: JSON.stringify(empty.ports),
      E2E_EMPTY_ACCOUNTS: JSON.stringify(FIRST_DAY),
    }),
    ...(laundry && {
      E2E_LAUNDRY_URL: laundry.url,
      E2E_LAUNDRY_TOKEN: laundry.token,
      E2E_LAUNDRY_MAIL: `http://127.0.0.1:${laundry.ports.mail}`,
    }),
  };
}

const playwright = (args, env) =>
  new Promise((resolve) => {
    const run = spawn(process.execPath, ['node_modules/@playwright/test/cli.js', 'test', ...args], {
      cwd: ROOT,
      stdio: 'inherit',
      env: { ...process.env, ...env },
    });
    run.on('exit', (status) => resolve(status ?? 1));
  });

let codes = [1];
try {
  // One after the other: two that begin at once could be given the same free port.
  const envs = [];
  for (const [no, args] of groups.entries()) envs.push(await worldFor(args, no));
  codes = await Promise.all(groups.map((args, no) => playwright(args, envs[no])));
} finally {
  for (const world of worlds.reverse()) await world.stop();
}
process.exit(codes.every((code) => code === 0) ? 0 : 1);
