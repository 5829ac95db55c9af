// A whole database as one file, and back from it, while others are at work in it.
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import postgres from 'postgres';

const quiet = { stdio: ['ignore', 'inherit', 'inherit'] };
const why = (run) => (run.error ? `: ${run.error.message}` : '');

/** Throws when it cannot be made; a file that stands there is whole. Returns its size in bytes. */
export function dump(databaseUrl, file) {
  const part = `${file}.part`;
  const run = spawnSync('pg_dump', ['--format=custom', '--no-owner', '--no-privileges', `--file=${part}`, databaseUrl], quiet);
  if (run.error || run.status !== 0) {
    fs.rmSync(part, { force: true });
    throw new Error(`the backup could not be made${why(run)}`);
  }
  fs.chmodSync(part, 0o600);
  fs.renameSync(part, file);
  return fs.statSync(file).size;
}

/** Puts what `file` holds in the place of a database; `prepare` is called with the address of the new one before anybody sees it. Returns the old one's name. */
export async function bringBack(databaseUrl, file, prepare = () => undefined) {
  const name = new URL(databaseUrl).pathname.slice(1);
  const at = (database) => Object.assign(new URL(databaseUrl), { pathname: `/${database}` }).toString();
  const stamp = `${new Date().toISOString().replace(/\D/g, '').slice(0, 14)}_${process.pid}`;
  const [fresh, old] = [`${name}_from_${stamp}`, `${name}_before_${stamp}`];
  const sql = postgres(at('postgres'), { max: 1, onnotice: () => undefined });
  try {
    await sql.unsafe(`create database "${fresh}"`);
    try {
      const run = spawnSync('pg_restore', ['--no-owner', '--no-privileges', '--exit-on-error', `--dbname=${at(fresh)}`, file], quiet);
      if (run.error || run.status !== 0) throw new Error(`${file} could not be brought back${why(run)}; what was there is as it was`);
      await prepare(at(fresh));
      await swap(sql, name, fresh, old);
    } catch (error) {
      await sql.unsafe(`drop database if exists "${fresh}"`);
      throw error;
    }
    return old;
  } finally {
    await sql.end({ timeout: 2 });
  }
}

/** Nobody comes in while the two change names; whoever was connected is sent away and comes back to the new one. */
async function swap(sql, name, fresh, old) {
  await sql.unsafe(`alter database "${name}" with allow_connections false`);
  try {
    for (let tries = 0; tries < 50; tries++) {
      const there = await sql`select pg_terminate_backend(pid) from pg_stat_activity where datname = ${name}`;
      if (there.length === 0) break;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    await sql.unsafe(`alter database "${name}" rename to "${old}"`);
  } catch (error) {
    await sql.unsafe(`alter database "${name}" with allow_connections true`);
    throw error;
  }
  await sql.unsafe(`alter database "${fresh}" rename to "${name}"`);
  await sql.unsafe(`alter database "${old}" with allow_connections true`);
}
