#!/usr/bin/env node
// `npm run evaluate`: the built-in reader before the demo's sites, against a key made by people; exits non-zero below the bars.
// `npm run evaluate -- trades`: every trade read with what was learnt from all others.
// `npm run evaluate -- FOLDER KEY [--answers FILE]`: any folder of sites, cold, worded and taught (`docs/questions.md`).
// `npm run evaluate -- lists FOLDER KEY [--answers FILE]`: lists as people send them; `-- mail FOLDER KEY`: answers to our mail.
// `npm run evaluate -- answers [BOOK [aside]]`: answers drafted from a book, those kept aside only when asked for.
// `npm run train`: learns the weights anew.
import { spawnSync } from 'node:child_process';
import { DICTIONARIES, ensureDebian, ensurePackages, ROOT } from './lib.mjs';

ensurePackages();
ensureDebian(DICTIONARIES);
const training = process.argv[2] === 'train';
process.exit(
  spawnSync(
    process.execPath,
    ['--import', 'tsx', `src/testing/evaluate/${training ? 'train-main' : 'main'}.ts`, ...process.argv.slice(training ? 3 : 2)],
    {
      cwd: ROOT,
      stdio: 'inherit',
    },
  ).status ?? 1,
);
