#!/usr/bin/env node
// `npm start`: everything from a fresh checkout to a running Millrace. `-- --empty` starts without demo data and stand-ins,
// `-- --world NAME` with another demo world than the first.
import net from 'node:net';
import path from 'node:path';
import {
  DEMO_SERVERS,
  DICTIONARIES,
  ensureBuilt,
  ensureDebian,
  ensurePackages,
  fail,
  ROOT,
  runProgram,
  say,
  startDatabase,
  startProcesses,
  stopDatabase,
  worldFolderOf,
} from './lib.mjs';
import { keyFile, newKeyBeside, ownKey, takeNewKey } from './key-file.mjs';
import { freePort, portIsFree } from './ports.mjs';

const empty = process.argv.includes('--empty');
const worldAt = process.argv.indexOf('--world');
const worldName = worldAt < 0 ? undefined : process.argv[worldAt + 1];
const unknown = process.argv.slice(2).find((word, i) => word !== '--empty' && word !== '--world' && i + 2 !== worldAt + 1);
if (unknown) fail(`unknown option ${unknown}: there are --empty and --world NAME`);
const worldFolder = worldFolderOf(worldName);
const home = empty ? path.join(ROOT, '.local/empty') : worldName === undefined ? ROOT : path.join(ROOT, '.local/worlds', worldName);
const tokenHome = path.join(home, worldName === undefined ? '.local' : '');
const ownDatabase = !(empty && process.env.DATABASE_URL);

ensurePackages();
ensureDebian([...(ownDatabase ? ['postgresql'] : []), ...(empty ? [] : DEMO_SERVERS), ...DICTIONARIES]);
const databaseUrl = ownDatabase ? startDatabase(home) : process.env.DATABASE_URL;
let running;
let stopping = false;
async function stop(code = 0) {
  if (stopping) return;
  stopping = true;
  await running?.stop();
  if (ownDatabase) stopDatabase(home);
  process.exit(code);
}
process.on('SIGINT', () => void stop());
process.on('SIGTERM', () => void stop());

/** Our own database is started again when it is gone; web and workers take it up by themselves. */
function watchDatabase(url) {
  const { hostname, port } = new URL(url);
  const answers = () =>
    new Promise((resolve) => {
      const socket = net.connect({ host: hostname, port: Number(port), timeout: 2_000 });
      const end = (is) => {
        socket.destroy();
        resolve(is);
      };
      socket
        .once('connect', () => end(true))
        .once('error', () => end(false))
        .once('timeout', () => end(false));
    });
  const look = async () => {
    if (stopping) return;
    if (!(await answers()) && !(await answers()) && !stopping) {
      process.stderr.write('the database is gone: started again\n');
      try {
        startDatabase(home, { allowFailure: true });
      } catch (error) {
        process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
      }
    }
    setTimeout(look, 2_000);
  };
  setTimeout(look, 2_000);
}

try {
  await ensureBuilt();
  const base = {
    DATABASE_URL: databaseUrl,
    MILLRACE_DEMO: empty ? '0' : '1',
    MILLRACE_WORLD: worldFolder,
    MILLRACE_SECRET: process.env.MILLRACE_SECRET ?? ownKey(home),
  };
  runProgram('server/wire/migrate', base);
  // Before there were key files, the database's own address was the key: what it sealed is moved once.
  const settle = (secret) =>
    runProgram(
      'server/wire/keys',
      { ...base, MILLRACE_SECRET: secret, MILLRACE_OLD_SECRET: process.env.MILLRACE_OLD_SECRET ?? databaseUrl },
      ['settle'],
      { allowFailure: true },
    );
  let key = settle(base.MILLRACE_SECRET);
  const beside = process.env.MILLRACE_SECRET ? undefined : newKeyBeside(home);
  if (key.stdout.trim() === 'wrong' && beside) {
    // A rotation was cut off after the database had taken the new key.
    key = settle(beside);
    if (key.stdout.trim() === 'fits') {
      takeNewKey(home);
      base.MILLRACE_SECRET = beside;
    }
  }
  if (key.stdout.trim() === 'wrong')
    throw new Error(
      `The key does not fit this database: its passwords and links were sealed with another one. Nothing was changed.\nPut the key back into ${path.relative(ROOT, keyFile(home))} or set MILLRACE_SECRET to it, then start again.`,
    );
  if (key.status !== 0) throw new Error(`the key could not be looked at\n${key.stderr}`);
  if (key.stdout.trim() === 'moved')
    say(`Passwords and links now rest on the key in ${path.relative(ROOT, keyFile(home))}: keep a copy of it.`);
  const told = runProgram(
    empty ? 'server/wire/first' : 'server/wire/demo',
    base,
    empty ? [] : [path.join(worldFolder, 'workspace.json'), path.join(tokenHome, 'demo-token')],
  ).stdout.trim();
  if (empty && told) say(told);
  const wanted = Number(process.env.PORT ?? 3417);
  const port = (await portIsFree(wanted)) ? wanted : await freePort();
  running = await startProcesses({
    databaseUrl,
    demo: !empty,
    port,
    restart: true,
    ...(empty ? {} : { journal: path.join(tokenHome, 'mail-taken.jsonl') }),
    env: {
      MILLRACE_PUBLIC_URL: process.env.MILLRACE_PUBLIC_URL ?? `http://127.0.0.1:${port}`,
      MILLRACE_SECRET: base.MILLRACE_SECRET,
      MILLRACE_WORLD: worldFolder,
    },
  });
  if (ownDatabase) watchDatabase(databaseUrl);
  say(`Millrace is ready: ${running.url}   (Ctrl-C stops it)`);
} catch (error) {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  await stop(1);
}
