/** Touches that people do: laid out when due, done once, and what comes of them for plan, trip and record. */
import { demoWorld, replyTo, testWorker, type TestWorld } from '../../testing/world';
import { rail } from '../desk/rail';
import { decideReview, desk } from '../desk/reviews';
import { thread, threads, trips } from '../desk/overview';
import { createFlow, startOn } from '../flows/flows';
import { release } from '../flows/releases';
import { makeThing } from '../flows/things';
import { createCompany, createPerson, personPage } from '../records/records';
import type { Actor } from '../platform/world';
import { keepHandLimit } from './hand-limits';
import { budgetsView } from '../workspace/budgets';
import { barAddress, doNotContactList } from './do-not-contact';
import { receiveMail } from './receive-mail';
import { endTask, taskLetter, type TaskDone } from './tasks';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
let world: TestWorld;
let ines: Actor;
let flowId: string;

const text = (name: string, channel: 'call' | 'profile note' | 'letter' | undefined, body: string) => ({
  kind: 'template' as const,
  name,
  body: { name, language: 'en', subject: name, body, maxLength: 900, ...(channel && { channel }) },
});

beforeEach(async () => {
  ({ world, ines } = await demoWorld());
  await makeThing(world, ines, text('Hello', undefined, 'Hello {first_name or "there"},\n\na word from us.'));
  await makeThing(world, ines, text('Ring', 'call', 'Ask {first_name or "them"} whether the mail came.'));
  await makeThing(world, ines, text('Note', 'profile note', 'Glad to have met you, {first_name or "there"}.'));
  await makeThing(world, ines, text('Paper', 'letter', 'Dear {first_name or "reader"},\n\nour figures are enclosed.'));
  await makeThing(world, ines, text('Last', undefined, 'Hello {first_name or "there"},\n\na last word.'));
});
afterEach(() => world.close());

interface TouchOf {
  readonly day: number;
  readonly template: string;
  readonly otherwise?: string;
  readonly when?: string;
}
/** A person on their way through a plan with these touches, the first mail approved and sent. */
async function onTheWay(
  touches: readonly TouchOf[],
  values: Record<string, string> = { phone: '+44 1632 960417' },
  company = false,
): Promise<string> {
  await makeThing(world, ines, {
    kind: 'plan',
    name: 'By hand',
    body: {
      name: 'By hand',
      mailbox: 'Sales mailbox',
      hours: { from: '09:00', to: '17:00' },
      touches: [{ day: 0, template: 'Hello' }, ...touches],
    },
  });
  const flow = await createFlow(
    world,
    ines,
    'flow "Hands"\nabout person\n\ntake in from hand\nwrite email "Hello" as mail\nask "south" to approve mail\nfollow up with "By hand"\nnote "went on"\n',
  );
  flowId = flow.id;
  await release(world, ines, flow.id);
  const firm = company
    ? await createCompany(world, ines, {
        values: { name: 'Oakmere Glass', street: '12 Marsh Lane', postcode: 'HU13 0RG', city: 'Hessle' },
        source: 'hand',
      })
    : null;
  const person = await createPerson(world, ines, {
    values: { name: 'Mara Quill', first_name: 'Mara', email: 'm.quill@oakmere-glass.example', ...values },
    ...(firm && { companyId: firm.id }),
    source: 'hand',
  });
  await startOn(world, ines, flow.id, [person.id]);
  await testWorker(world).drain();
  for (const review of (await desk(world)).reviews) await decideReview(world, ines, review.id, { does: 'approve' });
  await pass(1);
  return person.id;
}

async function pass(days: number): Promise<void> {
  for (const until = world.now + days * DAY; world.now < until; world.now += HOUR) await testWorker(world).drain();
}
const waiting = async () => (await desk(world, ines)).tasks;
async function done(outcome: string, words?: string): Promise<void> {
  const [task] = await waiting();
  const ask: TaskDone = { outcome, words };
  await endTask(world, ines, task?.id ?? '', ask);
  await testWorker(world).drain();
}
const tripNow = async () => (await trips(world, { flowId })).items[0];
const mails = () => world.outside.mails.map((mail) => mail.subject);

test('a call is laid out on its day and not before, with number and words; the plan goes on from what came of it', async () => {
  const personId = await onTheWay([
    { day: 2, template: 'Ring' },
    { day: 4, template: 'Last' },
  ]);
  expect(await waiting()).toEqual([]);
  await pass(2);
  expect(await waiting()).toMatchObject([
    {
      channel: 'call',
      personName: 'Mara Quill',
      reach: '+44 1632 960417',
      body: 'Ask Mara whether the mail came.',
      attempts: 0,
      whose: null,
    },
  ]);
  const before = (await rail(world, ines, 'builder')).desk;
  await done('left word', 'with the office');
  expect((await rail(world, ines, 'builder')).desk).toBe(before - 1);
  expect(await waiting()).toEqual([]);
  await pass(4);
  expect(mails()).toEqual(['Hello', 'Re: Hello']);
  expect((await tripNow())?.state).toBe('done');
  const page = await personPage(world, personId);
  expect(page.happened.map(({ says }) => says)).toContain('Left word on the phone, Ines Okafor-Brandt: with the office');
});

test('a mail behind an undone call leaves all the same, and refers to mails alone', async () => {
  await onTheWay([
    { day: 1, template: 'Ring' },
    { day: 3, template: 'Last' },
  ]);
  await pass(7);
  expect(mails()).toEqual(['Hello', 'Re: Hello']);
  const [first, last] = world.outside.mails;
  expect(last?.references).toEqual([first?.messageId]);
  // The call is still to be made: the trip waits for it.
  expect(await waiting()).toHaveLength(1);
  expect((await tripNow())?.state).toBe('following');
  await done('wrong number');
  expect((await tripNow())?.state).toBe('done');
});

test('who was talked to has answered: what is left of the plan goes nowhere', async () => {
  await onTheWay([
    { day: 1, template: 'Ring' },
    { day: 3, template: 'Last' },
  ]);
  await pass(2);
  await done('talked', 'a visit in March');
  await pass(8);
  expect(mails()).toEqual(['Hello']);
  const [conversation] = await threads(world);
  expect(conversation?.state).toBe('answered');
  const { messages } = await thread(world, conversation?.id ?? '');
  expect(messages.map(({ channel, state, says }) => [channel, state, says])).toEqual([
    ['e-mail', 'sent', 'sent'],
    ['call', 'sent', 'talked on the phone: a visit in March'],
    ['e-mail', 'dropped', 'answered'],
  ]);
  expect((await tripNow())?.state).toBe('done');
});

test('not reached is tried again on the next working day, three times at most', async () => {
  await onTheWay([{ day: 1, template: 'Ring' }]);
  await pass(2);
  for (const attempts of [0, 1, 2]) {
    expect(await waiting()).toMatchObject([{ attempts }]);
    await done('not reached');
    expect(await waiting()).toEqual([]);
    await pass(4);
  }
  expect(await waiting()).toEqual([]);
  expect((await tripNow())?.state).toBe('done');
});

test('who wants no contact is barred by address and number, and nothing leaves any more', async () => {
  await onTheWay([
    { day: 1, template: 'Ring' },
    { day: 3, template: 'Last' },
  ]);
  await pass(2);
  await done('no more');
  await pass(6);
  expect(mails()).toEqual(['Hello']);
  expect((await doNotContactList(world)).map(({ email }) => email).sort()).toEqual(['m.quill@oakmere-glass.example', 'tel:+441632960417']);
  expect((await tripNow())?.state).toBe('stopped');
});

test('a task is dropped, and says why, when they have answered, are barred, or its condition does not hold', async () => {
  await onTheWay([
    { day: 2, template: 'Ring', when: 'done.calls > 0' },
    { day: 4, template: 'Note', when: 'company.name = null and done.mails = 1' },
    { day: 6, template: 'Ring' },
  ]);
  await pass(2);
  expect(await waiting()).toEqual([]);
  await pass(4);
  expect(await waiting()).toMatchObject([{ channel: 'profile note', reach: 'Mara Quill', body: 'Glad to have met you, Mara.' }]);
  await done('left');
  await barAddress(world, ines, { email: '+44 1632 960417', why: 'asked in the office' });
  await pass(4);
  expect(await waiting()).toEqual([]);
  const [conversation] = await threads(world);
  const { messages } = await thread(world, conversation?.id ?? '');
  expect(messages.slice(1).map(({ state, says }) => [state, says])).toEqual([
    ['dropped', 'left out: only when done.calls > 0'],
    ['sent', 'note left on the profile'],
    ['dropped', 'on the do-not-contact list'],
  ]);
});

test('an answer drops a task that lies on the desk', async () => {
  await onTheWay([{ day: 1, template: 'Ring' }]);
  await pass(2);
  expect(await waiting()).toHaveLength(1);
  await receiveMail(world, replyTo(world.outside.mails[0]!, 'Thursday after three would suit, call me.'));
  expect(await waiting()).toEqual([]);
  await expect(done('talked')).rejects.toThrow();
});

test('whom a touch does not reach gets the other text, or none; both are said', async () => {
  await onTheWay(
    [
      { day: 1, template: 'Ring', otherwise: 'Paper' },
      { day: 2, template: 'Ring' },
      { day: 3, template: 'Note' },
    ],
    {},
    true,
  );
  const [trip] = (await trips(world, { flowId })).items;
  const [row] = await world.db<
    { says: string }[]
  >`select says from journal where trip_id = ${trip?.id ?? ''} and verb = 'follow up' order by seq limit 1`;
  expect(row?.says).toBe(
    '1 e-mail, 1 profile note and 1 letter planned, stops at an answer; another way: call on day 1: there is no number to call; left out: call on day 2: there is no number to call',
  );
  await pass(2);
  const [letter] = await waiting();
  expect(letter).toMatchObject({ channel: 'letter', reach: 'Oakmere Glass\nMara Quill\n12 Marsh Lane\nHU13 0RG Hessle' });
  const file = await taskLetter(world, letter?.id ?? '');
  expect(file).toMatchObject({ name: 'Letter to Mara Quill.pdf', type: 'application/pdf' });
  expect(Buffer.from(file.content as Uint8Array).toString()).toContain('12 Marsh Lane');
  await expect(endTask(world, ines, letter?.id ?? '', { outcome: 'talked' })).rejects.toThrow('a letter does not end in “talked”');
});

test('a condition on a mail is looked at when it is due', async () => {
  await onTheWay([
    { day: 1, template: 'Ring' },
    { day: 3, template: 'Last', when: 'done.calls = 0' },
  ]);
  await pass(2);
  await done('left word');
  await pass(5);
  expect(mails()).toEqual(['Hello']);
  expect((await tripNow())?.state).toBe('done');
});

test('a paused flow lays nothing out, and an owned task is its owner’s', async () => {
  const personId = await onTheWay([{ day: 1, template: 'Ring' }]);
  await world.db`update flow set paused_at = ${new Date(world.now).toISOString()} where id = ${flowId}`;
  await pass(2);
  expect(await waiting()).toEqual([]);
  await world.db`update flow set paused_at = null where id = ${flowId}`;
  await world.db`update person set owner_id = (select id from app_user where email = 'tomasz@thornwick.example') where id = ${personId}`;
  await testWorker(world).drain();
  const [task] = await waiting();
  expect(task).toMatchObject({ ownerName: 'Tomasz Wierzba', whose: { people: ['Tomasz Wierzba'], yours: false } });
  const [lucia] = await world.db<{ id: string; name: string }[]>`select id, name from app_user where email = 'lucia@thornwick.example'`;
  const other: Actor = { userId: lucia?.id ?? null, name: lucia?.name ?? '' };
  expect((await desk(world, other)).tasks).toEqual([]);
  await expect(endTask(world, other, task?.id ?? '', { outcome: 'talked' })).rejects.toThrow('this was asked of Tomasz Wierzba');
  await done('talked');
  expect(await waiting()).toEqual([]);
});

test('a line gives a task beside any plan, and the lines below know how it went', async () => {
  const flow = await createFlow(
    world,
    ines,
    'flow "Back"\nabout person\n\ntake in from hand\ntask "Ring", at most 2 working days as talk\nnote "then: " + talk.outcome + ", " + talk.words\ntask "Paper"\n',
  );
  flowId = flow.id;
  await release(world, ines, flow.id);
  const person = await createPerson(world, ines, {
    values: { name: 'Mara Quill', email: 'm.quill@oakmere-glass.example', phone: '+44 1632 960417' },
    source: 'hand',
  });
  await startOn(world, ines, flow.id, [person.id]);
  await testWorker(world).drain();
  expect(await waiting()).toMatchObject([{ channel: 'call', threadId: null, flowName: 'Back' }]);
  await done('not reached');
  expect(await waiting()).toEqual([]);
  await pass(2);
  expect(await waiting()).toMatchObject([{ attempts: 1 }]);
  await done('talked', 'come by in March');
  const { happened } = await personPage(world, person.id);
  expect(happened.map(({ says }) => says)).toContain('then: talked, come by in March');
  // Nobody knows where a letter would go.
  expect((await tripNow())?.state).toBe('done');
  expect(await waiting()).toEqual([]);
});

test('a task of a line whose time is over stays, and done then changes the trip no more', async () => {
  const flow = await createFlow(
    world,
    ines,
    'flow "Late"\nabout person\n\ntake in from hand\ntask "Ring", at most 1 day as talk\nnote if talk.done then "done" else "went on"\n',
  );
  flowId = flow.id;
  await release(world, ines, flow.id);
  const person = await createPerson(world, ines, {
    values: { name: 'Mara Quill', email: 'm.quill@oakmere-glass.example', phone: '+44 1632 960417' },
    source: 'hand',
  });
  await startOn(world, ines, flow.id, [person.id]);
  await pass(2);
  expect((await tripNow())?.state).toBe('done');
  await done('talked');
  const { happened } = await personPage(world, person.id);
  expect(happened.map(({ says }) => says)).toEqual(expect.arrayContaining(['went on', 'Talked on the phone, Ines Okafor-Brandt']));
});

test('who is barred while a task lies on the desk is called no more', async () => {
  await onTheWay([{ day: 1, template: 'Ring' }]);
  await pass(2);
  expect(await waiting()).toHaveLength(1);
  await barAddress(world, ines, { email: 'oakmere-glass.example', why: 'wrote to the office' });
  expect(await waiting()).toEqual([]);
  await testWorker(world).drain();
  const [row] = await world.db<{ state: string; says: string }[]>`select state, says from effect where kind = 'task'`;
  expect(row).toEqual({ state: 'dropped', says: 'on the do-not-contact list' });
});

test('who is away is called when they are back', async () => {
  await onTheWay([{ day: 1, template: 'Ring' }]);
  await pass(2);
  expect(await waiting()).toHaveLength(1);
  await receiveMail(world, replyTo(world.outside.mails[0]!, 'I am out of the office until 7 December 2026 and will answer then.'));
  await testWorker(world).drain();
  expect(await waiting()).toEqual([]);
  await pass(14);
  expect(await waiting()).toHaveLength(1);
});

test('a plan whose last touch is left out has gone its whole way, and a task is done once', async () => {
  await onTheWay([
    { day: 1, template: 'Ring' },
    { day: 2, template: 'Note', when: 'done.talked > 0' },
  ]);
  await pass(2);
  const [task] = await waiting();
  await done('left word');
  await expect(endTask(world, ines, task?.id ?? '', { outcome: 'talked' })).rejects.toThrow('done already');
  await pass(3);
  const [row] = await world.db<{ says: string }[]>`select says from journal where verb = 'follow up' order by seq desc limit 1`;
  expect(row?.says).toBe('all touches sent, no answer');
});

test('one person is given so many a day, and more waits for the next working day', async () => {
  await keepHandLimit(world, ines, { channel: 'call', aDay: 1 });
  const flow = await createFlow(world, ines, 'flow "Many"\nabout person\n\ntake in from hand\ntask "Ring"\n');
  await release(world, ines, flow.id);
  const people = [];
  for (const name of ['Mara', 'Jonas', 'Piet'])
    people.push(
      await createPerson(world, ines, {
        values: { name, email: `${name.toLowerCase()}@x-${name.toLowerCase()}.example`, phone: '+44 1632 960417' },
        source: 'hand',
      }),
    );
  await world.db`update person set owner_id = (select id from app_user where email = 'tomasz@thornwick.example') where name = 'Piet'`;
  await startOn(
    world,
    ines,
    flow.id,
    people.map(({ id }) => id),
  );
  await testWorker(world).drain();
  // One of those nobody has, and the one Tomasz has.
  const first = await waiting();
  expect(first).toHaveLength(2);
  expect(first.map(({ personName }) => personName)).toContain('Piet');
  for (const { id } of first) await endTask(world, ines, id, { outcome: 'left word' });
  await testWorker(world).drain();
  expect(await waiting()).toEqual([]);
  await pass(1);
  expect(await waiting()).toHaveLength(1);
  expect((await budgetsView(world)).hands).toContainEqual({ channel: 'call', aDay: 1 });
});
