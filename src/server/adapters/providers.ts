import { request } from 'undici';
import { z } from 'zod';
import { WorldFailure, type DemoWorld, type Providers } from '../ports';
import { callJson, unreadable } from '../net';

const answerSchema = z.object({ value: z.string().nullable(), confidence: z.number().min(0).max(1) });
const TIMEOUT_MS = 5_000;

/** Lookup providers over HTTP: `POST {base}/{provider}/find`. The key is sent along, so that the same question is charged once. */
export function httpProviders(base: string | null): Providers {
  return {
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
