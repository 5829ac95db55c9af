import { demoWorkspace, testWorker, testWorld, type TestWorld } from '../../testing/world';
import { addDoNotContact } from '../messages/store/do-not-contact';
import { bringEntry } from '../intake/forms';
import { createFlow } from '../flows/flows';
import { changeRecord } from '../records/by-hand';
import { people } from '../records/records';
import { release } from '../flows/releases';
import { letThrough } from './screening';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
let flowId: string;

const FLOW = `flow "Door"
about person

take in from form "Project enquiry"
keep when email != null
  unless test entry, abusive words, disposable mailbox, role mailbox, missing site, parked site, customer, do not contact, same again
  else set status = "screened out"
set status = "came in"
`;
beforeEach(async () => {
  world = await testWorld();
  ({ ines } = await demoWorkspace(world, { crm: false, flow: FLOW }));
  const [row] = await world.db<{ id: string }[]>`select id from flow`;
  flowId = row!.id;
  world.outside.page('http://oakmere-glass.example/', 'Oakmere grows tomatoes on 4.2 ha under glass near Hessle.');
});
afterEach(() => world.close());

const send = async (raw: Record<string, string>): Promise<string> => {
  const answer = await bringEntry(world, 'Project enquiry', {
    raw: {
      company: 'Oakmere Glass',
      website: 'oakmere-glass.example',
      plan: 'New controls for bays 3 and 4 before the spring crop, please.',
      name: 'Mara Quill',
      email: 'm.quill@oakmere-glass.example',
      reach: 'by e-mail',
      has_controls: 'no',
      agreed: 'yes',
      ...raw,
    },
    files: [],
  });
  if (!answer.ok) throw new Error(JSON.stringify(answer.problems));
  await testWorker(world).drain();
  const [trip] = await world.db<{ id: string }[]>`select id from trip order by created_at desc, id limit 1`;
  return trip!.id;
};
const whyOf = async (tripId: string): Promise<string> => {
  const [row] = await world.db<
    { why: string }[]
  >`select state || ': ' || coalesce(state_detail ->> 'why', '') as why from trip where id = ${tripId}`;
  return row?.why ?? '';
};

test('an entry with nothing against it goes on', async () => {
  expect(await whyOf(await send({}))).toBe('done: ');
  expect((await people(world, { limit: 1 })).items[0]?.status).toBe('came in');
});

test.each<[string, Record<string, string>, RegExp]>([
  ['a try', { company: 'Asdf GmbH' }, /test entry, the text is “Asdf GmbH”/],
  ['abuse', { plan: 'You idiots, take this form down.' }, /abusive words, “You idiots, take this form down.”/],
  ['a mailbox to be thrown away', { email: 'jim@tenminutepost.example' }, /disposable mailbox, tenminutepost.example/],
  ['an office’s mailbox', { email: 'info@oakmere-glass.example' }, /role mailbox/],
  ['a site that is not there', { website: 'nowhere.example', company: 'Nowhere' }, /missing site, nowhere.example cannot be opened/],
  ['a parked site', { website: 'parked.example', company: 'Parked' }, /parked site, parked.example says “domain is for sale”/],
])('%s is screened out with its reason, before anything is spent', async (_name, raw, why) => {
  world.outside.page('http://parked.example/', 'This domain is for sale.');
  expect(await whyOf(await send(raw))).toMatch(why);
  expect((await people(world, { limit: 1 })).items[0]?.status).toBe('screened out');
});

test('customers, those who asked for silence, and the same enquiry again', async () => {
  await send({});
  const [mara] = (await people(world, { limit: 1 })).items;
  world.now += 3 * 86_400_000;
  expect(await whyOf(await send({ plan: 'Once more: new controls, and soon.' }))).toMatch(/same again, they wrote by Project enquiry on/);
  world.now += 40 * 86_400_000;
  await changeRecord(world, ines, { kind: 'company', id: mara!.companyId!, values: { status: 'customer' }, source: 'hand' });
  await addDoNotContact(world.db, 'm.quill@oakmere-glass.example', 'asked', world.now);
  const why = await whyOf(await send({ plan: 'A third time, much later than the others.' }));
  expect(why).toMatch(/customer, Oakmere Glass is a customer; do not contact, m.quill/);
});

test('what is let through by hand goes on, and the same is let through from then on', async () => {
  const trip = await send({ email: 'info@oakmere-glass.example' });
  expect(await whyOf(trip)).toMatch(/role mailbox/);
  world.now += 60_000;
  expect(await letThrough(world, ines, trip)).toEqual({ started: 1 });
  await testWorker(world).drain();
  expect((await people(world, { limit: 1 })).items[0]?.status).toBe('came in');
  await expect(letThrough(world, ines, trip)).rejects.toThrow('already');
  world.now += 60 * 86_400_000;
  expect(await whyOf(await send({ email: 'info@oakmere-glass.example', plan: 'Another project altogether, for the north house.' }))).toBe(
    'done: ',
  );
  expect(flowId).toBeDefined();
});

test('a trip that went its way cannot be let through', async () => {
  await expect(letThrough(world, ines, await send({}))).rejects.toThrow('was not screened out');
});

test('an unknown reason is said by the checker when the flow is released', async () => {
  const { id } = await createFlow(world, ines, FLOW.replace('test entry', 'bad mood').replace('Door', 'Other door'));
  await expect(release(world, ines, id)).rejects.toThrow(/what can be screened out is test entry/);
});
