import type { Instant } from '../../../core/base';
import type { Tx } from '../../db';

/** What came of a text that was sent or done: answers after it and before what came next in its conversation. */
export interface TextFigures {
  readonly template: string;
  readonly reached: number;
  readonly answered: number;
  readonly bounced: number;
  readonly unsubscribed: number;
}

/** Figures of texts by name, of touches of plans. `people`: kinds of answer that a person gives and that bar nobody. */
export async function textFigures(
  tx: Tx,
  templates: readonly string[],
  kinds: { readonly people: readonly string[]; readonly bounces: readonly string[]; readonly bars: readonly string[] },
): Promise<ReadonlyMap<string, TextFigures>> {
  const rows = await tx<TextFigures[]>`
    select m.template, count(*)::int as reached,
      count(*) filter (where r.kind = any(${[...kinds.people]}::text[]) or (m.channel = 'call' and e.says like 'talked%'))::int as answered,
      count(*) filter (where r.kind = any(${[...kinds.bounces]}::text[]))::int as bounced,
      count(*) filter (where r.kind = any(${[...kinds.bars]}::text[]) or (m.channel = 'call' and e.says like 'wants no more%'))::int as unsubscribed
    from message m join effect e on e.message_id = m.id and e.kind in ('send', 'task') and e.state = 'done'
      left join lateral (
        select i.reading ->> 'kind' as kind from message i where i.thread_id = m.thread_id and i.direction = 'in' and i.at >= e.ended_at
          and i.at < coalesce((select min(n.ended_at) from message o join effect n on n.message_id = o.id and n.state = 'done' where o.thread_id = m.thread_id and n.ended_at > e.ended_at), 'infinity')
        order by i.at limit 1) r on true
    where m.template = any(${[...templates]}::text[]) and m.touch is not null group by m.template`;
  return new Map(rows.map((row) => [row.template, row]));
}

/** Mails planned from a mailbox by its local day, those of some texts apart. */
export async function plannedByDay(
  tx: Tx,
  box: { readonly name: string; readonly zone: string },
  ask: { readonly templates: readonly string[]; readonly from: Instant; readonly to: Instant },
): Promise<readonly { readonly day: string; readonly own: number; readonly others: number }[]> {
  return [
    ...(await tx<{ day: string; own: number; others: number }[]>`
      select to_char(e.due_at at time zone ${box.zone}, 'YYYY-MM-DD') as day,
        count(*) filter (where m.template = any(${[...ask.templates]}::text[]))::int as own,
        count(*) filter (where m.template is null or not m.template = any(${[...ask.templates]}::text[]))::int as others
      from effect e join message m on m.id = e.message_id
      where e.kind = 'send' and e.mailbox = ${box.name} and e.due_at >= ${ask.from} and e.due_at < ${ask.to} and e.state in ('planned', 'started', 'done', 'in doubt')
      group by 1`),
  ];
}
