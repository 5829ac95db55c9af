import type { Instant, JsonObject } from '../../../core/base';
import type { Verdict } from '../../../core/engine';
import type { Tx } from '../../db';

/** Of these verdicts those that a person has overruled before. */
export async function overruled(tx: Tx, verdicts: readonly Verdict[]): Promise<ReadonlySet<Verdict>> {
  if (verdicts.length === 0) return new Set();
  const rows = await tx<{ screen: string; about: string }[]>`
    select e.screen, e.about from screen_example e join jsonb_to_recordset(${tx.json(verdicts as never)}) as v(screen text, about text) using (screen, about)`;
  return new Set(verdicts.filter((verdict) => rows.some((row) => row.screen === verdict.screen && row.about === verdict.about)));
}

export async function keepExamples(
  tx: Tx,
  verdicts: readonly Verdict[],
  by: { readonly tripId: string; readonly userId: string | null },
  now: Instant,
): Promise<void> {
  for (const { screen, about } of verdicts)
    await tx`insert into screen_example (screen, about, trip_id, user_id, at) values (${screen}, ${about}, ${by.tripId}, ${by.userId}, ${now}) on conflict do nothing`;
}

/** An entry of the same person, or with the same words, within some days before the trip’s own one, or before the trip. */
export async function sameBefore(
  tx: Tx,
  ask: {
    readonly personId: string;
    readonly own: string | null;
    readonly before: Instant;
    readonly since: Instant;
    readonly longest: string;
  },
): Promise<{ readonly at: Instant; readonly intake: string } | undefined> {
  const [row] = await tx<{ at: Instant; intake: string }[]>`
    select e.received_at as at, i.name as intake from intake_entry e join intake i on i.id = e.intake_id
    where e.state = 'taken' and e.received_at >= ${ask.since} and e.id is distinct from ${ask.own} and e.received_at < coalesce((select received_at from intake_entry where id = ${ask.own}), ${ask.before})
      and (e.person_id = ${ask.personId} or (${ask.longest} <> '' and exists (select from jsonb_each_text(e.answers) a where a.value = ${ask.longest})))
    order by e.received_at desc limit 1`;
  return row;
}

/** A trip with what it came with and the version that is live now. */
export async function endedTrip(
  tx: Tx,
  id: string,
): Promise<
  | {
      readonly flowId: string;
      readonly versionId: string | null;
      readonly personId: string;
      readonly dealId: string | null;
      readonly state: string;
      readonly entry: JsonObject | null;
    }
  | undefined
> {
  const [row] = await tx<
    { flowId: string; versionId: string | null; personId: string; dealId: string | null; state: string; entry: JsonObject | null }[]
  >`select t.flow_id, f.live_version_id as version_id, t.person_id, t.deal_id, t.state, t.vars -> 'entry' as entry
    from trip t join flow f on f.id = t.flow_id where t.id = ${id} and t.trial_id is null`;
  return row;
}
