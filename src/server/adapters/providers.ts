import { request } from 'undici';
import { z } from 'zod';
import { WorldFailure, type DemoWorld, type Providers } from '../ports';
import { cleanJson } from '../../core/base';
import { callJson, dialAgent, NotConnected, onTheWire, refuseStatus, unreadable } from '../net';

const answerSchema = z.object({ value: z.string().nullable(), confidence: z.number().min(0).max(1) });
const TIMEOUT_MS = 5_000;
const LIMITS = { connectMs: 3_000, answerMs: TIMEOUT_MS } as const;
const MOST_BYTES = 256 * 1024;

/** So much of an answer as is read; the rest is not asked for. */
async function firstOf(body: AsyncIterable<Buffer>, most: number): Promise<string> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of body) {
    chunks.push(chunk);
    size += chunk.length;
    if (size > most) break;
  }
  return Buffer.concat(chunks).toString('utf8').slice(0, most);
}

/** Lookup providers over HTTP: `POST {base}/{provider}/find`. The key is sent along, so that the same question is charged once. */
export function httpProviders(base: string | null, standin: string | null): Providers {
  const agent = dialAgent({ standin }, LIMITS);
  return {
    async call(name, { method, url, headers, body }) {
      let response;
      let answer: string;
      try {
        response = await request(onTheWire(new URL(url), standin), {
          dispatcher: agent,
          method,
          headers: { accept: 'application/json', ...(body === null ? {} : { 'content-type': 'application/json' }), ...headers },
          ...(body === null ? {} : { body }),
          headersTimeout: TIMEOUT_MS,
          bodyTimeout: TIMEOUT_MS,
        });
        answer = await firstOf(response.body, MOST_BYTES);
      } catch (error) {
        throw new WorldFailure('unreachable', `${name} could not be reached`, !(error instanceof NotConnected));
      }
      refuseStatus(name, response.statusCode, response.headers['retry-after']);
      try {
        return cleanJson(JSON.parse(answer));
      } catch {
        throw unreadable(name);
      }
    },
    async ask(question) {
      if (base === null) throw new WorldFailure('refused', 'no lookup providers are connected: set MILLRACE_PROVIDERS', false);
      const started = performance.now();
      const { provider, key, ...body } = question;
      const answer = await callJson({
        name: provider,
        url: `${base}/${encodeURIComponent(provider)}/find`,
        body,
        headers: { 'idempotency-key': key },
        timeoutMs: TIMEOUT_MS,
      });
      const read = answerSchema.safeParse(answer);
      if (!read.success) throw unreadable(provider);
      return { ...read.data, tookMs: Math.round(performance.now() - started) };
    },
  };
}

const tickSchema = z.object({ next: z.number().nullable() });

/** The stand-in recipients' control door; without one, nobody moves with the clock. */
export function demoWorld(mailUrl: string | null): DemoWorld {
  return {
    async tick(now) {
      if (mailUrl === null) return null;
      const response = await request(`${mailUrl}/tick`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ now }),
        headersTimeout: 20_000,
      });
      return tickSchema.parse(await response.body.json()).next;
    },
  };
}
