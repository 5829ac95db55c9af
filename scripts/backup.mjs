#!/usr/bin/env node
// `npm run backup -- FILE [--empty]`: the whole workspace as one file, while it runs. The key that seals its secrets is not in it (docs/running.md).
import path from 'node:path';
import { dump } from './backup-lib.mjs';
import { ensurePackages, fail, ROOT, say, startDatabase } from './lib.mjs';
import { keyFile } from './key-file.mjs';

const empty = process.argv.includes('--empty');
const file = process.argv.slice(2).find((word) => !word.startsWith('--'));
if (!file) fail('npm run backup -- FILE [--empty]');
ensurePackages();
const home = empty ? path.join(ROOT, '.local/empty') : ROOT;
try {
  const bytes = dump(process.env.DATABASE_URL ?? startDatabase(home), file);
  const key = path.relative(process.cwd(), keyFile(home));
  say(`${file}: ${(bytes / 1e6).toFixed(1)} MB. Keep ${key} apart from it: without that key the passwords in it cannot be read.`);
} catch (error) {
  fail(error instanceof Error ? error.message : String(error));
}
