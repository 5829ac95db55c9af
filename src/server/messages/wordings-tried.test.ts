/** Two wordings tried against each other: who gets which, what is counted, and when one is called better. */
import { demoWorld, replyTo, testWorker, type TestWorld } from '../../testing/world';
import { decideReview, desk } from '../desk/reviews';
import { createFlow, startOn } from '../flows/flows';
import { release } from '../flows/releases';
import { keepThing, makeThing } from '../flows/things';
import { createPerson } from '../records/records';
import type { Actor } from '../platform/world';
import { receiveMail } from './receive-mail';
import { wordingsTried } from './wordings-tried';

let world: TestWorld;
let ines: Actor;
beforeEach(async () => {
  ({ world, ines } = await demoWorld());
  await world.db`update mailbox set daily_limit = 1000`;
});
afterEach(() => world.close());

const body = {
  name: 'Two ways',
  language: 'en',
  subject: 'A question',
  body: 'Hello {first_name or "there"},\n\nwould a call suit you?\n',
  wordings: [{ language: 'en', when: '', subject: 'Short', body: 'Hello,\n\na call?\n', lines: [], tried: true }],
};
const DAY = 86_400_000;

/** A flow that writes it to so many people, everything approved and sent. */
async function written(id: string, count: number): Promise<void> {
  const people = [];
  for (let i = 0; i < count; i += 1)
    people.push(
      await createPerson(world, ines, {
        values: { name: `Reader ${i}`, email: `reader${i}@oakmere-${i}.example`, language: 'en' },
        source: 'hand',
      }),
    );
  const flow = await createFlow(
    world,
    ines,
    `flow "T ${id.slice(0, 4)}"\nabout person\n\ntake in from hand\nwrite email "Two ways" as mail\nask "south" to approve mail\nsend mail\n`,
  );
  await release(world, ines, flow.id);
  await startOn(
    world,
    ines,
    flow.id,
    people.map((person) => person.id),
  );
  await testWorker(world).drain();
  for (const review of (await desk(world)).reviews) await decideReview(world, ines, review.id, { does: 'approve' });
  // Two minutes apart.
  for (let i = 0; i <= count; i += 1) {
    await testWorker(world).drain();
    world.now += 2 * 60_000;
  }
}

test('every second reader gets the tried one; a week later it is counted, and answers after that change nothing', async () => {
  const { id } = await makeThing(world, ines, { kind: 'template', name: 'Two ways', body });
  await written(id, 12);
  const sent = world.outside.mails;
  expect(sent).toHaveLength(12);
  const short = sent.filter((mail) => mail.subject === 'Short');
  expect(short.length).toBeGreaterThan(1);
  expect(short.length).toBeLessThan(11);
  expect((await wordingsTried(world, id)).items).toMatchObject([
    { usualAt: null, triedAt: 0, usual: { readers: 0 }, tried: { readers: 0 }, verdict: 'too few' },
  ]);
  const [one, two] = short;
  if (one) await receiveMail(world, replyTo(one, 'Yes, gladly. Please call me.'));
  if (two) await receiveMail(world, replyTo(two, 'Please take me off your list.'));
  world.now += 8 * DAY;
  const counted = await wordingsTried(world, id);
  expect(counted.items).toMatchObject([
    { usual: { readers: 12 - short.length, good: 0 }, tried: { readers: short.length, good: 1 }, verdict: 'too few' },
  ]);
  const late = sent.find((mail) => mail.subject === 'A question');
  if (late) await receiveMail(world, replyTo(late, 'Yes, gladly. Please call me.'));
  expect(await wordingsTried(world, id)).toEqual(counted);
  // Other words are another pair.
  await keepThing(world, ines, id, { body: { ...body, subject: 'Another question' }, base: 1, says: '' });
  expect((await wordingsTried(world, id)).items).toMatchObject([{ usual: { readers: 0 }, tried: { readers: 0 } }]);
});

test('a mail that a person wrote anew is none of the two', async () => {
  const { id } = await makeThing(world, ines, { kind: 'template', name: 'Two ways', body });
  const person = await createPerson(world, ines, {
    values: { name: 'Mara Quill', email: 'mara@oakmere-glass.example', language: 'en' },
    source: 'hand',
  });
  const flow = await createFlow(
    world,
    ines,
    'flow "T"\nabout person\n\ntake in from hand\nwrite email "Two ways" as mail\nask "south" to approve mail\nsend mail\n',
  );
  await release(world, ines, flow.id);
  await startOn(world, ines, flow.id, [person.id]);
  await testWorker(world).drain();
  const pairs = () => world.db`select tried_pair, tried_arm from message where template = 'Two ways'`;
  expect((await pairs())[0]?.['triedPair']).not.toBeNull();
  const [review] = (await desk(world)).reviews;
  await decideReview(world, ines, review?.id ?? '', { does: 'approve', body: 'All mine.' });
  expect(await pairs()).toEqual([{ triedPair: null, triedArm: null }]);
  expect((await wordingsTried(world, id)).items).toHaveLength(1);
});
