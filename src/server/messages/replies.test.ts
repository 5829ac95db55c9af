/** Answers to what people write, on a real database: drafted, approved, sent into their thread once, counted by what followed. */
import { conversation, type Conversation } from '../../testing/conversation';
import { testWorker, type TestWorld } from '../../testing/world';
import { answerBook, answeredLately } from './answer-book';
import { thread as threadPage } from '../desk/overview';
import { draftAnswer, sendAnswer } from './replies';
import { makeThing, things } from '../flows/things';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
let threadId: string;
let theyWrite: Conversation['theyWrite'];
beforeEach(async () => {
  ({ world, ines, threadId, theyWrite } = await conversation());
});
afterEach(() => world.close());

const TOO_DEAR = 'Thanks Lucía, but honestly that is too expensive for us. How long would the work take?';

test('a draft takes up the objection and the question, says when it would leave, and what else was agreed', async () => {
  await theyWrite(TOO_DEAR);
  const draft = await draftAnswer(world, ines, threadId);
  expect(draft.body).toMatch(/^Hello Nuria,\n\nThat is a fair point[\s\S]*at 1.1 ha[\s\S]*two days[\s\S]*Ines Okafor-Brandt$/);
  expect(draft.taken.map(({ said, by }) => [said.kind, by])).toEqual([
    ['objection', { kind: 'agreed', name: 'Start with one bay' }],
    ['question', { kind: 'agreed', name: 'Days, bay by bay' }],
  ]);
  expect(draft.taken[0]?.candidates.map(({ name, fits, used }) => [name, fits, used])).toEqual([
    ['Start with one bay', true, 0],
    ['What the old box costs', false, 0],
  ]);
  expect(draft.dueAt ?? 0).toBeGreaterThanOrEqual(world.now);
  expect(draft.checks.every((check) => check.ok)).toBe(true);
});

test('approved it goes into their thread, once; what they wrote is taken care of; the use is counted by what follows', async () => {
  await theyWrite(TOO_DEAR);
  const draft = await draftAnswer(world, ines, threadId);
  const answers = draft.taken.flatMap(({ by, candidates }) =>
    by?.kind === 'agreed' ? candidates.filter((candidate) => candidate.name === by.name).map((candidate) => candidate.id) : [],
  );
  const { dueAt, id } = await sendAnswer(world, ines, threadId, { body: draft.body, inReplyTo: draft.inReplyTo, answers });
  world.now = dueAt + 1_000;
  await testWorker(world).drain();
  const sent = world.outside.mails.filter((mail) => mail.subject === 'Re: Your proposal');
  expect(sent).toHaveLength(1);
  const { messages, thread } = await threadPage(world, threadId);
  expect(thread.state).toBe('open');
  expect(messages.find((message) => message.id === id)).toMatchObject({
    state: 'sent',
    approvedByName: 'Ines Okafor-Brandt',
    inReplyTo: '<theirs-1@viveros-almenara.example>',
  });
  expect(messages.filter((message) => message.direction === 'in').every((message) => message.handledAt !== null)).toBe(true);
  await theyWrite('That sounds good, I would like to know more. Can we meet next week?');
  const { items } = await answerBook(world);
  const used = items.filter((item) => item.used > 0);
  expect(used.map(({ name, used: times, led }) => [name, times, led]).sort()).toEqual([
    ['Days, bay by bay', 1, 1],
    ['Start with one bay', 1, 1],
  ]);
  expect(await answeredLately(world, used[0]!.id)).toEqual([
    expect.objectContaining({ personName: 'Nuria Peralta', companyName: 'Viveros Almenara', then: 'interested' }),
  ]);
});

test('is refused when they have written again, when it says what may not be said, and when they must not be written to', async () => {
  await theyWrite(TOO_DEAR);
  const { inReplyTo, body } = await draftAnswer(world, ines, threadId);
  await expect(sendAnswer(world, ines, threadId, { body: 'Hello Nuria,\n\nwe give a discount.', inReplyTo, answers: [] })).rejects.toThrow(
    '“discount” may not be said here',
  );
  await expect(sendAnswer(world, ines, threadId, { body: ' ', inReplyTo, answers: [] })).rejects.toThrow('nothing is written');
  await theyWrite('One more thing: is the wiring included?');
  await expect(sendAnswer(world, ines, threadId, { body, inReplyTo, answers: [] })).rejects.toThrow('Nuria Peralta has written again');
  await theyWrite('Please take me off your list and do not write to me again.');
  const last = await draftAnswer(world, ines, threadId);
  expect(last.checks.find((check) => check.id === 'do not contact')).toMatchObject({ ok: false });
  await expect(sendAnswer(world, ines, threadId, { body, inReplyTo: last.inReplyTo, answers: [] })).rejects.toThrow('has ended');
});

test('goes out once, however often and by however many it is approved; what is written after it is a message of its own', async () => {
  await theyWrite(TOO_DEAR);
  const { inReplyTo, body } = await draftAnswer(world, ines, threadId);
  const approve = () => sendAnswer(world, ines, threadId, { body, inReplyTo, answers: [] });
  const both = await Promise.allSettled([approve(), approve()]);
  expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
  await expect(approve()).rejects.toThrow('Nuria Peralta has been answered already');
  const after = await draftAnswer(world, ines, threadId);
  expect(after).toMatchObject({ inReplyTo: null, taken: [] });
  world.now = (after.dueAt ?? 0) + 1_000;
  await testWorker(world).drain();
  await expect(approve()).rejects.toThrow('has been answered already');
  expect(world.outside.mails.filter((mail) => mail.subject === 'Re: Your proposal')).toHaveLength(1);
});

test('questions without an agreed answer wait together until somebody writes one', async () => {
  await theyWrite('Do you lease the cabinets?');
  await theyWrite('And would you lease the cabinets to us?');
  const { waiting } = await answerBook(world);
  expect(waiting).toEqual([expect.objectContaining({ times: 2, from: ['Viveros Almenara'], threadId, statement: null })]);
  await makeThing(world, ines, {
    kind: 'answer',
    name: 'Leasing',
    body: {
      name: 'Leasing',
      about: 'leasing',
      asks: ['do you lease'],
      when: '',
      texts: [{ language: 'en', body: 'May I come back to you on that?' }],
      notSay: [],
    },
  });
  expect((await answerBook(world)).waiting).toEqual([]);
  expect((await things(world, 'answer')).map((item) => item.name)).toContain('Leasing');
});
