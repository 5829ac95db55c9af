import { demoWorkspace, testWorld, type TestWorld } from '../../testing/world';
import { createPerson } from '../records/records';
import { answerHealth, answerMetrics, answerReady } from './watch';

const KEY = 'a key of sixteen or more';
let world: TestWorld;
beforeEach(async () => {
  world = await testWorld();
  const { ines } = await demoWorkspace(world);
  await createPerson(world, ines, { values: { name: 'Mara Quill' }, source: 'hand' });
});

const asked = (authorization?: string): Request =>
  new Request('http://x.example/metrics', { headers: authorization === undefined ? {} : { authorization } });

test('up while the process is, ready while the database answers', async () => {
  expect(answerHealth().status).toBe(200);
  expect((await answerReady(world)).status).toBe(200);
  await world.close();
  const away = await answerReady(world);
  expect([away.status, await away.text()]).toEqual([503, 'the database does not answer\n']);
});

test('figures are given to who has the key, and there is no such page without one', async () => {
  expect((await answerMetrics(world, null, asked(`Bearer ${KEY}`))).status).toBe(404);
  expect((await answerMetrics(world, KEY, asked())).status).toBe(401);
  expect((await answerMetrics(world, KEY, asked('Bearer another key of such length'))).status).toBe(401);
  const given = await answerMetrics(world, KEY, asked(`Bearer ${KEY}`));
  const text = await given.text();
  expect(given.headers.get('content-type')).toContain('text/plain');
  expect(text).toMatch(/^millrace_trips_due 0$/m);
  expect(text).toMatch(/^millrace_sends_due 0$/m);
  expect(text).not.toContain('Mara');
  await world.close();
});
