import http from 'node:http';
import { z } from 'zod';
import { fold, stableHash } from '../core/base';
import { listen, readJson, sendJson, type StandIn } from './server';

const questionSchema = z.object({
  field: z.string(),
  personName: z.string(),
  companyName: z.string().nullable(),
  host: z.string().nullable(),
});
const faultSchema = z.object({ provider: z.string(), fault: z.enum(['none', '429', '500', 'half json', 'silence']) });

/** What each provider knows: the share of people it has an address for, and the share of those that is of no use. */
const KNOWS: Readonly<Record<string, { readonly has: number; readonly bad: number }>> = {
  Fernpost: { has: 0.6, bad: 0.25 },
  Kettlewell: { has: 0.7, bad: 0.1 },
};

const share = (text: string): number => Number.parseInt(stableHash(text).slice(0, 8), 16) / 0xffffffff;

/** Two stand-in lookup providers with their own, steady knowledge. `POST /NAME/find`; `POST /fault` makes one misbehave. */
export async function startProviders(port = 0): Promise<StandIn> {
  const faults = new Map<string, string>();
  const charged = new Map<string, number>();
  const server = http.createServer((request, response) => {
    handle(request, response).catch(() => {
      sendJson(response, { error: 'bad request' }, 400);
    });
  });
  const handle = async (request: http.IncomingMessage, response: http.ServerResponse): Promise<void> => {
    if (request.url === '/fault') {
      const { provider, fault } = faultSchema.parse(await readJson(request));
      faults.set(provider, fault);
      sendJson(response, { ok: true });
      return;
    }
    if (request.url === '/charged') {
      sendJson(response, Object.fromEntries(charged));
      return;
    }
    const name = decodeURIComponent(/^\/([^/]+)\/find$/.exec(request.url ?? '')?.[1] ?? '');
    const knows = KNOWS[name];
    if (!knows) {
      sendJson(response, { error: 'no such provider' }, 404);
      return;
    }
    const question = questionSchema.parse(await readJson(request));
    const fault = faults.get(name) ?? 'none';
    if (fault === '429') {
      sendJson(response, { error: 'slow down' }, 429, { 'retry-after': '1' });
      return;
    }
    if (fault === '500') {
      sendJson(response, { error: 'broken' }, 500);
      return;
    }
    if (fault === 'half json') {
      response.writeHead(200, { 'content-type': 'application/json' }).end('{"value": "half');
      return;
    }
    if (fault === 'silence') return;
    const key = String(request.headers['idempotency-key'] ?? '');
    charged.set(key, (charged.get(key) ?? 0) + 1);
    sendJson(response, find(name, knows, question));
  };
  return listen(server, port);
}

function find(
  name: string,
  knows: { readonly has: number; readonly bad: number },
  question: z.infer<typeof questionSchema>,
): { value: string | null; confidence: number } {
  const seed = `${name} ${question.personName} ${question.host ?? ''}`;
  if (question.host === null || share(`has ${seed}`) > knows.has) return { value: null, confidence: 0 };
  const parts = fold(question.personName)
    .split(/[^a-z]+/)
    .filter((part) => part.length > 1);
  const [first = 'x', last = 'y'] = [parts[0], parts.at(-1)];
  if (share(`bad ${seed}`) < knows.bad)
    return share(`kind ${seed}`) < 0.5
      ? { value: `info@${question.host}`, confidence: 0.9 }
      : { value: `${first}.${last}@old-${question.host}`, confidence: 0.7 };
  return { value: `${first[0] ?? ''}.${last}@${question.host}`, confidence: Math.round((0.7 + share(`sure ${seed}`) * 0.28) * 100) / 100 };
}
