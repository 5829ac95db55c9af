import { request } from 'undici';
import { z } from 'zod';
import { cleanJson, type JsonObject } from '../../core/base';
import { dialAgent, NotConnected, onTheWire, signature } from '../net';
import { WorldFailure, type Webhooks } from '../ports';

const LIMITS = { connectMs: 3_000, answerMs: 10_000, bytes: 256 * 1024 } as const;
const bodySchema = z.record(z.string(), z.json());

/** Posts signed JSON. The id is the receiver's means to drop what comes twice. */
export function signedWebhooks(standin: string | null): Webhooks {
  const agent = dialAgent({ standin }, LIMITS);
  return {
    async post(ask) {
      if (!URL.canParse(ask.url) || !/^https?:$/.test(new URL(ask.url).protocol))
        throw new WorldFailure('refused', `“${ask.url}” is no address that can be posted to`, false);
      const target = new URL(ask.url);
      const body = JSON.stringify(ask.body);
      const seconds = Math.floor(ask.at / 1000);
      let response;
      let answer = '';
      try {
        response = await request(onTheWire(target, standin), {
          dispatcher: agent,
          method: 'POST',
          headers: {
            'content-type': 'application/json',
            'webhook-id': ask.id,
            'webhook-timestamp': String(seconds),
            'webhook-signature': signature(ask.secret, ask.id, seconds, body),
          },
          body,
        });
        let size = 0;
        const chunks: Buffer[] = [];
        for await (const chunk of response.body as AsyncIterable<Buffer>) {
          size += chunk.length;
          if (size <= LIMITS.bytes) chunks.push(chunk);
        }
        answer = Buffer.concat(chunks).toString('utf8');
      } catch (error) {
        throw new WorldFailure('unreachable', `${target.host} could not be reached`, !(error instanceof NotConnected));
      }
      const retryAfter = Number(response.headers['retry-after']) * 1000 || null;
      if (response.statusCode === 429) throw new WorldFailure('busy', `${target.host} asked to come back later`, true, retryAfter);
      if (response.statusCode >= 500)
        throw new WorldFailure('broken', `${target.host} answered with an error (${response.statusCode})`, true, retryAfter);
      if (response.statusCode >= 300) throw new WorldFailure('refused', `${target.host} refused it (${response.statusCode})`, false);
      return { status: response.statusCode, body: objectIn(answer) };
    },
  };
}

function objectIn(text: string): JsonObject | null {
  try {
    const read = bodySchema.safeParse(cleanJson(JSON.parse(text)));
    return read.success ? read.data : null;
  } catch {
    return null;
  }
}
