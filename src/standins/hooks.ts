import { createHmac } from 'node:crypto';
import http from 'node:http';
import { z } from 'zod';
import { fold, stableHash } from '../core/base';
import { listen, readJson, sendJson, type StandIn } from './server';

/** The secret of the demo's webhooks; calls that are not signed with it are refused. */
export const HOOK_SECRET = 'whsec_dGhvcm53aWNrIHlhcmQgc3RhbmQtaW4=';
const faultSchema = z.object({ fault: z.enum(['none', '429', '500', 'refuse', 'silence']) });
const handedSchema = z.looseObject({ answer_to: z.url().optional(), company: z.looseObject({ name: z.string() }).nullish() });

export interface TakenCall {
  readonly path: string;
  readonly id: string;
  readonly body: unknown;
}

/**
 * Other systems of the firm as one stand-in: the planning desk answers what is handed over to it with a visiting slot a
 * moment later, everything else just takes it. `GET /taken` lists calls by their id, each once; `POST /fault` makes it misbehave.
 */
export async function startHooks(port = 0): Promise<StandIn> {
  const taken = new Map<string, TakenCall>();
  let fault = 'none';
  const handle = async (request: http.IncomingMessage, response: http.ServerResponse): Promise<void> => {
    const path = request.url ?? '/';
    if (path === '/taken') {
      sendJson(response, [...taken.values()]);
      return;
    }
    if (path === '/fault') {
      ({ fault } = faultSchema.parse(await readJson(request)));
      sendJson(response, { ok: true });
      return;
    }
    if (request.headers.host?.startsWith(PENNANT) === true) {
      pennant(request, response);
      return;
    }
    const chunks: Buffer[] = [];
    for await (const chunk of request) chunks.push(chunk as Buffer);
    const text = Buffer.concat(chunks).toString('utf8');
    if (fault === 'silence') return;
    if (fault !== 'none') {
      const status = fault === '429' ? 429 : fault === '500' ? 500 : 403;
      sendJson(response, { error: fault }, status, status === 429 ? { 'retry-after': '2' } : {});
      return;
    }
    const header = (name: string): string => String(request.headers[name] ?? '');
    const id = header('webhook-id');
    const want = `v1,${createHmac('sha256', Buffer.from(HOOK_SECRET.slice(6), 'base64'))
      .update(`${id}.${header('webhook-timestamp')}.${text}`)
      .digest('base64')}`;
    if (id === '' || header('webhook-signature') !== want) {
      sendJson(response, { error: 'the signature does not fit' }, 401);
      return;
    }
    const body = handedSchema.parse(JSON.parse(text));
    const again = taken.has(id);
    taken.set(id, { path, id, body });
    sendJson(response, { ok: true });
    if (path === '/planning' && body.answer_to !== undefined && !again) void answer(body.answer_to, body.company?.name ?? 'the firm');
  };
  const server = http.createServer((request, response) => {
    handle(request, response).catch(() => {
      sendJson(response, { error: 'bad request' }, 400);
    });
  });
  return listen(server, port);
}

/** A lookup service of its own shape, asked by an address with a key: what a described connection is made for. */
const PENNANT = 'api.pennant-data.example';
const PENNANT_KEY = 'pennant-demo-key';
function pennant(request: http.IncomingMessage, response: http.ServerResponse): void {
  const url = new URL(request.url ?? '/', 'http://pennant.example');
  if (request.headers['x-api-key'] !== PENNANT_KEY) {
    sendJson(response, { error: { code: 'no_key', message: 'send your key as X-Api-Key' } }, 401);
    return;
  }
  const [first = '', last = ''] = fold(url.searchParams.get('name') ?? '').split(/\s+/);
  const domain = url.searchParams.get('domain') ?? '';
  const dice = Number.parseInt(stableHash(`pennant ${first} ${last} ${domain}`).slice(0, 4), 16) / 0xffff;
  const contacts =
    domain === '' || dice > 0.8
      ? []
      : [{ address: `${first.slice(0, 1)}.${last}@${domain}`, score: Math.round(60 + dice * 45), kind: 'work' }];
  sendJson(response, { meta: { credits_left: 412 }, data: { query: { first, last, domain }, contacts } });
}

/** The planning desk names a slot; a firm whose name is long has none free, so that both ways can be seen. */
async function answer(to: string, company: string): Promise<void> {
  const free = company.length < 24;
  await fetch(to, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ free, slot: free ? 'Thursday, 10:00' : null }),
  }).catch(() => undefined);
}
