#!/usr/bin/env node
// `npm run keys -- rotate [--empty]`: a new key for secrets and links. What was sealed is sealed anew, links that went out still open.
import fs from 'node:fs';
import path from 'node:path';
import { ensureBuilt, ensurePackages, fail, ROOT, runProgram, say, startDatabase } from './lib.mjs';
import { keyFile, newKey, readKey } from './key-file.mjs';

const empty = process.argv.includes('--empty');
if (process.argv[2] !== 'rotate') fail('npm run keys -- rotate [--empty]');
const home = empty ? path.join(ROOT, '.local/empty') : ROOT;
const file = keyFile(home);
if (process.env.MILLRACE_SECRET && !process.env.MILLRACE_NEW_SECRET)
  fail('the key comes from MILLRACE_SECRET: say the new one in MILLRACE_NEW_SECRET, run this, and set MILLRACE_SECRET to it');
const current = process.env.MILLRACE_SECRET ?? readKey(home);
if (!current) fail(`there is no key yet (${path.relative(ROOT, file)}): the first start makes one`);
ensurePackages();
await ensureBuilt();
const databaseUrl = empty && process.env.DATABASE_URL ? process.env.DATABASE_URL : startDatabase(home);
const next = process.env.MILLRACE_NEW_SECRET ?? newKey();
// Kept beside until the database has taken it: whatever happens between, one of the two fits.
if (!process.env.MILLRACE_SECRET) fs.writeFileSync(`${file}.new`, `${next}\n`, { mode: 0o600 });
const told = runProgram('server/wire/keys', { DATABASE_URL: databaseUrl, MILLRACE_SECRET: current, MILLRACE_NEW_SECRET: next }, ['move']);
if (!process.env.MILLRACE_SECRET) fs.renameSync(`${file}.new`, file);
say(`${told.stdout.trim()}\nStop Millrace and start it again: it runs with the old key until then.`);
