/** Transactions whose connection is lost while work is under way. */
import { testWorld, type TestWorld } from '../../testing/world';
import { connect } from './connect';

let world: TestWorld;
beforeAll(async () => {
  world = await testWorld();
});
afterAll(() => world.close());

test('a statement after the connection was lost is refused, and the pool goes on', async () => {
  const db = connect(world.url, { max: 2, name: 'lost' });
  let goOn: () => void = () => undefined;
  const held = new Promise<void>((resolve) => {
    goOn = resolve;
  });
  let late: Promise<unknown> | undefined;
  const lost = db.begin(async (tx) => {
    const [row] = await tx<{ pid: number }[]>`select pg_backend_pid() as pid`;
    await world.db`select pg_terminate_backend(${row?.pid ?? 0})`;
    await held;
    late = (async () => tx`select 1`)();
    return late;
  });
  await expect(lost).rejects.toThrow(/CONNECTION_CLOSED|terminating connection/);
  goOn();
  await new Promise(setImmediate);
  await expect(late).rejects.toThrow('the transaction is over');
  expect(await Promise.all([1, 2, 3].map(async (n) => (await db<{ n: number }[]>`select ${n}::int as n`)[0]?.n))).toEqual([1, 2, 3]);
  await db.end({ timeout: 1 });
});

test('a handle that is kept after its transaction has ended does nothing', async () => {
  let kept: ((strings: TemplateStringsArray) => unknown) | undefined;
  const made = await world.db.begin(async (tx) => {
    kept = tx;
    return (await tx<{ n: number }[]>`select 7 as n`)[0]?.n;
  });
  expect(made).toBe(7);
  expect(() => kept?.(Object.assign(['select 1'], { raw: ['select 1'] }))).toThrow('the transaction is over');
});
