/** Doors without a sign-in, bodies, pace, addresses: what is refused, with which words, before anything is read. */
import net from 'node:net';
import { demoWorld, type TestWorld } from '../../testing/world';
import { users } from '../access/access';
import { createForm } from '../intake/forms';
import { answerApi, SESSION_COOKIE } from './answer';
import { BODY_LIMITS, BodyProblem, readBytes, readJson } from './body';
import { answerForm, answerHandOver, answerPosting } from './doors';
import { clientAddress, ENTRY_LIMITS, malformed, pageHeaders, proxyList } from './entry';
import { AtOnce, Pacer } from './pace';
import { endAllSessions, sessionCookie, signInAt, signOutAt } from './session';

let world: TestWorld;
beforeAll(async () => {
  ({ world } = await demoWorld());
});
afterAll(() => world.close());

/** A body that comes in pieces without saying how long it is; how much of it was taken. */
function chunked(megabytes: number): { readonly body: ReadableStream<Uint8Array>; taken: () => number } {
  let sent = 0;
  const piece = new Uint8Array(256 * 1024).fill(120);
  return {
    body: new ReadableStream({
      pull: (controller) => {
        if (sent >= megabytes * 1024 * 1024) controller.close();
        else {
          sent += piece.length;
          controller.enqueue(piece);
        }
      },
    }),
    taken: () => sent,
  };
}
const at = (path: string, init: RequestInit & { readonly duplex?: 'half' } = {}): Request =>
  new Request(`http://millrace.example${path}`, { method: 'POST', ...init });
const ours = { 'sec-fetch-site': 'same-origin' };

describe('bodies', () => {
  test('what declares more than may come is refused before any of it is read', async () => {
    const { body, taken } = chunked(50);
    const request = at('/x', { body, duplex: 'half', headers: { 'content-length': '52428800' } });
    await expect(readBytes(request, BODY_LIMITS.json)).rejects.toMatchObject({ status: 413, message: 'a body may have 1 MB here' });
    expect(taken()).toBeLessThanOrEqual(256 * 1024);
  });

  test('what says nothing of its length is read no further than it may', async () => {
    const { body, taken } = chunked(50);
    await expect(readBytes(at('/x', { body, duplex: 'half' }), BODY_LIMITS.json)).rejects.toBeInstanceOf(BodyProblem);
    expect(taken()).toBeLessThan(3 * 1024 * 1024);
  });

  test('JSON is clean text, whatever was written', async () => {
    const read = await readJson(at('/x', { body: '{"a\\u0000":"x\\ud800y\\u0000","b":["e\\u0301"],"__proto__":{"c":1}}' }), 1_000);
    expect(read).toEqual({ a: 'x\ufffdy', b: ['\u00e9'] });
    await expect(readJson(at('/x', { body: '['.repeat(5_000) + ']'.repeat(5_000) }), 20_000)).rejects.toThrow(
      'nested deeper than 100 levels',
    );
    await expect(readJson(at('/x', { body: '{' }), 1_000)).rejects.toThrow('the body is not JSON');
  });
});

describe('every open door reads no more than it may', () => {
  const doors: readonly (readonly [string, (request: Request) => Promise<Response>])[] = [
    ['signing in', (request) => signInAt(world, request)],
    ['a posting', (request) => answerPosting(world, request, 'leads')],
    ['an answer', (request) => answerHandOver(world, request, '00000000-0000-4000-8000-000000000000', 'x')],
    ['a form', (request) => answerForm(world, request, 'project-enquiry')],
  ];
  test.each(doors)('%s', async (_name, door) => {
    const long = chunked(40);
    const answer = await door(at('/', { body: long.body, duplex: 'half', headers: { ...ours, 'content-type': 'application/json' } }));
    expect(answer.status).toBe(413);
    expect(long.taken()).toBeLessThan(26 * 1024 * 1024);
    const declared = chunked(1);
    const refused = await door(at('/', { body: declared.body, duplex: 'half', headers: { ...ours, 'content-length': '999999999' } }));
    expect(refused.status).toBe(413);
    expect(declared.taken()).toBeLessThanOrEqual(256 * 1024);
  });

  test.each(doors)('%s takes what is no sense at all with an answer below 500', async (_name, door) => {
    for (const body of ['', '{', 'null', '[]', '"\\ud800"', '{"email":5}', 'a=b', '\u0000'])
      expect((await door(at('/', { body, headers: ours }))).status).toBeLessThan(500);
  });
});

test('an origin that is none is not ours, and no error', async () => {
  for (const origin of ['null', 'x', 'http://', 'http://millrace.example.evil'])
    expect(
      (await answerApi(world, at('/api/v1/people', { body: '{}', headers: { origin, cookie: `${SESSION_COOKIE}=x` } }), '/people')).status,
    ).toBe(403);
});

describe('pace', () => {
  test('callers are counted apart, told what is left, and let again when the window ends', () => {
    let now = 0;
    const pacer = new Pacer({ calls: 2, seconds: 10 }, () => now);
    expect(pacer.take('a')).toEqual({ allowed: true, remaining: 1, resetSeconds: 10 });
    expect(pacer.take('a')).toMatchObject({ allowed: true, remaining: 0 });
    now = 4_000;
    expect(pacer.take('a')).toEqual({ allowed: false, remaining: 0, resetSeconds: 6 });
    expect(pacer.take('b').allowed).toBe(true);
    now = 10_000;
    expect(pacer.take('a').allowed).toBe(true);
  });

  test('so many at once for each and in all; leaving twice gives one place back', () => {
    const gate = new AtOnce({ each: 1, all: 2 });
    const leave = gate.enter('a');
    expect(gate.enter('a')).toBeUndefined();
    expect(gate.enter('b')).toBeDefined();
    expect(gate.enter('c')).toBeUndefined();
    leave?.();
    leave?.();
    expect(gate.enter('c')).toBeDefined();
    expect(gate.enter('a')).toBeUndefined();
  });

  test('too many calls are a problem document with 429 and when to come again', async () => {
    const hurried = { ...world, paceFactor: 2 / 1_200 };
    const headers = { authorization: 'Bearer made-up', 'x-millrace-client': '192.0.2.7' };
    const ask = (): Promise<Response> =>
      answerApi({ ...hurried }, new Request('http://millrace.example/api/v1/flows', { headers }), '/flows');
    expect((await ask()).status).toBe(401);
    const one = { ...world, paceFactor: 1 / 600 };
    const again = (): Promise<Response> => answerApi(one, new Request('http://millrace.example/api/v1/flows', { headers }), '/flows');
    expect((await again()).status).toBe(401);
    const refused = await again();
    expect(refused.status).toBe(429);
    expect(refused.headers.get('retry-after')).toMatch(/^\d+$/);
    expect(refused.headers.get('ratelimit')).toMatch(/^"open";r=0;t=\d+$/);
    expect(refused.headers.get('content-type')).toBe('application/problem+json');
  });
});

describe('who asks', () => {
  const from = (remoteAddress: string, forwarded?: string): Parameters<typeof clientAddress>[0] => ({
    headers: forwarded === undefined ? {} : { 'x-forwarded-for': forwarded },
    socket: Object.defineProperty(new net.Socket(), 'remoteAddress', { value: remoteAddress }),
  });
  test.each([
    ['the end of the line', from('198.51.100.7'), '', '198.51.100.7'],
    ['what a client says of itself is not taken', from('198.51.100.7', '10.0.0.1'), '', '198.51.100.7'],
    ['a named proxy is believed', from('10.0.0.1', '198.51.100.7'), '10.0.0.1', '198.51.100.7'],
    ['of what it says the last that is no proxy', from('10.0.0.1', '1.1.1.1, 198.51.100.7, 10.0.0.9'), '10.0.0.0/8', '198.51.100.7'],
    ['IPv4 inside IPv6 is IPv4', from('::ffff:10.0.0.1', '198.51.100.7'), '10.0.0.1', '198.51.100.7'],
    ['a proxy that says nonsense stands for itself', from('10.0.0.1', 'unknown'), '10.0.0.1', '10.0.0.1'],
  ])('%s', (_what, request, proxies, address) => {
    expect(clientAddress(request, proxyList(proxies === '' ? [] : [proxies]))).toBe(address);
  });
  test('a proxy that is no address is refused at the start', () => {
    expect(() => proxyList(['my-proxy'])).toThrow(/is no address/);
  });
});

describe('requests nothing can be made of', () => {
  test.each([
    ['/f/%', 400],
    ['/f/%E0%A4%A', 400],
    ['/x%00y', 400],
    ['//evil.example/', 400],
    [`/${'x'.repeat(ENTRY_LIMITS.urlLength)}`, 414],
    ['/f/project-enquiry?a=%', undefined],
  ])('%.20s', (url, status) => {
    expect(malformed({ url, headers: {} })?.status).toBe(status);
  });
  test('a length that is none', () => {
    expect(malformed({ url: '/', headers: { 'content-length': '1e9' } })?.status).toBe(400);
  });
});

describe('pages', () => {
  test('the policy of a page names its nonce, and nobody who may frame it but those the form names', () => {
    const page = pageHeaders({ nonce: 'abc', secure: false, frames: [] });
    const policy = page['content-security-policy'];
    expect(policy).toContain("script-src 'self' 'nonce-abc' 'strict-dynamic'");
    expect(policy).toMatch(/style-src 'self' 'nonce-abc';/);
    expect(policy).toContain("style-src-attr 'none'");
    expect(policy).not.toContain('unsafe');
    expect(policy).toContain("frame-ancestors 'none'");
    expect(page).not.toHaveProperty('strict-transport-security');
    const form = pageHeaders({ nonce: 'abc', secure: true, frames: ['https://www.thornwick.example'] });
    expect(form['content-security-policy']).toContain('frame-ancestors https://www.thornwick.example;');
    expect(form).toHaveProperty('strict-transport-security');
    expect(form).not.toHaveProperty('x-frame-options');
  });

  test('cookies are for https where Millrace is', () => {
    expect(sessionCookie(world, 'x', 5)).toBe('millrace_session=x; Path=/; HttpOnly; SameSite=Lax; Max-Age=5');
    expect(sessionCookie({ ...world, publicUrl: 'https://millrace.example' }, 'x', 5)).toMatch(/; Secure$/);
  });
});

test('in, out, and out everywhere', async () => {
  const enter = async (): Promise<string> => {
    const answer = await signInAt(
      world,
      at('/session', { headers: ours, body: JSON.stringify({ email: 'ines@thornwick.example', password: 'glasshouse' }) }),
    );
    expect(answer.status).toBe(200);
    return /millrace_session=([^;]+)/.exec(answer.headers.get('set-cookie') ?? '')?.[1] ?? '';
  };
  const knows = async (token: string): Promise<number> =>
    (
      await answerApi(
        world,
        new Request('http://millrace.example/api/v1/flows', { headers: { cookie: `${SESSION_COOKIE}=${token}` } }),
        '/flows',
      )
    ).status;
  const [one, two, three] = [await enter(), await enter(), await enter()];
  const asks = (method: string, token: string, body?: string): Request =>
    new Request('http://millrace.example/session', {
      method,
      headers: { ...ours, cookie: `${SESSION_COOKIE}=${token}` },
      ...(body && { body }),
    });
  expect((await endAllSessions(world, asks('PUT', one, '{"end":"some"}'))).status).toBe(400);
  expect(await (await endAllSessions(world, asks('PUT', one, '{"end":"others"}'))).json()).toEqual({ ended: 2 });
  expect([await knows(one), await knows(two), await knows(three)]).toEqual([200, 401, 401]);
  await signOutAt(world, asks('DELETE', one));
  expect(await knows(one)).toBe(401);
  expect((await users(world)).length).toBeGreaterThan(3);
});

test('a form stands only in pages of the sites it names', async () => {
  const { formHosts } = await import('../intake/forms');
  const form = {
    title: 'A',
    intro: '',
    pages: [{ title: '', questions: [] }],
    button: 'Send',
    thanks: 'Thanks',
    embedOn: ['https://www.thornwick.example'],
  };
  await createForm(world, { userId: null, name: 'x' }, { name: 'Framed', form });
  expect(await formHosts(world, 'framed')).toEqual(['https://www.thornwick.example']);
  expect(await formHosts(world, 'nothing')).toEqual([]);
});
