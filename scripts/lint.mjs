#!/usr/bin/env node
// `npm run lint`: layout, layers, types and rules. Every check is run; the first that fails is not the last you hear.
import { spawnSync } from 'node:child_process';
import { ROOT } from './lib.mjs';

const CHECKS = [
  ['layout', ['node_modules/prettier/bin/prettier.cjs', '--check', '--log-level', 'warn', '.']],
  ['layers', ['node_modules/dependency-cruiser/bin/dependency-cruise.mjs', '--config', 'lint/layers.cjs', 'src', 'e2e', 'bench']],
  ['types', ['node_modules/typescript/bin/tsc', '--noEmit']],
  ['rules', ['node_modules/eslint/bin/eslint.js', 'src', 'e2e', 'bench', 'lint']],
];
let failed = 0;
for (const [name, args] of CHECKS) {
  const { status } = spawnSync(process.execPath, args, { cwd: ROOT, stdio: 'inherit' });
  process.stdout.write(`${status === 0 ? '✓' : '✕'} ${name}\n`);
  if (status !== 0) failed += 1;
}
process.exit(failed === 0 ? 0 : 1);
