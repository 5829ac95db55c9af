import { signature } from '../net';
import { demoWorld, type TestWorld } from '../../testing/world';
import { createFlow } from '../flows/flows';
import { release } from '../flows/releases';
import {
  bringAgain,
  createWebhookIntake,
  mendPosted,
  receiveWebhook,
  saveWebhookIntake,
  tryWebhook,
  webhookIntake,
  type Posted,
} from './webhook-intakes';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
let hook: { readonly id: string; readonly secret: string; readonly token: string };
let slug: string;

beforeEach(async () => {
  ({ world, ines } = await demoWorld({ crm: true }));
  hook = await createWebhookIntake(world, ines, 'Partner portal');
  ({ slug } = await webhookIntake(world, hook.id));
});
afterEach(() => world.close());

const MESSAGE = {
  contact: { fullName: 'Mara Quill', email: 'm.quill@oakmere-glass.example' },
  companyName: 'Oakmere Glass',
  note: 'call me',
  lines: [{ sku: 'T4' }],
};
const post = (body: unknown, more: Partial<Posted> = {}) =>
  receiveWebhook(world, slug, {
    body: typeof body === 'string' ? body : JSON.stringify(body),
    id: null,
    seconds: Number.NaN,
    signatures: null,
    token: hook.token,
    ...more,
  });
const signed = (body: unknown, id = 'msg_1', at = world.now): Partial<Posted> => {
  const seconds = Math.floor(at / 1000);
  return { id, seconds, signatures: signature(hook.secret, id, seconds, JSON.stringify(body)), token: null };
};
const MATCHING = [
  { path: 'contact.fullName', target: 'person.name' as const },
  { path: 'contact.email', target: 'person.email' as const },
  { path: 'companyName', target: 'company.name' as const },
];

test('the first message is kept as the example; its values are matched; what waited is brought again', async () => {
  expect(await post(MESSAGE)).toMatchObject({ entry: 1, taken: false, says: 'kept as the example' });
  const view = await webhookIntake(world, hook.id);
  expect(view.sample).toMatchObject({ 'contact.fullName': 'Mara Quill', 'lines[0].sku': 'T4' });
  await expect(bringAgain(world, hook.id)).rejects.toThrow('nothing is matched yet');
  const tried = await tryWebhook(world, hook.id, { json: JSON.stringify(MESSAGE), matching: [] });
  expect(tried.matching).toEqual(expect.arrayContaining([...MATCHING]));
  await saveWebhookIntake(world, hook.id, { matching: tried.matching, isOn: true });
  expect(await bringAgain(world, hook.id)).toEqual({ taken: 1, refused: 0 });
  expect((await webhookIntake(world, hook.id)).entries[0]).toMatchObject({ state: 'taken', personName: 'Mara Quill' });
});

test('signed messages are taken; wrong, old and unsigned ones are not', async () => {
  await saveWebhookIntake(world, hook.id, { matching: MATCHING, isOn: true });
  expect(await post(MESSAGE, signed(MESSAGE))).toMatchObject({ entry: 1, taken: true });
  const refused = 'the signature or token does not fit';
  await expect(post({ ...MESSAGE, note: 'changed' }, signed(MESSAGE, 'msg_2'))).rejects.toThrow(refused);
  await expect(post(MESSAGE, signed(MESSAGE, 'msg_3', world.now - 400_000))).rejects.toThrow(refused);
  await expect(post(MESSAGE, { token: 'guessed' })).rejects.toThrow(refused);
  await expect(post(MESSAGE, { token: null })).rejects.toThrow(refused);
  expect(await world.db`select 1 from intake_entry`).toHaveLength(1);
});

test('the same message again changes nothing, with an id and without', async () => {
  await saveWebhookIntake(world, hook.id, { matching: MATCHING, isOn: true });
  await post(MESSAGE, signed(MESSAGE));
  expect(await post(MESSAGE, signed(MESSAGE))).toMatchObject({ entry: 1, says: 'known already' });
  await post(MESSAGE);
  expect(await post(MESSAGE)).toMatchObject({ entry: 2, says: 'known already' });
});

test('it begins the flow that takes in from there, with its values for the lines', async () => {
  await saveWebhookIntake(world, hook.id, { matching: [...MATCHING, { path: 'note', target: 'note' }], isOn: true });
  const made = await createFlow(
    world,
    ines,
    'flow "Portal"\nabout person\n\ntake in from webhook "Partner portal"\nnote "They say: " + entry.note\n',
  );
  await release(world, ines, made.id);
  await post(MESSAGE);
  const [trip] = await world.db<{ vars: unknown }[]>`select vars from trip where flow_id = ${made.id}`;
  expect(trip?.vars).toMatchObject({ entry: { note: 'call me', contact_full_name: 'Mara Quill' } });
  expect((await webhookIntake(world, hook.id)).flows).toEqual(['Portal']);
});

test('what cannot become a record says why, and can be mended', async () => {
  await saveWebhookIntake(world, hook.id, { matching: MATCHING, isOn: true });
  expect(await post({ contact: { fullName: 'Mara Quill' } })).toMatchObject({
    taken: false,
    says: 'no e-mail, phone or site: nobody could be reached',
  });
  const [entry] = (await webhookIntake(world, hook.id)).entries;
  expect(await mendPosted(world, entry?.id ?? '', { 'contact.email': 'm.quill@oakmere-glass.example' })).toMatchObject({ ok: true });
});

test.each([
  ['{"a":', 'the body is no JSON'],
  ['null', 'the body holds no value'],
])('%s', async (body, says) => {
  await expect(post(body)).rejects.toThrow(says);
});

test('switched off nothing is taken; two values cannot be one field; a name is given once', async () => {
  await expect(
    saveWebhookIntake(world, hook.id, { matching: [...MATCHING, { path: 'x', target: 'person.email' }], isOn: true }),
  ).rejects.toThrow('two values are taken as person.email');
  await saveWebhookIntake(world, hook.id, { matching: [], isOn: false });
  await expect(post(MESSAGE)).rejects.toThrow('nothing is taken in at this address');
  await expect(createWebhookIntake(world, ines, 'Partner portal')).rejects.toThrow('another intake');
});
