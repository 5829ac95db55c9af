/** Stuck trips in groups that may be large: counted whole, shown in part, dealt with at once. */
import { demoWorld, testWorker, type TestWorld } from '../../testing/world';
import { WorldFailure } from '../ports';
import { createFlow, flow, saveDraft, startOn } from '../flows/flows';
import { trips } from '../desk/overview';
import { rail } from '../desk/rail';
import { release } from '../flows/releases';
import { chooseStuck, countStuck, stuckGroups } from './stuck';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
beforeEach(async () => {
  ({ world, ines } = await demoWorld());
});
afterEach(() => world.close());

/** Whoever finds no free place at a webhook on a slow machine comes again after a moment. */
async function drain(): Promise<void> {
  for (let again = true; again; world.now += 500) {
    await testWorker(world).drain();
    again = (await world.db`select 1 from trip where state = 'waiting' limit 1`).length > 0;
  }
}
const refused = (why: string): void => {
  world.outside.hook = () => new WorldFailure('refused', why, false);
};
async function somebody(from: number, count: number): Promise<readonly string[]> {
  const rows = await world.db<{ id: string }[]>`
    insert into person (id, name, created_at) select md5('s' || i)::uuid, 'Person ' || i, now() from generate_series(${from}::int, ${from + count - 1}::int) i returning id`;
  return rows.map((row) => row.id);
}
async function handOver(): Promise<string> {
  const { id } = await createFlow(world, ines, 'flow "T"\nabout person\n\ntake in from hand\nhand over to "Yard board"\n');
  await release(world, ines, id);
  return id;
}
async function states(flowId: string): Promise<Readonly<Record<string, number>>> {
  const by: Record<string, number> = {};
  for (let cursor: string | undefined; ;) {
    const page = await trips(world, { flowId, limit: 200, cursor });
    for (const row of page.items) by[row.state] = (by[row.state] ?? 0) + 1;
    if (page.next === null) return by;
    cursor = page.next;
  }
}

test('a group of many is one decision, whichever version its trips run on, and is dealt with whole', async () => {
  refused('refused it (403)');
  const id = await handOver();
  await startOn(world, ines, id, await somebody(1, 620));
  await drain();
  // A line more above it: the same line stands at another place in the second version.
  const row = await flow(world, id);
  await saveDraft(world, ines, id, { text: row.draftText.replace('hand over', 'note name\nhand over'), base: row.draftNo });
  await release(world, ines, id);
  await startOn(world, ines, id, await somebody(1001, 3));
  await drain();

  const groups = await stuckGroups(world, id);
  expect(groups).toMatchObject([{ why: 'refused it (403)', count: 623, flowName: 'T', byHand: null }]);
  expect(groups[0]?.trips).toHaveLength(9);
  expect(await countStuck(world)).toBe(1);
  expect((await rail(world, ines, 'builder')).desk).toBe(1);

  world.outside.hook = () => null;
  expect(await chooseStuck(world, ines, { alike: groups[0]?.trips[0]?.id, choice: 'try again' })).toBe(623);
  await drain();
  expect(await states(id)).toEqual({ done: 623 });
  expect(await stuckGroups(world)).toEqual([]);
});

test('what is stuck for another reason, or in another flow, is not alike', async () => {
  refused('refused it (403)');
  const id = await handOver();
  await startOn(world, ines, id, await somebody(1, 2));
  await drain();
  refused('is gone (410)');
  await startOn(world, ines, id, await somebody(3, 2));
  await drain();
  const groups = await stuckGroups(world, id);
  expect(groups.map((group) => [group.why, group.count]).sort()).toEqual([
    ['is gone (410)', 2],
    ['refused it (403)', 2],
  ]);
  const gone = groups.find((group) => group.why.startsWith('is gone'));
  expect(await chooseStuck(world, ines, { alike: gone?.trips[0]?.id, choice: 'end' })).toBe(2);
  await drain();
  expect(await states(id)).toEqual({ stopped: 2, stuck: 2 });
  expect(await stuckGroups(world, '00000000-0000-4000-8000-000000000000')).toEqual([]);
});

test('one that is no longer stuck is nothing to decide', async () => {
  refused('refused it (403)');
  const id = await handOver();
  await startOn(world, ines, id, await somebody(1, 2));
  await drain();
  const [group] = await stuckGroups(world, id);
  const [first, second] = group?.trips ?? [];
  expect(await chooseStuck(world, ines, { tripIds: [first?.id ?? ''], choice: 'skip the line' })).toBe(1);
  await drain();
  expect(await chooseStuck(world, ines, { tripIds: [first?.id ?? ''], choice: 'end' })).toBe(0);
  expect(await chooseStuck(world, ines, { alike: first?.id, choice: 'end' })).toBe(0);
  expect(await stuckGroups(world, id)).toMatchObject([{ count: 1, trips: [{ id: second?.id }] }]);
});
