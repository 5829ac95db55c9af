import type { Tx } from '../../db';

/** Ids of people who came by an intake or a list of that name and have no trip of the flow, those who came first in front. */
export async function peopleCameBefore(
  tx: Tx,
  flowId: string,
  { kind, name }: { readonly kind: string; readonly name: string },
): Promise<string[]> {
  const rows = await tx<{ personId: string }[]>`
    with came as (
      select e.person_id, min(e.received_at) as at, min(e.no) as no from intake_entry e join intake i on i.id = e.intake_id
      where i.kind = ${kind} and i.name = ${name} and e.state = 'taken' and e.person_id is not null group by 1
      union all
      select r.person_id, min(l.created_at), min(r.row) from import_row r join import l on l.id = r.import_id
      where ${kind} = 'file' and l.label = ${name} and l.state = 'done' and r.person_id is not null group by 1)
    select person_id from came join person p on p.id = came.person_id and p.merged_into is null
    where not exists (select from trip t where t.flow_id = ${flowId} and t.trial_id is null and t.person_id = came.person_id)
    group by person_id order by min(came.at), min(came.no)`;
  return rows.map((row) => row.personId);
}
