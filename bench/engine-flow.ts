import postgres from 'postgres';
import type { Actor } from '../src/server/platform/world';
import { startOn } from '../src/server/flows/flows';
import type { TestWorld } from '../src/testing/world';

/** Eight lines that only compute, as the bar asks. */
export const BENCH_FLOW = `flow "Bench"
about person

take in from hand
keep when email != null
set status = "seen"
score company with "Grower fit" as fit
split
  when fit.points >= 60
    note "hot: " + fit.why
    set company.status = "hot"
  else
    note "cold: " + fit.why
    set company.status = "cold"
keep when status = "seen"
`;

/** As many people as trips, each with a company of its own, made by the database. */
export async function fill(world: TestWorld, count: number): Promise<void> {
  const sql = postgres(world.url, { max: 1, onnotice: () => undefined });
  await sql`insert into company (id, name, custom, country, created_at)
    select md5('c' || i)::uuid, 'Company ' || i, jsonb_build_object('heated_area', (i % 90) / 10.0, 'all_year', i % 3 = 0, 'controls_since', 1990 + i % 36), 'GB', now() from generate_series(1, ${count}) i`;
  await sql`insert into person (id, name, email, company_id, created_at) select md5('p' || i)::uuid, 'Person ' || i, 'p' || i || '@x.example', md5('c' || i)::uuid, now() from generate_series(1, ${count}) i`;
  await sql`analyze`;
  await sql.end();
}

/** Everybody there is begins a trip, a few thousand at a time, so that no list of all is ever held. */
export async function startAll(world: TestWorld, actor: Actor, flowId: string): Promise<void> {
  for (let after = '00000000-0000-0000-0000-000000000000'; ;) {
    const some = await world.db<{ id: string }[]>`select id from person where id > ${after} order by id limit 5000`;
    const last = some.at(-1);
    if (!last) return;
    await startOn(
      world,
      actor,
      flowId,
      some.map((row) => row.id),
    );
    after = last.id;
  }
}
