import { HERE_EVERY_MS, type LiveEvent } from '../../api';
import { sessionUser } from '../access/access';
import { tellViewers, type LiveHub } from '../platform/live';
import type { World } from '../platform/world';
import { DATABASE_AWAY } from '../ports';
import { cookieOf, UUID } from './answer';
import { guards } from './edge';

/** A stream ends after so long; the browser opens it again, and who asks is looked at afresh. */
const STREAM_MS = 10 * 60_000;

/** Server-sent events (HTML standard, 9.2) for one open page; with `?flow=` the page has that flow open and others hear of it. */
export async function answerLive(world: World, hub: LiveHub, request: Request): Promise<Response> {
  const user = await sessionUser(world, cookieOf(request)).catch(() => null);
  if (user === null) return new Response(DATABASE_AWAY, { status: 503 });
  const leaveStream = user && guards(world).streams.enter(user.id);
  if (user && !leaveStream) return new Response('too many pages are open: close some', { status: 429 });
  if (!user) return new Response('not signed in', { status: 401 });
  const flowId = new URL(request.url).searchParams.get('flow');
  const stream = liveStream(world, hub, { user, flowId, gone: request.signal, left: () => leaveStream?.() });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream; charset=utf-8', 'cache-control': 'no-store, no-transform', 'x-accel-buffering': 'no' },
  });
}

interface Viewer {
  readonly user: { readonly id: string; readonly name: string };
  readonly flowId: string | null;
  /** aborted when the reader has gone */
  readonly gone: AbortSignal;
  /** called once, when the stream has ended */
  readonly left: () => void;
}

function liveStream(world: World, hub: LiveHub, { user, flowId, gone, left }: Viewer): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  let leave: () => void = () => undefined;
  const sayHere = (arrived: boolean): void => {
    if (flowId !== null && UUID.test(flowId))
      tellViewers(world, { kind: 'here', flowId, userId: user.id, name: user.name, arrived }).catch(() => undefined);
  };
  return new ReadableStream<Uint8Array>({
    start: async (controller) => {
      const send = (text: string): void => {
        try {
          controller.enqueue(encoder.encode(text));
        } catch {
          leave();
        }
      };
      const unwatch = await hub.watch((event: LiveEvent) => {
        // Who is at a flow, and what is typed there, matters to those who have it open.
        if (event.kind !== 'new' && event.flowId !== flowId) return;
        send(`data: ${JSON.stringify(event)}\n\n`);
        if (event.kind === 'here' && event.arrived && event.userId !== user.id) sayHere(false);
      });
      const beat = setInterval(() => {
        send(': still here\n\n');
        sayHere(false);
      }, HERE_EVERY_MS);
      const end = setTimeout(() => {
        leave();
      }, STREAM_MS);
      leave = () => {
        leave = () => undefined;
        clearInterval(beat);
        clearTimeout(end);
        unwatch();
        left();
        try {
          controller.close();
        } catch {
          // The reader has gone already.
        }
      };
      gone.addEventListener('abort', () => {
        leave();
      });
      // The reader may have gone while the listening began.
      if (gone.aborted) {
        leave();
        return;
      }
      send(': open\n\n');
      sayHere(true);
    },
    cancel: () => {
      leave();
    },
  });
}
