#!/usr/bin/env node
// `npm run test:e2e`: a fresh Millrace with the demo world on free ports, and Playwright against it. Arguments go to Playwright.
import { spawn } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { ensureDebian, ensurePackages, freshWorld, ROOT } from './lib.mjs';

ensurePackages();
ensureDebian(['chromium']);
const HOME = path.join(ROOT, '.local/e2e');
/** The demo world before anything has come in by its doors: each test opens those it is about. */
const quiet = () => {
  const { entries: _sent, watched, ...seed } = JSON.parse(fs.readFileSync(path.join(ROOT, 'demo/workspace.json'), 'utf8'));
  const file = path.join(HOME, 'workspace.json');
  fs.writeFileSync(file, JSON.stringify({ ...seed, watched: watched.map((door) => ({ ...door, isOn: false })) }));
  return file;
};
const world = await freshWorld(HOME, { workers: 2, seed: quiet, forgets: true });
// A second world beside it, of another trade: what holds in one must hold in the other.
const other = await freshWorld(path.join(ROOT, '.local/e2e-laundry'), {
  seed: () => 'demo/laundry/workspace.json',
  forgets: true,
  env: { MILLRACE_WORLD: 'demo/laundry' },
}).catch(async (error) => {
  await world.stop();
  throw error;
});
let code = 1;
try {
  code = await new Promise((resolve) => {
    const run = spawn(process.execPath, ['node_modules/@playwright/test/cli.js', 'test', ...process.argv.slice(2)], {
      cwd: ROOT,
      stdio: 'inherit',
      env: {
        ...process.env,
        E2E_URL: world.url,
        E2E_TOKEN: world.token,
        E2E_MAIL: `http://127.0.0.1:${world.ports.mail}`,
        E2E_HOOKS: `http://127.0.0.1:${world.ports.hooks}`,
        E2E_LAUNDRY_URL: other.url,
        E2E_LAUNDRY_TOKEN: other.token,
        E2E_LAUNDRY_MAIL: `http://127.0.0.1:${other.ports.mail}`,
      },
    });
    run.on('exit', (status) => resolve(status ?? 1));
  });
} finally {
  await other.stop();
  await world.stop();
}
process.exit(code);
