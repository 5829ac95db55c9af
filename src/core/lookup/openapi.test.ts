/** OpenAPI documents as beginnings of descriptions: what is told, what is left to the person, and what is no such document. */
import { cameBack, beginning, providerProblems, providerSchema, readOpenApi, type OpenApiCall } from './index';

const document = {
  openapi: '3.1.0',
  info: { title: 'Ferrygate' },
  servers: [{ url: 'https://{region}.ferrygate.example/v1/', variables: { region: { default: 'eu' } } }],
  security: [{ token: [] }],
  components: {
    securitySchemes: {
      token: { type: 'http', scheme: 'bearer' },
      inQuery: { type: 'apiKey', in: 'query', name: 'api key' },
      both: { type: 'http', scheme: 'basic' },
    },
    parameters: { Domain: { name: 'companyDomain', in: 'query', required: true, schema: { type: 'string' } } },
    schemas: {
      Person: {
        type: 'object',
        required: ['given_name', 'tier'],
        properties: {
          given_name: { type: 'string' },
          familyName: { type: 'string' },
          tier: { type: 'string', enum: ['plain', 'gold'] },
          note: { type: 'string' },
        },
      },
      Mail: {
        allOf: [{ $ref: '#/components/schemas/Scored' }, { type: 'object', properties: { email: { type: 'string', format: 'email' } } }],
      },
      Scored: { type: 'object', properties: { confidence: { type: 'number', example: 0.8 } } },
      Round: { type: 'object', properties: { again: { $ref: '#/components/schemas/Round' }, email: { type: 'string', format: 'email' } } },
    },
  },
  paths: {
    '/people': {
      parameters: [{ $ref: '#/components/parameters/Domain' }],
      get: {
        summary: 'Find people',
        security: [{ inQuery: [] }],
        parameters: [
          { name: 'full_name', in: 'query', schema: {} },
          { name: 'limit', in: 'query', required: true, schema: { default: 5 } },
          { name: 'shape', in: 'query', required: true, schema: { type: 'string' } },
          { name: 'X-Trace', in: 'header', required: false, schema: {} },
        ],
        responses: {
          200: {
            content: {
              'application/json': {
                schema: { type: 'object', properties: { hits: { type: 'array', items: { $ref: '#/components/schemas/Mail' } } } },
              },
            },
          },
        },
      },
    },
    '/enrichments': {
      post: {
        summary: 'Ask for one person',
        requestBody: {
          content: { 'application/json': { schema: { type: 'object', properties: { person: { $ref: '#/components/schemas/Person' } } } } },
        },
        responses: { 202: { content: { 'application/json': { example: { id: 'e1', state: 'queued' } } } } },
      },
    },
    '/enrichments/{enrichment}': {
      get: { responses: { 200: { content: { 'application/json': { example: { state: 'ready', email: 'a@b.example' } } } } } },
    },
    '/round': {
      get: {
        security: [{ both: [] }],
        responses: { 200: { content: { 'application/json': { schema: { $ref: '#/components/schemas/Round' } } } } },
      },
    },
  },
};
const calls = (): readonly OpenApiCall[] => {
  const read = readOpenApi(document);
  if (!read.ok) throw new Error(read.why);
  return read.calls;
};
const call = (label: string): OpenApiCall | undefined => calls().find((entry) => entry.label === label);

test('a call has its address with slots, its key, and where the answer stands', () => {
  expect(call('GET /people')).toMatchObject({
    summary: 'Find people',
    provider: {
      method: 'GET',
      url: 'https://eu.ferrygate.example/v1/people?companyDomain={host}&full_name={name}&limit=5&shape=&api%20key={secret}',
      headers: [],
      list: '/hits',
      value: '/email',
      confidence: '/confidence',
      later: null,
    },
    says: ['“shape” is required: fill it in'],
  });
});
test('what answers later is asked, and collected where the document says', () => {
  const asked = call('POST /enrichments');
  expect(asked?.provider).toMatchObject({
    headers: [{ name: 'Authorization', value: 'Bearer {secret}' }],
    value: '/email',
    later: { ticket: '/id', url: 'https://eu.ferrygate.example/v1/enrichments/{ticket}', state: '/state', ready: 'ready' },
  });
  expect(JSON.parse(asked?.provider.body ?? '')).toEqual({
    person: { given_name: '{first_name}', familyName: '{last_name}', tier: 'plain' },
  });
  const provider = providerSchema.parse({ name: 'F', ...asked?.provider });
  expect(providerProblems(provider)).toEqual([]);
  expect(cameBack(provider, { ...beginning(0), ticket: 'e1' }, asked?.example, 0)).toMatchObject({ kind: 'page', more: null });
});
test('references in circles end, and a user with a password is said', () => {
  const round = call('GET /round');
  expect(round?.provider.value).toMatch(/email$/);
  expect(round?.says).toEqual(['it signs in by user and password: the key is both, joined by a colon, in Base64']);
});
test('a schema that refers to itself in many places is read as far as it goes, and no further', () => {
  const many = Object.fromEntries(Array.from({ length: 12 }, (_, i) => [`part${i}`, { $ref: '#/components/schemas/Many' }]));
  const schema = { type: 'object', properties: { email: { type: 'string', format: 'email' }, ...many } };
  const json = { content: { 'application/json': { schema: { $ref: '#/components/schemas/Many' } } } };
  const read = readOpenApi({
    openapi: '3.0.0',
    servers: [{ url: 'https://api.x.example' }],
    components: { schemas: { Many: { ...schema, allOf: [schema, schema] } } },
    paths: { '/find': { post: { requestBody: json, responses: { 200: json } } } },
  });
  expect(read).toMatchObject({ ok: true, calls: [{ label: 'POST /find', provider: { value: '/email' } }] });
});
test.each<[unknown, RegExp]>([
  [null, /it holds no fields/],
  [[], /it holds no fields/],
  [{ swagger: '2.0' }, /of version 2.0: 3.0 and 3.1 are read/],
  [{ info: {} }, /“openapi: 3…” is missing/],
  [{ openapi: '3.0.1', paths: { '/a': { delete: {} } } }, /no call by GET or POST/],
])('%j is none', (given, why) => {
  expect(readOpenApi(given)).toMatchObject({ ok: false, why: expect.stringMatching(why) as string });
});
test('a document without a host says what to do', () => {
  const read = readOpenApi({ openapi: '3.0.0', servers: [{ url: '/api' }], paths: { '/find': { get: {} } } });
  expect(read).toMatchObject({
    ok: true,
    calls: [{ provider: { url: 'https:///find' }, says: ['the document names no host: put it in the address'] }],
  });
});
