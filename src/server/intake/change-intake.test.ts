import { demoWorld, testWorker, type TestWorld } from '../../testing/world';
import { createFlow } from '../flows/flows';
import { changeRecord } from '../records/by-hand';
import { createCompany, createPerson } from '../records/records';
import { release } from '../flows/releases';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;

beforeEach(async () => {
  ({ world, ines } = await demoWorld());
});
afterEach(() => world.close());

const live = async (text: string): Promise<string> => {
  const { id } = await createFlow(world, ines, text);
  await release(world, ines, id);
  return id;
};
const tripsOf = async (flowId: string): Promise<number> => {
  const [row] = await world.db<{ count: number }[]>`select count(*)::int as count from trip where flow_id = ${flowId}`;
  return row?.count ?? 0;
};
const person = (values: Record<string, string>, companyId: string | null = null) =>
  createPerson(world, ines, {
    values: { name: 'Mara Quill', email: 'm.quill@oakmere-glass.example', ...values },
    companyId,
    source: 'hand',
  });
const change = (kind: 'person' | 'company', id: string, values: Record<string, string | number>) => {
  world.now += 1_000;
  return changeRecord(world, ines, { kind, id, values, source: 'hand' });
};

test('a changed field brings the record in where the condition holds, whoever changed it', async () => {
  const flow = await live('flow "A"\nabout person\n\ntake in from change of status\n  when status = "hot"\nnote "hot now"\n');
  const mara = await person({ status: 'new' });
  await testWorker(world).drain();
  expect(await tripsOf(flow)).toBe(0);
  await change('person', mara.id, { status: 'warm' });
  await testWorker(world).drain();
  expect(await tripsOf(flow)).toBe(0);
  await change('person', mara.id, { status: 'hot' });
  await testWorker(world).drain();
  expect(await tripsOf(flow)).toBe(1);
  // The same value again is no change.
  await change('person', mara.id, { status: 'hot' });
  await testWorker(world).drain();
  expect(await tripsOf(flow)).toBe(1);
});

test('a new record, and a field of the company for all its people', async () => {
  const created = await live('flow "A"\nabout person\n\ntake in from change of record\nnote "new"\n');
  const grown = await live(
    'flow "B"\nabout person\n\ntake in from change of company.heated_area\n  when company.heated_area >= 2 ha\nnote "grown"\n',
  );
  const company = await createCompany(world, ines, { values: { name: 'Oakmere Glass' }, source: 'hand' });
  await person({}, company.id);
  await person({ name: 'Tom Quill', email: 't.quill@oakmere-glass.example' }, company.id);
  await testWorker(world).drain();
  expect([await tripsOf(created), await tripsOf(grown)]).toEqual([2, 0]);
  await change('company', company.id, { heated_area: 4 });
  await testWorker(world).drain();
  expect([await tripsOf(created), await tripsOf(grown)]).toEqual([2, 2]);
});

test('what the flow itself changes does not begin it again', async () => {
  const flow = await live('flow "A"\nabout person\n\ntake in from change of status\nset status = status + "!"\n');
  const mara = await person({ status: 'new' });
  await change('person', mara.id, { status: 'hot' });
  for (let i = 0; i < 3; i++) await testWorker(world).drain();
  expect(await tripsOf(flow)).toBe(1);
});

test('somebody who is on the way does not enter again', async () => {
  const flow = await live('flow "A"\nabout person\n\ntake in from change of status\nwait 3 days\nnote "later"\n');
  const mara = await person({});
  for (const status of ['one', 'two']) {
    await change('person', mara.id, { status });
    await testWorker(world).drain();
  }
  expect(await tripsOf(flow)).toBe(1);
});

test('a deal that is moved by hand; a version without the line hears nothing more', async () => {
  const mara = await person({});
  const opener = await live(
    'flow "O"\nabout person\n\ntake in from change of status\nopen deal in "Glasshouse sales" at "Qualified" as deal\nnote deal.stage\n',
  );
  const moved = await live('flow "M"\nabout deal\n\ntake in from change of stage\n  when stage = "Won"\nnote "won"\n');
  await change('person', mara.id, { status: 'go' });
  await testWorker(world).drain();
  expect([await tripsOf(opener), await tripsOf(moved)]).toEqual([1, 0]);
  await world.db`update deal set stage = 'Won', stage_since = now()`;
  await testWorker(world).drain();
  expect(await tripsOf(moved)).toBe(1);
  const watched = await world.db`select 1 from change_watch`;
  expect(watched).toHaveLength(2);
});
