/** A text sent to who writes it: as one reader would get it, by the real way, to nobody else. */
import { stableId } from '../../core/base';
import { templateSchema } from '../../core/writer';
import { demoWorld, type TestWorld } from '../../testing/world';
import { auditPage } from '../access/audit';
import { createCompany, createPerson, personPage } from '../records/records';
import type { Actor } from '../platform/world';
import { sendToMe } from './send-to-me';

let world: TestWorld;
let ines: Actor;
let personId: string;
const me = { userId: stableId('user', 'ines@thornwick.example'), name: 'Ines Okafor-Brandt' };
const TEXT = templateSchema.parse({
  name: 'First contact',
  subject: 'Vents at {company.name}',
  body: 'Hello {first_name or "there"},\n\na word about {company.name}.',
  wordings: [{ language: 'de', subject: 'Lüftung bei {company.name}', body: 'Guten Tag {name},\n\nein Wort zu {company.name}.' }],
});
beforeEach(async () => {
  ({ world, ines } = await demoWorld());
  const company = await createCompany(world, ines, { values: { name: 'Oakmere Glass' }, source: 'api' });
  const values = { name: 'Mara Quill', first_name: 'Mara', email: 'm.quill@oakmere-glass.example', language: 'de' };
  personId = (await createPerson(world, ines, { values, companyId: company.id, source: 'api' })).id;
});
afterEach(() => world.close());

test('in their wording, marked, to me alone; nothing is kept of it but a line of the audit', async () => {
  expect(await sendToMe(world, me, { text: TEXT, personId })).toEqual({ to: 'ines@thornwick.example' });
  expect(world.outside.mails).toHaveLength(1);
  const [mail] = world.outside.mails;
  expect(mail).toMatchObject({ to: { address: 'ines@thornwick.example' }, subject: '[for Mara Quill] Lüftung bei Oakmere Glass' });
  expect(mail?.text).toMatch(/^Guten Tag Mara Quill,[\s\S]*A trial, sent to you alone: Mara Quill would get the text above\.\n$/);
  expect((await personPage(world, personId)).messages).toEqual([]);
  expect((await auditPage(world, { search: 'trial of a text' })).items).toMatchObject([{ who: me.name, detail: { about: 'Mara Quill' } }]);
});

test('says what would hold it, and in which language it is', async () => {
  const text = { ...TEXT, body: 'Hello {deal.title}', wordings: [] };
  await sendToMe(world, me, { text, personId });
  expect(world.outside.mails[0]?.text).toMatch(
    /in English: there is no wording in German\nIt would be held: “\{deal\.title\}” was not filled/,
  );
});

test('without a mailbox, and where the relay refuses, it says so', async () => {
  await expect(sendToMe(world, me, { text: TEXT, personId: stableId('nobody') })).rejects.toThrow('this person');
  await world.db`delete from mailbox where not exists (select from effect)`;
  await expect(sendToMe(world, me, { text: TEXT, personId })).rejects.toThrow('there is no mailbox to write from yet');
});
