import fs from 'node:fs/promises';
import path from 'node:path';
import type { Db } from './connect';

/**
 * Runs the numbered `.sql` files that have not run yet, each in its own transaction; two starters wait for each other.
 * Refuses a database that a newer Millrace has migrated. Returns the names of the files that ran.
 */
export async function migrate(db: Db, directory: string): Promise<readonly string[]> {
  const files = (await fs.readdir(directory)).filter((name) => /^\d{3}_.+\.sql$/.test(name)).sort();
  await db`create table if not exists migration (name text primary key, ran_at timestamptz not null default now())`;
  const ran: string[] = [];
  for (const name of files) {
    const text = await fs.readFile(path.join(directory, name), 'utf8');
    await db.begin(async (tx) => {
      await tx`select pg_advisory_xact_lock(727001)`;
      const done = await tx`select 1 from migration where name = ${name}`;
      if (done.length > 0) return;
      await tx.unsafe(text);
      await tx`insert into migration (name) values (${name})`;
      ran.push(name);
    });
  }
  const unknown = await db<{ name: string }[]>`select name from migration where not (name = any(${files}))`;
  if (unknown.length > 0)
    throw new Error(`this database was migrated by a newer Millrace (${unknown.map((row) => row.name).join(', ')}): start that one`);
  return ran;
}
