import type { DirectoryHit } from '../../core/intake';
import { WorldFailure, type DirectoryCriteria } from '../ports';
import { demoWorld, type TestWorld } from '../../testing/world';
import { lookInDirectory, takeFromDirectory } from './directory';
import { flows } from '../flows/flows';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
const CRITERIA: DirectoryCriteria = {
  what: 'people',
  title: '',
  words: '',
  place: '',
  country: '',
  fields: [],
  minEmployees: null,
  order: 'name',
};
const FIRST = ['Amelia', 'Conrad', 'Dorian', 'Freya', 'Gideon', 'Hazel', 'Isla', 'Jasper', 'Keir', 'Lorna'];
const LAST = [
  'Ackroyd',
  'Brabazon',
  'Cottle',
  'Dunmore',
  'Ellwood',
  'Ferriby',
  'Gascoyne',
  'Holroyd',
  'Ingleby',
  'Jessop',
  'Kettering',
  'Lathom',
];
const WORDS = ['North', 'Valley', 'Marsh', 'Hill', 'River', 'Forest', 'Coast', 'Moor'];
const hit = (name: string, host: string, company: string): DirectoryHit => ({
  id: `${name} ${host}`,
  name,
  title: 'grower',
  company,
  host,
  place: 'Hessle',
  country: 'GB',
  values: { heated_area: 3 },
  employees: 9,
  url: `http://circle.example/${name.length}`,
});

beforeEach(async () => {
  ({ world, ines } = await demoWorld({ crm: true }));
  world.outside.directory = () => [
    hit('Mareike Petersen', 'gaertnerei-vossbruch.example', 'Gärtnerei Vossbruch GmbH'),
    ...Array.from({ length: 120 }, (_, i) =>
      hit(
        `${FIRST[i % 10] ?? ''} ${LAST[Math.floor(i / 10)] ?? ''}`,
        `firm-${i}.example`,
        `${WORDS[i % 8] ?? ''} ${LAST[i % 12] ?? ''} ${i}`,
      ),
    ),
  ];
});
afterEach(() => world.close());

test('looking counts, says what each would become, and takes nothing in', async () => {
  const before = await world.db`select 1 from person`;
  const look = await lookInDirectory(world, CRITERIA);
  expect(look.count).toBe(121);
  expect(look.hits).toHaveLength(50);
  expect(look.hits[0]).toMatchObject({ name: 'Mareike Petersen', becomes: 'known' });
  expect(look.fresh).toBe(49);
  expect(await world.db`select 1 from person`).toHaveLength(before.length);
});

test('only new ones are taken in, so many as asked, each with the directory as its source; again they are known', async () => {
  expect(await takeFromDirectory(world, ines, { criteria: CRITERIA, most: 110, onlyNew: true, flowId: null })).toEqual({
    taken: 110,
    known: 0,
    started: 0,
  });
  const [fact] = await world.db<
    { source: string; sourceRef: string }[]
  >`select source, source_ref from fact where source = 'directory' and field = 'job_title' limit 1`;
  expect(fact?.sourceRef).toMatch(/^http:\/\/circle\.example\//);
  expect(await takeFromDirectory(world, ines, { criteria: CRITERIA, most: 200, onlyNew: true, flowId: null })).toEqual({
    taken: 10,
    known: 0,
    started: 0,
  });
});

test('into a flow, the known ones too when asked', async () => {
  const flow = (await flows(world, 0)).find((entry) => entry.name === 'Trade-fair visitors');
  const end = await takeFromDirectory(world, ines, { criteria: CRITERIA, most: 3, onlyNew: false, flowId: flow?.id ?? null });
  expect(end).toEqual({ taken: 2, known: 1, started: 3 });
});

test('a directory that is down is told, and nothing is taken in', async () => {
  world.sources.directory = () => Promise.reject(new WorldFailure('unreachable', 'the directory could not be reached', true));
  await expect(lookInDirectory(world, CRITERIA)).rejects.toThrow('the directory could not be reached: nothing was taken in');
  await expect(takeFromDirectory(world, ines, { criteria: CRITERIA, most: 0, onlyNew: true, flowId: null })).rejects.toThrow(
    'between 1 and 1,000',
  );
});

test('companies: told from those the CRM has, taken in with the directory as their source, and into no flow', async () => {
  const hits: readonly DirectoryHit[] = [
    {
      ...hit('Gärtnerei Vossbruch GmbH', 'gaertnerei-vossbruch.example', ''),
      values: { main_crop: 'pot plants' },
    },
    {
      ...hit('Fresh Glass Ltd', 'fresh-glass.example', ''),
      values: { main_crop: 'peppers', heated_area: 3, shoe_size: 44 },
    },
  ];
  world.outside.directory = () => hits;
  const criteria = { ...CRITERIA, what: 'companies' as const };
  const look = await lookInDirectory(world, criteria);
  expect(look).toMatchObject({ count: 2, fresh: 1, hits: [{ becomes: 'known' }, { becomes: 'new' }] });
  await expect(takeFromDirectory(world, ines, { criteria, most: 5, onlyNew: false, flowId: world.newId() })).rejects.toThrow(
    'into no flow',
  );
  expect(await takeFromDirectory(world, ines, { criteria, most: 5, onlyNew: false, flowId: null })).toEqual({
    taken: 1,
    known: 1,
    started: 0,
  });
  const [made] = await world.db<
    { mainCrop: string; heatedArea: number }[]
  >`select custom->>'main_crop' as main_crop, (custom->>'heated_area')::float8 as heated_area from company where website = 'fresh-glass.example'`;
  expect(made).toEqual({ mainCrop: 'peppers', heatedArea: 3 });
  expect(await takeFromDirectory(world, ines, { criteria, most: 5, onlyNew: true, flowId: null })).toEqual({
    taken: 0,
    known: 0,
    started: 0,
  });
});
