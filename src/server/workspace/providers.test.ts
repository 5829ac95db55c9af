/** Lookup services described by data, on a real database: kept with a sealed key, tried, asked by a chain, removed. */
import { demoWorld, testWorker, type TestWorld } from '../../testing/world';
import { WorldFailure } from '../ports';
import { createFlow, startOn } from '../flows/flows';
import { providerSchema } from '../../core/lookup';
import { beginningsOf } from './open-api';
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

const provider = providerSchema.parse({
  name: 'Tidewire',
  method: 'GET',
  url: 'https://api.tidewire.example/find?name={name}&at={host}',
  headers: [{ name: 'X-Key', value: '{secret}' }],
  body: '',
  value: '/hit/mail',
  confidence: '/hit/score',
});
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

const later = {
  ticket: '/id',
  url: 'https://api.tidewire.example/jobs/{ticket}',
  state: '/state',
  ready: 'ready',
  everyS: 20,
  atMostS: 300,
};
const slow = providerSchema.parse({
  ...provider,
  method: 'POST',
  url: 'https://api.tidewire.example/jobs',
  body: '{"who": "{name}"}',
  list: '/hits',
  value: '/mail',
  confidence: '/score',
  next: '/next',
  mostPages: 3,
  later,
});

/** A flow that looks an e-mail up at the slow service, with somebody on the way through it. */
async function lookingUp(): Promise<string> {
  const person = await mara();
  await keepProvider(world, ines, { provider: slow, secret: 'k-123' });
  const chain = { name: 'By wire', field: 'email', providers: [{ name: 'Tidewire', priceMicro: 30_000 }] };
  await makeThing(world, ines, { kind: 'chain', name: 'By wire', body: chain });
  const flow = await createFlow(world, ines, 'flow "W"\nabout person\n\ntake in from hand\nlook up email with "By wire"\nnote email\n');
  await release(world, ines, flow.id);
  await startOn(world, ines, flow.id, [person.id]);
  return person.id;
}

test('what answers later is asked once, waited for without a worker, collected over its pages and paid once', async () => {
  let ready = false;
  world.outside.service = ({ method, url }) => {
    if (method === 'POST') return { id: 't9', state: 'queued' };
    if (url.endsWith('?page=2')) return { hits: [{ mail: 'm.quillfeather@oakmere-glass.example', score: 0.9 }] };
    return ready
      ? { state: 'ready', hits: [{ mail: 'office@oakmere-glass.example', score: 1 }], next: '/jobs/t9?page=2' }
      : { state: 'working' };
  };
  const personId = await lookingUp();
  await testWorker(world).drain();
  world.now += 21_000;
  await testWorker(world).drain();
  expect(world.outside.called.map(({ method, url }) => `${method} ${new URL(url).pathname}`)).toEqual(['POST /jobs', 'GET /jobs/t9']);
  expect((await trips(world, {})).items[0]).toMatchObject({ state: 'waiting' });
  ready = true;
  world.now += 21_000;
  // Another worker takes over: the ticket stands in the ledger.
  await testWorker(world).drain();
  expect((await trips(world, {})).items[0]).toMatchObject({ state: 'done' });
  expect(world.outside.called.filter(({ method }) => method === 'POST')).toHaveLength(1);
  expect((await personPage(world, personId)).known.find((field) => field.key === 'email')?.fact?.value).toBe(
    'm.quillfeather@oakmere-glass.example',
  );
  const [paid] = await world.db<
    { micro: number; asking: unknown }[]
  >`select cost_micro::float8 as micro, asking from effect where kind = 'look up'`;
  expect(paid).toEqual({ micro: 30_000, asking: null });
});

test('what never answers is given up and costs nothing', async () => {
  world.outside.service = ({ method }) => (method === 'POST' ? { id: 't9' } : { state: 'working' });
  const personId = await lookingUp();
  for (let i = 0; i < 20; i += 1) {
    await testWorker(world).drain();
    world.now += 20_000;
  }
  const [trip] = (await trips(world, {})).items;
  expect(trip).toMatchObject({ state: 'done' });
  expect((await personPage(world, personId)).known.find((field) => field.key === 'email')?.fact ?? null).toBeNull();
  expect(await world.db`select 1 from spend where spent_micro > 0 or reserved_micro > 0`).toHaveLength(0);
});

test('a try waits a little for what answers later, and shows what it said so far', async () => {
  await mara();
  world.outside.service = ({ method }) => (method === 'POST' ? { id: 't9', state: 'queued' } : { state: 'working' });
  const far = await tryProvider(world, { provider: slow, secret: '', who: 'Quillfeather' });
  expect(far).toMatchObject({ ok: true, collected: false, says: 'it has not answered yet: what it says so far is below' });
  expect(far.places).toContainEqual({ at: '/id', value: 't9' });
  world.outside.service = ({ method }) =>
    method === 'POST'
      ? { id: 't9' }
      : { state: 'ready', hits: [{ mail: 'office@oakmere-glass.example' }, { mail: 'mara@oakmere-glass.example', score: 1 }] };
  const near = { ...slow, later: { ...slow.later, ...later, failed: '', everyS: 1 } };
  expect(await tryProvider(world, { provider: near, secret: '', who: 'Quillfeather' })).toMatchObject({
    collected: true,
    value: 'mara@oakmere-glass.example',
    says: expect.stringContaining(', of 2 in the list') as string,
  });
});

test('an OpenAPI document is read as JSON and as YAML; what is neither says where it goes wrong', () => {
  const yaml =
    'openapi: 3.0.2\ninfo: { title: Ferrygate }\nservers:\n  - url: https://api.ferrygate.example\npaths:\n  /find:\n    get:\n      parameters:\n        - { name: full_name, in: query, required: true }\n';
  expect(beginningsOf(yaml)).toMatchObject({
    title: 'Ferrygate',
    calls: [{ label: 'GET /find', provider: { url: 'https://api.ferrygate.example/find?full_name={name}' } }],
  });
  expect(() => beginningsOf('{"openapi": ')).toThrow('it is neither JSON nor YAML');
  expect(() => beginningsOf('a: [b')).toThrow('it is neither JSON nor YAML');
  const bomb = `a: &a [x, x]\n${[...'bcdefgh']
    .map(
      (name, i) =>
        `${name}: &${name} [${Array(9)
          .fill(`*${'abcdefgh'[i] ?? ''}`)
          .join(', ')}]`,
    )
    .join('\n')}`;
  expect(() => beginningsOf(bomb)).toThrow();
});
