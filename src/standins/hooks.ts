import { createHmac } from 'node:crypto';
import http from 'node:http';
import { z } from 'zod';
import { Services } from './services';
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
 * moment later, described services answer by the host they are asked at (`services.ts`), everything else just takes it. `GET /taken` lists calls by their id, each once; `POST /fault` makes it misbehave.
 */
export async function startHooks(sources: string, port = 0): Promise<StandIn> {
  const services = await Services.of(sources);
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
    if (await services.answer(request, response)) return;
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

/** The planning desk names a slot; a firm whose name is long has none free, so that both ways can be seen. */
async function answer(to: string, company: string): Promise<void> {
  const free = company.length < 24;
  await fetch(to, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ free, slot: free ? 'Thursday, 10:00' : null }),
  }).catch(() => undefined);
}
