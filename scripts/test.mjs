#!/usr/bin/env node
// `npm test`: set-up, lint, Jest, Playwright. Ends with one line, "N passed, N failed", the sums of Jest and Playwright.
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { DEMO_SERVERS, DICTIONARIES, RELAY, ensureBuilt, ensureDebian, ensurePackages, ROOT } from './lib.mjs';

ensurePackages();
ensureDebian(['postgresql', 'chromium', ...DEMO_SERVERS, RELAY, ...DICTIONARIES]);
await ensureBuilt();
const LOCAL = path.join(ROOT, '.local');
fs.mkdirSync(LOCAL, { recursive: true });
// Browser tests run in groups, each with a file of its own.
const results = { jest: path.join(LOCAL, 'jest.json'), playwright: path.join(LOCAL, 'playwright-results') };
for (const at of Object.values(results)) fs.rmSync(at, { recursive: true, force: true });
const step = (args, env = {}) =>
  spawnSync(process.execPath, args, { cwd: ROOT, stdio: 'inherit', env: { ...process.env, ...env } }).status === 0;

const lint = step(['scripts/lint.mjs']);
// A test that fails may leave a connection open: it is told as failed, and must not keep the rest waiting.
const jest = step(['node_modules/jest/bin/jest.js', '--forceExit', '--json', `--outputFile=${results.jest}`]);
const e2e = step(['scripts/e2e.mjs'], { E2E_JSON: results.playwright });

const read = (file) => (fs.existsSync(file) ? JSON.parse(fs.readFileSync(file, 'utf8')) : undefined);
const unit = read(results.jest);
const browser = ['0.json', '1.json'].map((file) => read(path.join(results.playwright, file)));
const inBrowser = (what) => browser.reduce((sum, group) => sum + (group?.stats[what] ?? 0), 0);
const passed = (unit?.numPassedTests ?? 0) + inBrowser('expected') + inBrowser('flaky');
const failed =
  (unit?.numFailedTests ?? 0) +
  (unit?.numRuntimeErrorTestSuites ?? 0) +
  inBrowser('unexpected') +
  (lint ? 0 : 1) +
  (unit ? 0 : 1) +
  // A group that did not end has told nothing, and one in which a test was not run is not whole.
  browser.filter((group) => !group || group.stats.skipped > 0).length;
process.stdout.write(`${passed} passed, ${failed} failed\n`);
process.exit(lint && jest && e2e && failed === 0 && passed > 0 ? 0 : 1);
