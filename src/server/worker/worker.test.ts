import { demoWorkspace, testWorker, testWorld, type TestWorld } from '../../testing/world';
import { createFlow, startOn } from '../flows/flows';
import { trips } from '../desk/overview';
import { people } from '../records/records';
import { release } from '../flows/releases';
import { readConfig } from '../config';
import { connect, migrate } from '../db';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { Worker, WORKER_DEFAULTS } from './index';

let world: TestWorld;
beforeEach(async () => {
  world = await testWorld();
});
afterEach(() => world.close());

describe('the worker’s modes', () => {
  test('starting → polling → stopped; it starts once', async () => {
    const worker = new Worker(world, { ...WORKER_DEFAULTS, holder: 'x', idleMs: 5 });
    expect(worker.currentMode).toBe('starting');
    worker.start();
    expect(worker.currentMode).toBe('polling');
    expect(() => {
      worker.start();
    }).toThrow('a worker starts once');
    const stopped = worker.stop();
    expect(worker.currentMode).toBe('draining');
    await stopped;
    expect(worker.currentMode).toBe('stopped');
  });

  test('a word of work wakes a resting worker long before its next look', async () => {
    const { ines } = await demoWorkspace(world, { crm: true });
    const made = await createFlow(world, ines, 'flow "T"\nabout person\n\ntake in from hand\nnote "x"\n');
    await release(world, ines, made.id);
    const [someone] = (await people(world, { limit: 1 })).items;
    const worker = new Worker(world, { ...WORKER_DEFAULTS, holder: 'x', idleMs: 60_000 });
    worker.start();
    await startOn(world, ines, made.id, [someone?.id ?? '']);
    const done = async (): Promise<boolean> => (await trips(world, { flowId: made.id, state: 'done' })).items.length === 1;
    for (let looks = 0; looks < 10_000 && !(await done()); looks++);
    expect(await done()).toBe(true);
    await worker.stop();
  });

  test('one kind of work that breaks is logged and does not stop the others', async () => {
    const said: string[] = [];
    const broken = {
      ...world,
      log: {
        ...world.log,
        error: (what: string) => {
          said.push(what);
        },
      },
      clock: { now: () => Promise.reject(new Error('no clock')) },
    };
    expect(await new Worker(broken, { ...WORKER_DEFAULTS, holder: 'x' }).drain()).toBe(0);
    expect(said).toEqual(expect.arrayContaining(['trips broke', 'sends broke']));
    expect(said).not.toContain('lists broke');
  });

  test('a site that keeps us waiting holds up neither other trips nor sends, and its trip goes on when it answers', async () => {
    const { ines } = await demoWorkspace(world, { crm: true });
    const reads = await createFlow(
      world,
      ines,
      'flow "Reads"\nabout person\n\ntake in from hand\nread company from website as research\n  employees: number "How many people work there?"\n',
    );
    const notes = await createFlow(world, ines, 'flow "Notes"\nabout person\n\ntake in from hand\nnote "x"\n');
    await release(world, ines, reads.id);
    await release(world, ines, notes.id);
    const someone = (await people(world, { limit: 50 })).items.find((person) => person.companyId !== null);
    let answer: () => void = () => undefined;
    const answers = new Promise<void>((resolve) => {
      answer = resolve;
    });
    let asked: () => void = () => undefined;
    const isAsked = new Promise<void>((resolve) => {
      asked = resolve;
    });
    const { web } = world;
    const slow: typeof world = {
      ...world,
      web: {
        async page(url) {
          asked();
          await answers;
          return web.page(url);
        },
      },
    };
    const worker = new Worker(slow, { ...WORKER_DEFAULTS, holder: 'x', leaseMs: 900, idleMs: 20 });
    worker.start();
    await startOn(world, ines, reads.id, [someone?.id ?? '']);
    await isAsked;
    await startOn(world, ines, notes.id, [someone?.id ?? '']);
    const ended = async (flowId: string, looks: number): Promise<boolean> => {
      for (let look = 0; look < looks; look++) if ((await trips(world, { flowId, state: 'done' })).items.length === 1) return true;
      return false;
    };
    expect(await ended(notes.id, 10_000)).toBe(true);
    expect(await ended(reads.id, 1)).toBe(false);
    // Longer than its lease: another worker finds nothing to take.
    await new Promise((resolve) => setTimeout(resolve, 1_200));
    expect(await testWorker(world, 'other').drain()).toBe(0);
    answer();
    expect(await ended(reads.id, 10_000)).toBe(true);
    await worker.stop();
  });
});

describe('migrations', () => {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'migrations-'));
  afterAll(() => {
    fs.rmSync(folder, { recursive: true });
  });

  test('run once, in order, also when two start at the same time', async () => {
    fs.writeFileSync(path.join(folder, '901_a.sql'), 'create table a (x int);');
    fs.writeFileSync(path.join(folder, '902_b.sql'), 'alter table a add y int;');
    await world.db`delete from migration`;
    const other = connect(world.url, { max: 1, name: 'other' });
    const [one, two] = await Promise.all([migrate(world.db, folder), migrate(other, folder)]);
    await other.end();
    expect([...one, ...two].sort()).toEqual(['901_a.sql', '902_b.sql']);
    expect(await migrate(world.db, folder)).toEqual([]);
  });

  test('a step that fails leaves nothing behind', async () => {
    fs.writeFileSync(path.join(folder, '903_c.sql'), 'create table c (x int); select 1/0;');
    await world.db`delete from migration`;
    await expect(migrate(world.db, folder)).rejects.toThrow('division by zero');
    const left = await world.db`select 1 from pg_tables where tablename = 'c'`;
    expect(left).toHaveLength(0);
    fs.rmSync(path.join(folder, '903_c.sql'));
  });

  test('a database of a newer Millrace is refused', async () => {
    await world.db`insert into migration (name) values ('999_future.sql')`;
    await expect(migrate(world.db, path.resolve('src/server/db/migrations'))).rejects.toThrow(
      'migrated by a newer Millrace (999_future.sql)',
    );
  });
});

const KEY = { MILLRACE_SECRET: 'sixteen letters or more' };

describe('the environment', () => {
  test('has a default for everything but the database and the key', () => {
    expect(readConfig({ DATABASE_URL: 'postgres://x', ...KEY })).toMatchObject({
      port: 3417,
      publicUrl: 'http://127.0.0.1:3417',
      demo: false,
      smtp: { host: '127.0.0.1', port: 25 },
      standinWeb: null,
      leaseMs: 60_000,
    });
  });

  test.each([
    [{}, 'environment: DATABASE_URL'],
    [{ DATABASE_URL: 'x', PORT: 'many', ...KEY }, 'environment: PORT'],
    [{ DATABASE_URL: 'x' }, 'environment: MILLRACE_SECRET'],
    [{ DATABASE_URL: 'x', MILLRACE_SECRET: 'short' }, 'environment: MILLRACE_SECRET'],
    [{ DATABASE_URL: 'x', MILLRACE_LOG: 'loud', ...KEY }, 'environment: MILLRACE_LOG'],
  ])('%j says what is wrong', (env, message) => {
    expect(() => readConfig(env)).toThrow(message);
  });
});
