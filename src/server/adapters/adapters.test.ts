/** The real adapters against the stand-ins over real sockets, with every fault a stand-in can have. */
import fs from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import os from 'node:os';
import path from 'node:path';
import nodemailer from 'nodemailer';
import { startMail } from '../../standins/mail';
import { outsideOf } from '../../standins/outside';
import { personaOf } from '../../standins/personas';
import { startProviders } from '../../standins/providers';
import { startWeb } from '../../standins/web';
import type { FetchedPage, IncomingMail, OutgoingMail, WorldFailure } from '../ports';
import { openBox, pageOf, readMail } from '../box';
import { listenForMail } from './inbound';
import { smtpMail } from './mail';

const noProof = () => Promise.reject(new Error('no name server is asked here'));
import { argonPasswords } from './passwords';
import { demoWorld, httpProviders } from './providers';
import { webReader } from './web';

const log = { info: () => undefined, warn: () => undefined, error: () => undefined };
const failure = async (work: Promise<unknown>): Promise<WorldFailure> =>
  work.then(
    () => Promise.reject(new Error('it should have failed')),
    (error: unknown) => error as WorldFailure,
  );

const said = (page: FetchedPage): string => page.blocks.map((block) => block.text).join('\n');

describe('the web reader', () => {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'web-'));
  const site = (host: string, files: Record<string, string>): void => {
    for (const [name, text] of Object.entries(files)) {
      fs.mkdirSync(path.dirname(path.join(folder, host, name)), { recursive: true });
      fs.writeFileSync(path.join(folder, host, name), text);
    }
  };
  let standIn: Awaited<ReturnType<typeof startWeb>>;
  let web: ReturnType<typeof webReader>;
  beforeAll(async () => {
    site('good.example', {
      'index.html':
        '<html><head><title>x</title><style>p{}</style></head><body><nav><a href="/about.html">About</a></nav><p>We grow <b>on</b> 4.2 ha.</p><script>alert(1)</script><p style="display:none">hidden 99 ha</p><p>Ümlaut</p></body></html>',
      'about.html': '<p>About</p>',
      'page.pdf': '%PDF',
    });
    site('closed.example', { 'robots.txt': 'User-agent: *\nDisallow: /', 'index.html': 'x' });
    site('partly.example', { 'robots.txt': 'User-agent: *\nDisallow: /secret', 'index.html': 'open', 'secret.html': 'x' });
    site('busy.example', { '_faults.json': '{"status":503,"retryAfter":120}' });
    site('broken.example', { '_faults.json': '{"status":500}' });
    site('forbidden.example', { '_faults.json': '{"status":403}' });
    site('endless.example', { '_faults.json': '{"endless":true}' });
    site('huge.example', { '_faults.json': '{"bytes":60000000}' });
    site('cut.example', { '_faults.json': '{"cut":true}' });
    site('filed.example', { '_faults.json': '{"redirectTo":"file:///etc/passwd"}' });
    site('inward.example', { '_faults.json': '{"redirectTo":"http://0x7f.1/"}' });
    site('moved.example', { '_faults.json': '{"redirectTo":"http://good.example"}' });
    site('latin.example', { 'index.html': '<meta charset="iso-8859-1"><p>placeholder</p>' });
    fs.writeFileSync(
      path.join(folder, 'latin.example', 'index.html'),
      Buffer.from('<html><head><meta charset="iso-8859-1"></head><body><p>Gärtnerei</p></body></html>', 'latin1'),
    );
    standIn = await startWeb([folder]);
    web = webReader(`127.0.0.1:${standIn.port}`, openBox);
  });
  afterAll(async () => {
    await standIn.close();
    fs.rmSync(folder, { recursive: true });
  });

  test('gives the visible text in blocks, and the links; scripts and hidden parts are no text', async () => {
    const page = await web.page('http://good.example/');
    expect(said(page)).toBe('We grow on 4.2 ha.\nÜmlaut');
    expect(page.links).toEqual([{ url: 'http://good.example/about.html', text: 'About' }]);
  });

  test('keeps to robots.txt', async () => {
    expect(await failure(web.page('http://closed.example/'))).toMatchObject({
      code: 'refused',
      retryable: false,
      message: expect.stringContaining('robots.txt'),
    });
    expect(said(await web.page('http://partly.example/'))).toBe('open');
    expect(await failure(web.page('http://partly.example/secret.html'))).toMatchObject({ code: 'refused' });
  });

  test('keeps to rules that lie behind a redirect, on the same host or another', async () => {
    const server = http.createServer((request, response) => {
      const host = request.headers.host ?? '';
      if (request.url === '/robots.txt' && host.startsWith('same')) response.writeHead(301, { location: '/rules.txt' }).end();
      else if (request.url === '/robots.txt' && host.startsWith('other'))
        response.writeHead(302, { location: 'http://rules.example/robots.txt' }).end();
      else if (request.url === '/rules.txt' || request.url === '/robots.txt')
        response.writeHead(200, { 'content-type': 'text/plain' }).end('User-agent: *\nDisallow: /secret');
      else response.writeHead(200, { 'content-type': 'text/html' }).end('<p>open</p>');
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const reader = webReader(`127.0.0.1:${(server.address() as AddressInfo).port}`, openBox);
    for (const host of ['same', 'other']) {
      expect(said(await reader.page(`http://${host}.example/`))).toBe('open');
      expect(await failure(reader.page(`http://${host}.example/secret`))).toMatchObject({
        code: 'refused',
        message: expect.stringContaining('robots.txt'),
      });
    }
    await new Promise((resolve) => server.close(resolve));
  });

  test.each([
    ['busy.example', 'busy', true, 120_000],
    ['broken.example', 'busy', true, null],
    ['forbidden.example', 'refused', false, null],
    ['endless.example', 'refused', false, null],
    ['huge.example', 'too large', false, null],
    ['nowhere.example', 'not found', false, null],
    ['cut.example', 'unreachable', true, null],
  ])(
    '%s: %s',
    async (host, code, retryable, retryAfterMs) => {
      expect(await failure(web.page(`http://${host}/`))).toMatchObject({ code, retryable, retryAfterMs });
    },
    20_000,
  );

  test('follows a redirect and says where it ended', async () => {
    expect((await web.page('http://moved.example/')).url).toBe('http://good.example/');
  });

  test('reads other charsets; takes no PDF for a page', async () => {
    expect(said(await web.page('http://latin.example/'))).toBe('Gärtnerei');
    expect(await failure(web.page('http://good.example/page.pdf'))).toMatchObject({
      code: 'refused',
      message: expect.stringContaining('no text page'),
    });
  });

  test.each(['http://127.0.0.1/', 'http://[::1]/', 'http://good.example:8080/', 'ftp://good.example/', 'http://10.0.0.1/'])(
    '%s is no public site',
    async (url) => {
      expect(await failure(web.page(url))).toMatchObject({ code: 'refused', retryable: false });
    },
  );

  test.each(['filed', 'inward'])('%s: a redirect to what is no public address is an error of that site', async (name) => {
    const failed = await failure(web.page(`http://${name}.example/`));
    expect([failed.name, failed.retryable]).toEqual(['WorldFailure', false]);
  });

  test('without stand-ins no .example host exists', async () => {
    expect(await failure(webReader(null, openBox).page('http://good.example/'))).toMatchObject({ code: 'not found' });
  });

  test('any HTML gives a page', () => {
    for (const html of ['', '<', '<p><div></p>', '<a href="http://[broken">x</a><a href="mailto:a@b.example">y</a>', '\u0000<b>x'])
      expect(pageOf({ url: 'http://x.example/', status: 200, type: 'text/html', bytes: Buffer.from(html) }).links).toEqual([]);
  });
});

const mail: OutgoingMail = {
  from: { name: 'Thornwick', address: 'sales@thornwick.example' },
  to: { name: 'Mara Quill', address: 'quiet@oakmere-glass.example' },
  subject: 'Climate control – Ümlaut',
  text: 'Hello Mara,\n\n4.2 ha.',
  messageId: '<m1@millrace.example>',
  inReplyTo: null,
  references: [],
  unsubscribeUrl: 'http://127.0.0.1:1/u/x/y',
  date: Date.parse('2026-11-24T10:00:00Z'),
};

describe('mail out', () => {
  let standIn: Awaited<ReturnType<typeof startMail>>;
  let smtp: ReturnType<typeof smtpMail>;
  const control = (door: string): string => `http://127.0.0.1:${standIn.port}${door}`;
  const fault = (mode: string): Promise<unknown> => fetch(control('/fault'), { method: 'POST', body: JSON.stringify({ mode, share: 1 }) });
  const box = async (): Promise<Record<string, unknown>[]> => (await (await fetch(control('/box'))).json()) as Record<string, unknown>[];
  const deliver = async (id: string, withinMs = 20_000) =>
    smtp.deliver(
      await smtp.compose({ ...mail, messageId: `<${id}@millrace.example>` }),
      { from: 'sales@thornwick.example', to: 'quiet@oakmere-glass.example' },
      smtp.deadline(withinMs),
      null,
    );
  beforeAll(async () => {
    standIn = await startMail({
      answers: outsideOf('demo').answers,
      inboundPort: 1,
      personas: new Map([['quiet@oakmere-glass.example', 'silent']]),
    });
    smtp = smtpMail({ host: '127.0.0.1', port: standIn.smtpPort, statusUrl: control(''), prove: noProof });
  });
  afterAll(() => standIn.close());
  afterEach(() => fault('none'));

  test('arrives with its thread and its one-click unsubscribe headers (RFC 8058)', async () => {
    const raw = Buffer.from(
      await smtp.compose({ ...mail, inReplyTo: '<m0@millrace.example>', references: ['<m0@millrace.example>'] }),
    ).toString();
    expect(raw).toMatch(/List-Unsubscribe: <http:\/\/127\.0\.0\.1:1\/u\/x\/y>,\s+<mailto:sales@thornwick\.example\?subject=unsubscribe>/);
    expect(raw).toContain('List-Unsubscribe-Post: List-Unsubscribe=One-Click');
    expect(raw).toContain('In-Reply-To: <m0@millrace.example>');
    expect(await deliver('m1')).toMatchObject({ kind: 'accepted' });
    expect((await box()).at(-1)).toMatchObject({ messageId: '<m1@millrace.example>', subject: 'Climate control – Ümlaut' });
    expect([await smtp.find('<m1@millrace.example>'), await smtp.find('<never@millrace.example>')]).toEqual(['taken', 'absent']);
  });

  test('the same mail is always the same bytes', async () => {
    const strip = (raw: Uint8Array): string =>
      Buffer.from(raw)
        .toString()
        .replace(/boundary="[^"]+"|--[-_\w]+/g, '');
    expect(strip(await smtp.compose(mail))).toBe(strip(await smtp.compose(mail)));
  });

  test.each([
    ['defer', 'deferred', 'absent'],
    ['refuse', 'rejected', 'absent'],
    ['drop after data', 'in doubt', 'taken'],
    ['drop and forget', 'in doubt', 'absent'],
  ])('%s: %s', async (mode, kind, known) => {
    await fault(mode);
    const id = `f-${mode.replaceAll(' ', '-')}`;
    expect((await deliver(id)).kind).toBe(kind);
    expect(await smtp.find(`<${id}@millrace.example>`)).toBe(known);
  });

  test('a worker that was stalled before the hand-over does not begin it', async () => {
    expect(await deliver('late', -1)).toEqual({ kind: 'deferred', says: 'too late to hand the message over' });
    expect(await smtp.find('<late@millrace.example>')).toBe('absent');
  });

  test('no server there: away, which is no word about the mail; nobody to ask: cannot tell', async () => {
    const nobody = smtpMail({ host: '127.0.0.1', port: 1, statusUrl: null, prove: noProof });
    expect(
      (await nobody.deliver(await nobody.compose(mail), { from: 'a@x.example', to: 'b@x.example' }, nobody.deadline(5000), null)).kind,
    ).toBe('away');
    expect(await nobody.find('<x>')).toBe('cannot tell');
  });
});

describe('mail in', () => {
  test('answers of the stand-in recipients are read as what they are', async () => {
    const taken: IncomingMail[] = [];
    const inbound = await listenForMail({
      port: 0,
      log,
      take: async (incoming) => {
        taken.push(await readMail(Buffer.from(incoming)));
      },
    });
    const personas = new Map([
      ['yes@a.example', 'yes'],
      ['away@b.example', 'away'],
      ['gone@c.example', 'bounce'],
    ] as const);
    const standIn = await startMail({ answers: outsideOf('demo').answers, inboundPort: inbound.port, personas });
    const smtp = smtpMail({ host: '127.0.0.1', port: standIn.smtpPort, statusUrl: null, prove: noProof });
    for (const [i, to] of [...personas.keys()].entries())
      await smtp.deliver(
        await smtp.compose({ ...mail, messageId: `<in${i}@millrace.example>` }),
        { from: 'sales@thornwick.example', to },
        smtp.deadline(5000),
        null,
      );
    const world = demoWorld(`http://127.0.0.1:${standIn.port}`);
    expect(await world.tick(mail.date)).toBe(mail.date + 20_000);
    expect(await world.tick(mail.date + 3 * 86_400_000)).toBeNull();
    const by = (from: string): IncomingMail | undefined => taken.find((incoming) => incoming.from === from);
    expect(by('yes@a.example')).toMatchObject({
      inReplyTo: '<in0@millrace.example>',
      references: ['<in0@millrace.example>'],
      autoSubmitted: false,
      subject: 'Re: Climate control – Ümlaut',
    });
    expect(by('away@b.example')).toMatchObject({ autoSubmitted: true });
    expect(by('postmaster@relay.example')?.deliveryStatus?.status).toContain('550 5.1.1');
    expect(by('postmaster@relay.example')?.deliveryStatus?.original).toContain('<in2@millrace.example>');
    await standIn.close();
    await inbound.close();
  });

  test('a mail that cannot be kept is not accepted, so that the sender tries again', async () => {
    const inbound = await listenForMail({ port: 0, log, take: () => Promise.reject(new Error('database is away')) });
    const transport = nodemailer.createTransport({ host: '127.0.0.1', port: inbound.port, secure: false, ignoreTLS: true });
    await expect(transport.sendMail({ from: 'a@x.example', to: 'sales@thornwick.example', subject: 'x', text: 'y' })).rejects.toMatchObject(
      { responseCode: 451 },
    );
    await inbound.close();
  });

  test.each([
    '',
    'no headers at all',
    'From: a@x.example\r\nContent-Type: multipart/mixed; boundary=x\r\n\r\n--x\r\nbroken',
    '\u0000\u0001',
  ])('any bytes can be read: %j', async (raw) => {
    expect(typeof (await readMail(Buffer.from(raw))).messageId).toBe('string');
  });

  test('a recipient always behaves the same', () => {
    const said = outsideOf('demo').answers;
    expect(personaOf('Mara@x.example', new Map(), said)).toEqual(personaOf('mara@x.example', new Map(), said));
  });
});

describe('lookup providers', () => {
  let standIn: Awaited<ReturnType<typeof startProviders>>;
  const question = {
    provider: 'Fernpost',
    field: 'email',
    personName: 'Mara Quill',
    companyName: 'Oakmere Glass',
    host: 'oakmere-glass.example',
    key: 'k1',
  };
  const fault = (kind: string): Promise<unknown> =>
    fetch(`http://127.0.0.1:${standIn.port}/fault`, { method: 'POST', body: JSON.stringify({ provider: 'Fernpost', fault: kind }) });
  beforeAll(async () => {
    standIn = await startProviders();
  });
  afterAll(() => standIn.close());

  test('answer the same question the same way', async () => {
    const providers = httpProviders(`http://127.0.0.1:${standIn.port}`, null);
    const [one, two] = [await providers.ask(question), await providers.ask(question)];
    expect({ ...one, tookMs: 0 }).toEqual({ ...two, tookMs: 0 });
  });

  test.each([
    ['429', 'busy', true, 1000],
    ['500', 'broken', true, null],
    ['half json', 'broken', true, null],
    ['silence', 'unreachable', true, null],
  ])('%s', async (kind, code, retryable, retryAfterMs) => {
    await fault(kind);
    expect(await failure(httpProviders(`http://127.0.0.1:${standIn.port}`, null).ask(question))).toMatchObject({
      code,
      retryable,
      retryAfterMs,
    });
    await fault('none');
  });

  test('none connected, or one nobody knows, is refused', async () => {
    expect(await failure(httpProviders(null, null).ask(question))).toMatchObject({ code: 'refused', retryable: false });
    expect(await failure(httpProviders(`http://127.0.0.1:${standIn.port}`, null).ask({ ...question, provider: 'Nobody' }))).toMatchObject({
      code: 'refused',
    });
  });
});

describe('passwords', () => {
  test('are hashed with argon2id, each hash its own', async () => {
    const [one, two] = [await argonPasswords.hash('glasshouse'), await argonPasswords.hash('glasshouse')];
    expect(one).toMatch(/^\$argon2id\$/);
    expect(one).not.toBe(two);
    expect([await argonPasswords.verify(one, 'glasshouse'), await argonPasswords.verify(one, 'Glasshouse')]).toEqual([true, false]);
  });
});
