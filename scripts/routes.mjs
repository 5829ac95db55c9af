#!/usr/bin/env node
// Writes src/api/routes.gen.ts: method, path, kind of file and the moments in the answer of every operation, for the browser, which checks no shapes.
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { build } from 'esbuild';
import { ROOT } from './lib.mjs';

const out = path.join(ROOT, '.local/operations.mjs');
await build({
  entryPoints: [path.join(ROOT, 'src/api/index.ts')],
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
  outfile: out,
});
const { OPERATIONS, instantPaths } = await import(out);
const lines = Object.entries(OPERATIONS).map(([id, { method, path: at, takesFile, answer }]) => {
  const instants = instantPaths(answer).map((place) => `'${place}'`);
  return `  ${id}: { method: '${method}', path: '${at}'${takesFile ? `, takesFile: '${takesFile}'` : ''}${instants.length > 0 ? `, instants: [${instants.join(', ')}]` : ''} },\n`;
});
const file = path.join(ROOT, 'src/api/routes.gen.ts');
fs.writeFileSync(
  file,
  `/* Made by scripts/routes.mjs from the operations; a test holds it to them. */\nexport const ROUTES = {\n${lines.join('')}} as const;\n`,
);
execFileSync('npx', ['prettier', '--log-level', 'warn', '--write', file], { cwd: ROOT, stdio: 'inherit' });
