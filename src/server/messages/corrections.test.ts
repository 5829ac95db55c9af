/** Corrections on a real database: the right kind does what it does, its words teach, and what was taught is forgotten again. */
import { conversation, type Conversation } from '../../testing/conversation';
import type { TestWorld } from '../../testing/world';
import { correctReading, corrections, forgetCorrection, sentencesToTeach, tryCorrection, type CorrectionAsk } from './corrections';
import { doNotContactList } from './do-not-contact';
import { users } from '../access/access';
import { handOver } from './holders';
import { decideReplies } from './holding';
import { thread as threadPage } from '../desk/overview';
import { draftAnswer } from './replies';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
let threadId: string;
let theyWrite: Conversation['theyWrite'];
beforeEach(async () => {
  ({ world, ines, threadId, theyWrite } = await conversation());
});
afterEach(() => world.close());

const theirs = async () => (await threadPage(world, threadId)).messages.filter(({ direction }) => direction === 'in');
const last = async () => {
  const message = (await theirs()).at(-1);
  if (!message) throw new Error('nothing came');
  return message;
};
const DEAR: CorrectionAsk = { kind: 'objection', objection: 'price', words: 'The board looked at the last page and swallowed hard.' };
const say = async (ask: CorrectionAsk) => correctReading(world, ines, (await last()).id, ask);

test('corrected, it is answered as what it is, decided anew, and understood so the next time', async () => {
  await theyWrite('Thank you. The board looked at the last page and swallowed hard.');
  const mail = await last();
  expect(mail.reading?.objection).not.toBe('price');
  await decideReplies(world);
  expect(await sentencesToTeach(world, mail.id)).toEqual(['Thank you.', DEAR.words]);
  await say(DEAR);
  expect((await last()).reading).toMatchObject({
    kind: 'objection',
    objection: 'price',
    corrected: { by: ines.name, kind: mail.reading?.kind },
  });
  const draft = await draftAnswer(world, ines, threadId);
  expect(draft.taken[0]?.said).toMatchObject({ kind: 'objection', about: 'price' });
  expect(await decideReplies(world)).toBe(1);
  await theyWrite('Well: the board looked at the last page and swallowed hard!');
  expect((await last()).reading).toMatchObject({ kind: 'objection', objection: 'price', taughtBy: mail.id });
  expect((await corrections(world)).items).toEqual([
    expect.objectContaining({
      messageId: mail.id,
      words: DEAR.words,
      kind: 'objection',
      wasKind: mail.reading?.kind,
      madeBy: ines.name,
      used: 1,
    }),
  ]);
  await forgetCorrection(world, ines, mail.id);
  await expect(forgetCorrection(world, ines, mail.id)).rejects.toThrow('nothing was taught');
  await theyWrite('The board looked at the last page and swallowed hard.');
  expect((await last()).reading?.taughtBy).toBeUndefined();
});

test('before it is kept it says what follows and which other mails would be understood otherwise', async () => {
  await theyWrite('The board looked at the last page and swallowed hard.');
  const first = await last();
  await theyWrite('Oh, the board looked at the last page and swallowed hard.');
  expect(await tryCorrection(world, (await last()).id, DEAR)).toEqual({
    follows: { plan: 'stop', when: null, bars: false },
    read: 1,
    same: 0,
    other: [expect.objectContaining({ messageId: first.id, threadId, personName: 'Nuria Peralta', was: first.reading?.kind })],
  });
  expect((await last()).reading?.corrected).toBeUndefined();
  expect(await tryCorrection(world, first.id, { kind: 'unsubscribe', objection: null, words: null })).toMatchObject({
    follows: { bars: true },
    read: 0,
  });
});

test('what bars an address bars it; saying later that it was no such thing does not write to them again', async () => {
  await theyWrite('Enough now, it was nice.');
  await say({ kind: 'unsubscribe', objection: null, words: null });
  const barred = async () => (await doNotContactList(world)).map(({ email }) => email);
  expect(await barred()).toContain('n.peralta@viveros-almenara.example');
  expect((await threadPage(world, threadId)).thread.state).toBe('ended');
  expect((await last()).handledAt).not.toBeNull();
  await say({ kind: 'thanks', objection: null, words: null });
  expect(await barred()).toContain('n.peralta@viveros-almenara.example');
  expect((await corrections(world)).items).toEqual([]);
});

test('what a machine was taken to have written waits for a person once it is said to be one', async () => {
  await theyWrite('I am out of the office until 14 December. But yes, the screens interest us: how long would the work take?');
  const mail = await last();
  if (mail.handledAt === null) await say({ kind: 'out of office', objection: null, words: null });
  expect((await last()).handledAt).not.toBeNull();
  await say({ kind: 'question', objection: null, words: null });
  expect((await last()).handledAt).toBeNull();
  expect((await draftAnswer(world, ines, threadId)).taken.map(({ said }) => said.kind)).toContain('question');
});

test('is refused where it cannot be', async () => {
  await theyWrite('The board looked at the last page and swallowed hard.');
  await expect(say({ kind: 'bounce', objection: null, words: null })).rejects.toThrow('mail servers');
  await expect(say({ kind: 'objection', objection: null, words: null })).rejects.toThrow('what they object to');
  await expect(say({ kind: 'thanks', objection: 'price', words: null })).rejects.toThrow('only an objection');
  await expect(say({ ...DEAR, words: 'We never wrote this sentence.' })).rejects.toThrow('do not stand in their mail');
  const ours = (await threadPage(world, threadId)).messages.find(({ direction }) => direction === 'out');
  await expect(correctReading(world, ines, ours?.id ?? '', DEAR)).rejects.toThrow('only what came to us');
});

test('what somebody has, nobody else says of what kind it is, but who may take it over', async () => {
  await theyWrite('The board looked at the last page and swallowed hard.');
  const of = async (name: string): Promise<Actor> => {
    const user = (await users(world)).find((entry) => entry.name.startsWith(name));
    return { userId: user?.id ?? '', name: user?.name ?? '' };
  };
  const [tomasz, lucia] = [await of('Tomasz'), await of('Lucía')];
  await handOver(world, ines, threadId, { userId: tomasz.userId, word: '' });
  const { id } = await last();
  await expect(correctReading(world, lucia, id, DEAR)).rejects.toThrow('Tomasz Wierzba has this conversation');
  await correctReading(world, tomasz, id, DEAR);
  expect((await last()).reading?.corrected?.by).toBe('Tomasz Wierzba');
});
