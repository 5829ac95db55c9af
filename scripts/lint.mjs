#!/usr/bin/env node
// `npm run lint`: layout, layers, types and rules. Every check is run; the first that fails is not the last you hear.
import { spawn } from 'node:child_process';
import { ROOT } from './lib.mjs';

const CHECKS = [
  ['layout', ['node_modules/prettier/bin/prettier.cjs', '--check', '--log-level', 'warn', '.']],
  ['layers', ['node_modules/dependency-cruiser/bin/dependency-cruise.mjs', '--config', 'lint/layers.cjs', 'src', 'e2e', 'bench']],
  ['no trade', ['lint/trade-words.mjs']],
  ['types', ['node_modules/typescript/bin/tsc', '--noEmit']],
  ['rules', ['node_modules/eslint/bin/eslint.js', 'src', 'e2e', 'bench', 'lint']],
];
// The rules take as long as the rest together, so both cores have work.
const run = ([name, args]) =>
  new Promise((resolve) => {
    const child = spawn(process.execPath, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'] });
    const said = [];
    for (const out of [child.stdout, child.stderr]) out.on('data', (part) => said.push(part));
    child.on('close', (status) => {
      process.stdout.write(Buffer.concat(said));
      process.stdout.write(`${status === 0 ? '✓' : '✕'} ${name}\n`);
      resolve(status === 0);
    });
  });
const oneByOne = async (checks) => {
  const went = [];
  for (const check of checks) went.push(await run(check));
  return went;
};
const went = await Promise.all([oneByOne(CHECKS.slice(0, -1)), oneByOne(CHECKS.slice(-1))]);
process.exit(went.flat().every(Boolean) ? 0 : 1);
