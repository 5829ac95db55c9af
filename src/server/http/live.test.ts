/** The stream of events open pages listen to. */
import { demoWorkspace, testWorker, testWorld, type TestWorld } from '../../testing/world';
import { liveEventSchema, type LiveEvent } from '../../api';
import { signIn } from '../access/access';
import { createFlow, saveDraft, startOn } from '../flows/flows';
import { LiveHub } from '../platform/live';
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
  world = await testWorld();
  ({ ines } = await demoWorkspace(world));
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

test('a saved draft is told to every page, with who saved it', async () => {
  const pages = [await page(), await page()];
  const made = await createFlow(world, ines, TEXT);
  const saved = await saveDraft(world, ines, made.id, { text: TEXT.replace('"a"', '"b"'), base: made.draftNo });
  for (const { next } of pages)
    expect(await next('draft')).toEqual({ kind: 'draft', flowId: made.id, no: saved.draftNo, userId: ines.userId, name: ines.name });
});

test('a page with a flow open says so to the others; one that left hears no more', async () => {
  const [first] = await world.db<{ id: string }[]>`select id from flow limit 1`;
  const other = await page();
  const there = await page(`?flow=${first!.id}`);
  expect(await other.next('here')).toMatchObject({ flowId: first!.id, name: 'Ruud Vermaat-Osei' });
  there.leave();
  expect(await there.next('draft')).toBeUndefined();
});

test('what a worker has done is told', async () => {
  const watching = await page();
  const made = await createFlow(world, ines, TEXT.replace('Seen', 'Worked'));
  await release(world, ines, made.id);
  const person = await createPerson(world, ines, { values: { first_name: 'A', last_name: 'B', email: 'a@b.example' }, source: 'hand' });
  await startOn(world, ines, made.id, [person.id]);
  const told = watching.next('work');
  await testWorker(world).drain();
  expect(await told).toEqual({ kind: 'work' });
});
