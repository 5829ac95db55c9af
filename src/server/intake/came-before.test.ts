/** Releasing with those who came before, or from now on. */
import { demoWorld, testWorker, type TestWorld } from '../../testing/world';
import { createFlow } from '../flows/flows';
import { release, whoCameBefore } from '../flows/releases';
import { publicForm, receiveForm } from './forms';
import { lookAtFile, startImport } from './imports';
import { trip, trips } from '../desk/overview';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
beforeEach(async () => {
  ({ world, ines } = await demoWorld());
});
afterEach(() => world.close());

const PEOPLE = ['Mara Quill', 'Tom Ash', 'Ann Reed'];
async function listOf(label: string, names: readonly string[]): Promise<void> {
  const rows = names.map((name) => `${name},${name.toLowerCase().replace(' ', '.')}@marlpit.example`);
  const id = await lookAtFile(world, ines, { name: 'list.csv', bytes: Buffer.from(`Name,E-mail\n${rows.join('\n')}\n`) });
  await startImport(world, ines, id, { label });
  await testWorker(world).drain();
  world.now += 60_000;
}
const flowOf = (name: string, from: string) =>
  createFlow(world, ines, `flow "${name}"\nabout person\n\ntake in from ${from}\n  once per email\nnote name\n`);
const inFlow = async (flowId: string): Promise<string[]> => {
  await testWorker(world).drain();
  return (await trips(world, { flowId })).items.map((row) => row.personName).sort();
};

test('who came by a list is counted before a release, and stays as they are unless they are taken in', async () => {
  await listOf('May fair', PEOPLE);
  await listOf('June fair', ['Cem Ash']);
  const flow = await flowOf('Visitors', 'file "May fair"');
  expect(await whoCameBefore(world, flow.id)).toEqual({ by: 'file “May fair”', people: 3 });
  await release(world, ines, flow.id);
  expect(await inFlow(flow.id)).toEqual([]);
  await release(world, ines, flow.id, { cameBefore: 'take in' });
  expect(await inFlow(flow.id)).toEqual([...PEOPLE].sort());
  expect(await whoCameBefore(world, flow.id)).toEqual({ by: 'file “May fair”', people: 0 });
  await release(world, ines, flow.id, { cameBefore: 'take in' });
  expect(await inFlow(flow.id)).toHaveLength(3);
});

test('the limits of the release hold for them, and who came first begins first', async () => {
  await listOf('May fair', [PEOPLE[0] ?? '']);
  await listOf('May fair', PEOPLE.slice(1));
  const flow = await flowOf('Visitors', 'file "May fair"');
  await release(world, ines, flow.id, { cameBefore: 'take in', firstN: 1 });
  await testWorker(world).drain();
  expect((await trips(world, { flowId: flow.id, state: 'done' })).items.map((row) => row.personName)).toEqual(['Mara Quill']);
});

test('who came by a form brings along what they answered', async () => {
  const opened = (await publicForm(world, 'project-enquiry'))?.opened ?? '';
  world.now += 60_000;
  const raw = { company: 'Oakmere Glass', website: 'oakmere-glass.example', area: '4,2', has_controls: 'no', plan: 'Two bays.' };
  const who = { deadline: '2027-03-01', name: 'Mara Quill', email: 'm.quill@oakmere-glass.example', reach: 'by e-mail', agreed: 'yes' };
  expect(
    await receiveForm(world, 'project-enquiry', { raw: { ...raw, ...who }, files: [], opened, trap: '', sender: '10.0.0.1' }),
  ).toMatchObject({ ok: true });
  const flow = await createFlow(world, ines, 'flow "Plans"\nabout person\n\ntake in from form "Project enquiry"\nnote entry.plan\n');
  await release(world, ines, flow.id, { cameBefore: 'take in' });
  await testWorker(world).drain();
  const [row] = (await trips(world, { flowId: flow.id })).items;
  expect((await trip(world, row?.id ?? '')).journal.map((entry) => entry.says)).toContain('Two bays.');
});

test('a flow that names no intake has nobody waiting', async () => {
  const flow = await flowOf('By hand', 'hand');
  expect(await whoCameBefore(world, flow.id)).toBeNull();
  await release(world, ines, flow.id, { cameBefore: 'take in' });
  expect(await inFlow(flow.id)).toEqual([]);
});
