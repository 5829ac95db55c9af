/** What is kept for a time only goes when its time is over, and nothing else does. */
import { stableId } from '../../core/base';
import { demoWorld, testWorker, type TestWorld } from '../../testing/world';
import { createFlow, startOn } from '../flows/flows';
import { lookAtFile, refusedRows, startImport } from '../intake/imports';
import { keepFor, keepingView, sweep } from './keeping';
import { trip } from '../desk/overview';
import { createPerson, personPage } from '../records/records';
import { release } from '../flows/releases';
import type { Actor } from '../platform/world';

const DAY = 86_400_000;
let world: TestWorld;
let ines: Actor;
const ruud: Actor = { userId: stableId('user', 'ruud@thornwick.example'), name: 'Ruud' };
beforeEach(async () => {
  ({ world, ines } = await demoWorld());
});
afterEach(() => world.close());

async function page(url: string, at: number): Promise<void> {
  await world.db`insert into page (url, status, links, fetched_at, title, language, blocks) values (${url}, 200, '[]', ${at}, '', '', '[]')`;
}

test('pages go after their time, newer ones stay, and for ever is for ever', async () => {
  await page('https://old.example/', world.now - 200 * DAY);
  await page('https://new.example/', world.now - 10 * DAY);
  expect((await keepFor(world, ruud, { kind: 'pages', days: 0 })).days.pages).toBe(0);
  expect(await sweep(world)).toBe(0);
  expect((await keepFor(world, ruud, { kind: 'pages', days: 90 })).now.pages).toBe(2);
  expect(await sweep(world)).toBe(1);
  expect((await keepingView(world)).now.pages).toBe(1);
  expect(await sweep(world)).toBe(0);
});

test('a journal whose time is over keeps how the trip ended, and the person keeps all of theirs', async () => {
  const flow = await createFlow(world, ines, 'flow "T"\nabout person\n\ntake in from hand\nnote "seen by hand"\n');
  await release(world, ines, flow.id);
  const someone = await createPerson(world, ines, { values: { name: 'Mara Quill' }, source: 'hand' });
  await startOn(world, ines, flow.id, [someone.id]);
  await testWorker(world).drain();
  await keepFor(world, ruud, { kind: 'journals', days: 30 });
  world.now += 31 * DAY;
  expect(await sweep(world)).toBeGreaterThan(0);
  const [row] = (await personPage(world, someone.id)).trips;
  const { journal, trip: ended } = await trip(world, row?.id ?? '');
  expect(journal.map((entry) => [entry.verb, entry.outcome, entry.says])).toEqual([
    ['take in', 'passed', ''],
    ['note', 'passed', ''],
  ]);
  expect(ended.state).toBe('done');
  expect((await personPage(world, someone.id)).person.name).toBe('Mara Quill');
});

test('a list’s file goes, its records stay', async () => {
  const id = await lookAtFile(world, ines, { name: 'fair.csv', bytes: Buffer.from('Name,E-mail\nAnn Bell,ann@b.example\nxx,nobody\n') });
  await startImport(world, ines, id, {});
  await testWorker(world).drain();
  world.now += 100 * DAY;
  expect(await sweep(world)).toBeGreaterThan(0);
  expect([...(await world.db`select 1 from import_piece`)]).toEqual([]);
  expect([...(await world.db`select name from person where email = 'ann@b.example'`)]).toEqual([{ name: 'Ann Bell' }]);
  expect((await refusedRows(world, id)).rows).toEqual([['no e-mail, phone or site: nobody could be reached']]);
});
