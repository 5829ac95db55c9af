/** Floors: the least that must be done anyway, measured in the same run on the same machine. */
import postgres from 'postgres';

type Rows = readonly Record<string, unknown>[];

/** Milliseconds that `work` takes. */
export async function timed(work: () => Promise<unknown>): Promise<number> {
  const started = performance.now();
  await work();
  return performance.now() - started;
}

const BATCH = 1000;

/**
 * Writes what a run of the engine has written at `from` into a copy of its database as it was before, by plain batched statements,
 * one transaction per thousand trips. Rows are read back batch by batch, outside the time taken. Returns milliseconds.
 */
export async function writeFloor(from: string, to: string): Promise<number> {
  const source = postgres(from, { max: 1, onnotice: () => undefined });
  const sql = postgres(to, { max: 2, onnotice: () => undefined });
  const trips = await source<{ id: string; person: string; company: string }[]>`
    select t.id, t.person_id as person, p.company_id as company from trip t join person p on p.id = t.person_id order by t.id`;
  let ms = 0;
  for (let i = 0; i < trips.length; i += BATCH) {
    const some = trips.slice(i, i + BATCH);
    const [ids, people, companies] = [some.map((row) => row.id), some.map((row) => row.person), some.map((row) => row.company)];
    const rows = async (text: string, keys: readonly string[]): Promise<Rows> => [
      ...(await source.unsafe<Record<string, unknown>[]>(text, [keys as string[]])),
    ];
    const written = {
      journal: await rows(
        'select trip_id, seq, mark, verb, outcome, says, detail, cost_micro, took_ms, at from journal where trip_id = any($1)',
        ids,
      ),
      facts: await rows(
        "select record_kind, record_id, field, value, source, source_ref, confidence, observed_at, trip_id, mark from fact where source = 'flow' and record_kind in ('person', 'company') and record_id = any($1)",
        [...people, ...companies],
      ),
      timeline: await rows(
        "select record_kind, record_id, at, kind, says, detail from timeline where kind = 'note' and record_kind in ('person', 'company') and record_id = any($1)",
        [...people, ...companies],
      ),
      trips: await rows('select id, state, state_detail, at, vars, seq, ended_at from trip where id = any($1)', ids),
      people: await rows('select id, status from person where id = any($1)', people),
      companies: await rows('select id, status from company where id = any($1)', companies),
    };
    ms += await timed(() =>
      sql.begin(async (tx) => {
        const json = (given: Rows) => tx.json(given as never);
        await tx`insert into journal select * from jsonb_populate_recordset(null::journal, ${json(written.journal)})`;
        await tx`insert into fact (record_kind, record_id, field, value, source, source_ref, confidence, observed_at, trip_id, mark)
          select record_kind, record_id, field, value, source, source_ref, confidence, observed_at, trip_id, mark from jsonb_populate_recordset(null::fact, ${json(written.facts)})`;
        await tx`insert into timeline (record_kind, record_id, at, kind, says, detail) select record_kind, record_id, at, kind, says, detail from jsonb_populate_recordset(null::timeline, ${json(written.timeline)})`;
        await tx`update trip t set state = r.state, state_detail = r.state_detail, at = r.at, vars = r.vars, seq = r.seq, ended_at = r.ended_at, due_at = null from jsonb_populate_recordset(null::trip, ${json(written.trips)}) r where t.id = r.id`;
        await tx`update person p set status = r.status from jsonb_populate_recordset(null::person, ${json(written.people)}) r where p.id = r.id`;
        await tx`update company c set status = r.status from jsonb_populate_recordset(null::company, ${json(written.companies)}) r where c.id = r.id`;
      }),
    );
  }
  await source.end();
  await sql.end();
  return ms;
}

/** Bare COPY of a CSV text into a table of text columns. Returns milliseconds. */
export async function copyFloor(url: string, csv: string, columns: number): Promise<number> {
  const sql = postgres(url, { max: 1, onnotice: () => undefined });
  await sql.unsafe(`create table bare (${Array.from({ length: columns }, (_, i) => `c${i} text`).join(', ')})`);
  const ms = await timed(async () => {
    const stream = await sql`copy bare from stdin with (format csv, header true)`.writable();
    await new Promise<void>((resolve, reject) => {
      stream.on('finish', resolve);
      stream.on('error', reject);
      stream.end(csv);
    });
  });
  await sql.unsafe('drop table bare');
  await sql.end();
  return ms;
}
