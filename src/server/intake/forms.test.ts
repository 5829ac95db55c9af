import { demoWorld, testWorker, type TestWorld } from '../../testing/world';
import { createForm, entries, entryFile, form, forms, mendEntry, publicForm, receiveForm, saveForm, type Sent } from './forms';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
let opened: string;

beforeEach(async () => {
  ({ world, ines } = await demoWorld({ crm: true }));
  opened = (await publicForm(world, 'project-enquiry'))?.opened ?? '';
  world.now += 60_000;
});
afterEach(() => world.close());

const RAW = {
  company: 'Oakmere Glass',
  website: 'oakmere-glass.example',
  area: '4,2',
  has_controls: 'yes',
  controls: 'Tessel 4',
  plan: 'Two bays before spring.',
  deadline: '2027-03-01',
  name: 'Mara Quill',
  email: 'm.quill@oakmere-glass.example',
  reach: 'by e-mail',
  agreed: 'yes',
};
const send = (raw: Readonly<Record<string, string>> = RAW, more: Partial<Sent> = {}) =>
  receiveForm(world, 'project-enquiry', { raw, files: [], opened, trap: '', sender: '10.0.0.1', ...more });
const only = async () => {
  const form = (await forms(world)).find(({ name }) => name === 'Project enquiry');
  const [entry] = await entries(world, form?.id ?? '');
  return entry;
};

test('what is sent is kept as it came, becomes a record with its source, and begins the flow that takes in from there', async () => {
  expect(await send()).toMatchObject({ ok: true, number: 1 });
  const entry = await only();
  expect(entry).toMatchObject({ state: 'taken', raw: RAW, personName: 'Mara Quill', answers: { area: 4.2, deadline: '2027-03-01' } });
  const [fact] = await world.db<
    { source: string; sourceRef: string }[]
  >`select source, source_ref from fact where field = 'email' and record_id = ${entry?.personId ?? ''} and source = 'form'`;
  expect(fact).toEqual({ source: 'form', sourceRef: 'Project enquiry, entry 1' });
  const [trip] = await world.db<
    { name: string; vars: unknown }[]
  >`select f.name, t.vars from trip t join flow f on f.id = t.flow_id where t.person_id = ${entry?.personId ?? ''}`;
  expect(trip).toMatchObject({ name: 'Grower enquiries', vars: { entry: { area: 4.2, plan: 'Two bays before spring.' } } });
});

test('sent twice by the same page it is one entry', async () => {
  await send();
  expect(await send()).toMatchObject({ ok: true, number: 1 });
  expect(await world.db`select 1 from intake_entry`).toHaveLength(1);
});

test('bad answers are told by question, and nothing is kept', async () => {
  expect(await send({ ...RAW, email: 'mara', area: 'lots' })).toMatchObject({
    ok: false,
    problems: [
      { question: 'area', says: '“lots” is not an amount in ha' },
      { question: 'email', says: '“mara” is not an e-mail address' },
    ],
  });
  expect(await world.db`select 1 from intake_entry`).toHaveLength(0);
});

test('machines are thanked and forgotten: the trap, and answers typed too fast', async () => {
  expect(await send(RAW, { trap: 'http://spam.example' })).toMatchObject({ ok: true, number: 0 });
  const fresh = (await publicForm(world, 'project-enquiry'))?.opened ?? '';
  expect(await send(RAW, { opened: fresh })).toMatchObject({ ok: true, number: 0 });
  expect(await world.db`select 1 from intake_entry`).toHaveLength(0);
});

test('a page that was open too long, or was never given out, is asked to be loaded again', async () => {
  expect(await send(RAW, { opened: '123.abc' })).toMatchObject({ ok: false, problems: [] });
  world.now += 13 * 3_600_000;
  expect(await send()).toMatchObject({ ok: false, problems: [] });
});

test('one sender can send so often; another still can', async () => {
  for (let i = 0; i < 8; i++) expect((await send({ ...RAW, plan: `plan ${i}` })).ok).toBe(true);
  await expect(send({ ...RAW, plan: 'one more' })).rejects.toThrow('Please try again in ten minutes');
  expect((await send({ ...RAW, plan: 'from elsewhere' }, { sender: '10.0.0.2' })).ok).toBe(true);
});

test('files: by content and size, kept with the entry', async () => {
  const pdf = Buffer.from('%PDF-1.7 a brief');
  const answer = await send(RAW, { files: [{ question: 'brief', name: '../brief.pdf', bytes: pdf }] });
  expect(answer.ok).toBe(true);
  expect((await only())?.answers).toMatchObject({ brief: 'a brief' });
  const file = (await only())?.files[0];
  expect(file).toMatchObject({ name: '.._brief.pdf', kind: 'pdf', size: pdf.length });
  expect(Buffer.from((await entryFile(world, ines, file?.id ?? '')).content)).toEqual(pdf);
  expect(
    await send({ ...RAW, plan: 'other' }, { files: [{ question: 'brief', name: 'brief.pdf', bytes: Buffer.from('MZ\u0000') }] }),
  ).toMatchObject({
    ok: false,
    problems: [{ question: 'brief', says: '“brief.pdf” is no PDF, whatever its name says' }],
  });
});

test('an entry that cannot become a record is refused with its reason, mended and brought again', async () => {
  expect(await send({ ...RAW, name: 'test' })).toMatchObject({ ok: true });
  const refused = await only();
  expect(refused).toMatchObject({ state: 'refused', why: 'test entry', personId: null });
  expect(await mendEntry(world, refused?.id ?? '', { email: '' })).toMatchObject({ ok: false, problems: [{ question: 'email' }] });
  expect(await mendEntry(world, refused?.id ?? '', { name: 'Mara Quill' })).toMatchObject({ ok: true });
  expect(await only()).toMatchObject({ state: 'taken', personName: 'Mara Quill' });
  await expect(mendEntry(world, refused?.id ?? '', {})).rejects.toThrow('taken in already');
});

test('a form is made, must be sound while it is on, and is closed when it is off', async () => {
  const body = (await form(world, (await forms(world))[0]?.id ?? '')).form;
  const { id } = await createForm(world, ines, { name: 'Short questions', form: body });
  await expect(createForm(world, ines, { name: 'Short questions', form: body })).rejects.toThrow(
    'there is a form called “Short questions” already',
  );
  expect(await publicForm(world, 'short-questions')).toMatchObject({ name: 'Short questions' });
  const bad = { ...body, pages: [{ title: '', questions: [] }] };
  await expect(saveForm(world, ines, id, { form: bad, isOn: true })).rejects.toThrow('nobody could be written to');
  await saveForm(world, ines, id, { form: bad, isOn: false });
  expect(await publicForm(world, 'short-questions')).toBeUndefined();
  await expect(receiveForm(world, 'short-questions', { raw: {}, files: [], opened, trap: '', sender: 'x' })).rejects.toThrow(
    'this form is closed',
  );
});

test('what came with a record is there for the lines of its flow', async () => {
  await send();
  world.outside.page('http://oakmere-glass.example/', 'We grow on 4.2 ha of heated glass.');
  await testWorker(world).drain();
  const [trip] = await world.db<{ vars: { entry: { budget: unknown } } }[]>`select vars from trip`;
  expect(trip?.vars.entry).toMatchObject({ reach: 'by e-mail' });
});
