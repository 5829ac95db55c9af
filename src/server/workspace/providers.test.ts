/** Lookup services described by data, on a real database: kept with a sealed key, tried, asked by a chain, removed. */
import { demoWorld, testWorker, type TestWorld } from '../../testing/world';
import { WorldFailure } from '../ports';
import { createFlow, startOn } from '../flows/flows';
import { keepProvider, providers, removeProvider, tryProvider } from './providers';
import { createCompany, createPerson } from '../records/records';
import { release } from '../flows/releases';
import { makeThing } from '../flows/things';
import { trips } from '../desk/overview';
import { personPage } from '../records/records';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
beforeEach(async () => {
  ({ world, ines } = await demoWorld());
});
afterEach(() => world.close());

const provider = {
  name: 'Tidewire',
  method: 'GET' as const,
  url: 'https://api.tidewire.example/find?name={name}&at={host}',
  headers: [{ name: 'X-Key', value: '{secret}' }],
  body: '',
  value: '/hit/mail',
  confidence: '/hit/score',
};
const mara = async () => {
  const firm = await createCompany(world, ines, { values: { name: 'Oakmere Glass', website: 'oakmere-glass.example' }, source: 'api' });
  return createPerson(world, ines, { values: { name: 'Mara Quillfeather' }, companyId: firm.id, source: 'api' });
};

test('a key is kept sealed, shown to nobody, and gone when the door changes', async () => {
  await keepProvider(world, ines, { provider, secret: 'k-123' });
  const view = async () => (await providers(world)).find((entry) => entry.provider.name === 'Tidewire');
  expect(await view()).toMatchObject({ hasSecret: true, usedBy: [], checked: null });
  expect(JSON.stringify(await providers(world))).not.toContain('k-123');
  expect(JSON.stringify(await world.db`select * from provider`)).not.toContain('k-123');
  await keepProvider(world, ines, { provider: { ...provider, url: 'https://api.tidewire.example/v2?n={name}' } });
  expect(await view()).toMatchObject({ hasSecret: true });
  for (const url of [
    'https://elsewhere.example/find?n={name}',
    'http://api.tidewire.example/find?n={name}',
    'https://api.tidewire.example:8443/',
  ]) {
    await keepProvider(world, ines, { provider, secret: 'k-123' });
    await keepProvider(world, ines, { provider: { ...provider, url } });
    expect(await view()).toMatchObject({ hasSecret: false });
  }
  await expect(keepProvider(world, ines, { provider: { ...provider, value: 'hit.mail' } })).rejects.toThrow('begins with /');
});

test('is tried on one person: what went out without the key, what came back, and where the value stands', async () => {
  await mara();
  world.outside.service = () => ({ hit: { mail: 'm.quillfeather@oakmere-glass.example', score: 91 } });
  const tried = await tryProvider(world, {
    provider: { ...provider, url: `${provider.url}&k={secret}` },
    secret: 'k-123',
    who: 'Quillfeather',
  });
  expect(world.outside.called[0]).toMatchObject({ method: 'GET', headers: { 'x-key': 'k-123' } });
  expect(tried).toMatchObject({
    ok: true,
    person: 'Mara Quillfeather',
    value: 'm.quillfeather@oakmere-glass.example',
    confidence: 0.91,
    asks: 'GET https://api.tidewire.example/find?name=Mara%20Quillfeather&at=oakmere-glass.example&k=…',
  });
  expect(tried.places).toContainEqual({ at: '/hit/score', value: 91 });
  world.outside.service = () => new WorldFailure('refused', 'Tidewire did not take the key (401)', false);
  expect(await tryProvider(world, { provider, who: 'Quillfeather' })).toMatchObject({
    ok: false,
    says: 'Tidewire did not take the key (401)',
  });
  await expect(tryProvider(world, { provider, who: 'Nobody Atall' })).rejects.toThrow('nobody on record is called “Nobody Atall”');
});

test('a chain asks it in a flow; while it does, it is not removed', async () => {
  const person = await mara();
  await keepProvider(world, ines, { provider, secret: 'k-123' });
  await makeThing(world, ines, {
    kind: 'chain',
    name: 'By wire',
    body: { name: 'By wire', field: 'email', providers: [{ name: 'Tidewire', priceMicro: 30_000 }] },
  });
  world.outside.service = () => ({ hit: { mail: 'm.quillfeather@oakmere-glass.example', score: 91 } });
  const flow = await createFlow(world, ines, 'flow "W"\nabout person\n\ntake in from hand\nlook up email with "By wire"\nnote email\n');
  await release(world, ines, flow.id);
  await startOn(world, ines, flow.id, [person.id]);
  await testWorker(world).drain();
  expect((await trips(world, {})).items[0]).toMatchObject({ state: 'done' });
  const page = await personPage(world, person.id);
  expect(page.known.find((field) => field.key === 'email')?.fact).toMatchObject({
    value: 'm.quillfeather@oakmere-glass.example',
    source: 'lookup',
    sourceRef: 'Tidewire',
  });
  expect(world.outside.called).toHaveLength(1);
  expect(world.outside.asked).toHaveLength(0);
  await expect(removeProvider(world, ines, 'Tidewire')).rejects.toThrow('“By wire” asks it');
});
