import path from 'node:path';
import { z } from 'zod';
import { cleanJson, cleanText, cutText } from '../../core/base';
import { openApiDocument, OPERATIONS, type FileAnswer, type Operation, type OperationId, type Topic } from '../../api';
import { may } from '../access/may';
import { DATABASE_AWAY, isAway, WorldFailure } from '../ports';
import type { Scope, UserRow } from '../access/store/access';
import { sessionUser, tokenUser } from '../access/access';
import { tellChanged } from '../platform/live';
import { scopeFor, withinScope } from '../access/tokens';
import { Refusal, type World } from '../platform/world';
import { withFolder } from '../intake/list-rows';
import { BODY_LIMITS, BodyProblem, readBytes, readJson, saveBody } from './body';
import { addressOf, bodyProblem, guards, paced, problem } from './edge';
import { HANDLERS } from './handlers';

export const SESSION_COOKIE = 'millrace_session';
const STATUS: Record<Refusal['kind'], number> = { 'not found': 404, 'not allowed': 403, 'not valid': 400, conflict: 409, 'too often': 429 };
export const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

/** Answers one request to `/api/v1`: finds the operation, checks who asks and what they send, calls its use case. Never throws. */
export async function answerApi(world: World, request: Request, at: string): Promise<Response> {
  if (at === '/openapi.json' && request.method === 'GET') return Response.json(openApiDocument(world.publicUrl));
  const route = findOperation(request.method, at);
  if (!route) return problem(404, 'Not found', `there is no ${request.method} /api/v1${cutText(at, 200)}`);
  try {
    const who = await caller(world, request);
    if (who instanceof Response) return who;
    const { refusal, headers } = paced(world, who.source === 'api' ? 'api' : 'session', who.key);
    if (refusal) return refusal;
    const response = refused(who, route.operation) ?? (await run(world, request, route, who));
    for (const [name, value] of Object.entries(headers)) response.headers.set(name, value);
    return response;
  } catch (error) {
    return broken(world, at, error);
  }
}

/** What the database says of a value that no check has met: the value is wrong, not the server (SQLSTATE classes 22 and 23). */
const BAD_VALUE = /^2[23]/;

function broken(world: World, path: string, error: unknown): Response {
  if (error instanceof BodyProblem) return bodyProblem(error);
  if (error instanceof Refusal) return problem(STATUS[error.kind], error.kind, error.message, error.detail);
  if (error instanceof WorldFailure) return problem(error.retryable ? 503 : 400, error.retryable ? 'Not now' : 'Not valid', error.message);
  world.log.error('request broke', { path, error: error instanceof Error ? (error.stack ?? error.message) : String(error) });
  const code = error instanceof Error && 'code' in error ? String(error.code) : '';
  if (BAD_VALUE.test(code))
    return problem(400, 'Not valid', 'one of the values cannot be kept: it is too large, too early, too late or names nothing that exists');
  if (isAway(code)) return problem(503, 'The database is away', DATABASE_AWAY, {}, { 'retry-after': '5' });
  return problem(500, 'Something broke', 'Millrace could not do this; nothing was changed. The log says more.');
}

interface Route {
  readonly id: OperationId;
  readonly operation: Operation;
  readonly params: Readonly<Record<string, string>>;
}

function findOperation(method: string, path: string): Route | undefined {
  const parts = path.split('/');
  let best: Route | undefined;
  for (const [id, operation] of Object.entries(OPERATIONS) as [OperationId, Operation][]) {
    const pattern = operation.path.split('/');
    if (operation.method !== method || pattern.length !== parts.length) continue;
    const params: Record<string, string> = {};
    const fits = pattern.every((piece, i) => {
      const name = /^\{(\w+)\}$/.exec(piece)?.[1];
      if (name) params[name] = unescaped(parts[i] ?? '');
      return name !== undefined || piece === parts[i];
    });
    if (fits && (best === undefined || Object.keys(params).length < Object.keys(best.params).length)) best = { id, operation, params };
  }
  return best;
}

/** A part of an address as it was meant; one that cannot be read stays as it is, and names nothing. */
function unescaped(part: string): string {
  try {
    return cleanText(decodeURIComponent(part));
  } catch {
    return part;
  }
}

/** The session's token as the browser sends it. */
export const cookieOf = (request: Request): string | undefined =>
  new RegExp(`(?:^|;\\s*)${SESSION_COOKIE}=([^;]+)`).exec(request.headers.get('cookie') ?? '')?.[1];

/** What stands against it: the role, or, of a token, its scope. */
function refused({ user, scope }: Caller, { needs, path: at }: Pick<Operation, 'needs' | 'path'>): Response | undefined {
  if (user.lacksFactor && !at.startsWith('/account/'))
    return problem(403, 'Not allowed', 'everybody here needs a second factor: set yours up on “My account” first');
  if (!may(user.role, needs)) return problem(403, 'Not allowed', `a ${user.role} may not “${needs}”`);
  if (withinScope(scope, needs)) return undefined;
  return problem(403, 'Not allowed', `this token has the scope “${scope}”: for “${needs}” it takes the scope “${scopeFor(needs)}”`, {
    scope: scopeFor(needs),
  });
}

interface Caller {
  readonly user: UserRow;
  /** of a token; people have all that their role has */
  readonly scope: Scope;
  readonly source: 'hand' | 'api';
  /** whose calls are counted together */
  readonly key: string;
}

/** By token, or by session cookie; with a cookie, anything but reading must come from our own pages. Who is nobody gets the refusal. */
async function caller(world: World, request: Request): Promise<Caller | Response> {
  const token = /^Bearer (.{1,200})$/.exec(request.headers.get('authorization') ?? '')?.[1];
  const nobody = (): Response =>
    // Guessing tokens is counted by address.
    paced(world, 'open', addressOf(request)).refusal ??
    problem(401, 'Not signed in', 'send a token as “Authorization: Bearer …”, or sign in');
  if (token !== undefined) {
    const user = await tokenUser(world, token);
    return user ? { user, scope: user.scope, source: 'api', key: `token ${token}` } : nobody();
  }
  if (request.method !== 'GET' && !sameOrigin(request))
    throw new Refusal('not allowed', 'this request did not come from Millrace’s own pages');
  const user = await sessionUser(world, cookieOf(request));
  return user ? { user, scope: 'all', source: 'hand', key: user.id } : nobody();
}

export function sameOrigin(request: Request): boolean {
  const site = request.headers.get('sec-fetch-site');
  if (site !== null) return site === 'same-origin';
  const origin = request.headers.get('origin');
  return origin !== null && URL.canParse(origin) && new URL(origin).host === request.headers.get('host');
}

async function run(world: World, request: Request, route: Route, who: Caller): Promise<Response> {
  const { operation } = route;
  for (const [name, value] of Object.entries(route.params))
    if (!UUID.test(value) && !(name === 'id' && /^\d{1,15}$/.test(value)) && name !== 'name')
      return problem(404, 'Not found', `“${cutText(value, 80)}” is not an ${name} that Millrace gives out`);
  const query = operation.query?.safeParse(cleanJson(Object.fromEntries(new URL(request.url).searchParams)));
  if (query && !query.success) return invalid('query', query.error.issues);
  const call = {
    world,
    user: who.user,
    actor: { userId: who.user.id, name: who.user.name },
    source: who.source,
    params: route.params,
    query: query?.data,
    body: undefined,
    file: new Uint8Array(),
    path: '',
  };
  if (operation.takesFile) return withUpload(world, request, route, who, call);
  if (!operation.body) return answered(world, route, call);
  const read = operation.body.safeParse(await readJson(request, operation.maxBytes ?? BODY_LIMITS.json));
  if (!read.success) return invalid('body', read.error.issues);
  return answered(world, route, { ...call, body: read.data });
}

/** A file goes to disk as it comes; a small one is handed over as bytes. So many at once for each, and in all. */
async function withUpload(world: World, request: Request, route: Route, who: Caller, call: object): Promise<Response> {
  const leave = guards(world).uploads.enter(who.user.id);
  if (!leave)
    return problem(429, 'Too much at once', 'other files are being sent: wait until one of them has arrived', {}, { 'retry-after': '5' });
  const max = route.operation.maxBytes ?? BODY_LIMITS.bundle;
  try {
    if (route.operation.takesFile !== 'text/csv') return await answered(world, route, { ...call, file: await readBytes(request, max) });
    return await withFolder(async (folder) => {
      const file = path.join(folder, 'upload');
      await saveBody(request, max, file);
      return answered(world, route, { ...call, path: file });
    });
  } finally {
    leave();
  }
}

/** The topics of a change, with the ids of its path. */
export const topicsOf = (operation: Operation, params: Readonly<Record<string, string>>): Topic[] =>
  operation.method === 'GET'
    ? []
    : operation.changes.map((topic) => topic.replace(/\{(\w+)\}/g, (_all, name: string) => params[name] ?? '*') as Topic);

async function answered(world: World, { id, operation, params }: Route, call: unknown): Promise<Response> {
  // The table ties each handler to its own operation's shapes; looked up by id they are one union, which TypeScript cannot pair again.
  const result = await (HANDLERS[id] as (call: unknown) => Promise<unknown>)(call);
  // What was asked is done by now; pages that hear nothing of it ask by themselves a little later.
  await tellChanged(world, ...topicsOf(operation, params));
  if (operation.givesFile) return fileResponse(result as FileAnswer);
  const written = z.safeEncode(operation.answer, result);
  if (written.success) return Response.json(written.data, { status: operation.status ?? 200 });
  world.log.error('an answer is not as its schema says', { operation: id, issues: written.error.issues.slice(0, 5) });
  return problem(500, 'Something broke', 'What was asked was done, but Millrace could not say what came of it. The log says more.');
}

function fileResponse({ name, type, content }: FileAnswer): Response {
  // RFC 6266: a plain name for old readers, the whole one in UTF-8.
  const plain = name.replace(/[^\w. -]/g, '_');
  return new Response(typeof content === 'string' ? content : new Uint8Array(content), {
    headers: {
      'content-type': type,
      'content-disposition': `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}`,
    },
  });
}

function invalid(where: string, issues: readonly { readonly path: readonly PropertyKey[]; readonly message: string }[]): Response {
  return problem(
    400,
    'Not valid',
    issues.map((issue) => `${where}${issue.path.length > 0 ? `.${issue.path.join('.')}` : ''}: ${issue.message}`).join('; '),
    { issues: issues.map((issue) => ({ where: issue.path.join('.'), message: issue.message })) },
  );
}
