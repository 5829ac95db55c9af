/** What every door to the outside has in common: who calls, how often, how much, and how a refusal is said. */
import type { World } from '../platform/world';
import { BodyProblem } from './body';
import { AT_ONCE, AtOnce, PACES, paceHeaders, Pacer, type Pace } from './pace';

/** RFC 9457. */
export function problem(
  status: number,
  title: string,
  detail: string,
  more: Readonly<Record<string, unknown>> = {},
  headers: Readonly<Record<string, string>> = {},
): Response {
  return Response.json(
    { type: 'about:blank', title, status, detail, ...more },
    { status, headers: { 'content-type': 'application/problem+json', ...headers } },
  );
}

export const bodyProblem = (error: BodyProblem): Response =>
  problem(
    error.status,
    error.status === 413 ? 'Too large' : 'Not valid',
    error.message,
    {},
    error.status === 413 ? { connection: 'close' } : {},
  );

/** The caller's address as our own server wrote it (`wire/http.ts`): what a client says of itself has been taken out there. */
export const addressOf = (request: Request): string => request.headers.get('x-millrace-client') ?? 'direct';

interface Guards {
  readonly api: Pacer;
  readonly session: Pacer;
  readonly open: Pacer;
  readonly signIn: Pacer;
  readonly uploads: AtOnce;
  readonly streams: AtOnce;
  readonly forms: AtOnce;
}
const byWorld = new WeakMap<World, Guards>();
const monotonic = (): number => performance.now();

/** The counters of one process. */
export function guards(world: World): Guards {
  let found = byWorld.get(world);
  if (!found) {
    const scaled = (pace: Pace): Pace => ({ ...pace, calls: Math.round(pace.calls * world.paceFactor) });
    found = {
      api: new Pacer(scaled(PACES.api), monotonic),
      session: new Pacer(scaled(PACES.session), monotonic),
      open: new Pacer(scaled(PACES.open), monotonic),
      signIn: new Pacer(scaled(PACES.signIn), monotonic),
      uploads: new AtOnce(AT_ONCE.uploads),
      streams: new AtOnce(AT_ONCE.streams),
      forms: new AtOnce(AT_ONCE.forms),
    };
    byWorld.set(world, found);
  }
  return found;
}

/** Counts one call; a refusal with its headers when there have been too many. */
export function paced(
  world: World,
  what: keyof typeof PACES,
  caller: string,
): { readonly headers: Readonly<Record<string, string>>; readonly refusal: Response | undefined } {
  const pace = { ...PACES[what], calls: Math.round(PACES[what].calls * world.paceFactor) };
  const left = guards(world)[what].take(caller);
  const headers = paceHeaders(what, pace, left);
  return {
    headers,
    refusal: left.allowed
      ? undefined
      : problem(
          429,
          'Too often',
          `at most ${pace.calls.toLocaleString('en-GB')} calls in ${pace.seconds} seconds: try again in ${left.resetSeconds}`,
          {},
          headers,
        ),
  };
}

/** One answer of an open door: paced by address, with every refusal in words. */
export async function atOpenDoor(
  world: World,
  request: Request,
  what: 'open' | 'signIn',
  work: () => Promise<Response>,
): Promise<Response> {
  const { refusal, headers } = paced(world, what, addressOf(request));
  if (refusal) return refusal;
  let response: Response;
  try {
    response = await work();
  } catch (error) {
    if (!(error instanceof BodyProblem)) throw error;
    response = bodyProblem(error);
  }
  for (const [name, value] of Object.entries(headers)) response.headers.set(name, value);
  return response;
}
