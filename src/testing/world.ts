/**
 * A world for tests: a database of its own on a real PostgreSQL, a clock that only the test moves, and an outside kept in
 * memory that does what the test says. Never shipped.
 */
import { exampleFiles } from '../server/adapters/examples';
import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import { parse } from 'csv-parse/sync';
import postgres from 'postgres';
import { stableId, type JsonObject } from '../core/base';
import { textBlocks } from '../core/formats';
import type { ProviderCall } from '../core/lookup';
import type { DirectoryHit } from '../core/intake';
import type { DomainFacts } from '../core/sending';
import { openBox } from '../server/box';
import { connect, type Tx } from '../server/db';
import { nextSendDue } from '../server/messages/store/effects';
import { countLines, lineCounts, type LineCount } from '../server/trips/store/line-counts';
import {
  WorldFailure,
  type BoxWork,
  type DirectoryCriteria,
  type FetchedPage,
  type FoundMail,
  type IncomingMail,
  type OutgoingMail,
  type ProviderAnswer,
  type ProviderQuestion,
  type SendOutcome,
  type SourceName,
  type SourceQuestion,
  type SourceState,
  type WebhookCall,
  type MailRoute,
} from '../server/ports';
import { seedWorkspace, type CrmRow } from '../server/workspace/seed';
import { readSeed } from '../server/wire/seed-file';
import type { Actor, World } from '../server/platform/world';
import { Worker, WORKER_DEFAULTS } from '../server/worker';

export interface SentMail extends OutgoingMail {
  readonly raw: string;
}

/** The outside as tests see and steer it. */
export class Outside {
  readonly mails: SentMail[] = [];
  /** calls of described services, and what those answer */
  readonly called: ProviderCall[] = [];
  service: (call: ProviderCall) => unknown = () => ({});
  readonly searched: SourceQuestion[] = [];
  /** what lies in every mailbox, and how the server fails */
  readonly mailbox: FoundMail[] = [];
  mailboxFails: WorldFailure | null = null;
  /** iCalendar texts of every calendar */
  calendars: readonly string[] | WorldFailure = [];
  source: (question: SourceQuestion) => SourceState | WorldFailure = () => ({ kind: 'done', documents: [], costMicro: 0 });
  collected: (source: SourceName, job: string) => SourceState | WorldFailure = () => ({ kind: 'done', documents: [], costMicro: 0 });
  directory: (criteria: DirectoryCriteria) => readonly DirectoryHit[] = () => [];
  readonly pages = new Map<string, FetchedPage | WorldFailure>();
  readonly asked: ProviderQuestion[] = [];
  provider: (question: ProviderQuestion) => ProviderAnswer | WorldFailure | Promise<ProviderAnswer> = () => ({
    value: null,
    confidence: 0,
    tookMs: 1,
  });
  /** what the relay says to the next mails; then it accepts */
  readonly outcomes: ((SendOutcome & { readonly taken?: boolean }) | { readonly kind: 'crash'; readonly taken: boolean })[] = [];
  readonly calls: WebhookCall[] = [];
  /** what a webhook answers with, or how it fails */
  hook: (call: WebhookCall) => JsonObject | null | WorldFailure = () => null;
  /** what the domains of mailboxes say */
  domain: Omit<DomainFacts, 'domain' | 'host'> = {
    ip: '192.0.2.7',
    spf: { result: 'pass', record: 'v=spf1 mx -all' },
    dkim: 'none',
    dmarc: { record: null, policy: null, passes: false },
  };
  relayKnows = true;
  relayReached = true;
  readonly checked: { readonly address: string; readonly route: MailRoute | null }[] = [];
  /** by which way each mail left; null: by the relay */
  readonly routes: (MailRoute | null)[] = [];
  /** workers are stalled past their deadlines */
  late = false;
  fetched = 0;

  page(url: string, text: string, links: readonly string[] = []): void {
    this.pages.set(url, {
      url,
      status: 200,
      title: '',
      language: '',
      published: null,
      blocks: textBlocks(text),
      links: links.map((link) => ({ url: link, text: '' })),
    });
  }
}

export class Crash extends Error {}

export interface TestWorld extends World {
  readonly outside: Outside;
  readonly url: string;
  now: number;
  close(): Promise<void>;
}

const EMPTY_CRM = { companies: [] as CrmRow[], people: [] as CrmRow[], deals: [] as CrmRow[] };
export const START = Date.parse('2026-11-24T10:00:00Z');

/** No sign-in service is there, unless a test brings one. */
const nowhere = async (): Promise<never> => {
  throw new WorldFailure('unreachable', 'there is no sign-in service in this test', true);
};

/** Documents in tests are plain text, whatever they are called. */
const plainDocument = async ({ bytes }: BoxWork['document']['in']): Promise<BoxWork['document']['out']> => ({
  hidden: [],
  blocks: textBlocks(
    Buffer.from(bytes)
      .toString()
      .replace(/^%PDF\S* /, ''),
  ),
  says: '',
});

/** A fresh database: a copy of `template`, which is migrated and empty where nothing else is said. */
export async function testWorld(template = 'template_millrace'): Promise<TestWorld> {
  const admin = postgres(process.env.TEST_DATABASE_ADMIN ?? '', { max: 1, onnotice: () => undefined });
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  await admin.unsafe(`create database ${name} template ${template}`);
  await admin.end();
  const url = new URL(process.env.TEST_DATABASE_ADMIN ?? '');
  url.pathname = `/${name}`;
  const db = connect(url.href, { max: 6, name: 'test' });
  const outside = new Outside();
  const world: TestWorld = {
    db,
    outside,
    url: url.href,
    now: START,
    clock: { now: async () => world.now },
    mail: {
      compose: async (mail) => Buffer.from(JSON.stringify(mail)),
      deadline: () => ({ passed: () => outside.late }),
      deliver: async (raw, _envelope, before, route) => {
        if (before.passed()) return { kind: 'deferred', says: 'too late to hand the message over' };
        const text = Buffer.from(raw).toString();
        const take = (): void => {
          outside.mails.push({ ...(JSON.parse(text) as OutgoingMail), raw: text });
          outside.routes.push(route);
        };
        const outcome = outside.outcomes.shift() ?? { kind: 'accepted', says: '250 taken' };
        if (outcome.kind === 'crash') {
          if (outcome.taken) take();
          throw new Crash('the worker died here');
        }
        if (outcome.kind === 'accepted' || outcome.taken) take();
        return outcome;
      },
      prove: async (_raw, address, host) => ({ ...outside.domain, domain: address.split('@')[1] ?? '', host }),
      check: async (_raw, address, route) => {
        outside.checked.push({ address, route });
        const steps = [{ what: 'reach it', ok: outside.relayReached, says: outside.relayReached ? 'answers' : 'there is no such host' }];
        return { ok: outside.relayReached, steps };
      },
      find: async (id) => (outside.relayKnows ? (outside.mails.some((mail) => mail.messageId === id) ? 'taken' : 'absent') : 'cannot tell'),
    },
    web: {
      page: async (address) => {
        outside.fetched += 1;
        const page = outside.pages.get(address) ?? new WorldFailure('not found', `${address} is not there (404)`, false);
        if (page instanceof WorldFailure) throw page;
        return page;
      },
    },
    providers: {
      ask: async (question) => {
        outside.asked.push(question);
        const answer = await outside.provider(question);
        if (answer instanceof WorldFailure) throw answer;
        return answer;
      },
      call: async (_name, call) => {
        outside.called.push(call);
        const answer = await outside.service(call);
        if (answer instanceof WorldFailure) throw answer;
        return answer;
      },
    },
    sources: {
      start: async (question) => {
        outside.searched.push(question);
        const state = outside.source(question);
        if (state instanceof WorldFailure) throw state;
        return state;
      },
      collect: async (source, job) => {
        const state = outside.collected(source, job);
        if (state instanceof WorldFailure) throw state;
        return state;
      },
      directory: async (criteria, from, count) => {
        const hits = outside.directory(criteria);
        return { count: hits.length, hits: hits.slice(from, from + count) };
      },
    },
    mailboxes: {
      look: async (_account, { cursor, limit }) => {
        if (outside.mailboxFails) throw outside.mailboxFails;
        const from = cursor?.uidNext ?? (limit === 0 ? outside.mailbox.length : 0);
        const mails = outside.mailbox.slice(from, from + limit);
        const uidNext = from + mails.length;
        return { mails, cursor: { uidValidity: '1', uidNext }, more: outside.mailbox.length > uidNext };
      },
    },
    calendars: {
      read: async () => {
        if (outside.calendars instanceof WorldFailure) throw outside.calendars;
        return outside.calendars;
      },
    },
    webhooks: {
      post: async (call) => {
        const answer = outside.hook(call);
        if (answer instanceof WorldFailure) throw answer;
        outside.calls.push(call);
        return { status: 200, body: answer };
      },
    },
    demo: { tick: async () => null },
    box: {
      ...openBox,
      run: (kind, input) => (kind === 'document' ? plainDocument(input as never) : openBox.run(kind, input)),
    },
    dictionary: { glosses: () => ({}), knows: () => false },
    papers: { dossier: async (dossier) => Buffer.from(dossier.title), letter: async (letter) => Buffer.from(letter.to.join('\n')) },
    examples: exampleFiles('demo'),
    passwords: { hash: async (password) => `hash of ${password}`, verify: async (hash, password) => hash === `hash of ${password}` },
    signIns: { look: nowhere, begin: nowhere, end: nowhere, renew: nowhere },
    log: { info: () => undefined, warn: () => undefined, error: () => undefined },
    newId: randomUUID,
    publicUrl: 'http://millrace.example',
    secret: 'only for tests',
    paceFactor: 1_000,
    isDemo: false,
    close: async () => {
      // Whatever a test has done: what is kept as journals are written must be what counting them gives.
      // Where somebody was erased, counts stay and journals do not.
      const [erased] = await db<{ any: boolean }[]>`select exists (select 1 from erased) as any`;
      const wrong = erased?.any === true ? [] : await wrongLineCounts(db);
      await db.end({ timeout: 1 });
      if (wrong.length > 0) throw new Error(`line counts differ from the journals: ${JSON.stringify(wrong)}`);
    },
  };
  return world;
}

/** Where the line counts of a flow are not what its journals say. */
async function wrongLineCounts(db: Tx): Promise<readonly unknown[]> {
  const wrong: unknown[] = [];
  const sorted = (list: readonly LineCount[]): string[] =>
    list.map((row) => JSON.stringify([row.mark, row.outcome, row.arm, row.trips, row.costMicro])).sort();
  for (const { id } of await db<{ id: string }[]>`select id from flow`) {
    const [kept, counted] = [sorted(await lineCounts(db, id)), sorted(await countLines(db, { flowId: id }))];
    if (kept.join() !== counted.join()) wrong.push({ kept, counted });
  }
  return wrong;
}

interface Demo {
  /** of the API */
  readonly token: string;
  readonly ines: Actor;
}
const INES: Actor = { userId: stableId('user', 'ines@thornwick.example'), name: 'Ines Okafor-Brandt' };

/** The demo's workspace (people, texts, plans, the flow released) without its CRM, or with it. */
export async function demoWorkspace(
  world: World,
  options: { readonly crm: boolean; readonly flow?: string } = { crm: false },
): Promise<Demo> {
  const seed = readSeed('demo/workspace.json');
  const rows = (file: string): CrmRow[] => parse<CrmRow>(fs.readFileSync(file), { columns: true });
  const crm =
    options.crm && seed.crm
      ? {
          companies: rows(seed.crm.companies),
          people: rows(seed.crm.people),
          deals: seed.crm.deals ? rows(seed.crm.deals) : [],
        }
      : EMPTY_CRM;
  const flows = options.flow === undefined ? seed.flows.map((file) => fs.readFileSync(file, 'utf8')) : [options.flow];
  const token = await seedWorkspace(world, seed, { flows, ...crm });
  return { token, ines: INES };
}

/** Databases with the demo's people, flows and things in them, and with its CRM besides; made once a run (make-template.ts). */
export const DEMO_TEMPLATES = { plain: 'template_demo', crm: 'template_demo_crm' } as const;

/** A world with the demo workspace in it, as `demoWorkspace` puts it there: a copy, which is quicker. */
export async function demoWorld(options: { readonly crm: boolean } = { crm: false }): Promise<Demo & { readonly world: TestWorld }> {
  const world = await testWorld(options.crm ? DEMO_TEMPLATES.crm : DEMO_TEMPLATES.plain);
  const tokens = JSON.parse(process.env.TEST_DEMO_TOKENS ?? '{}') as Readonly<Record<string, string>>;
  return { world, token: tokens[options.crm ? 'crm' : 'plain'] ?? '', ines: INES };
}

/** A worker that works off what is due now and then rests. */
export function testWorker(world: World, holder = 'test', leaseMs = 60_000): { drain(): Promise<number> } {
  return new Worker(world, { ...WORKER_DEFAULTS, holder, leaseMs });
}

/** Moves the clock to where the next slots are due, for sends that follow each other within a quarter of an hour; none is missed. */
export async function slotsDue(world: TestWorld): Promise<void> {
  world.now = ((await nextSendDue(world.db, world.now)) ?? Number.NaN) + 14 * 60_000;
}

/** An answer as it would come in by SMTP. */
export function replyTo(mail: SentMail, text: string, more: Partial<IncomingMail> = {}): IncomingMail {
  return {
    messageId: `<answer-${randomUUID()}@${mail.to.address.split('@')[1] ?? ''}>`,
    from: mail.to.address,
    fromName: mail.to.name,
    subject: `Re: ${mail.subject}`,
    text,
    inReplyTo: mail.messageId,
    references: [...mail.references, mail.messageId],
    sentAt: null,
    files: [],
    autoSubmitted: false,
    deliveryStatus: null,
    ...more,
  };
}

/** A grower whose site answers every question well enough to be written to. */
export function goodSite(outside: Outside, host: string, area = 4.2): void {
  outside.page(
    `http://${host}/`,
    `We grow tomatoes on ${area} hectares of heated glass.\nTomatoes are on the shelf in every month of the year.\nClimate is run by a Tessel 3 climate computer, installed in 2010.\nA new glasshouse of 1.5 ha is under construction, to open in 2027.`,
  );
}
