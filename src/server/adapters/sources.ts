import { z } from 'zod';
import type { Block } from '../../core/formats';
import { directoryHitSchema } from '../../core/intake';
import { WorldFailure, type SourceDocument, type SourceState, type Sources } from '../ports';
import { callJson, unreadable } from '../net';

const TIMEOUT_MS = 5_000;
const ASK_AGAIN_LEAST_MS = 100;
const ASK_AGAIN_MOST_MS = 60_000;

const documentSchema = z.object({
  url: z.url(),
  title: z.string(),
  published: z.iso.date().nullable(),
  lines: z.array(z.string().max(5_000)).max(500),
});
const stateSchema = z.union([
  z.object({ documents: z.array(documentSchema).max(200), costMicro: z.number().int().min(0).default(0) }),
  z.object({ job: z.string().max(200), askAgainMs: z.number() }),
  z.object({ state: z.literal('working'), askAgainMs: z.number() }),
  z.object({ state: z.literal('failed'), why: z.string().max(500) }),
]);
const directorySchema = z.object({ count: z.number().int().min(0), hits: z.array(directoryHitSchema) });

/** Sources over HTTP: `POST {base}/{source}/search`, `GET {base}/jobs/{job}`, `POST {base}/directory`. */
export function httpSources(base: string | null): Sources {
  const connected = (): string => {
    if (base === null) throw new WorldFailure('refused', 'no sources are connected: set MILLRACE_SOURCES', false);
    return base;
  };
  return {
    async start({ source, key, ...asked }) {
      const name = `the source “${source}”`;
      const answer = await callJson({
        name,
        url: `${connected()}/${source}/search`,
        body: asked,
        headers: { 'idempotency-key': key },
        timeoutMs: TIMEOUT_MS,
      });
      return stateOf(answer, '', name);
    },
    async collect(source, job) {
      const name = `the source “${source}”`;
      return stateOf(await callJson({ name, url: `${connected()}/jobs/${encodeURIComponent(job)}`, timeoutMs: TIMEOUT_MS }), job, name);
    },
    async directory(criteria, from, count) {
      const read = directorySchema.safeParse(
        await callJson({
          name: 'the directory',
          url: `${connected()}/directory`,
          body: { ...criteria, from, count },
          timeoutMs: TIMEOUT_MS,
        }),
      );
      if (!read.success) throw unreadable('the directory');
      return read.data;
    },
  };
}

function stateOf(answer: unknown, job: string, name: string): SourceState {
  const read = stateSchema.safeParse(answer);
  if (!read.success) throw unreadable(name);
  const { data } = read;
  if ('documents' in data) return { kind: 'done', documents: data.documents.map(documentOf), costMicro: data.costMicro };
  if ('why' in data) return { kind: 'failed', why: data.why };
  const askAgainMs = Math.min(ASK_AGAIN_MOST_MS, Math.max(ASK_AGAIN_LEAST_MS, data.askAgainMs));
  return { kind: 'working', job: 'job' in data ? data.job : job, askAgainMs };
}

function documentOf({ url, title, published, lines }: z.infer<typeof documentSchema>): SourceDocument {
  const blocks = lines
    .map((line) => line.replace(/\s+/g, ' ').trim())
    .filter((line) => line !== '')
    .map((line): Block => ({ kind: /^[^:.]{2,40}: \S/.test(line) ? 'row' : 'text', text: line, under: title, date: null }));
  return { url, title, language: '', published: published === null ? null : Date.parse(published), blocks };
}
