#!/usr/bin/env node
// Writes src/api/routes.gen.ts: method, path and kind of file of every operation, for the browser, which checks no shapes.
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
const { OPERATIONS } = await import(out);
const lines = Object.entries(OPERATIONS).map(
  ([id, { method, path: at, takesFile }]) =>
    `  ${id}: { method: '${method}', path: '${at}'${takesFile ? `, takesFile: '${takesFile}'` : ''} },\n`,
);
fs.writeFileSync(
  path.join(ROOT, 'src/api/routes.gen.ts'),
  `/* Made by scripts/routes.mjs from the operations; a test holds it to them. */\nexport const ROUTES = {\n${lines.join('')}} as const;\n`,
);
