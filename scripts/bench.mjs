#!/usr/bin/env node
// `npm run bench [TRIPS] [ROWS]`: the figures of the bench, on a database cluster of its own.
// `npm run bench -- scale [TRIPS] [WAITING]`: how it grows with workers, and an idle engine.
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { buildPrograms, ensureDebian, ensurePackages, ROOT, run, startDatabase, stopDatabase } from './lib.mjs';

ensurePackages();
ensureDebian(['postgresql']);
const HOME = path.join(ROOT, '.local/bench');
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
    ['--import', 'tsx', scale ? 'bench/scale.ts' : 'bench/run.ts', ...process.argv.slice(scale ? 3 : 2)],
    {
      cwd: ROOT,
      stdio: 'inherit',
      env: { ...process.env, ...env },
    },
  ));
} finally {
  stopDatabase(HOME, 'destroy');
}
process.exit(status ?? 1);
