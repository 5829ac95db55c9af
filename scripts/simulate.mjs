#!/usr/bin/env node
// `npm run simulate [-- SEED | -- FROM TO]`: the engine in its made-up world; one seed again, or many. Exits non-zero when one breaks a promise.
import { spawnSync } from 'node:child_process';
import { ensurePackages, ROOT } from './lib.mjs';

ensurePackages();
process.exit(
  spawnSync(process.execPath, ['--import', 'tsx', 'src/testing/simulate-main.ts', ...process.argv.slice(2)], {
    cwd: ROOT,
    stdio: 'inherit',
  }).status ?? 1,
);
