/** Who has a conversation, on a real database: handed over, told, answered by who has it or stands in, and given back. */
import { conversation, type Conversation } from '../../testing/conversation';
import type { TestWorld } from '../../testing/world';
import { handOver, handOverTo } from './holders';
import { handleReply } from './holding';
import { thread as threadPage } from '../desk/overview';
import { draftAnswer, sendAnswer, waitingThreads } from './replies';
import { rail } from '../desk/rail';
import { desk } from '../desk/reviews';
import { notices } from '../trips/tell';
import type { Actor } from '../platform/world';

let world: TestWorld;
let ines: Actor;
let threadId: string;
let theyWrite: Conversation['theyWrite'];
const people = new Map<string, Actor>();
beforeEach(async () => {
  ({ world, ines, threadId, theyWrite } = await conversation());
  for (const { id, name } of await world.db<{ id: string; name: string }[]>`select id, name from app_user`)
    people.set(name.split(' ')[0] ?? '', { userId: id, name });
  await theyWrite('How long would the work take?');
});
afterEach(() => world.close());

const actor = (first: string): Actor => {
  const found = people.get(first);
  if (!found) throw new Error(`nobody is called ${first}`);
  return found;
};
const give = (to: string | null, by: Actor = ines, word = '') =>
  handOver(world, by, threadId, { userId: to === null ? null : actor(to).userId, word });
const hand = async (who: Actor) => handOverTo(world, who, (await threadPage(world, threadId)).thread);

test('handed over, it is told to them, stands on their desk, and leaves those of others', async () => {
  expect(await hand(ines)).toMatchObject({ holder: null, mayAnswer: true });
  expect((await hand(ines)).to.map(({ name }) => name)).not.toContain('Yusuf Dalgaard');
  await give('Tomasz', ines, 'You know the site.');
  expect((await notices(world, actor('Tomasz')))[0]?.text).toContain('You know the site.');
  expect(await hand(actor('Tomasz'))).toMatchObject({ holder: 'Tomasz Wierzba', yours: true, mayAnswer: true });
  expect(await waitingThreads(world, actor('Tomasz'))).toEqual([threadId]);
  expect(await waitingThreads(world, actor('Lucía'))).toEqual([]);
  expect((await desk(world, actor('Lucía'))).replies).toEqual([]);
  expect((await desk(world, actor('Tomasz'))).replies).toEqual([expect.objectContaining({ holder: 'Tomasz Wierzba' })]);
  // Each counts what is theirs, as the desk does.
  const counts = async (name: string) => (await rail(world, actor(name), 'rep')).desk;
  expect([await counts('Tomasz'), await counts('Lucía')]).toEqual([2, 0]);
  // Who builds here sees it and may take it over.
  expect((await desk(world, ines)).replies[0]?.whose).toMatchObject({ yours: false });
  expect(await hand(ines)).toMatchObject({ yours: false, mayAnswer: true });
});

test('answered by who has it only, until it is given back', async () => {
  await give('Tomasz');
  const { body, inReplyTo } = await draftAnswer(world, actor('Lucía'), threadId);
  const answer = (by: Actor) => sendAnswer(world, by, threadId, { body, inReplyTo, answers: [] });
  await expect(answer(actor('Lucía'))).rejects.toThrow('Tomasz Wierzba has this conversation');
  await expect(handleReply(world, actor('Lucía'), inReplyTo ?? '')).rejects.toThrow('has this conversation');
  await expect(give('Lucía', actor('Lucía'))).rejects.toThrow('has this conversation');
  await give(null, actor('Tomasz'));
  await answer(actor('Lucía'));
  expect((await threadPage(world, threadId)).messages.some(({ state }) => state === 'planned')).toBe(true);
});

test('who is away is stood in for by their team', async () => {
  const tomasz = actor('Tomasz');
  const day = new Date(world.now).toISOString().slice(0, 10);
  await world.db`insert into away (user_id, from_day, to_day) values (${tomasz.userId}, ${day}, ${day})`;
  await give('Tomasz');
  const { inPlace } = await hand(ines);
  expect(inPlace.length).toBeGreaterThan(0);
  expect(inPlace).not.toContain(tomasz.name);
  expect(await hand(actor(inPlace[0]?.split(' ')[0] ?? ''))).toMatchObject({ yours: true, mayAnswer: true });
});

test('is not handed to who may only look, nor to nobody there is', async () => {
  await expect(give('Yusuf')).rejects.toThrow('may look here, not decide');
  await expect(handOver(world, ines, threadId, { userId: world.newId(), word: '' })).rejects.toThrow('this colleague');
});
