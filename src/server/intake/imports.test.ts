import { demoWorld, testWorker, type TestWorld } from '../../testing/world';
import { previewImport } from './import-preview';
import { importStatus, lookAtFile, runImport, startImport } from './imports';
import { createCompany, createPerson, people } from '../records/records';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;

beforeEach(async () => {
  ({ world, ines } = await demoWorld());
});
afterEach(() => world.close());

const look = (text: string, name = 'visitors.csv') => lookAtFile(world, ines, { name, bytes: Buffer.from(text) });

test('a list of somebody known says what it would change, and changes that', async () => {
  const company = await createCompany(world, ines, {
    values: { name: 'Oakmere Glass', website: 'oakmere-glass.example', heated_area: 3 },
    source: 'api',
  });
  await createPerson(world, ines, {
    values: { name: 'Mara Quill', email: 'm.quill@oakmere-glass.example', job_title: 'grower', phone: '+441632960417' },
    companyId: company.id,
    source: 'hand',
  });
  world.now += 86_400_000;
  const id = await look(
    'Name;E-mail;Company;Heated area;Role\nMara Quill;m.quill@oakmere-glass.example;Oakmere Glass;4,2;technical director\nTom New;tom@marlpit.example;Marlpit;2;owner\n',
  );
  const preview = await previewImport(world, id, {});
  expect(preview.rows[0]?.plan.kind).toBe('known');
  // What was written by hand stays; what an API or a list said gives way to what is newer.
  expect(preview.rows[0]?.changes).toEqual([{ field: 'company.heated_area', from: 3, to: 4.2 }]);
  expect(preview.rows[1]?.changes).toEqual([]);
  await startImport(world, ines, id, {});
  await testWorker(world).drain();
  const [row] = await world.db<
    { heatedArea: number }[]
  >`select (custom->>'heated_area')::float8 as heated_area from company where id = ${company.id}`;
  expect(row?.heatedArea).toBe(4.2);
  const mara = (await people(world, { search: 'Mara', limit: 5 })).items[0];
  expect(mara?.jobTitle).toBe('grower');
});

test('a list with the same headings, under any name, is taken as the last one was', async () => {
  const first = await look('Who,Reach,Extra\nMara Quill,m.quill@oakmere-glass.example,note one\n', 'march.csv');
  await startImport(world, ines, first, { matching: ['person.name', 'person.email', 'note'], label: 'March fair' });
  await testWorker(world).drain();
  const second = await previewImport(world, await look('who, Reach ,EXTRA\nTom Ash,tom@marlpit.example,note two\n', 'april.csv'), {});
  expect(second.import).toMatchObject({ matchingFrom: 'March fair', matching: ['person.name', 'person.email', 'note'] });
  const other = await previewImport(world, await look('Who,Reach\nTom Ash,tom@marlpit.example\n', 'march.csv'), {});
  expect(other.import.matchingFrom).toBeNull();
});

test('a list from before lists were kept in pieces is cut when somebody looks at it', async () => {
  const id = await look('Who,Reach\nTom Ash,tom@marlpit.example\nAnn,ann@marlpit.example\n', 'old.csv');
  await world.db`delete from import_piece where import_id = ${id}`;
  await world.db`insert into import_piece (import_id, no, bytes) values (${id}, -1, ${Buffer.from('Who,Reach\nTom Ash,tom@marlpit.example\nAnn,ann@marlpit.example\n')})`;
  await world.db`update import set list_table = null where id = ${id}`;
  const preview = await previewImport(world, id, {});
  expect(preview.rows.map((row) => row.cells)).toEqual([
    ['Tom Ash', 'tom@marlpit.example'],
    ['Ann', 'ann@marlpit.example'],
  ]);
  expect(await world.db`select no from import_piece where import_id = ${id}`).toEqual([{ no: 0 }]);
});

test('a long list is shown by its first rows and counted whole by a worker; another matching is counted again', async () => {
  const rows = Array.from({ length: 2_300 }, (_, i) => `Person ${i},${i % 100 === 0 ? 'no address' : `p${i}@long.example`}`).join('\n');
  const id = await look(`Name,E-mail\n${rows}\n`, 'long.csv');
  const first = await previewImport(world, id, {});
  expect([first.rows.length, first.counts]).toEqual([1_000, null]);
  await testWorker(world).drain();
  const counted = await previewImport(world, id, {});
  expect(counted.counts).toMatchObject({ new: expect.any(Number), newCompanies: expect.any(Number) });
  const { new: fresh, known, perhaps, refused } = counted.counts!;
  expect(fresh + known + perhaps + refused).toBe(2_300);
  expect((await previewImport(world, id, { matching: ['person.name', 'leave out'] })).counts).toBeNull();
});

test('a worker whose list was taken over by another writes no more of it', async () => {
  const id = await look('Name,E-mail\nTom Ash,tom@marlpit.example\n', 'two.csv');
  await startImport(world, ines, id, { flowId: null });
  const lost = {
    ...world,
    db: new Proxy(world.db, {
      get: (target, key) =>
        key === 'begin'
          ? async (work: never) => {
              // Just before it writes, its lease runs out and somebody else takes the list.
              await target`update import set fence = fence + 1 where id = ${id}`;
              return target.begin(work);
            }
          : Reflect.get(target, key),
      apply: (target, _this, args) => Reflect.apply(target as never, undefined, args),
    }),
  };
  await expect(runImport(lost)).rejects.toThrow('the lease of a list is lost');
  expect(await world.db`select 1 from person where email = 'tom@marlpit.example'`).toHaveLength(0);
  expect((await importStatus(world, id)).state).toBe('running');
  await world.db`update import set lease_until = clock_timestamp() - interval '1 second' where id = ${id}`;
  await testWorker(world).drain();
  expect(await world.db`select 1 from person where email = 'tom@marlpit.example'`).toHaveLength(1);
  expect((await importStatus(world, id)).state).toBe('done');
});
