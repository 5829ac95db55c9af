/** Transactions whose connection is lost while work is under way. */
import net from 'node:net';
import { testWorld, type TestWorld } from '../../testing/world';
import { connect, type Tx } from './connect';

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
  await expect(late).rejects.toThrow('CONNECTION_CLOSED');
  expect(await Promise.all([1, 2, 3].map(async (n) => (await db<{ n: number }[]>`select ${n}::int as n`)[0]?.n))).toEqual([1, 2, 3]);
  await db.end({ timeout: 1 });
});

/** Stands between the pool and the database, and cuts every line when it is told. */
async function cutter(url: string): Promise<{ readonly url: string; readonly cut: () => void; readonly close: () => Promise<void> }> {
  const target = new URL(url);
  const lines = new Set<net.Socket>();
  const server = net.createServer((near) => {
    const far = net.connect(Number(target.port), target.hostname);
    for (const [from, to] of [
      [near, far],
      [far, near],
    ] as const) {
      lines.add(from);
      from.on('error', () => undefined);
      from.on('close', () => {
        lines.delete(from);
        to.destroy();
      });
      from.pipe(to);
    }
  });
  await new Promise<void>((resolve) => {
    server.listen(0, '127.0.0.1', resolve);
  });
  const through = new URL(url);
  through.port = String((server.address() as net.AddressInfo).port);
  return {
    url: through.href,
    cut: () => {
      for (const line of lines) line.resetAndDestroy();
    },
    close: async () => {
      for (const line of lines) line.destroy();
      await new Promise((resolve) => server.close(resolve));
    },
  };
}

test('lines that are cut while statements are on their way leave no connection behind that cannot be used', async () => {
  const between = await cutter(world.url);
  const db = connect(between.url, { max: 3, name: 'cut' });
  let asking = true;
  // Statements at every moment, also between the end of a line and the driver's hearing of it.
  const ask = (): void => {
    if (!asking) return;
    db`select 1`.catch(() => undefined);
    setImmediate(ask);
  };
  for (let n = 0; n < 12; n++) {
    await db`select 1`.catch(() => undefined);
    asking = true;
    ask();
    between.cut();
    await new Promise((resolve) => setTimeout(resolve, 5));
    asking = false;
  }
  // On a busy machine the driver may hear of the last cut only now: such an answer is refused once, and had when asked again.
  const answer = async (n: number, again = 3): Promise<number | undefined> => {
    try {
      return (await db<{ n: number }[]>`select ${n}::int as n`)[0]?.n;
    } catch (error) {
      if (again === 0) throw error;
      return answer(n, again - 1);
    }
  };
  try {
    const answers = await Promise.all(Array.from({ length: 12 }, (_, n) => answer(n)));
    expect(answers).toEqual(Array.from({ length: 12 }, (_, n) => n));
  } finally {
    await db.end({ timeout: 1 });
    await between.close();
  }
}, 20_000);

test('transactions and statements side by side outlive lines that are cut: none waits for ever, the pool works at once', async () => {
  const between = await cutter(world.url);
  const db = connect(between.url, { max: 4, name: 'side by side' });
  let going = true;
  let settled = 0;
  const untilOver = async (ask: () => Promise<unknown>): Promise<void> => {
    while (going) {
      await ask().catch(() => undefined);
      settled += 1;
      await new Promise(setImmediate);
    }
  };
  const work = async (tx: Tx): Promise<void> => {
    for (let n = 0; n < 3; n++) {
      await tx`select ${n}::int`;
      // What the clock's walk does: other statements while a transaction is held.
      await Promise.all([db`select 1`, tx`select 2`]);
    }
  };
  const lanes = [
    ...Array.from({ length: 2 }, () => untilOver(() => db.begin(work))),
    ...Array.from({ length: 3 }, () => untilOver(() => db`select 3`)),
  ];
  try {
    for (let n = 0; n < 10; n++) {
      between.cut();
      await new Promise((resolve) => setTimeout(resolve, 100 + n));
    }
    going = false;
    await Promise.all(lanes);
    expect(settled).toBeGreaterThan(lanes.length);
    const answers = await Promise.all([1, 2, 3, 4].map(async (n) => (await db<{ n: number }[]>`select ${n}::int as n`)[0]?.n));
    expect(answers).toEqual([1, 2, 3, 4]);
  } finally {
    going = false;
    await db.end({ timeout: 1 });
    await between.close();
  }
}, 30_000);

test('a handle that is kept after its transaction has ended does nothing', async () => {
  const kept: Tx[] = [];
  const made = await world.db.begin(async (tx) => {
    kept.push(tx);
    return (await tx<{ n: number }[]>`select 7 as n`)[0]?.n;
  });
  expect(made).toBe(7);
  await expect(Promise.all(kept.map((tx) => tx`select 1`))).rejects.toThrow('the transaction is over');
});
