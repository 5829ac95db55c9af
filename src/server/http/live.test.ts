/** The stream of events open pages listen to. */
import { demoWorld, testWorker, type TestWorld } from '../../testing/world';
import { liveEventSchema, type LiveEvent, type Topic } from '../../api';
import { signIn } from '../access/access';
import { createFlow, saveDraft, startOn } from '../flows/flows';
import { LiveHub, tellChanged } from '../platform/live';
import { createPerson } from '../records/records';
import { release } from '../flows/releases';
import type { Actor } from '../platform/world';
import { SESSION_COOKIE } from './answer';
import { answerLive } from './live';

let world: TestWorld;
let hub: LiveHub;
let ines: Actor;
let cookie: string;
const open: AbortController[] = [];
beforeAll(async () => {
  ({ world, ines } = await demoWorld());
  const { token } = await signIn(world, 'ruud@thornwick.example', 'glasshouse');
  cookie = `${SESSION_COOKIE}=${token}`;
  hub = new LiveHub(world);
});
afterEach(() => {
  for (const page of open.splice(0)) page.abort();
});
afterAll(() => world.close());

/** A page: `next` waits for the next event that fits. */
async function page(
  query = '',
): Promise<{ readonly status: number; next: (kind: LiveEvent['kind']) => Promise<LiveEvent | undefined>; leave: () => void }> {
  const stop = new AbortController();
  open.push(stop);
  const response = await answerLive(
    world,
    hub,
    new Request(`http://millrace.example/live${query}`, { headers: { cookie }, signal: stop.signal }),
  );
  const reader = response.body?.getReader();
  const decoder = new TextDecoder();
  // Who is answered listens a moment later: the stream says when.
  const first = response.status === 200 ? await reader?.read() : undefined;
  let text = decoder.decode(first?.value, { stream: true });
  return {
    status: response.status,
    leave: () => {
      stop.abort();
    },
    next: async (kind) => {
      for (;;) {
        const [piece, ...rest] = text.split('\n\n');
        if (rest.length > 0) {
          text = rest.join('\n\n');
          const event = piece?.startsWith('data: ') ? liveEventSchema.parse(JSON.parse(piece.slice(6))) : undefined;
          if (event?.kind === kind) return event;
          continue;
        }
        const read = await reader?.read();
        if (!read || read.done) return undefined;
        text += decoder.decode(read.value, { stream: true });
      }
    },
  };
}

const TEXT = 'flow "Seen"\nabout person\n\ntake in from hand\nnote "a"\n';

test('nobody listens without a session', async () => {
  const response = await answerLive(world, hub, new Request('http://millrace.example/live'));
  expect(response.status).toBe(401);
});

test('a saved draft is told to whoever has the flow open, with who saved it', async () => {
  const made = await createFlow(world, ines, TEXT);
  const pages = [await page(`?flow=${made.id}`), await page(`?flow=${made.id}`)];
  const saved = await saveDraft(world, ines, made.id, { text: TEXT.replace('"a"', '"b"'), base: made.draftNo });
  for (const { next } of pages)
    expect(await next('draft')).toEqual({ kind: 'draft', flowId: made.id, no: saved.draftNo, userId: ines.userId, name: ines.name });
});

test('a page with a flow open says so to the others; one that left hears no more', async () => {
  const [first] = await world.db<{ id: string }[]>`select id from flow limit 1`;
  const other = await page(`?flow=${first!.id}`);
  const there = await page(`?flow=${first!.id}`);
  expect(await other.next('here')).toMatchObject({ flowId: first!.id, name: 'Ruud Vermaat-Osei' });
  there.leave();
  expect(await there.next('draft')).toBeUndefined();
});

/** The next word that names something; a line that was just opened says `everything`. */
async function named({ next }: Awaited<ReturnType<typeof page>>): Promise<readonly Topic[]> {
  for (;;) {
    const word = await next('new');
    if (word?.kind === 'new' && word.topics[0] !== 'everything') return word.topics;
  }
}

test('what a worker has done is told by its topics: the flow, the trip and the record, and nothing of others', async () => {
  const watching = await page();
  const made = await createFlow(world, ines, TEXT.replace('Seen', 'Worked'));
  await release(world, ines, made.id);
  const person = await createPerson(world, ines, { values: { first_name: 'A', last_name: 'B', email: 'a@b.example' }, source: 'hand' });
  await startOn(world, ines, made.id, [person.id]);
  const worker = testWorker(world);
  await worker.drain();
  // A worker that only drains says no word by itself; what it changed is named all the same.
  await tellChanged(world);
  const [trip] = await world.db<{ id: string }[]>`select id from trip where flow_id = ${made.id}`;
  const topics = await named(watching);
  expect(topics).toEqual(expect.arrayContaining(['trips', `flow:${made.id}`, `trip:${trip!.id}`, `record:${person.id}`]));
  expect(topics).not.toContain('messages');
  expect(topics).not.toContain('openings');
});

test('where nothing changed nobody is told', async () => {
  const watching = await page();
  await tellChanged(world);
  await tellChanged(world, 'desk');
  expect(await named(watching)).toEqual(['desk']);
});

test('a page whose stream opens a moment later hears what was told meanwhile, and no more', async () => {
  const moment = 300;
  const own = new LiveHub(world, moment);
  const first: LiveEvent[] = [];
  const leaveFirst = await own.watch((event) => first.push(event));
  // This process has not listened long enough to know all that was said before: everything may be new.
  expect(first).toEqual([{ kind: 'new', topics: ['everything'] }]);
  await new Promise((resolve) => setTimeout(resolve, moment));
  await tellChanged(world, 'openings');
  while (first.length < 2) await new Promise((resolve) => setTimeout(resolve, 5));
  const later: LiveEvent[] = [];
  const leaveLater = await own.watch((event) => later.push(event));
  expect(later).toEqual([{ kind: 'new', topics: ['openings'] }]);
  leaveLater();
  await new Promise((resolve) => setTimeout(resolve, moment));
  const idle: LiveEvent[] = [];
  const leaveIdle = await own.watch((event) => idle.push(event));
  expect(idle).toEqual([]);
  leaveIdle();
  leaveFirst();
});
