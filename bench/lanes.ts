/**
 * What trips and sends keep of their pace while one site answers after 20 s and a long list is taken in, all by one worker: the
 * same load is offered alone and beside them, and what ended within the time is counted.
 */
import { randomUUID } from 'node:crypto';
import { lookAtFile, startImport } from '../src/server/intake/imports';
import { createFlow, startOn } from '../src/server/flows/flows';
import { release } from '../src/server/flows/releases';
import { Worker, WORKER_DEFAULTS } from '../src/server/worker';
import { demoWorkspace, testWorld, type TestWorld } from '../src/testing/world';
import { BENCH_FLOW, fill } from './engine-flow';

const SECONDS = 20;
/** become due in each second */
const [TRIPS, SENDS] = [40, 20];
const SITE_MS = 20_000;
/** what became due last has so long to end */
const GRACE_MS = 500;
const READS = `flow "Reads"
about person

take in from hand
read company from website as research
  employees: number "How many people work there?"
`;

export interface LaneFigures {
  readonly trips: number;
  readonly sends: number;
}

const sleep = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** Sends that become due one after the other, each of its own conversation. */
async function offerSends(world: TestWorld, from: number, at: number): Promise<void> {
  const count = SENDS * SECONDS;
  const ids = Array.from({ length: count }, () => randomUUID());
  await world.db`
    with one as (select id::uuid, n from unnest(${ids}::text[]) with ordinality as r(id, n)),
    box as (select name from mailbox limit 1),
    who as (select id as person_id, row_number() over (order by id) as n from (select id from person where email is not null order by id offset ${from} limit ${count}) p),
    about as (select one.id, one.n, person_id from one join who using (n)),
    talk as (insert into thread (id, person_id, mailbox, subject, created_at) select md5('t' || about.id::text)::uuid, person_id, box.name, 'Hello', now() from about, box returning id),
    text as (insert into message (id, thread_id, person_id, direction, touch, subject, body, state, rfc_id, at)
      select about.id, md5('t' || about.id::text)::uuid, person_id, 'out', 1, 'Hello', 'Hello', 'planned', '<' || about.id || '@bench.example>', now() from about returning id)
    insert into effect (id, kind, key, state, person_id, message_id, mailbox, due_at, created_at)
      select md5('e' || about.id::text)::uuid, 'send', about.id::text, 'planned', person_id, about.id, box.name, ${at}::timestamptz + make_interval(secs => n::float8 / ${SENDS}), now() from about, box`;
}

async function offerTrips(world: TestWorld, flowId: string, actor: Parameters<typeof startOn>[1], from: number, at: number): Promise<void> {
  const people = await world.db<
    { id: string }[]
  >`select id from person where name like 'Person %' order by id offset ${from} limit ${TRIPS * SECONDS}`;
  await startOn(
    world,
    actor,
    flowId,
    people.map((row) => row.id),
  );
  await world.db`update trip t set due_at = ${at}::timestamptz + make_interval(secs => o.n::float8 / ${TRIPS})
    from (select id, row_number() over (order by id) as n from trip where flow_id = ${flowId} and state = 'ready' and seq = 0) o where o.id = t.id`;
}

async function endedSoFar(world: TestWorld, flowId: string): Promise<LaneFigures> {
  const [trips] = await world.db<{ n: number }[]>`select count(*)::int as n from trip where flow_id = ${flowId} and state = 'done'`;
  const [sends] = await world.db<{ n: number }[]>`select count(*)::int as n from effect where kind = 'send' and state = 'done'`;
  return { trips: trips?.n ?? 0, sends: sends?.n ?? 0 };
}

export async function laneFigures(
  csv: string,
): Promise<{ readonly alone: LaneFigures; readonly beside: LaneFigures; readonly listRows: number }> {
  const world = await testWorld();
  const { ines } = await demoWorkspace(world);
  await world.db`update mailbox set daily_limit = 1000000, person_gap_days = 0`;
  await fill(world, 4_000);
  await world.db`update company set website = 'slow-' || left(id::text, 4) || '.example' where name like 'Company %'`;
  const [bench, reads] = [await createFlow(world, ines, BENCH_FLOW), await createFlow(world, ines, READS)];
  await release(world, ines, bench.id);
  await release(world, ines, reads.id);
  const began = performance.now();
  const now = (): number => world.now + (performance.now() - began);
  const slow: TestWorld = {
    ...world,
    clock: { now: async () => now() },
    web: {
      async page(url) {
        await sleep(SITE_MS);
        return world.web.page(url);
      },
    },
  };
  const worker = new Worker(slow, { ...WORKER_DEFAULTS, holder: 'bench', idleMs: 200 });
  const run = async (from: number, beside: () => Promise<void>): Promise<LaneFigures> => {
    const before = await endedSoFar(world, bench.id);
    const start = now() + 3_000;
    await offerTrips(world, bench.id, ines, from, start);
    await offerSends(world, from, start);
    await beside();
    await sleep(start + SECONDS * 1000 + GRACE_MS - now());
    const after = await endedSoFar(world, bench.id);
    return { trips: after.trips - before.trips, sends: after.sends - before.sends };
  };
  worker.start();
  const alone = await run(0, async () => undefined);
  const list = await lookAtFile(world, ines, { name: 'bench.csv', bytes: Buffer.from(csv) });
  const [someone] = await world.db<{ id: string }[]>`select id from person where name like 'Person %' order by id desc limit 1`;
  const beside = await run(1_500, async () => {
    await startImport(world, ines, list, { flowId: null });
    await startOn(world, ines, reads.id, [someone?.id ?? '']);
  });
  const [taken] = await world.db<{ n: number }[]>`select done_rows as n from import where id = ${list}`;
  await worker.stop();
  await world.close();
  return { alone, beside, listRows: taken?.n ?? 0 };
}
