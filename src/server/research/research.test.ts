/** Reading a company at several places at once, slow and failing ones among them. */
import { WorldFailure, type SourceDocument, type SourceState } from '../ports';
import { demoWorld, testWorker, type TestWorld } from '../../testing/world';

import { createFlow, startOn } from '../flows/flows';
import { release } from '../flows/releases';
import type { Actor } from '../platform/world';

const FLOW = `flow "Look around"
about person

take in from file "Autumn fair"
read company from website, news, register as research
  heated_area: number in ha "How large is the area under heated glass?"
  expansion: yes/no "Was an expansion announced?"
  employees: number "How many people work there?"
  at most 4 pages, 0.05 EUR
note "read"
`;

let world: TestWorld;
let ines: Actor;
let personId: string;
let companyId: string;

beforeEach(async () => {
  ({ world, ines } = await demoWorld({ crm: true }));
  const [row] = await world.db<
    { id: string; companyId: string }[]
  >`select p.id, p.company_id from person p join company c on c.id = p.company_id where c.website = 'gaertnerei-vossbruch.example' limit 1`;
  personId = row?.id ?? '';
  companyId = row?.companyId ?? '';
  world.outside.page('http://gaertnerei-vossbruch.example/', 'We grow on 3.1 ha of heated glass.');
});
afterEach(() => world.close());

const document = (url: string, text: string, published: string | null = null): SourceDocument => ({
  url,
  title: '',
  language: '',
  published: published === null ? null : Date.parse(published),
  blocks: [{ kind: 'text', text, under: '', date: null }],
});
const done = (...documents: readonly SourceDocument[]): SourceState => ({ kind: 'done', documents, costMicro: 10_000 });

async function start(name = 'Look around'): Promise<void> {
  const made = await createFlow(world, ines, FLOW.replace('Look around', name));
  await release(world, ines, made.id);
  await startOn(world, ines, made.id, [personId]);
}
const facts = () =>
  world.db<{ field: string; value: unknown; source: string; quote: string; url: string }[]>`
    select field, value, source, quote, url from fact where record_id = ${companyId} and trip_id is not null and value <> 'null' order by id`;

test('every place answers what it knows, and each value keeps its place', async () => {
  world.outside.source = ({ source }) =>
    source === 'news'
      ? done(document('http://news.example/1', 'Vossbruch is building a new glasshouse of one hectare.', '2026-09-01'))
      : done(document('http://register.example/1', 'Employees: 21'));
  await start();
  await testWorker(world).drain();
  expect(await facts()).toEqual([
    expect.objectContaining({ field: 'heated_area', value: 3.1, source: 'site', url: 'http://gaertnerei-vossbruch.example/' }),
    expect.objectContaining({ field: 'expansion', value: true, source: 'news', url: 'http://news.example/1' }),
    expect.objectContaining({ field: 'employees', value: 21, source: 'register', quote: 'Employees: 21' }),
  ]);
});

test('a search that takes its time is a wait: started once, asked after, and the site is not read twice', async () => {
  let asked = 0;
  world.outside.source = ({ source }) => (source === 'news' ? { kind: 'working', job: 'j1', askAgainMs: 60_000 } : done());
  world.outside.collected = () => {
    asked += 1;
    return asked < 2
      ? { kind: 'working', job: 'j1', askAgainMs: 20_000 }
      : done(document('http://news.example/1', 'Vossbruch is building a new glasshouse of one hectare.', '2026-09-01'));
  };
  await start();
  await testWorker(world).drain();
  const [waiting] = await world.db<{ state: string }[]>`select state from trip`;
  expect(waiting).toMatchObject({ state: 'waiting' });
  expect(await facts()).toEqual([]);
  world.now += 61_000;
  await testWorker(world).drain();
  world.now += 21_000;
  await testWorker(world).drain();
  expect((await facts()).map((fact) => [fact.field, fact.source])).toEqual([
    ['heated_area', 'site'],
    ['expansion', 'news'],
  ]);
  expect(world.outside.searched.filter((question) => question.source === 'news')).toHaveLength(1);
  expect(world.outside.fetched).toBe(1);
});

test('a failing source holds up no other, and the journal says so', async () => {
  world.outside.source = ({ source }) => {
    if (source === 'news') return new WorldFailure('refused', 'the source “news” refused the question (403)', false);
    return { kind: 'failed', why: 'the search broke off' };
  };
  await start();
  await testWorker(world).drain();
  expect((await facts()).map((fact) => fact.field)).toEqual(['heated_area']);
  const [entry] = await world.db<{ says: string }[]>`select says from journal where verb = 'read' and outcome = 'passed'`;
  expect(entry?.says).toContain('refused the question (403)');
  expect(entry?.says).toContain('register: the search broke off');
});

test('a source that never ends is given up after a while', async () => {
  world.outside.source = () => ({ kind: 'working', job: 'j', askAgainMs: 30_000 });
  world.outside.collected = () => ({ kind: 'working', job: 'j', askAgainMs: 30_000 });
  await start();
  for (let i = 0; i < 6; i++) {
    await testWorker(world).drain();
    world.now += 31_000;
  }
  const [entry] = await world.db<{ says: string }[]>`select says from journal where verb = 'read' and outcome = 'passed'`;
  expect(entry?.says).toContain('did not answer in time');
});

test('what a search costs is in the journal, once; the next trip within a week pays nothing', async () => {
  world.outside.source = ({ source }) => (source === 'news' ? done() : { kind: 'done', documents: [], costMicro: 0 });
  await start();
  await testWorker(world).drain();
  await start('Look again');
  await testWorker(world).drain();
  const costs = await world.db<
    { costMicro: number }[]
  >`select cost_micro from journal where verb = 'read' and outcome = 'passed' order by at, trip_id`;
  expect(costs.map((row) => row.costMicro).sort((a, b) => b - a)).toEqual([10_000, 0]);
});

test('a search that ended while another went on is paid all the same', async () => {
  let asked = 0;
  world.outside.source = ({ source }) => (source === 'news' ? done() : { kind: 'working', job: 'j', askAgainMs: 10_000 });
  world.outside.collected = () =>
    ++asked < 2 ? { kind: 'working', job: 'j', askAgainMs: 10_000 } : { kind: 'done', documents: [], costMicro: 0 };
  await start();
  for (let i = 0; i < 3; i++) {
    await testWorker(world).drain();
    world.now += 11_000;
  }
  const costs = await world.db<{ costMicro: number }[]>`select cost_micro from journal where verb = 'read' and outcome = 'passed'`;
  expect(costs.map((row) => row.costMicro)).toEqual([10_000]);
});

test('a source dearer than the line allows is left out', async () => {
  await world.db`update setting set value = '[{"name":"news","label":"News","priceMicro":90000},{"name":"register","label":"Register"}]' where key = 'sources'`;
  await start();
  await testWorker(world).drain();
  expect(world.outside.searched.map((question) => question.source)).toEqual(['register']);
  const [entry] = await world.db<{ says: string }[]>`select says from journal where verb = 'read' and outcome = 'passed'`;
  expect(entry?.says).toContain('News left out: over the line’s limit');
});

test('read again later, a place tells what is new: nothing the first time, then each thing once, a changed profile too', async () => {
  const made = await createFlow(
    world,
    ines,
    'flow "Watch"\nabout person\n\ntake in from clock at 07:00\n  when company.website = "gaertnerei-vossbruch.example"\nread company from news, people as seen\n  no older than 1 day\nkeep when seen.changes > 0\nnote seen.news\n',
  );
  await release(world, ines, made.id);
  let news = [document('http://news.example/1', 'Vossbruch at the fair')];
  let role = 'grower';
  world.outside.source = ({ source }) =>
    source === 'news'
      ? done(...news.map((entry) => ({ ...entry, title: `News ${entry.url.slice(-1)}` })))
      : done({ ...document('http://people.example/m', role), title: 'M. Lenz' });
  const notes = async () =>
    (await world.db<{ says: string }[]>`select says from timeline where kind = 'note' and detail ? 'tripId' order by at, id`).map(
      (row) => row.says,
    );
  const nextDay = async (): Promise<void> => {
    world.now += 86_400_000;
    await testWorker(world).drain();
  };
  await nextDay();
  expect(await notes()).toEqual([]);
  await nextDay();
  expect(await notes()).toEqual([]);
  news = [...news, document('http://news.example/2', 'Vossbruch builds')];
  role = 'managing director';
  await nextDay();
  expect(new Set(await notes())).toEqual(new Set(['news: News 2; directory: M. Lenz']));
  const count = (await notes()).length;
  await nextDay();
  expect((await notes()).length).toBe(count);
});
