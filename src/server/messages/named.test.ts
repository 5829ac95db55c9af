import { conversation, type Conversation } from '../../testing/conversation';
import type { TestWorld } from '../../testing/world';
import { thread as threadPage } from '../desk/overview';
import { people, personPage } from '../records/records';
import { takeInNamed } from './named';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
let threadId: string;
let theyWrite: Conversation['theyWrite'];
beforeEach(async () => {
  ({ world, ines, threadId, theyWrite } = await conversation());
});
afterEach(() => world.close());

const last = async () => (await threadPage(world, threadId)).messages.filter(({ direction }) => direction === 'in').at(-1);

test('whom an answer names is taken in once, at the same firm, with the answer as the source', async () => {
  await theyWrite('You have the wrong person. Please contact Rhona Blyth, she decides on machines: r.blyth@elsewhere.example');
  const mail = await last();
  expect(mail?.reading).toMatchObject({ kind: 'wrong person', named: { name: 'Rhona Blyth', email: 'r.blyth@elsewhere.example' } });
  const taken = await takeInNamed(world, ines, mail?.id ?? '');
  expect(taken.isNew).toBe(true);
  const page = await personPage(world, taken.personId);
  const sender = await personPage(world, mail?.personId ?? '');
  expect(page.person).toMatchObject({ name: 'Rhona Blyth', email: 'r.blyth@elsewhere.example', companyId: sender.person.companyId });
  expect(page.known.find(({ key }) => key === 'email')?.fact).toMatchObject({
    source: 'reply',
    sourceRef: `answer of ${sender.person.name}`,
  });
  expect(sender.happened.map(({ says }) => says)).toContain('Named Rhona Blyth to be written to instead');
  expect(await takeInNamed(world, ines, mail?.id ?? '')).toEqual({ personId: taken.personId, isNew: false });
  expect((await people(world, { search: 'Blyth', limit: 5 })).items).toHaveLength(1);
});

test('an answer that names nobody has nobody to be taken in', async () => {
  await theyWrite('That is too expensive for us.');
  await expect(takeInNamed(world, ines, (await last())?.id ?? '')).rejects.toThrow('names nobody');
});
