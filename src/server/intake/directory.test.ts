import type { DirectoryHit } from '../../core/intake';
import { WorldFailure } from '../ports';
import type { SearchCriteria } from './directory-search';
import { keepProvider } from '../workspace/providers';
import { providerSchema } from '../../core/lookup';
import { monthBudgetName } from '../trips/requests/month-budgets';
import { demoWorld, type TestWorld } from '../../testing/world';
import { lookInDirectory, takeFromDirectory } from './directory';
import { flows } from '../flows/flows';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
const CRITERIA: SearchCriteria = {
  service: '',
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

const SERVICE = providerSchema.parse({
  name: 'Tollgate',
  finds: 'records',
  method: 'GET',
  url: 'https://search.tollgate.example/companies?q={words}&town={place}&page={page}',
  list: '/items',
  record: { company: '/legal_name', site: '/web', place: '/seat', country: '/land', profile: '/ref' },
  mostPages: 9,
  priceMicro: 10_000,
});
/** A page of ten firms, of 24 in all. */
const firms = (url: string): unknown => {
  const page = Number(new URL(url).searchParams.get('page'));
  return {
    items: Array.from({ length: Math.max(0, Math.min(10, 24 - (page - 1) * 10)) }, (_, i) => {
      const n = (page - 1) * 10 + i;
      return {
        legal_name: `${LAST[n % 12] ?? ''} ${WORDS[n % 8] ?? ''} ${n}`,
        web: `service-${n}.example`,
        seat: 'Hessle',
        land: 'United Kingdom',
      };
    }),
  };
};
const companies: SearchCriteria = { ...CRITERIA, what: 'companies', service: 'Tollgate', words: 'glass & co', place: 'Hessle' };
const spentOn = async (): Promise<number> => {
  const budget = monthBudgetName('provider', 'Tollgate');
  const [row] = await world.db<
    { micro: number }[]
  >`select coalesce(sum(spent_micro), 0)::float8 as micro from spend where budget = ${budget}`;
  return row?.micro ?? 0;
};

test('a described service is asked page by page, each page paid once; who was taken in is not new again', async () => {
  await keepProvider(world, ines, { provider: SERVICE });
  world.outside.service = ({ url }) => firms(url);
  const look = await lookInDirectory(world, companies);
  expect(look).toMatchObject({ count: 24, more: false, fresh: 24 });
  expect(look.hits[0]).toMatchObject({ name: 'Ackroyd North 0', host: 'service-0.example', country: 'GB', becomes: 'new' });
  expect(world.outside.called[0]?.url).toBe('https://search.tollgate.example/companies?q=glass%20%26%20co&town=Hessle&page=1');
  expect(world.outside.called).toHaveLength(4);
  expect(await takeFromDirectory(world, ines, { criteria: companies, most: 12, onlyNew: true, flowId: null })).toEqual({
    taken: 12,
    known: 0,
    started: 0,
  });
  expect(await lookInDirectory(world, companies)).toMatchObject({ count: 24, fresh: 12 });
  expect(world.outside.called).toHaveLength(10);
  expect(await spentOn()).toBe(80_000);
});

test('a service that fails, that finds no records, or that nobody described takes nothing in, and says so', async () => {
  await keepProvider(world, ines, { provider: SERVICE });
  world.outside.service = () => new WorldFailure('refused', 'Tollgate did not take the key (403)', false);
  await expect(lookInDirectory(world, companies)).rejects.toThrow('Tollgate did not take the key (403): nothing was taken in');
  expect(await spentOn()).toBe(0);
  await expect(lookInDirectory(world, { ...companies, service: 'Pennant' })).rejects.toThrow('asked by lookup chains');
  await expect(lookInDirectory(world, { ...companies, service: 'Nobody' })).rejects.toThrow('the service “Nobody”');
});
