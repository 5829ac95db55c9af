import { openApiDocument, OPERATIONS, type FileAnswer, type Operation, type OperationId } from '../../api';
import { may } from '../access';
import type { UserRow } from '../store/access';
import { sessionUser, tokenUser } from '../usecases/access';
import { tellViewers } from '../usecases/live';
import { Refusal, type World } from '../usecases/world';
import { HANDLERS } from './handlers';

export const SESSION_COOKIE = 'millrace_session';
const MAX_JSON_BYTES = 2 * 1024 * 1024;
const STATUS: Record<Refusal['kind'], number> = { 'not found': 404, 'not allowed': 403, 'not valid': 400, conflict: 409, 'too often': 429 };
export const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

/** RFC 9457. */
function problem(status: number, title: string, detail: string, more: Readonly<Record<string, unknown>> = {}): Response {
  return Response.json(
    { type: 'about:blank', title, status, detail, ...more },
    { status, headers: { 'content-type': 'application/problem+json' } },
  );
}

/** Answers one request to `/api/v1`: finds the operation, checks who asks and what they send, calls its use case. Never throws. */
export async function answerApi(world: World, request: Request, path: string): Promise<Response> {
  if (path === '/openapi.json' && request.method === 'GET') return Response.json(openApiDocument(world.publicUrl));
  const route = findOperation(request.method, path);
  if (!route) return problem(404, 'Not found', `there is no ${request.method} /api/v1${path}`);
  try {
    const who = await caller(world, request);
    if (!who) return problem(401, 'Not signed in', 'send a token as “Authorization: Bearer …”, or sign in');
    if (!may(who.user.role, route.operation.needs))
      return problem(403, 'Not allowed', `a ${who.user.role} may not “${route.operation.needs}”`);
    return await run(world, request, route, who);
  } catch (error) {
    if (error instanceof Refusal) return problem(STATUS[error.kind], error.kind, error.message, error.detail);
    world.log.error('request broke', { path, error: error instanceof Error ? (error.stack ?? error.message) : String(error) });
    return problem(500, 'Something broke', 'Millrace could not do this; nothing was changed. The log says more.');
  }
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
      if (name) params[name] = parts[i] ?? '';
      return name !== undefined || piece === parts[i];
    });
    if (fits && (best === undefined || Object.keys(params).length < Object.keys(best.params).length)) best = { id, operation, params };
  }
  return best;
}

/** The session's token as the browser sends it. */
export const cookieOf = (request: Request): string | undefined =>
  new RegExp(`(?:^|;\\s*)${SESSION_COOKIE}=([^;]+)`).exec(request.headers.get('cookie') ?? '')?.[1];

/** By token, or by session cookie; with a cookie, anything but reading must come from our own pages. */
async function caller(world: World, request: Request): Promise<{ user: UserRow; source: 'hand' | 'api' } | undefined> {
  const bearer = /^Bearer (.+)$/.exec(request.headers.get('authorization') ?? '')?.[1];
  if (bearer !== undefined) {
    const user = await tokenUser(world, bearer);
    return user && { user, source: 'api' };
  }
  if (request.method !== 'GET' && !sameOrigin(request))
    throw new Refusal('not allowed', 'this request did not come from Millrace’s own pages');
  const user = await sessionUser(world, cookieOf(request));
  return user && { user, source: 'hand' };
}

export function sameOrigin(request: Request): boolean {
  const site = request.headers.get('sec-fetch-site');
  if (site !== null) return site === 'same-origin';
  const origin = request.headers.get('origin');
  return origin !== null && new URL(origin).host === request.headers.get('host');
}

async function run(world: World, request: Request, route: Route, who: { user: UserRow; source: 'hand' | 'api' }): Promise<Response> {
  const { operation } = route;
  for (const [name, value] of Object.entries(route.params))
    if (!UUID.test(value) && !/^\d{1,15}$/.test(value))
      return problem(404, 'Not found', `“${value}” is not an ${name} that Millrace gives out`);
  const query = operation.query?.safeParse(Object.fromEntries(new URL(request.url).searchParams));
  if (query && !query.success) return invalid('query', query.error.issues);
  let body: unknown;
  let file = new Uint8Array();
  if (operation.takesFile) file = new Uint8Array(await request.arrayBuffer());
  else if (operation.body) {
    const text = await request.text();
    if (text.length > MAX_JSON_BYTES) return problem(413, 'Too large', `a body may have ${MAX_JSON_BYTES / 1024 / 1024} MB`);
    let json: unknown;
    try {
      json = text === '' ? {} : JSON.parse(text);
    } catch {
      return problem(400, 'Not valid', 'the body is not JSON');
    }
    const read = operation.body.safeParse(json);
    if (!read.success) return invalid('body', read.error.issues);
    body = read.data;
  }
  const call = {
    world,
    user: who.user,
    actor: { userId: who.user.id, name: who.user.name },
    source: who.source,
    params: route.params,
    query: query?.data,
    body,
    file,
  };
  // The table ties each handler to its own operation's shapes; looked up by id they are one union, which TypeScript cannot pair again.
  const result = await (HANDLERS[route.id] as (call: unknown) => Promise<unknown>)(call);
  // What was asked is done by now; pages that hear nothing of it ask by themselves a little later.
  if (operation.method !== 'GET')
    await tellViewers(world, { kind: 'work' }).catch((error: unknown) => {
      world.log.warn('open pages could not be told', { error: String(error) });
    });
  if (operation.givesFile) return fileResponse(result as FileAnswer);
  return Response.json(toWire(result), { status: operation.status ?? 200 });
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

const INSTANT_KEY = /(?:^at|At|Since|Until|^since|^now|^target)$/;

/** Instants leave as ISO 8601; everything else as it is. */
export function toWire(value: unknown, key = ''): unknown {
  if (typeof value === 'number' && INSTANT_KEY.test(key) && value > 1e11) return new Date(value).toISOString();
  if (Array.isArray(value)) return value.map((item) => toWire(item, key));
  if (value instanceof Map) return toWire(Object.fromEntries(value));
  if (typeof value === 'object' && value !== null)
    return Object.fromEntries(Object.entries(value).map(([name, inner]) => [name, toWire(inner, name)]));
  return value;
}
