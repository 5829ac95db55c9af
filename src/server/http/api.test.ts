/** The REST API as a caller meets it: every operation and role, bad input of every kind, the document that describes it. */
import { demoWorld, goodSite, testWorker, type TestWorld } from '../../testing/world';
import { stableId } from '../../core/base';
import { openApiDocument, OPERATIONS, type Operation, type OperationId } from '../../api';
import { ACTIONS, may, ROLES, type Role } from '../access/may';
import { makeToken, signIn } from '../access/access';
import { answerApi, sameOrigin, SESSION_COOKIE } from './answer';

let world: TestWorld;
let tokens: Record<Role, string>;
const MAIL: Record<Role, string> = { owner: 'ruud', builder: 'ines', rep: 'tomasz', reviewer: 'lucia', viewer: 'yusuf' };

beforeAll(async () => {
  ({ world } = await demoWorld());
  tokens = Object.fromEntries(
    await Promise.all(
      ROLES.map(async (role) => [role, await makeToken(world, stableId('user', `${MAIL[role]}@thornwick.example`), 'test', 1)]),
    ),
  ) as Record<Role, string>;
});
afterAll(() => world.close());

interface Answer {
  readonly status: number;
  readonly type: string;
  readonly body: Record<string, any>;
  readonly text: string;
}
async function call(
  method: string,
  path: string,
  body?: unknown,
  headers: Record<string, string> = { authorization: `Bearer ${tokens.builder}` },
): Promise<Answer> {
  const raw = body === undefined ? undefined : typeof body === 'string' || body instanceof Uint8Array ? body : JSON.stringify(body);
  const response = await answerApi(
    world,
    new Request(`http://millrace.example/api/v1${path}`, { method, headers, ...(raw === undefined ? {} : { body: raw as BodyInit }) }),
    path.split('?')[0]!,
  );
  const text = await response.text();
  const type = response.headers.get('content-type') ?? '';
  return { status: response.status, type, text, body: type.includes('json') ? JSON.parse(text) : {} };
}
const NOBODY = '00000000-0000-4000-8000-000000000000';
const pathOf = (operation: Operation): string => operation.path.replace(/\{\w+\}/g, NOBODY) + (operation.takesFile ? '?name=x.csv' : '');

describe('who may do what', () => {
  const all = Object.entries(OPERATIONS) as [OperationId, Operation][];
  test.each(all)('%s is refused to those who may not, and to nobody else', async (_id, operation) => {
    for (const role of ROLES) {
      const { status, body } = await call(
        operation.method,
        pathOf(operation),
        operation.takesFile !== undefined ? 'a,b\n' : operation.body ? {} : undefined,
        { authorization: `Bearer ${tokens[role]}` },
      );
      if (may(role, operation.needs)) expect([role, status]).not.toEqual([role, 403]);
      else expect([role, status, body.detail]).toEqual([role, 403, `a ${role} may not “${operation.needs}”`]);
    }
  });

  test.each(all)('%s wants to know who asks', async (_id, operation) => {
    expect(
      (await call(operation.method, pathOf(operation), undefined, operation.method === 'GET' ? {} : { 'sec-fetch-site': 'same-origin' }))
        .status,
    ).toBe(401);
    expect((await call(operation.method, pathOf(operation), undefined, { authorization: 'Bearer made-up' })).status).toBe(401);
  });

  test('the table of roles is what the documentation says', () => {
    expect(ROLES.map((role) => [role, ACTIONS.filter((action) => may(role, action))])).toEqual([
      ['owner', [...ACTIONS]],
      ['builder', ACTIONS.filter((action) => action !== 'keep secrets' && action !== 'erase')],
      ['rep', ['look', 'open papers', 'change records', 'decide', 'move the clock']],
      ['reviewer', ['look', 'open papers', 'decide']],
      ['viewer', ['look']],
    ]);
  });
});

describe('requests with a session cookie', () => {
  test('read freely, but change something only from our own pages', async () => {
    const { token } = await signIn(world, 'ines@thornwick.example', 'glasshouse');
    const cookie = `other=1; ${SESSION_COOKIE}=${token}`;
    expect((await call('GET', '/flows', undefined, { cookie })).status).toBe(200);
    const body = { values: { name: 'Ewa Sobczak' } };
    expect((await call('POST', '/people', body, { cookie })).status).toBe(403);
    expect((await call('POST', '/people', body, { cookie, 'sec-fetch-site': 'cross-site' })).status).toBe(403);
    expect((await call('POST', '/people', body, { cookie, 'sec-fetch-site': 'same-origin' })).status).toBe(201);
  });

  test.each([
    [{ 'sec-fetch-site': 'same-origin' }, true],
    [{ 'sec-fetch-site': 'same-site' }, false],
    [{ origin: 'http://millrace.example', host: 'millrace.example' }, true],
    [{ origin: 'http://evil.example', host: 'millrace.example' }, false],
    [{}, false],
  ])('%j comes from us: %s', (headers, ours) => {
    expect(sameOrigin(new Request('http://millrace.example/', { headers: headers as HeadersInit }))).toBe(ours);
  });
});

describe('bad input', () => {
  test.each([
    ['an unknown address', 'GET', '/nothing', undefined, 404, 'there is no GET /api/v1/nothing'],
    ['an id that is none', 'GET', '/people/17x', undefined, 404, '“17x” is not an id that Millrace gives out'],
    ['somebody who does not exist', 'GET', `/people/${NOBODY}`, undefined, 404, 'this person does not exist'],
    ['no JSON', 'POST', '/people', '{"values":', 400, 'the body is not JSON'],
    ['a body of another shape', 'POST', '/people', { value: 1 }, 400, /^body\.values: /],
    ['an unknown query value', 'GET', '/trips?state=asleep', undefined, 400, /^query\.state: /],
    ['a limit out of bounds', 'GET', '/people?limit=0', undefined, 400, /^query\.limit: /],
    ['a forged cursor', 'GET', '/people?cursor=abc', undefined, 400, 'the cursor is not one that Millrace gave out'],
    [
      'a file that is no list',
      'POST',
      '/imports?name=x.xlsx',
      'PK\u0003\u0004',
      400,
      'x.xlsx: the file is damaged: save it anew and bring it again',
    ],
    ['an empty file', 'POST', '/imports?name=x.csv', '', 400, 'x.csv: the file is empty'],
    ['an unknown field', 'POST', '/companies', { values: { name: 'X', colour: 'red' } }, 400, 'a company has no field “colour”'],
    ['moving a real clock', 'POST', '/clock', { byMs: 1000 }, 403, 'only the demo has a clock that can be moved'],
    ['a body beyond all measure', 'POST', '/people', `"${'x'.repeat(1_100_000)}"`, 413, /a body may have 1 MB/],
    ['a flow beyond all measure', 'POST', '/flows/check', `"${'x'.repeat(12_600_000)}"`, 413, /a body may have 12 MB/],
  ])('%s', async (_name, method, path, body, status, detail) => {
    const answer = await call(method, path, body);
    expect(answer.status).toBe(status);
    expect(answer.type).toContain('application/problem+json');
    expect(answer.body).toMatchObject({ type: 'about:blank', status, title: expect.any(String) });
    if (typeof detail === 'string') expect(answer.body.detail).toBe(detail);
    else expect(answer.body.detail).toMatch(detail);
    expect(answer.text).not.toMatch(/at \w+ \(|node_modules|select |\.ts:/);
  });

  test('something that breaks inside says so without a trace of how', async () => {
    const broken = { ...world, clock: { now: () => Promise.reject(new Error('secret detail at /src/x.ts:3')) } };
    const response = await answerApi(
      broken,
      new Request('http://millrace.example/api/v1/clock', { headers: { authorization: `Bearer ${tokens.viewer}` } }),
      '/clock',
    );
    expect(response.status).toBe(500);
    expect(await response.text()).not.toContain('secret');
  });
});

describe('the way by API alone', () => {
  test('upload, start, see, decide', async () => {
    goodSite(world.outside, 'oakmere-glass.example');
    const flow = (await call('GET', '/flows')).body.items[0];
    const list =
      'who;where to write;works at;page\nMara Quill;m.quill@oakmere-glass.example;Oakmere Glass Ltd;oakmere-glass.example\n;;;\nTom Achterberg;tom at home;Achterberg Pots;\n';
    const uploaded = await call('POST', '/imports?name=odd.csv', list);
    expect(uploaded.status).toBe(201);
    expect(uploaded.body.columns.map((column: { target: string }) => column.target)).toEqual([
      'person.name',
      'person.email',
      'company.name',
      'company.website',
    ]);
    expect(uploaded.body.counts).toMatchObject({ new: 1, refused: 1 });
    const id = uploaded.body.import.id as string;
    expect((await call('POST', `/imports/${id}/start`, { flowId: flow.id })).status).toBe(202);
    await testWorker(world).drain();
    expect((await call('GET', `/imports/${id}`)).body).toMatchObject({
      state: 'done',
      doneRows: 2,
      counts: { new: 1, known: 0, perhaps: 0, refused: 1 },
    });
    expect((await call('GET', `/imports/${id}/refused.csv`)).text).toContain(
      '"no e-mail, phone or site: nobody could be reached"'.replaceAll('"', ''),
    );

    const [trip] = (await call('GET', `/trips?flow=${flow.id}`)).body.items;
    const journal = (await call('GET', `/trips/${trip.id}`)).body.journal as { verb: string; at: string }[];
    expect(journal.map((entry) => entry.verb)).toEqual(expect.arrayContaining(['read', 'score', 'ask']));
    expect(journal[0]!.at).toBe('2026-11-24T10:00:00.000Z');

    const person = (await call('GET', `/people/${trip.personId}`)).body;
    expect(person.known.find((field: { key: string }) => field.key === 'heated_area').fact).toMatchObject({
      value: 4.2,
      source: 'site',
      observedAt: '2026-11-24T10:00:00.000Z',
    });
    const [review] = (await call('GET', '/reviews')).body.items;
    expect((await call('POST', `/reviews/${review.id}/decision`, { does: 'approve', sentence: 'See you on Friday.' })).body).toEqual({
      ok: true,
    });
    expect((await call('POST', `/reviews/${review.id}/decision`, { does: 'approve' })).status).toBe(409);
    await testWorker(world).drain();
    expect((await call('GET', '/messages?state=sent')).body.items[0].body).toContain('See you on Friday.');
  });

  test('flow text is checked with places, saved with its number, released, and started on records', async () => {
    const found = (await call('POST', '/flows/check', { text: 'flow "A"\nabout person\n\ntake in from hand\nkeep when emial != null\n' }))
      .body.findings;
    expect(found).toEqual([expect.objectContaining({ severity: 'error', code: 'expression', from: 51, to: 56 })]);
    const made = (await call('POST', '/flows', { text: 'flow "A"\nabout person\n\ntake in from hand\nnote "x"\n' })).body;
    expect(
      (
        await call('PUT', `/flows/${made.id}/draft`, {
          text: 'flow "A"\nabout person\n\ntake in from hand\nnote "y"\n',
          base: made.draftNo,
        })
      ).body.draftNo,
    ).toBe(Number(made.draftNo) + 1);
    expect((await call('PUT', `/flows/${made.id}/draft`, { text: 'x', base: made.draftNo })).status).toBe(409);
    expect((await call('POST', `/flows/${made.id}/start`, { recordIds: [NOBODY] })).status).toBe(409);
    expect((await call('POST', `/flows/${made.id}/release`, {})).body.no).toBe(1);
    expect((await call('POST', `/flows/${made.id}/start`, { recordIds: [NOBODY] })).status).toBe(404);
    const someone = (await call('POST', '/people', { values: { name: 'Piet Aalders' } })).body;
    expect((await call('POST', `/flows/${made.id}/start`, { recordIds: [someone.id] })).body).toEqual({ started: 1, already: 0 });
  });

  test('a flow leaves as a file with its name, and a file comes in: looked at, settled, made', async () => {
    const text = 'flow "Grüße ‹1›"\nabout person\n\ntake in from hand\nassign in turn among "west"\n';
    const { id } = (await call('POST', '/flows', { text })).body;
    const response = await answerApi(
      world,
      new Request(`http://millrace.example/api/v1/flows/${id}/file?as=text`, { headers: { authorization: `Bearer ${tokens.viewer}` } }),
      `/flows/${id}/file`,
    );
    expect(response.headers.get('content-type')).toBe('text/plain; charset=utf-8');
    expect(response.headers.get('content-disposition')).toBe(
      `attachment; filename="Gr__e _1_.race"; filename*=UTF-8''${encodeURIComponent('Grüße ‹1›.race')}`,
    );
    const file = await response.text();
    expect((await call('GET', `/flows/${id}/file?as=painting`)).status).toBe(400);

    const looked = await call('POST', '/flow-files?name=g.race', file);
    expect(looked.body).toMatchObject({ name: 'Grüße ‹1›', freeName: 'Grüße ‹1› 2', lines: 2 });
    expect(looked.body.matches).toEqual([
      expect.objectContaining({ key: 'team west', state: 'missing', here: ['hiring', 'north', 'south'], choice: { does: 'leave' } }),
    ]);
    const take = (choices: unknown, name = 'From a file') =>
      call('POST', '/flow-files/take-in', { bundle: looked.body.bundle, choices, name });
    const wrong = await take({ 'team west': { does: 'use', name: 'nobody' } });
    expect([wrong.status, wrong.body.problems]).toEqual([
      400,
      [{ key: 'team west', message: 'team “west”: there is no team named “nobody” here' }],
    ]);
    const made = await take({ 'team west': { does: 'use', name: 'south' } });
    expect([made.status, made.body.draftText]).toEqual([201, expect.stringContaining('assign in turn among "south"')]);
    expect((await take({})).status).toBe(409);
    const schema = (await call('GET', '/flows/schema')).body;
    expect(schema).toMatchObject({ $schema: expect.stringContaining('json-schema.org'), type: 'object' });
  });

  test('a spreadsheet formula in a refused row stays text', async () => {
    const id = (await call('POST', '/imports?name=f.csv', 'Name,Mail\n=HYPERLINK("http://evil.example"),\nMara,m@y.example\n')).body.import
      .id as string;
    expect((await call('GET', `/imports/${id}/refused.csv`)).text).toContain("'=HYPERLINK");
  });
});

describe('the OpenAPI document', () => {
  const document = openApiDocument('http://millrace.example') as Record<string, any>;
  test('describes every operation, and each answer we send has the shape it says', () => {
    const described = Object.values(document.paths as Record<string, Record<string, { operationId: string }>>).flatMap((path) =>
      Object.values(path).map((entry) => entry.operationId),
    );
    expect(described.sort()).toEqual(Object.keys(OPERATIONS).sort());
    expect(document).toMatchObject({ openapi: '3.1.0', components: { securitySchemes: { token: { scheme: 'bearer' } } } });
  });

  test('is served to everybody', async () => {
    const { status, body } = await call('GET', '/openapi.json', undefined, {});
    expect([status, body.info.title]).toEqual([200, 'Millrace']);
  });

  test.each([
    'listPeople',
    'listCompanies',
    'listDeals',
    'listFlows',
    'listTrips',
    'listReviews',
    'listMessages',
    'listImports',
    'listPairs',
    'readClock',
  ] as const)('%s answers as its schema says', async (id) => {
    const operation: Operation = OPERATIONS[id];
    const answer = await call('GET', operation.path);
    const read = operation.answer.safeParse(answer.body);
    expect(read.success ? 'as described' : read.error.issues.slice(0, 3)).toBe('as described');
  });
});

test('what has a name is called by it, spaces and all; its secret is the owner’s, and the audit says where it leads', async () => {
  const body = { url: 'http://hooks.yard.example/new', secret: 'whsec_dGhvcm53aWNrIHlhcmQgc3RhbmQtaW4=' };
  const owner = { authorization: `Bearer ${tokens.owner}` };
  expect((await call('PUT', '/webhooks/Yard%20b%C3%B6ard', body)).status).toBe(403);
  expect((await call('PUT', '/webhooks/Yard%20b%C3%B6ard', body, owner)).status).toBe(200);
  const { body: audit } = await call('GET', '/audit?search=hooks.yard.example/new', undefined, owner);
  expect(audit.items).toMatchObject([{ who: 'Ruud Vermaat-Osei', what: 'connected a webhook', detail: { name: 'Yard böard' } }]);
  expect((await call('GET', '/audit', undefined, { authorization: `Bearer ${tokens.rep}` })).status).toBe(403);
});
