/** A made-up business within one's own workspace: it comes beside what is there, works, and goes without a trace. */
import { stableId } from '../../core/base';
import { insertUser } from '../access/store/access';
import { testWorker, testWorld, type TestWorld } from '../../testing/world';
import { createFlow, flows, startOn } from '../flows/flows';
import { release } from '../flows/releases';
import { makeThing, things } from '../flows/things';
import { createCompany, createPerson } from '../records/records';
import type { Actor } from '../platform/world';
import { firstDay } from './first-day';
import { beginExample, examples, removeExample } from './example';
import { teams } from './teams';

let world: TestWorld;
const wenna: Actor = { userId: stableId('user', 'wenna@hartsmead.example'), name: 'Wenna Tregarth' };
beforeEach(async () => {
  world = await testWorld();
  await insertUser(world.db, {
    id: wenna.userId ?? '',
    email: 'wenna@hartsmead.example',
    name: wenna.name,
    role: 'owner',
    title: '',
    passwordHash: 'x',
  });
});
afterEach(() => world.close());

/** Rows of every table; what is only written down of the deed, and caches, left out. */
const AROUND = new Set(['audit', 'setting', 'page', 'live_event']);
async function counts(): Promise<Readonly<Record<string, number>>> {
  const tables = await world.db<
    { name: string }[]
  >`select table_name as name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE' order by 1`;
  const rows = await Promise.all(
    tables
      .filter(({ name }) => !AROUND.has(name))
      .map(
        async ({ name }) => [name, (await world.db.unsafe<{ n: number }[]>(`select count(*)::int as n from ${name}`))[0]?.n ?? 0] as const,
      ),
  );
  return Object.fromEntries(rows.filter(([, n]) => n > 0));
}

test('both worlds are offered, and only one is here at a time', async () => {
  const { offers, here } = await examples(world);
  expect(here).toBeNull();
  expect(offers.map(({ name }) => name)).toEqual(['demo', 'laundry']);
  expect(offers.every(({ companies, people, about }) => companies > 0 && people > 0 && about !== '')).toBe(true);
  await beginExample(world, wenna, 'laundry');
  await expect(beginExample(world, wenna, 'demo')).rejects.toThrow('is here: remove it first');
  await expect(beginExample(world, wenna, 'nowhere')).rejects.toThrow('is here');
});

test.each(['demo', 'laundry'])('%s: it comes beside what is there, and goes without a trace', async (name) => {
  const own = await makeThing(world, wenna, {
    kind: 'template',
    name: 'First contact',
    body: { name: 'First contact', subject: 'Ours', body: 'Ours, not theirs.' },
  }).catch(async () => (await things(world, 'template')).find((thing) => thing.name === 'First contact'));
  const before = await counts();
  const { here } = await beginExample(world, wenna, name);
  expect(here?.flows).toHaveLength(1);
  expect((await things(world, 'template')).find((thing) => thing.id === own?.id)?.name).toBe('First contact');
  const [flow] = (await flows(world, 0)).filter((entry) => entry.id === here?.flows[0]?.id);
  expect(flow?.liveVersionId ?? null).toBeNull();
  const [company] = await world.db<{ n: number }[]>`select count(*)::int as n from fact where source_ref like 'example: %'`;
  expect(company?.n).toBeGreaterThan(20);
  expect((await examples(world)).here?.stays).toEqual([]);
  // What the letter of the first day says of us is ours.
  expect((await firstDay(world)).good).toEqual([]);
  await removeExample(world, wenna);
  expect(await world.db`select kind, name from library_item where id <> ${own?.id ?? ''}`).toEqual([]);
  expect(await counts()).toEqual(before);
  expect((await examples(world)).here).toBeNull();
  await expect(removeExample(world, wenna)).rejects.toThrow('an example in this workspace');
  // It can come again.
  await beginExample(world, wenna, name);
});

test('what broke off midway is here, and goes like what is whole', async () => {
  const before = await counts();
  // The last card is no card: the records fail after the flow has come.
  const broken = {
    ...world,
    examples: {
      ...world.examples,
      read: async (name: string) => {
        const files = await world.examples.read(name);
        return { ...files, people: [...files.people, files.people[0] ?? {}, { name: '' }] };
      },
    },
  };
  await expect(beginExample(broken, wenna, 'laundry')).rejects.toThrow();
  expect((await examples(world)).here).toMatchObject({ goes: expect.arrayContaining(['0 companies', '0 people']) as unknown });
  await removeExample(world, wenna);
  expect(await counts()).toEqual(before);
});

test('what one’s own uses of it stays; one’s own records joined with it stand alone again', async () => {
  const before = await counts();
  const { here } = await beginExample(world, wenna, 'demo');
  const [card] = await things(world, 'scorecard').then((all) => all.filter(({ name }) => here?.goes.includes(`the scorecard “${name}”`)));
  const mine = await createFlow(
    world,
    wenna,
    `flow "Mine"\nabout person\n\ntake in from hand\nscore company with "${card?.name ?? ''}" as fit\nnote fit.why\n`,
  );
  expect((await examples(world)).here?.stays).toEqual([`“${card?.name ?? ''}”, which Mine uses`]);
  const [theirs] = await world.db<{ id: string }[]>`select id from company limit 1`;
  const firm = await createCompany(world, wenna, { values: { name: 'Oakmere Glass' }, source: 'hand' });
  const person = await createPerson(world, wenna, { values: { name: 'Mara Quill' }, companyId: theirs?.id ?? null, source: 'hand' });
  await world.db`update company set merged_into = ${theirs?.id ?? ''} where id = ${firm.id}`;
  await release(world, wenna, mine.id);
  const [one] = await world.db<{ id: string }[]>`select id from person where id <> ${person.id} limit 1`;
  await startOn(world, wenna, mine.id, [one?.id ?? '', person.id]);
  await testWorker(world).drain();
  await removeExample(world, wenna);
  expect(await world.db`select merged_into from company`).toEqual([{ mergedInto: null }]);
  expect(await world.db`select name, company_id from person`).toEqual([{ name: 'Mara Quill', companyId: null }]);
  expect((await things(world, 'scorecard')).some((thing) => thing.name === card?.name)).toBe(true);
  expect(await world.db`select person_id from trip`).toEqual([{ personId: person.id }]);
  expect((await counts()).flow).toBe((before.flow ?? 0) + 1);
  expect((await teams(world)).map((team) => team.name)).toEqual([]);
});
