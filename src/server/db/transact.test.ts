/** Transactions that stand in each other's way. */
import { testWorld, type TestWorld } from '../../testing/world';
import { transact } from './transact';

let world: TestWorld;
beforeAll(async () => {
  world = await testWorld();
  await world.db`create table lock_test (id int primary key, n int not null)`;
  await world.db`insert into lock_test values (1, 0), (2, 0)`;
});
afterAll(() => world.close());

test('two that wait for each other both come through', async () => {
  let runs = 0;
  let first = 0;
  let bothHold: () => void = () => undefined;
  const held = new Promise<void>((resolve) => {
    bothHold = resolve;
  });
  const add = (ids: readonly number[]): Promise<number> =>
    transact(world.db, async (tx) => {
      runs += 1;
      for (const [i, id] of ids.entries()) {
        await tx`update lock_test set n = n + 1 where id = ${id}`;
        if (i > 0) continue;
        first += 1;
        if (first >= 2) bothHold();
        await held;
      }
      return ids.length;
    });
  expect(await Promise.all([add([1, 2]), add([2, 1])])).toEqual([2, 2]);
  // One of the two was run again; on a busy machine they may meet once more.
  expect(runs).toBeGreaterThan(2);
  expect([...(await world.db`select id, n from lock_test order by id`)]).toEqual([
    { id: 1, n: 2 },
    { id: 2, n: 2 },
  ]);
});

test('another error is not tried again, and leaves nothing behind', async () => {
  let runs = 0;
  const work = transact(world.db, async (tx) => {
    runs += 1;
    await tx`update lock_test set n = 99`;
    await tx`insert into lock_test values (1, 0)`;
  });
  await expect(work).rejects.toThrow('duplicate key');
  expect(runs).toBe(1);
  expect((await world.db<{ n: number }[]>`select max(n)::int as n from lock_test`)[0]?.n).toBeLessThan(99);
});
