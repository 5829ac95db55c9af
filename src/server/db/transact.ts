import type { Db, Tx } from './connect';

/** SQLSTATE of a transaction that was ended so that another could go on: it left nothing behind and may be run again. */
const VICTIM: ReadonlySet<unknown> = new Set(['40001', '40P01']);
const TRIES = 4;

/**
 * Runs work in one transaction, again when the database ended it in favour of another one that it stood in the way of (a
 * deadlock, at most a few times). The work must change nothing outside the database.
 */
export async function transact<T>(db: Db, work: (tx: Tx) => Promise<T>, tries = TRIES): Promise<T> {
  try {
    return (await db.begin(work)) as T;
  } catch (error) {
    if (tries > 1 && error instanceof Error && 'code' in error && VICTIM.has(error.code)) return transact(db, work, tries - 1);
    throw error;
  }
}
