#!/usr/bin/env node
// `npm run evaluate [-- WEB_FOLDER KEY_FILE]`: the built-in reader against a key made by people. Exits non-zero below the bars.
import { spawnSync } from 'node:child_process';
import { ensurePackages, ROOT } from './lib.mjs';

ensurePackages();
process.exit(
  spawnSync(process.execPath, ['--import', 'tsx', 'src/testing/evaluate-main.ts', ...process.argv.slice(2)], {
    cwd: ROOT,
    stdio: 'inherit',
  }).status ?? 1,
);
