/** Reviews belong to whom they were asked of: their desk, their count, their right to decide. */
import { stableId } from '../../core/base';
import { demoWorld, testWorker, type TestWorld } from '../../testing/world';
import { createFlow, startOn } from '../flows/flows';
import { rail } from './rail';
import { createCompany, createPerson } from '../records/records';
import { release } from '../flows/releases';
import { decideReview, desk } from './reviews';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
const user = (name: string): Actor => ({ userId: stableId('user', `${name.toLowerCase()}@thornwick.example`), name });
const [lucia, dagny, ruud, tomasz] = [user('Lucia'), user('Dagny'), user('Ruud'), user('Tomasz')];

beforeEach(async () => {
  ({ world, ines } = await demoWorld());
  world.now = Date.parse('2026-11-24T18:00:00Z');
  const made = await createFlow(
    world,
    ines,
    'flow "T"\nabout person\n\ntake in from hand\nwrite email "Enquiry answered" as mail\nask "south" to approve mail\nsend mail\n',
  );
  await release(world, ines, made.id);
  const firm = await createCompany(world, ines, { values: { name: 'Oakmere Glass', heated_area: '4' }, source: 'hand' });
  const someone = await createPerson(world, ines, {
    values: { name: 'Mara Quill', email: 'mara@oakmere-glass.example' },
    companyId: firm.id,
    source: 'hand',
  });
  await startOn(world, ines, made.id, [someone.id]);
  await testWorker(world).drain();
});
afterEach(() => world.close());

const seen = async (who: Actor) => (await desk(world, who)).reviews.map(({ whose }) => [whose.people, whose.yours, whose.standIn]);

test('the team sees it and is counted, others neither see nor decide it, and who builds here may take it over', async () => {
  expect(await seen(lucia)).toEqual([[['Lucía Ferrer Mas'], true, false]]);
  expect(await seen(dagny)).toEqual([]);
  expect(await seen(ines)).toEqual([[['Lucía Ferrer Mas'], false, false]]);
  expect([
    (await rail(world, lucia, 'builder')).desk,
    (await rail(world, ines, 'builder')).desk,
    (await rail(world, dagny, 'builder')).desk,
  ]).toEqual([1, 0, 0]);
  const [review] = (await desk(world, lucia)).reviews;
  await expect(decideReview(world, dagny, review?.id ?? '', { does: 'approve' })).rejects.toThrow(
    'this was asked of south: Lucía Ferrer Mas decide',
  );
  await decideReview(world, ines, review?.id ?? '', { does: 'approve' });
  expect(await seen(lucia)).toEqual([]);
});

test('while all of them are away a colleague of theirs stands in, and with nobody left the owner', async () => {
  const away = (who: Actor) => world.db`insert into away (user_id, from_day, to_day) values (${who.userId}, '2026-11-20', '2026-11-30')`;
  await away(lucia);
  expect(await seen(tomasz)).toEqual([[['Tomasz Wierzba'], true, true]]);
  await away(tomasz);
  expect(await seen(ruud)).toEqual([[expect.arrayContaining([expect.stringContaining('Ruud')]), true, true]]);
  expect((await rail(world, ruud, 'builder')).desk).toBe(1);
  expect(await seen(lucia)).toEqual([]);
});
