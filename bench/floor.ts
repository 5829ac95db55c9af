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

/** Everything a run of the engine has written, read back from its database. */
export interface Written {
  readonly journal: Rows;
  readonly facts: Rows;
  readonly timeline: Rows;
  readonly trips: Rows;
  readonly people: Rows;
  readonly companies: Rows;
}

export async function readWritten(url: string): Promise<Written> {
  const sql = postgres(url, { max: 1, onnotice: () => undefined });
  const rows = async (text: string): Promise<Rows> => [...(await sql.unsafe<Record<string, unknown>[]>(text))];
  const written = {
    journal: await rows('select trip_id, seq, mark, verb, outcome, says, detail, cost_micro, took_ms, at from journal'),
    facts: await rows(
      "select record_kind, record_id, field, value, source, source_ref, confidence, observed_at, trip_id, mark from fact where source = 'flow'",
    ),
    timeline: await rows("select record_kind, record_id, at, kind, says, detail from timeline where kind = 'note'"),
    trips: await rows('select id, state, state_detail, at, vars, seq, ended_at from trip'),
    people: await rows('select id, status from person'),
    companies: await rows('select id, status from company'),
  };
  await sql.end();
  return written;
}

/** Writes the same rows by plain batched statements, one transaction per thousand trips' worth. Returns milliseconds. */
export async function writeFloor(url: string, written: Written): Promise<number> {
  const sql = postgres(url, { max: 2, onnotice: () => undefined });
  const share = (rows: Rows, at: number, of: number): Rows =>
    rows.slice(Math.floor((rows.length * at) / of), Math.floor((rows.length * (at + 1)) / of));
  const batches = Math.ceil(written.trips.length / BATCH);
  const ms = await timed(async () => {
    for (let i = 0; i < batches; i++)
      await sql.begin(async (tx) => {
        const json = (rows: Rows) => tx.json(share(rows, i, batches) as never);
        await tx`insert into journal select * from jsonb_populate_recordset(null::journal, ${json(written.journal)})`;
        await tx`insert into fact (record_kind, record_id, field, value, source, source_ref, confidence, observed_at, trip_id, mark)
          select record_kind, record_id, field, value, source, source_ref, confidence, observed_at, trip_id, mark from jsonb_populate_recordset(null::fact, ${json(written.facts)})`;
        await tx`insert into timeline (record_kind, record_id, at, kind, says, detail) select record_kind, record_id, at, kind, says, detail from jsonb_populate_recordset(null::timeline, ${json(written.timeline)})`;
        await tx`update trip t set state = r.state, state_detail = r.state_detail, at = r.at, vars = r.vars, seq = r.seq, ended_at = r.ended_at, due_at = null from jsonb_populate_recordset(null::trip, ${json(written.trips)}) r where t.id = r.id`;
        await tx`update person p set status = r.status from jsonb_populate_recordset(null::person, ${json(written.people)}) r where p.id = r.id`;
        await tx`update company c set status = r.status from jsonb_populate_recordset(null::company, ${json(written.companies)}) r where c.id = r.id`;
      });
  });
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
