/** What a plan would do: real days of readers who differ, figures of its texts, and the month of its mailbox. */
import { demoWorld, replyTo, testWorker, type TestWorld } from '../../testing/world';
import { createCompany, createPerson } from '../records/records';
import { decideReview, desk } from '../desk/reviews';
import { receiveMail } from '../messages/receive-mail';
import type { Actor } from '../platform/world';
import { createFlow, startOn } from './flows';
import { release } from './releases';
import { makeThing } from './things';
import { tryThing } from './try-things';

let world: TestWorld;
let ines: Actor;
const DAY = 86_400_000;
const text = (name: string, channel?: 'call' | 'letter') => ({
  kind: 'template' as const,
  name,
  body: { name, language: 'en', subject: name, body: 'Hello.', maxLength: 900, ...(channel && { channel }) },
});
const plan = (touches: readonly object[], hours = { from: '09:00', to: '17:00' }) => ({
  kind: 'plan' as const,
  body: { name: 'P', mailbox: 'Sales mailbox', hours, touches: [{ day: 0, template: 'Hello' }, ...touches] },
});
const tried = async (...given: Parameters<typeof plan>) => {
  const { plan: trial } = await tryThing(world, plan(...given));
  if (!trial) throw new Error('a plan is tried');
  return trial;
};

beforeEach(async () => {
  ({ world, ines } = await demoWorld());
  for (const one of [text('Hello'), text('Ring', 'call'), text('Paper', 'letter'), text('Last')]) await makeThing(world, ines, one);
});
afterEach(() => world.close());

async function known(name: string, values: Record<string, string>, company: Record<string, string>): Promise<string> {
  const firm = await createCompany(world, ines, { values: { name: `${name} & Co`, ...company }, source: 'hand' });
  const email = `${name.toLowerCase()}@${name.toLowerCase()}.example`;
  return (await createPerson(world, ines, { values: { name, email, ...values }, companyId: firm.id, source: 'hand' })).id;
}

test('readers who differ stand with their own days, and say why one is reached another way or not', async () => {
  await known('Mara', { phone: '+44 1632 960417' }, { country: 'GB' });
  await known('Nuria', {}, { country: 'ES', street: 'Calle Larga 4', city: 'Lorca' });
  await known('Piet', {}, { country: 'NL' });
  const { readers } = await tried([{ day: 1, template: 'Ring', otherwise: 'Paper' }]);
  const by = new Map(readers.map(({ name, zone, touches }) => [name, { zone, second: touches[1] }]));
  expect(by.get('Mara')).toMatchObject({ zone: 'Europe/London', second: { channel: 'call', says: [] } });
  expect(by.get('Nuria')).toMatchObject({
    zone: 'Europe/Madrid',
    second: { channel: 'letter', says: ['call: there is no number to call'] },
  });
  expect(by.get('Piet')?.second).toMatchObject({
    template: 'Ring',
    at: null,
    says: ['call: there is no number to call', 'letter: there is no street and place for a letter'],
  });
});

/** Two people on their way through a plan, approved. */
async function underWay(): Promise<void> {
  await makeThing(world, ines, { ...plan([{ day: 2, template: 'Last' }]), name: 'P' });
  const flow = await createFlow(
    world,
    ines,
    'flow "F"\nabout person\n\ntake in from hand\nwrite email "Hello" as mail\nask "south" to approve mail\nfollow up with "P"\n',
  );
  await release(world, ines, flow.id);
  const people = [await known('Mara', {}, { country: 'GB' }), await known('Jonas', {}, { country: 'GB' })];
  await startOn(world, ines, flow.id, people);
  await testWorker(world).drain();
  for (const review of (await desk(world)).reviews) await decideReview(world, ines, review.id, { does: 'approve' });
  await testWorker(world).drain();
}

test('a day off on the way and a full mailbox are said', async () => {
  await world.db`update setting set value = jsonb_set(value, '{daysOff}', '["2026-11-26"]') where key = 'workspace'`;
  await world.db`update mailbox set daily_limit = 1`;
  await underWay();
  const { readers, month } = await tried([]);
  // One leaves today and one tomorrow; behind them lies the day off.
  expect(month?.days.slice(0, 3)).toMatchObject([
    { day: '2026-11-24', own: 1, limit: 1 },
    { day: '2026-11-25', own: 1, limit: 1 },
    { day: '2026-11-27' },
  ]);
  expect(readers[0]?.touches[0]?.says).toEqual(expect.arrayContaining(['2026-11-26 is a day off', 'Sales mailbox is full on 2026-11-24']));
});

test('what came of a text is counted once for each who was reached, and the month shows what is planned', async () => {
  await underWay();
  for (const until = world.now + DAY / 4; world.now < until; world.now += DAY / 24) await testWorker(world).drain();
  const [mail] = world.outside.mails;
  if (mail) await receiveMail(world, replyTo(mail, 'Yes, gladly. Please call me.'));
  const { measured, month } = await tried([{ day: 2, template: 'Last' }]);
  expect(measured).toEqual([
    { channel: 'e-mail', reached: 2, answered: 1, bounced: 0, unsubscribed: 0 },
    { channel: 'e-mail', reached: 0, answered: 0, bounced: 0, unsubscribed: 0 },
  ]);
  expect(month?.days.filter(({ own }) => own > 0)).toMatchObject([
    { day: '2026-11-24', own: 2, others: 0 },
    { day: '2026-11-26', own: 1, others: 0 },
  ]);
});

test('hours that end before they begin give no days, and the problem is told', async () => {
  const { problems, plan: trial } = await tryThing(world, plan([], { from: '17:00', to: '09:00' }));
  expect(trial).toMatchObject({ touches: [], readers: [], month: null });
  expect(problems.map(({ says }) => says)).toContain('the window ends before it begins');
});
