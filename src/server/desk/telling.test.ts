/** Told away from the desk: to whom, when, together, and never twice. */
import { demoWorld, testWorker, type TestWorld } from '../../testing/world';
import { createFlow, startOn } from '../flows/flows';
import { release } from '../flows/releases';
import { makeThing } from '../flows/things';
import { createPerson } from '../records/records';
import type { Actor } from '../platform/world';
import { setTelling, tellWaiting, telling } from './telling';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
let world: TestWorld;
let ines: Actor;
let lucia: Actor;
let flowId: string;

beforeEach(async () => {
  ({ world, ines } = await demoWorld());
  const [row] = await world.db<{ id: string; name: string }[]>`select id, name from app_user where email = 'lucia@thornwick.example'`;
  lucia = { userId: row?.id ?? null, name: row?.name ?? '' };
  const body = { name: 'Hello', language: 'en', subject: 'Hello', body: 'Hello,\n\na word from us.', maxLength: 900 };
  await makeThing(world, ines, { kind: 'template', name: 'Hello', body });
  const flow = await createFlow(
    world,
    ines,
    'flow "Asks"\nabout person\n\ntake in from hand\nwrite email "Hello" as mail\nask "south" to approve mail\nsend mail\n',
  );
  flowId = flow.id;
  await release(world, ines, flow.id);
});
afterEach(() => world.close());

/** So many messages before Lucía to approve. */
async function asked(count: number): Promise<void> {
  const people = [];
  for (let i = 0; i < count; i += 1)
    people.push(
      await createPerson(world, ines, {
        values: { name: `Reader ${world.now} ${i}`, email: `r${world.now}.${i}@oakmere-glass.example` },
        source: 'hand',
      }),
    );
  await startOn(
    world,
    ines,
    flowId,
    people.map(({ id }) => id),
  );
  await testWorker(world).drain();
}
/** Lets so much time pass, and has the worker look. */
async function later(ms: number): Promise<void> {
  world.now += ms;
  await testWorker(world).drain();
}
const toLucia = () => world.outside.mails.filter((mail) => mail.to.address === 'lucia@thornwick.example').map((mail) => mail.text);

test('nobody is told who has not asked for it', async () => {
  await asked(1);
  await later(HOUR);
  expect(toLucia()).toEqual([]);
  expect(await telling(world, lucia)).toMatchObject({ byMail: false, webhook: null, from: '08:00', to: '18:00' });
});

test('what came together is told together, once, to whom it is asked of', async () => {
  await setTelling(world, lucia, { byMail: true, webhook: null, from: '08:00', to: '18:00' });
  await setTelling(world, ines, { byMail: true, webhook: null, from: '08:00', to: '18:00' });
  await later(20 * MINUTE);
  await asked(2);
  await later(2 * MINUTE);
  expect(toLucia()).toHaveLength(1);
  expect(toLucia()[0]).toMatch(/^2 messages to approve are waiting for you\n\nhttp:\/\/millrace\.example\//);
  expect(world.outside.mails.filter((mail) => mail.to.address === 'ines@thornwick.example')).toEqual([]);
  // Within a quarter of an hour the next one waits.
  await asked(1);
  await later(5 * MINUTE);
  expect(toLucia()).toHaveLength(1);
  await later(12 * MINUTE);
  expect(toLucia()[1]).toMatch(/^1 message to approve is waiting for you/);
  await later(HOUR);
  expect(toLucia()).toHaveLength(2);
});

test('outside the hours it waits until they begin', async () => {
  await setTelling(world, lucia, { byMail: true, webhook: null, from: '14:00', to: '15:00' });
  await later(20 * MINUTE);
  await asked(1);
  await later(HOUR);
  expect(toLucia()).toEqual([]);
  await later(4 * HOUR - 80 * MINUTE + 5 * MINUTE);
  expect(toLucia()).toHaveLength(1);
});

test('a webhook is posted to with who it is for', async () => {
  const [hook] = await world.db<{ name: string }[]>`select name from webhook order by name limit 1`;
  await setTelling(world, lucia, { byMail: false, webhook: hook?.name ?? '', from: '00:00', to: '23:00' });
  await later(20 * MINUTE);
  await asked(1);
  await later(2 * MINUTE);
  expect(world.outside.calls.map(({ body }) => body)).toContainEqual(
    expect.objectContaining({ text: '1 message to approve is waiting for you', who: 'Lucía Ferrer Mas' }),
  );
});

test('hours that end before they begin, a webhook that is not there, and a program are refused', async () => {
  const usual = { byMail: true, webhook: null, from: '08:00', to: '18:00' };
  await expect(setTelling(world, lucia, { ...usual, from: '18:00', to: '08:00' })).rejects.toThrow('the hours end before they begin');
  await expect(setTelling(world, lucia, { ...usual, webhook: 'Nowhere' })).rejects.toThrow('Nowhere');
  await expect(setTelling(world, { userId: null, name: 'token' }, usual)).rejects.toThrow('a program has no desk');
});

test('two workers that look at the same moment tell once', async () => {
  await setTelling(world, lucia, { byMail: true, webhook: null, from: '08:00', to: '18:00' });
  await asked(1);
  world.now += 20 * MINUTE;
  const told = await Promise.all([tellWaiting(world), tellWaiting(world)]);
  expect(told.reduce((sum, n) => sum + n, 0)).toBe(1);
});
