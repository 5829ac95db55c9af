#!/usr/bin/env node
// `npm run sessions -- end EMAIL|all [--empty]`: ends the sessions of one person, or everybody's, at once and everywhere.
import path from 'node:path';
import { ensureBuilt, ensurePackages, fail, ROOT, runProgram, say, startDatabase } from './lib.mjs';
import { readKey } from './key-file.mjs';

const [what, whose] = process.argv.slice(2);
const empty = process.argv.includes('--empty');
if (what !== 'end' || !whose || whose.startsWith('--')) fail('npm run sessions -- end EMAIL|all [--empty]');
const home = empty ? path.join(ROOT, '.local/empty') : ROOT;
const key = process.env.MILLRACE_SECRET ?? readKey(home);
if (!key) fail('nothing has been started here yet');
ensurePackages();
await ensureBuilt();
const databaseUrl = empty && process.env.DATABASE_URL ? process.env.DATABASE_URL : startDatabase(home);
const told = runProgram('server/wire/sessions', { DATABASE_URL: databaseUrl, MILLRACE_SECRET: key }, [whose]);
say(`${told.stdout.trim()} ended`);
