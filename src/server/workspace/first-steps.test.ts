import { demoWorkspace, testWorld } from '../../testing/world';
import { firstSteps } from './first-steps';
import { keepMailbox } from '../messages/mailboxes';
import { createPerson } from '../records/records';

test('a workspace says what it lacks, ticks off what comes, and says nothing when all is there', async () => {
  const world = await testWorld();
  const nobody = { userId: null, name: 'Millrace' };
  const done = async () => (await firstSteps(world)).filter((step) => step.isDone).map((step) => step.title);
  expect(await firstSteps(world)).toHaveLength(5);
  const before = await done();
  expect(before).not.toContain('A mailbox to write from');
  await keepMailbox(world, nobody, 'Sales', {
    isNew: true,
    address: 'sales@sallowmere.example',
    displayName: 'Sallowmere',
    zone: 'Europe/London',
    dailyLimit: 20,
    personGapDays: 2,
    replyTo: null,
    route: null,
    password: null,
  });
  await createPerson(world, nobody, { values: { name: 'Mo Ferrant', email: 'mo@oakmere-glass.example' }, companyId: null, source: 'hand' });
  expect(await done()).toEqual(
    [...before, 'A mailbox to write from', 'Somebody to begin with'].sort((a, b) => ORDER.indexOf(a) - ORDER.indexOf(b)),
  );
  await world.close();

  const demo = await testWorld();
  await demoWorkspace(demo, { crm: true });
  expect(await firstSteps(demo)).toEqual([]);
  await demo.close();
});

const ORDER = [
  'A mailbox to write from',
  'What you want to know of every company',
  'What a good one is',
  'Somebody to begin with',
  'A flow that is released',
];
