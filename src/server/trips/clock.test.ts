/** The demo's clock: walked from one due thing to the next, by one walker. */
import { demoWorld, testWorker, type TestWorld } from '../../testing/world';
import { clockOffset } from '../platform/store/settings';
import { moveClock, readClock, walkClock } from './clock';
import { createFlow, startOn } from '../flows/flows';
import { trips } from '../desk/overview';
import { createPerson } from '../records/records';
import { release } from '../flows/releases';
import type { Actor, World } from '../platform/world';

const DAY = 86_400_000;
let world: TestWorld;
let demo: World;
let ines: Actor;
beforeEach(async () => {
  ({ world, ines } = await demoWorld());
  demo = { ...world, isDemo: true, clock: { now: async () => world.now + (await clockOffset(world.db)) } };
});
afterEach(() => world.close());

const drain = async (): Promise<void> => {
  await testWorker(demo).drain();
};
let flowNo = 0;
async function waiting(lines: string): Promise<void> {
  const made = await createFlow(demo, ines, `flow "Wait ${++flowNo}"\nabout person\n\ntake in from hand\n${lines}`);
  await release(demo, ines, made.id);
  const someone = await createPerson(demo, ines, { values: { name: 'Mara Quill' }, source: 'api' });
  await startOn(demo, ines, made.id, [someone.id]);
  await drain();
}

test('moves only in the demo, only forward, and walks from one due thing to the next', async () => {
  await expect(moveClock(world, 1000)).rejects.toThrow('only the demo');
  await expect(moveClock(demo, -5)).rejects.toThrow('moves forward');
  await waiting('wait 2 days\nnote "after"\n');
  const before = await demo.clock.now();
  await moveClock(demo, 3 * DAY);
  await walkClock(demo, drain, () => false);
  expect((await readClock(demo)).target).toBeNull();
  expect((await demo.clock.now()) - before).toBe(3 * DAY);
  const [row] = (await trips(demo, {})).items;
  expect(row).toMatchObject({ state: 'done', endedAt: before + 2 * DAY });
  expect(await clockOffset(world.db)).toBeGreaterThan(0);
});

/** As many as a pool has at most. */
const LINES = 12;

test('a walker whose connection was lost goes no step further, and the next one misses nothing that is due', async () => {
  await waiting(Array.from({ length: 12 }, (_, i) => `wait 1 day\nnote "day ${i + 1}"\n`).join(''));
  const before = await demo.clock.now();
  await moveClock(demo, 14 * DAY);
  const walked: { readonly by: string; readonly day: number }[] = [];
  const walker = (by: string, strikeAt: number) => async (): Promise<void> => {
    const day = ((await demo.clock.now()) - before) / DAY;
    walked.push({ by, day });
    await drain();
    if (day === strikeAt)
      await world.db`select pg_terminate_backend(pid) from pg_locks where locktype = 'advisory' and objid = 727002 and database = (select oid from pg_database where datname = current_database())`;
  };
  await expect(walkClock(demo, walker('first', 3), () => false)).rejects.toThrow(/CONNECTION|connection/);
  // The pool may hear a moment later that the line is gone: it is well when all its lines answer, and go on doing so.
  for (let well = 0; well < 4;) {
    const answers = await Promise.allSettled(Array.from({ length: LINES }, () => world.db`select 1`));
    well = answers.every(({ status }) => status === 'fulfilled') ? well + 1 : 0;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  await walkClock(demo, walker('second', Number.NaN), () => false);
  const days = walked.map((step) => step.day);
  expect([...new Set(days)].filter(Number.isInteger)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 14]);
  expect(days).toEqual([...days].sort((a, b) => a - b));
  expect(Math.max(...walked.filter((step) => step.by === 'first').map((step) => step.day))).toBe(3);
  expect((await trips(demo, {})).items.map((row) => [row.state, row.endedAt])).toEqual([['done', before + 12 * DAY]]);
});

test('what is overdue and cannot be worked off makes the clock leap over nothing', async () => {
  await waiting('wait 1 day\nnote "a"\nwait 1 day\nnote "b"\nwait 1 day\nnote "c"\n');
  await waiting('note "never"\n');
  // Somebody else has this one in hand for long.
  await world.db`update trip set state = 'ready', due_at = ${world.now}, ended_at = null, lease_by = 'another', lease_until = 'infinity' where state = 'done'`;
  const before = await demo.clock.now();
  await moveClock(demo, 5 * DAY);
  const seen = new Set<number>();
  await walkClock(
    demo,
    async () => {
      seen.add(((await demo.clock.now()) - before) / DAY);
      await drain();
    },
    () => false,
  );
  expect([...seen].filter(Number.isInteger)).toEqual([0, 1, 2, 3, 5]);
});

test('two who walk at once do not add up: one walks, the other leaves it to it', async () => {
  await waiting('wait 2 days\nnote "after"\n');
  const before = await demo.clock.now();
  await moveClock(demo, 3 * DAY);
  await Promise.all([walkClock(demo, drain, () => false), walkClock(demo, drain, () => false)]);
  expect((await demo.clock.now()) - before).toBe(3 * DAY);
});
