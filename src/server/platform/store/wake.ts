import type { Db, Tx } from '../../db';

const CHANNEL = 'millrace_work';

/** Tells idle workers that there is work; it reaches them when the transaction is committed. */
export async function wakeWorkers(tx: Tx): Promise<void> {
  await tx`select pg_notify(${CHANNEL}, '')`;
}

/** Calls back for every word of work, until the returned function is called. A word may be lost: who listens polls too. */
export async function listenForWork(db: Db, onWork: () => void): Promise<() => Promise<void>> {
  const listening = await db.listen(CHANNEL, onWork);
  return () => listening.unlisten();
}
