#!/usr/bin/env node
// `npm run restore -- FILE [--empty]`: brings a backup back in place of what is there, also while it runs. What was there stays beside it.
import fs from 'node:fs';
import path from 'node:path';
import { bringBack } from './backup-lib.mjs';
import { ensureBuilt, ensurePackages, fail, ROOT, runProgram, say, startDatabase } from './lib.mjs';
import { ownKey } from './key-file.mjs';

const empty = process.argv.includes('--empty');
const file = process.argv.slice(2).find((word) => !word.startsWith('--'));
if (!file || !fs.existsSync(file)) fail(file ? `there is no file ${file}` : 'npm run restore -- FILE [--empty]');
ensurePackages();
await ensureBuilt();
const home = empty ? path.join(ROOT, '.local/empty') : ROOT;
try {
  // A backup of an older version is brought up to this one before anybody sees it.
  const old = await bringBack(process.env.DATABASE_URL ?? startDatabase(home), file, (url) => {
    runProgram('server/wire/migrate', { DATABASE_URL: url, MILLRACE_SECRET: process.env.MILLRACE_SECRET ?? ownKey(home) });
  });
  say(`${file} is back. What was there is kept as the database ${old}: drop it when all is well.`);
} catch (error) {
  fail(error instanceof Error ? error.message : String(error));
}
