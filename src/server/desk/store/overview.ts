import type { Instant } from '../../../core/base';
import type { Tx } from '../../db';

export interface OpenCounts {
  readonly pairs: number;
  readonly doubts: number;
  readonly firsts: number;
  readonly told: number;
  readonly listsToday: number;
  readonly sentToday: number;
  readonly liveFlows: number;
}

/** How much of everything waits for a person, and what came and went since the day began; each by an index of its own. */
export async function openCounts(
  tx: Tx,
  ask: { readonly now: Instant; readonly userId: string | null; readonly dayFrom: Instant; readonly dayTo: Instant },
): Promise<OpenCounts> {
  const [row] = await tx<OpenCounts[]>`select
    (select count(*)::int from pair where state = 'open' and (later_until is null or later_until <= ${ask.now})) as pairs,
    (select count(*)::int from effect where state = 'in doubt') as doubts,
    (select count(*)::int from flow_version v where v.first_n is not null
      and exists (select 1 from trip h where h.flow_id = v.flow_id and h.version_id = v.id and h.hold = 'first' and h.ended_at is null)) as firsts,
    (select count(*)::int from notice where user_id = ${ask.userId}::uuid and read_at is null) as told,
    (select count(*)::int from import where state <> 'looked at' and created_at >= ${ask.dayFrom}) as lists_today,
    (select count(*)::int from effect where kind = 'send' and state = 'done' and due_at >= ${ask.dayFrom} and due_at < ${ask.dayTo}) as sent_today,
    (select count(*)::int from flow where live_version_id is not null) as live_flows`;
  if (!row) throw new Error('counting gives a row');
  return row;
}
