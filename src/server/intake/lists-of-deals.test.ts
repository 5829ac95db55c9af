import { demoWorld, testWorker, type TestWorld } from '../../testing/world';
import type { Actor } from '../platform/world';
import { createDeal, people } from '../records/records';
import { pageDeals } from '../records/store/deals';
import { previewImport } from './import-preview';
import { importStatus, lookAtFile, refusedRows, startImport } from './imports';
import { opening, openings } from './openings';

let world: TestWorld;
let ines: Actor;

beforeEach(async () => {
  ({ world, ines } = await demoWorld());
});
afterEach(() => world.close());

const look = (text: string, name = 'deals.csv') => lookAtFile(world, ines, { name, bytes: Buffer.from(text) });
const take = async (text: string): Promise<string> => {
  const id = await look(text);
  await startImport(world, ines, id, {});
  await testWorker(world).drain();
  return id;
};
const dealsCalled = (search: string) => pageDeals(world.db, { search, before: null, limit: 20 });

const DEALS = [
  'Deal;Company;Contact;E-mail;Value;Stage',
  'Bays nine to twelve;Sandbeck Nurseries Ltd;Mara Hollin;m.hollin@sandbeck.example;12500;Proposal',
  'Screens;Withern Growers Ltd;;;8000;qualified',
  'Vents;Tetney Ltd;Ole Tetney;;900;Sleeping',
].join('\n');

test('a list of deals becomes deals with their companies and people; a stage there is none of refuses its row', async () => {
  const id = await look(DEALS);
  const preview = await previewImport(world, id, {});
  expect(preview.columns.map((column) => column.target)).toEqual([
    'deal.title',
    'company.name',
    'person.name',
    'person.email',
    'deal.amount',
    'deal.stage',
  ]);
  expect(preview.counts).toMatchObject({ refused: 1, newDeals: 2, newApplications: 0 });
  expect(preview.rows[0]?.standing.deal?.says).toBe('opens at Proposal in Glasshouse sales');
  await startImport(world, ines, id, {});
  await testWorker(world).drain();
  expect((await importStatus(world, id)).counts).toMatchObject({ refused: 1, newDeals: 2 });
  expect(await dealsCalled('Bays nine')).toMatchObject([
    { stage: 'Proposal', amount: 12_500, companyName: 'Sandbeck Nurseries Ltd', personName: 'Mara Hollin' },
  ]);
  expect(await dealsCalled('Screens')).toMatchObject([
    { stage: 'Qualified', amount: 8000, companyName: 'Withern Growers Ltd', personName: null },
  ]);
  expect((await refusedRows(world, id)).rows).toEqual([
    [
      'Vents',
      'Tetney Ltd',
      'Ole Tetney',
      '',
      '900',
      'Sleeping',
      expect.stringMatching(/^no pipeline has a stage “Sleeping”: there are Qualified/),
    ],
  ]);
  const facts = await world.db<{ field: string; sourceRef: string }[]>`
    select field, source_ref from fact where record_kind = 'deal' and field = 'amount' and source = 'file' order by source_ref`;
  expect(facts.map((fact) => fact.sourceRef)).toEqual(['deals, row 1', 'deals, row 2']);
});

test('the same list again makes nothing twice: amounts follow, and nothing is moved', async () => {
  await take(DEALS);
  world.now += 86_400_000;
  const again = await look(DEALS.replace('12500;Proposal', '14000;Won'));
  const preview = await previewImport(world, again, {});
  expect(preview.counts).toMatchObject({ newDeals: 0 });
  expect(preview.rows[0]?.standing.deal).toMatchObject({ isNew: false, says: 'known, and stays at Proposal: the list says Won' });
  await startImport(world, ines, again, {});
  await testWorker(world).drain();
  expect(await dealsCalled('Bays nine')).toMatchObject([{ stage: 'Proposal', amount: 14_000 }]);
});

test('a deal made by hand is the one of the list, and keeps what was said by hand', async () => {
  await take(DEALS);
  const mara = (await people(world, { search: 'Mara Hollin', limit: 1 })).items[0];
  await createDeal(world, ines, {
    source: 'hand',
    title: 'Boiler house',
    pipeline: 'Glasshouse sales',
    stage: 'Meeting',
    amount: 30_000,
    companyId: mara?.companyId ?? null,
    personId: mara?.id ?? null,
  });
  await take('Deal;Company;Value;Stage\nboiler house;Sandbeck Nurseries Ltd;10;Lost\n');
  expect(await dealsCalled('Boiler house')).toMatchObject([{ stage: 'Meeting', amount: 30_000 }]);
});

test('a list of applications stands with its opening; who applied before has not again', async () => {
  const [first] = await openings(world);
  const name = first?.name ?? '';
  const before = (await opening(world, first?.id ?? '')).applications.length;
  const list = `Name;E-mail;Job;Step\nAda Brook;ada@brook.example;${name};Talk\nBen Stile;ben@stile.example;${name};\n`;
  await take(list);
  await take(list);
  const { applications } = await opening(world, first?.id ?? '');
  expect(applications).toHaveLength(before + 2);
  expect(applications.find((entry) => entry.personName === 'Ada Brook')).toMatchObject({ stage: 'Talk' });
  expect(applications.find((entry) => entry.personName === 'Ben Stile')).toMatchObject({ stage: first?.stages[0] });
});
