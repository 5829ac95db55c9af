import { request } from 'undici';
import { z } from 'zod';
import { WorldFailure, type DemoWorld, type Providers } from '../ports';

const answerSchema = z.object({ value: z.string().nullable(), confidence: z.number().min(0).max(1) });
const TIMEOUT_MS = 5_000;

/** Lookup providers over HTTP: `POST {base}/{provider}/find`. The key is sent along, so that the same question is charged once. */
export function httpProviders(base: string | null): Providers {
  return {
    async ask(question) {
      if (base === null) throw new WorldFailure('refused', 'no lookup providers are connected: set MILLRACE_PROVIDERS', false);
      const started = performance.now();
      const { provider, key, ...body } = question;
      let response;
      try {
        response = await request(`${base}/${encodeURIComponent(provider)}/find`, {
          method: 'POST',
          headers: { 'content-type': 'application/json', 'idempotency-key': key },
          body: JSON.stringify(body),
          headersTimeout: TIMEOUT_MS,
          bodyTimeout: TIMEOUT_MS,
        });
      } catch (error) {
        throw new WorldFailure(
          'unreachable',
          `${provider} could not be reached (${error instanceof Error ? error.message : 'no reason given'})`,
          true,
        );
      }
      const retryAfter = Number(response.headers['retry-after']) * 1000 || null;
      if (response.statusCode === 429) throw new WorldFailure('busy', `${provider} asked to come back later`, true, retryAfter);
      if (response.statusCode >= 500) throw new WorldFailure('broken', `${provider} answered with an error (${response.statusCode})`, true);
      if (response.statusCode >= 400) throw new WorldFailure('refused', `${provider} refused the question (${response.statusCode})`, false);
      const read = answerSchema.safeParse(await response.body.json().catch(() => undefined));
      if (!read.success) throw new WorldFailure('broken', `${provider} sent an answer that cannot be read`, true);
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
