/** What is kept as journals are written, against counting them: any entries, in any batches, joined at any time. */
import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import fc from 'fast-check';
import type { JournalEntry } from '../../core/engine';
import { demoWorkspace, testWorld, type TestWorld } from '../../testing/world';
import { createFlow } from '../flows/flows';
import { release } from '../flows/releases';
import { countLines, joinLineCounts, lineCounts, type LineCount } from './store/line-counts';
import { insertJournal } from './store/trips';

let world: TestWorld;
let flowId: string;
let versionId: string;
beforeAll(async () => {
  world = await testWorld();
  const { ines } = await demoWorkspace(world, { crm: true });
  flowId = (await createFlow(world, ines, 'flow "T"\nabout person\n\ntake in from hand\nnote name\n')).id;
  ({ versionId } = await release(world, ines, flowId));
});
afterAll(() => world.close());

const trips: string[] = [];
async function newTrip(): Promise<string> {
  const id = randomUUID();
  await world.db`insert into trip (id, flow_id, version_id, person_id, intake_key, state, created_at) values (${id}, ${flowId}, ${versionId}, (select id from person limit 1), ${id}, 'ready', now())`;
  trips.push(id);
  return id;
}
const entry = (seq: number, given: { mark: string; outcome: JournalEntry['outcome']; arm: string | null; cost: number }): JournalEntry => ({
  seq,
  mark: given.mark,
  verb: 'note',
  outcome: given.outcome,
  says: '',
  detail: given.arm === null ? {} : { arm: given.arm },
  costMicro: given.cost,
  tookMs: given.cost % 7,
  at: world.now,
});
const sorted = (list: readonly LineCount[]): readonly string[] => list.map((row) => JSON.stringify(row)).sort();

const written = fc.record({
  mark: fc.constantFrom('k1', 'k2', 'k3'),
  outcome: fc.constantFrom<JournalEntry['outcome']>('passed', 'waiting', 'stopped', 'stuck'),
  arm: fc.constantFrom(null, 'a1', 'a2'),
  cost: fc.nat({ max: 50 }),
});

test('what is kept is what counting gives, however the entries came', async () => {
  await fc.assert(
    fc.asyncProperty(
      // trips, each with batches of entries; what the n-th batch of every trip holds is written together
      fc.array(fc.array(fc.array(written, { maxLength: 3 }), { maxLength: 4 }), { minLength: 1, maxLength: 4 }),
      fc.boolean(),
      async (given, join) => {
        const begun = await Promise.all(given.map(async (batches) => ({ id: await newTrip(), batches, seq: 0 })));
        for (let n = 0; n < 4; n++) {
          const rows = begun.flatMap((trip) => (trip.batches[n] ?? []).map((one) => ({ tripId: trip.id, entry: entry(trip.seq++, one) })));
          await insertJournal(world.db, rows);
          if (join) await joinLineCounts(world.db, 0);
        }
        expect(sorted(await lineCounts(world.db, flowId))).toEqual(sorted(await countLines(world.db, { flowId })));
      },
    ),
    { numRuns: 60 },
  );
  expect(trips.length).toBeGreaterThan(60);
});

test('joined, a flow has one row for each line, outcome and arm', async () => {
  await joinLineCounts(world.db, 0);
  const [rows] = await world.db<{ n: number }[]>`select count(*)::int as n from line_count where flow_id = ${flowId}`;
  expect(rows?.n).toBe((await lineCounts(world.db, flowId)).length);
});

test('trials are not counted', async () => {
  const before = sorted(await lineCounts(world.db, flowId));
  const trial = randomUUID();
  const id = randomUUID();
  await world.db`insert into trial (id, flow_id, text, library, created_at) values (${trial}, ${flowId}, '', '{}', now())`;
  await world.db`insert into trip (id, flow_id, trial_id, person_id, intake_key, state, created_at) values (${id}, ${flowId}, ${trial}, (select id from person limit 1), ${id}, 'ready', now())`;
  await insertJournal(world.db, [{ tripId: id, entry: entry(0, { mark: 'k1', outcome: 'passed', arm: null, cost: 3 }) }]);
  expect(sorted(await lineCounts(world.db, flowId))).toEqual(before);
  expect(await countLines(world.db, { flowId, trialId: trial })).toHaveLength(1);
});

test('a workspace with journals from before gets the same counts when it is brought up to date', async () => {
  const before = sorted(await lineCounts(world.db, flowId));
  const migration = fs.readFileSync('src/server/db/migrations/017_counts.sql', 'utf8');
  await world.db`delete from line_count`;
  await world.db.unsafe(migration.slice(migration.indexOf('insert into line_count')));
  expect(sorted(await lineCounts(world.db, flowId))).toEqual(before);
  expect(before.length).toBeGreaterThan(0);
});
