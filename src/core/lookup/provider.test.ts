/** Services described by data: what goes out, what is read, and what cannot be. */
import fc from 'fast-check';
import {
  answerIn,
  atPointer,
  callFor as called,
  inList,
  lookupValues,
  placesIn,
  providerProblems,
  providerSchema,
  type LookupQuestion,
  type Provider,
} from './index';

const callFor = (provider: Provider, asked: LookupQuestion, secret: string) => called(provider, lookupValues(asked), secret);

const described = (more: Partial<Provider> = {}): Provider =>
  providerSchema.parse({
    name: 'Pennant',
    method: 'GET',
    url: 'https://api.pennant.example/v2/people?name={name}&domain={host}',
    headers: [{ name: 'Authorization', value: 'Bearer {secret}' }],
    value: '/data/0/address',
    confidence: '/data/0/score',
    ...more,
  });
const question = { field: 'email', personName: 'Mara O’Quill', companyName: 'Quill & Sons', host: 'quill.example' };
const ANSWER = { data: [{ address: 'mara@quill.example', score: 87, 'a/b': { '~': true } }], left: null };

test('a question goes out with its values escaped for where they stand', () => {
  expect(callFor(described(), question, 'k-1')).toEqual({
    method: 'GET',
    url: 'https://api.pennant.example/v2/people?name=Mara%20O%E2%80%99Quill&domain=quill.example',
    headers: { authorization: 'Bearer k-1' },
    body: null,
  });
  const posted = callFor(
    described({ method: 'POST', body: '{"who": {"last": "{last_name}", "firm": "{company}"}, "n": 1}' }),
    question,
    '',
  );
  expect(JSON.parse(posted.body ?? '')).toEqual({ who: { last: 'O’Quill', firm: 'Quill & Sons' }, n: 1 });
});

test('no name changes the host, the other parts of the address, the shape of the body, or adds a header', () => {
  const provider = described({ method: 'POST', body: '{"q": "{name}"}', headers: [{ name: 'X-Who', value: '{name}' }] });
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), (personName) => {
      const call = callFor(provider, { ...question, personName }, '');
      const url = new URL(call.url);
      expect([url.host, url.pathname, [...url.searchParams.keys()]]).toEqual(['api.pennant.example', '/v2/people', ['name', 'domain']]);
      expect(Object.keys(JSON.parse(call.body ?? '') as object)).toEqual(['q']);
      expect(call.headers['x-who']).toMatch(/^[\x20-\x7e]*$/);
    }),
  );
});

test('the value and its confidence are read where they stand', () => {
  expect(answerIn(described(), ANSWER)).toEqual({ value: 'mara@quill.example', confidence: 0.87 });
  expect(answerIn(described({ confidence: '' }), ANSWER).confidence).toBe(1);
  expect(answerIn(described({ value: '/data/1/address' }), ANSWER)).toEqual({ value: null, confidence: 0.87 });
  expect(answerIn(described(), 'no such person')).toEqual({ value: null, confidence: 0 });
  expect(atPointer({ __proto__: null }, '/constructor')).toBeUndefined();
});

test('every value of an example answer is offered with the place that leads back to it', () => {
  expect(placesIn(ANSWER)).toContainEqual({ at: '/data/0/a~1b/~0', value: true });
  fc.assert(
    fc.property(fc.json(), (text) => {
      const answer: unknown = JSON.parse(text);
      for (const { at, value } of placesIn(answer)) expect(atPointer(answer, at)).toBe(value);
    }),
  );
});

const LATER = { ticket: '', url: 'https://api.pennant.example/jobs/{ticket}', state: '', ready: '', failed: '', everyS: 5, atMostS: 60 };
test.each<[Partial<Provider>, keyof Provider, RegExp]>([
  [{ url: 'ftp://x.example' }, 'url', /begins with https/],
  [{ url: 'https://{host}/find' }, 'url', /the host is fixed/],
  [{ url: 'https://x.example/{nickname}' }, 'url', /“\{nickname\}” is not known/],
  [{ method: 'POST', body: '{"a": }' }, 'body', /no JSON/],
  [{ body: '{}' }, 'body', /a GET has no body/],
  [{ value: 'data.address' }, 'value', /begins with \//],
  [{ value: '' }, 'value', /say where the value stands/],
  [{ finds: 'records', url: 'https://x.example/{name}', record: { name: '/n' } }, 'url', /“\{name\}” is not known: \{words\}/],
  [{ finds: 'records' }, 'record', /where the name of a person or of a company stands/],
  [{ mostPages: 3 }, 'list', /pages are pages of a list/],
  [{ mostPages: 3, list: '/data' }, 'next', /where the next page stands/],
  [{ later: LATER }, 'later.ticket' as never, /say where the ticket stands/],
  [
    { later: { ...LATER, ticket: '/id', url: 'https://elsewhere.example/{ticket}' } },
    'later.url' as never,
    /at one host: https:\/\/api.pennant.example/,
  ],
  [{ later: { ...LATER, ticket: '/id', state: '/state' } }, 'later.ready' as never, /by which word/],
])('%j cannot be asked', (more, at, says) => {
  expect(providerProblems(described(more))).toContainEqual({ at, says: expect.stringMatching(says) as string });
});

test('a whole description has no problem', () => {
  expect(providerProblems(described())).toEqual([]);
});

test('a place within one of several is known by its list', () => {
  expect(inList('/data/contacts/0/address')).toEqual({ list: '/data/contacts', within: '/address' });
  expect(inList('/3')).toEqual({ list: '/', within: '' });
  expect(inList('/data/address')).toBeUndefined();
});
