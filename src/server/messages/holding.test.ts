/** Hold or send on a real database: rules kept and tried, answers that go alone, what is stopped, and what people make of drafts. */
import { conversation, type Conversation } from '../../testing/conversation';
import { testWorker, type TestWorld } from '../../testing/world';
import { insertDecision, settleDecision } from './store/holding';
import { decideReplies, handleReply, holdRules, saveHoldRules, takeBackAnswer, tryHoldRules } from './holding';
import { thread as threadPage } from '../desk/overview';
import { draftAnswer, sendAnswer } from './replies';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
let threadId: string;
let theyWrite: Conversation['theyWrite'];
beforeEach(async () => {
  ({ world, ines, threadId, theyWrite } = await conversation());
  // The demo has rules of its own.
  await world.db`delete from hold_rules`;
});
afterEach(() => world.close());

const mailbox = 'Sales mailbox';
const QUESTION = 'How long would the work take?';
const SEND = 'send when reply.covered = true';
const mine = async () => (await holdRules(world)).mailboxes.find(({ name }) => name === mailbox);
const keep = async (rules: string, lookedAt = 0) => saveHoldRules(world, ines, { mailbox, rules, lookedAt, seen: (await mine())?.no ?? 0 });
const planned = async () => (await threadPage(world, threadId)).messages.filter(({ state }) => state === 'planned');

test('without rules everything waits, and the draft says so', async () => {
  await theyWrite(QUESTION);
  expect(await decideReplies(world)).toBe(1);
  expect(await decideReplies(world)).toBe(0);
  expect((await draftAnswer(world, ines, threadId)).held).toEqual({
    does: 'hold',
    line: null,
    says: 'everything waits for a person here',
    lookedAt: false,
    mailbox,
  });
  expect(await planned()).toEqual([]);
});

test('a rule lets a covered answer go: after a while, signed by the mailbox, in their thread, once', async () => {
  await keep(`hold when reply.objection = "price"\n${SEND}`);
  await theyWrite(QUESTION);
  await decideReplies(world);
  const [answer] = await planned();
  expect(answer).toMatchObject({ approvedByName: null, inReplyTo: '<theirs-1@viveros-almenara.example>' });
  expect(answer?.dueAt ?? 0).toBeGreaterThanOrEqual(world.now + 15 * 60_000);
  world.now = (answer?.dueAt ?? 0) + 1_000;
  await testWorker(world).drain();
  const sent = world.outside.mails.filter(({ subject }) => subject === 'Re: Your proposal');
  expect(sent).toHaveLength(1);
  expect((await threadPage(world, threadId)).messages.every(({ direction, handledAt }) => direction === 'out' || handledAt !== null)).toBe(
    true,
  );
});

test('what a hold rule speaks of waits, and says which line held it', async () => {
  await keep(`// ours\nhold when reply.objection = "price"\n${SEND}`);
  await theyWrite(`Honestly that is too expensive for us. ${QUESTION}`);
  await decideReplies(world);
  expect((await draftAnswer(world, ines, threadId)).held).toMatchObject({ does: 'hold', line: 2 });
  expect(await planned()).toEqual([]);
});

test('until it has left a person can stop it: it waits again, and that counts against the rule', async () => {
  await keep(SEND);
  await theyWrite(QUESTION);
  await decideReplies(world);
  const [answer] = await planned();
  await takeBackAnswer(world, ines, answer?.id ?? '');
  expect(await planned()).toEqual([]);
  const draft = await draftAnswer(world, ines, threadId);
  expect(draft.inReplyTo).not.toBeNull();
  expect((await mine())?.agreements).toEqual([expect.objectContaining({ group: 'question', decided: 1, unchanged: 0 })]);
  // It is not let go a second time by itself; a person may send it.
  await decideReplies(world);
  expect(await planned()).toEqual([]);
  const { id } = await sendAnswer(world, ines, threadId, { body: draft.body, inReplyTo: draft.inReplyTo, answers: [] });
  // What a person approved can be taken back as well, and counts as not decided.
  await takeBackAnswer(world, ines, id);
  expect((await mine())?.agreements).toEqual([]);
  const again = await draftAnswer(world, ines, threadId);
  const sent = await sendAnswer(world, ines, threadId, { body: again.body, inReplyTo: again.inReplyTo, answers: [] });
  world.now = sent.dueAt + 1_000;
  await testWorker(world).drain();
  await expect(takeBackAnswer(world, ines, sent.id)).rejects.toThrow('it has left already');
});

test('one of so many that could go is looked at all the same', async () => {
  await keep(SEND, 1);
  await theyWrite(QUESTION);
  await decideReplies(world);
  const { held, body, inReplyTo } = await draftAnswer(world, ines, threadId);
  expect(held).toMatchObject({ does: 'hold', line: 1, lookedAt: true });
  await sendAnswer(world, ines, threadId, { body, inReplyTo, answers: [] });
  expect((await mine())?.agreements).toEqual([
    expect.objectContaining({
      group: 'question',
      decided: 1,
      unchanged: 1,
      state: 'open',
      offer: expect.stringContaining('reply.kind = "question"'),
    }),
  ]);
});

test('changed words and no answer count as such; the first so many end when they are decided', async () => {
  await keep(`hold the first 1\n${SEND}`);
  await theyWrite(QUESTION);
  await decideReplies(world);
  const first = await draftAnswer(world, ines, threadId);
  expect(first.held).toMatchObject({ line: 1, says: 'hold the first 1: 0 of them decided' });
  await handleReply(world, ines, first.inReplyTo ?? '');
  expect((await mine())?.agreements).toEqual([expect.objectContaining({ decided: 1, unchanged: 0 })]);
  await theyWrite(QUESTION);
  await decideReplies(world);
  expect(await planned()).toHaveLength(1);
});

test('a kind whose drafts people change too often goes alone no more, whatever the rules say', async () => {
  await keep(SEND);
  for (let i = 0; i < 20; i++) {
    await theyWrite(QUESTION);
    const { inReplyTo } = await draftAnswer(world, ines, threadId);
    const about = { messageId: inReplyTo ?? '', mailbox, kind: 'question', objection: null, line: null, no: null, says: 'before' };
    await insertDecision(world.db, { ...about, does: 'hold', couldGo: true, lookedAt: false, at: world.now, answerId: null });
    await settleDecision(
      world.db,
      about.messageId,
      { outcome: i < 5 ? 'unchanged' : 'changed', answerId: null, userId: ines.userId },
      world.now,
    );
  }
  await theyWrite(QUESTION);
  await decideReplies(world);
  expect((await draftAnswer(world, ines, threadId)).held?.says).toBe('of the last 20 drafts of this kind people sent only 5 as they stood');
  expect((await mine())?.agreements).toEqual([expect.objectContaining({ decided: 20, unchanged: 5, state: 'lost' })]);
});

test('rules are tried on what came before they are kept; kept in versions; and not over somebody else’s', async () => {
  await theyWrite(QUESTION);
  const trial = await tryHoldRules(world, { mailbox, rules: SEND, lookedAt: 0 });
  expect(trial).toEqual({
    problems: [],
    items: [
      expect.objectContaining({
        personName: 'Nuria Peralta',
        group: 'question',
        before: expect.objectContaining({ does: 'hold', line: null }),
        after: expect.objectContaining({ does: 'send', line: 1 }),
      }),
    ],
  });
  expect((await tryHoldRules(world, { mailbox, rules: 'hold when tone is negative', lookedAt: 0 })).problems).toEqual([
    expect.objectContaining({ line: 1, instead: 'hold when reply.tone = "negative"' }),
  ]);
  await expect(keep('hold when tone is negative')).rejects.toThrow('line 1');
  await keep(SEND);
  await keep('');
  expect((await mine())?.versions.map(({ no, rules, savedBy }) => [no, rules, savedBy])).toEqual([
    [2, '', ines.name],
    [1, SEND, ines.name],
  ]);
  await expect(saveHoldRules(world, ines, { mailbox, rules: SEND, lookedAt: 0, seen: 1 })).rejects.toThrow(
    'somebody has changed these rules',
  );
  await expect(saveHoldRules(world, ines, { mailbox: 'None', rules: '', lookedAt: 0, seen: 0 })).rejects.toThrow('this mailbox');
});
