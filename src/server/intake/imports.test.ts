import { demoWorld, testWorker, type TestWorld } from '../../testing/world';
import { previewImport } from './import-preview';
import { writeXlsx } from 'hucre/xlsx';
import { choosePart, importStatus, lookAtFile, runImport, startImport } from './imports';
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

test('of a workbook another sheet can be read before it is taken in, and its columns are guessed anew', async () => {
  const bytes = await writeXlsx({
    sheets: [
      {
        name: 'Notes',
        rows: [
          ['What', 'When'],
          ['coffee', 'noon'],
        ],
      },
      {
        name: 'Members',
        rows: [
          ['Name', 'E-mail'],
          ['Mara Quill', 'm.quill@oakmere-glass.example'],
          ['Tom Ash', 'tom@marlpit.example'],
        ],
      },
    ],
  });
  const id = await lookAtFile(world, ines, { name: 'club.xlsx', bytes });
  expect((await previewImport(world, id, {})).table).toMatchObject({ parts: ['Notes', 'Members'], part: 'Notes' });
  await expect(choosePart(world, id, 'Nothing')).rejects.toThrow('there is no “Nothing” in club.xlsx');
  await choosePart(world, id, 'Members');
  const chosen = await previewImport(world, id, {});
  expect(chosen).toMatchObject({ table: { part: 'Members' }, import: { total: 2, matching: ['person.name', 'person.email'] } });
  await startImport(world, ines, id, {});
  await testWorker(world).drain();
  expect((await people(world, { limit: 5 })).items.map((person) => person.name).sort()).toEqual(['Mara Quill', 'Tom Ash']);
  await expect(choosePart(world, id, 'Notes')).rejects.toThrow('taken in already');
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

describe('a list of companies without anybody who works there', () => {
  const LIST =
    'Firm;Town;Country;Site;Heated area\nOakmere Glass Ltd;Hessle;GB;www.oakmere-glass.example;4,2\nMarlpit Nurseries;Wisbech;GB;marlpit.example;2\nMarlpit Nurseries;Wisbech;GB;marlpit.example;2,5\nOakmere Glass;Hull;GB;;\n;Ely;GB;;1\n';
  const companies = () =>
    world.db<{ name: string; website: string | null; area: number | null }[]>`
      select name, website, (custom->>'heated_area')::float8 as area from company order by name, website nulls last`;

  test('is taken in as companies: new ones, known ones told apart, those without a name refused', async () => {
    await createCompany(world, ines, { values: { name: 'Oakmere Glass', website: 'oakmere-glass.example' }, source: 'api' });
    const id = await look(LIST, 'members.csv');
    const preview = await previewImport(world, id, {});
    expect(preview.columns.map(({ target }) => target)).toEqual([
      'company.name',
      'company.city',
      'company.country',
      'company.website',
      'company.heated_area',
    ]);
    expect(preview.rows.map(({ plan }) => [plan.kind, plan.why, plan.personId])).toEqual([
      ['known', expect.stringMatching(/^joined by /), null],
      ['new', 'not in the CRM', null],
      ['known', 'same as row 2', null],
      ['perhaps', expect.stringMatching(/^perhaps Oakmere Glass/), null],
      ['refused', 'neither the company’s name nor its site', null],
    ]);
    expect(preview.rows[0]?.changes).toEqual([
      { field: 'company.city', from: null, to: 'Hessle' },
      { field: 'company.country', from: null, to: 'GB' },
      { field: 'company.heated_area', from: null, to: 4.2 },
    ]);
    await startImport(world, ines, id, {});
    await testWorker(world).drain();
    expect((await importStatus(world, id)).counts).toEqual({ new: 1, known: 2, perhaps: 1, refused: 1 });
    expect([...(await companies())]).toEqual([
      { name: 'Marlpit Nurseries', website: 'marlpit.example', area: 2.5 },
      { name: 'Oakmere Glass', website: 'oakmere-glass.example', area: 4.2 },
      { name: 'Oakmere Glass', website: null, area: null },
    ]);
    expect((await people(world, { limit: 5 })).items).toEqual([]);
    // The one in doubt waits on the duplicates page, with what speaks for it.
    expect([...(await world.db`select kind, state from pair`)]).toEqual([{ kind: 'company', state: 'open' }]);
  });

  test('brought a second time it makes nothing', async () => {
    for (const name of ['members.csv', 'again.csv']) {
      await startImport(world, ines, await look(LIST, name), {});
      await testWorker(world).drain();
    }
    expect((await companies()).map(({ name }) => name)).toEqual(['Marlpit Nurseries', 'Oakmere Glass', 'Oakmere Glass Ltd']);
  });

  test('starts no flow, and says why', async () => {
    const [flow] = await world.db<{ id: string }[]>`select id from flow where live_version_id is not null limit 1`;
    await expect(startImport(world, ines, await look(LIST), { flowId: flow?.id ?? null })).rejects.toThrow('flows are about people');
  });
});
