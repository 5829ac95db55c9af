import type { LiveEvent } from '../../../api';
import type { Db, Tx } from '../../db';

const CHANNEL = 'millrace_seen';

/** Tells every web process; it reaches them when the transaction is committed. */
export async function notifyViewers(tx: Tx, event: LiveEvent): Promise<void> {
  await tx`select pg_notify(${CHANNEL}, ${JSON.stringify(event)})`;
}

/** Calls back with every event as it was sent, until the returned function is called; `onConnect` after each (re)connection. */
export async function listenForViewers(db: Db, onEvent: (payload: string) => void, onConnect: () => void): Promise<() => Promise<void>> {
  const listening = await db.listen(CHANNEL, onEvent, onConnect);
  return () => listening.unlisten();
}
