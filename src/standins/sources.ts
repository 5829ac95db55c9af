import fs from 'node:fs/promises';
import http from 'node:http';
import path from 'node:path';
import { z } from 'zod';
import { fold, words } from '../core/base';
import { listen, readJson, sendJson, type StandIn } from './server';

const entrySchema = z.object({
  id: z.string().optional(),
  host: z.string(),
  name: z.string(),
  url: z.string().optional(),
  published: z.string().optional(),
  title: z.string().optional(),
  company: z.string().optional(),
  place: z.string().optional(),
  country: z.string().optional(),
  /** what the directory knows besides, by the name of the field */
  values: z.record(z.string(), z.union([z.string(), z.number(), z.boolean()])).default({}),
  employees: z.number().nullable().optional(),
  lines: z.array(z.string()),
});
type Entry = z.infer<typeof entrySchema>;

const questionSchema = z.object({
  companyName: z.string().nullable(),
  host: z.string().nullable(),
  personName: z.string().nullable(),
});
const searchSchema = z.object({
  what: z.enum(['people', 'companies']),
  title: z.string().default(''),
  words: z.string().default(''),
  place: z.string().default(''),
  country: z.string().default(''),
  fields: z.array(z.object({ key: z.string(), least: z.number().nullable(), says: z.string() })).default([]),
  minEmployees: z.number().nullable().default(null),
  order: z.string().default('name'),
  from: z.number().int().min(0).default(0),
  count: z.number().int().min(0).max(100).default(20),
});
const faultSchema = z.object({
  source: z.string(),
  fault: z.enum(['none', '429', '500', 'half json', 'silence', 'fails', 'slow', 'never']),
});

/** How each source answers: at once, or as a job that is asked after; what a search costs, in millionths of a euro. */
const SOURCES: Readonly<Record<string, { readonly asJob: boolean; readonly costMicro: number; readonly file: string }>> = {
  news: { asJob: true, costMicro: 10_000, file: 'news' },
  register: { asJob: false, costMicro: 0, file: 'register' },
  people: { asJob: true, costMicro: 20_000, file: 'people' },
  jobs: { asJob: true, costMicro: 0, file: 'jobs' },
};
const ASK_AGAIN_MS = 250;
const SLOW_ASKS = 8;

/**
 * Stand-in sources on companies and people: `POST /NAME/search` answers with documents or a job, `GET /jobs/ID` after the job,
 * `POST /directory` finds people and companies by criteria, `POST /fault` makes a source misbehave, `POST /entry` adds to one.
 */
export async function startSources(folder: string, port = 0): Promise<StandIn> {
  const data = new Map<string, Entry[]>();
  for (const { file } of Object.values(SOURCES))
    data.set(file, z.array(entrySchema).parse(JSON.parse(await fs.readFile(path.join(folder, `${file}.json`), 'utf8'))));
  const sources = new StandInSources(data);
  const server = http.createServer((request, response) => {
    sources.answer(request, response).catch(() => {
      sendJson(response, { error: 'bad request' }, 400);
    });
  });
  return listen(server, port);
}

interface Job {
  readonly source: string;
  readonly entries: readonly Entry[];
  readonly costMicro: number;
  asked: number;
}

class StandInSources {
  private readonly faults = new Map<string, string>();
  private readonly jobs = new Map<string, Job>();
  private readonly charged = new Map<string, string>();
  private made = 0;

  constructor(private readonly data: ReadonlyMap<string, Entry[]>) {}

  async answer(request: http.IncomingMessage, response: http.ServerResponse): Promise<void> {
    const url = request.url ?? '';
    if (url === '/fault') {
      const { source, fault } = faultSchema.parse(await readJson(request));
      this.faults.set(source, fault);
      sendJson(response, { ok: true });
    } else if (url === '/entry') {
      const { source, entry } = z.object({ source: z.string(), entry: entrySchema }).parse(await readJson(request));
      this.data.get(source)?.push(entry);
      sendJson(response, { ok: true });
    } else if (url === '/directory') {
      sendJson(response, found(searchSchema.parse(await readJson(request)), this.data));
    } else if (url.startsWith('/jobs/') && request.method === 'GET') this.collect(url.slice('/jobs/'.length), response);
    else await this.search(/^\/([a-z]+)\/search$/.exec(url)?.[1] ?? '', request, response);
  }

  private async search(source: string, request: http.IncomingMessage, response: http.ServerResponse): Promise<void> {
    const kind = SOURCES[source];
    if (!kind) {
      sendJson(response, { error: 'no such source' }, 404);
      return;
    }
    const asked = questionSchema.parse(await readJson(request));
    const fault = this.faults.get(source) ?? 'none';
    if (fault === '429') sendJson(response, { error: 'slow down' }, 429, { 'retry-after': '1' });
    else if (fault === '500') sendJson(response, { error: 'broken' }, 500);
    else if (fault === 'half json') response.writeHead(200, { 'content-type': 'application/json' }).end('{"documents": [{"url');
    else if (fault !== 'silence') {
      // The same key is the same search: asked twice, it is one job and is paid once.
      const key = `${source} ${String(request.headers['idempotency-key'] ?? this.made)}`;
      const known = this.charged.get(key);
      const entries = (this.data.get(kind.file) ?? []).filter((entry) => concerns(entry, asked));
      if (!kind.asJob) {
        sendJson(response, { documents: entries.map((entry) => documentOf(source, entry)), costMicro: kind.costMicro });
        return;
      }
      const job = known ?? `j${++this.made}`;
      this.charged.set(key, job);
      if (!known) this.jobs.set(job, { source, entries, asked: 0, costMicro: kind.costMicro });
      sendJson(response, { job, askAgainMs: ASK_AGAIN_MS }, 202);
    }
  }

  private collect(id: string, response: http.ServerResponse): void {
    const job = this.jobs.get(id);
    if (!job) {
      sendJson(response, { error: 'no such job' }, 404);
      return;
    }
    const fault = this.faults.get(job.source) ?? 'none';
    job.asked += 1;
    if (fault === 'fails') sendJson(response, { state: 'failed', why: 'the search broke off' });
    else if (fault === 'never' || job.asked < (fault === 'slow' ? SLOW_ASKS : 2))
      sendJson(response, { state: 'working', askAgainMs: ASK_AGAIN_MS });
    else
      sendJson(response, { state: 'done', documents: job.entries.map((entry) => documentOf(job.source, entry)), costMicro: job.costMicro });
  }
}

/** By site where both have one, else by name; people by their own name too. */
function concerns(entry: Entry, asked: z.infer<typeof questionSchema>): boolean {
  if (asked.personName !== null && fold(entry.name) !== fold(asked.personName)) return false;
  const host = asked.host?.replace(/^www\./, '') ?? null;
  if (host !== null && host !== '') return entry.host === host;
  if (asked.companyName === null) return asked.personName !== null;
  return fold(entry.company ?? entry.name) === fold(asked.companyName);
}

function documentOf(source: string, entry: Entry): Record<string, unknown> {
  const url = entry.url ?? `http://register.trade.example/${entry.id ?? entry.host}`;
  return {
    url,
    title: source === 'people' ? entry.name : (entry.title ?? entry.name),
    published: entry.published ?? null,
    lines: entry.lines,
  };
}

/** A figure of an entry; what has none counts as nothing. */
function figure(entry: Entry, key: string): number {
  const value = entry.values[key];
  return typeof value === 'number' ? value : 0;
}

function found(ask: z.infer<typeof searchSchema>, data: ReadonlyMap<string, readonly Entry[]>): Record<string, unknown> {
  const entries = ask.what === 'people' ? (data.get('people') ?? []) : companiesOf(data.get('people') ?? [], data.get('register') ?? []);
  const wanted = words(ask.words);
  const hits = entries.filter((entry) => {
    const all = fold([entry.name, entry.title, entry.company, entry.place, ...entry.lines].filter(Boolean).join(' '));
    return (
      (ask.title === '' || fold(entry.title ?? '').includes(fold(ask.title))) &&
      wanted.every((word) => all.includes(word)) &&
      (ask.place === '' || fold(entry.place ?? '').includes(fold(ask.place))) &&
      (ask.country === '' || entry.country === ask.country.toUpperCase()) &&
      ask.fields.every(
        ({ key, least, says }) =>
          (says === '' || fold(String(entry.values[key] ?? '')).includes(fold(says))) && (least === null || figure(entry, key) >= least),
      ) &&
      (ask.minEmployees === null || (entry.employees ?? 0) >= ask.minEmployees)
    );
  });
  hits.sort((a, b) =>
    ask.order === 'newest'
      ? (b.published ?? '').localeCompare(a.published ?? '') || a.name.localeCompare(b.name)
      : figure(b, ask.order) - figure(a, ask.order) || a.name.localeCompare(b.name),
  );
  return { count: hits.length, hits: hits.slice(ask.from, ask.from + ask.count).map(hitOf) };
}

function companiesOf(people: readonly Entry[], register: readonly Entry[]): readonly Entry[] {
  const known = new Map(people.map((person) => [person.host, person]));
  return register.map((entry) => ({
    ...entry,
    values: known.get(entry.host)?.values ?? {},
    employees: known.get(entry.host)?.employees,
  }));
}

function hitOf(entry: Entry): Record<string, unknown> {
  const { id, name, title, company, host, place, country, values, employees, url } = entry;
  return {
    id: id ?? host,
    name,
    title: title ?? null,
    company: company ?? null,
    host,
    place: place ?? null,
    country: country ?? null,
    values,
    employees: employees ?? null,
    url: url ?? null,
  };
}
