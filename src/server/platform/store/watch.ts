/** How the work stands, in a few numbers; each counted by an index. */
import type { Instant } from '../../../core/base';
import type { Tx } from '../../db';

export interface Standing {
  readonly tripsDue: number;
  readonly tripsStuck: number;
  readonly sendsDue: number;
  /** of what is due, what waits longest, in seconds */
  readonly oldestSendSeconds: number;
  readonly callsDue: number;
  readonly inDoubt: number;
  readonly listsWaiting: number;
  readonly reviewsOpen: number;
}
export async function standing(tx: Tx, now: Instant): Promise<Standing> {
  const [row] = await tx<Standing[]>`select
    (select count(*)::int from trip where ended_at is null and due_at <= ${now} and state = 'ready') as trips_due,
    (select count(*)::int from trip where state = 'stuck' and ended_at is null and trial_id is null) as trips_stuck,
    (select count(*)::int from effect where kind = 'send' and state = 'planned' and due_at <= ${now}) as sends_due,
    (select coalesce(greatest(0, extract(epoch from (${now}::timestamptz - min(due_at)))), 0)::int from effect where kind = 'send' and state = 'planned' and due_at <= ${now}) as oldest_send_seconds,
    (select count(*)::int from effect where kind <> 'send' and state = 'planned' and due_at <= ${now}) as calls_due,
    (select count(*)::int from effect where state = 'in doubt') as in_doubt,
    (select count(*)::int from import where state in ('queued', 'running')) as lists_waiting,
    (select count(*)::int from review where state = 'open') as reviews_open`;
  if (!row) throw new Error('counting gives a row');
  return row;
}
