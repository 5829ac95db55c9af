/** A question to a service from first call to last answer: tickets, pages, and what leads elsewhere. */
import { beginning, cameBack, nextCall, providerSchema, type Came, type Progress, type Provider } from './index';

const NOW = Date.parse('2026-11-24T10:00:00Z');
const described = (more: object = {}): Provider =>
  providerSchema.parse({
    name: 'Ferrygate',
    method: 'POST',
    url: 'https://api.ferrygate.example/v1/asked',
    headers: [{ name: 'Authorization', value: 'Bearer {secret}' }],
    body: '{"who": "{name}"}',
    list: '/found',
    value: '/mail',
    ...more,
  });
const later = {
  ticket: '/id',
  url: 'https://api.ferrygate.example/v1/asked/{ticket}',
  state: '/state',
  ready: 'ready',
  failed: 'broken',
  everyS: 5,
  atMostS: 60,
};
const question = { values: { name: 'Mara Quill' }, secret: 'k 1' };

/** Asks until it is over or would have to wait more often than answers are given. */
function walk(provider: Provider, answers: readonly unknown[]): { readonly urls: readonly string[]; readonly came: readonly Came[] } {
  const urls: string[] = [];
  const came: Came[] = [];
  let progress: Progress | null = beginning(NOW);
  let now = NOW;
  for (const answer of answers) {
    if (progress === null) break;
    const call = nextCall(provider, question, progress);
    urls.push(`${call.method} ${call.url}`);
    const next = cameBack(provider, progress, answer, now);
    came.push(next);
    if (next.kind === 'wait') now += next.ms;
    progress = next.kind === 'wait' ? next.progress : next.kind === 'page' ? next.more : null;
  }
  return { urls, came };
}

test('with a ticket it is asked once and collected until it is ready', () => {
  const { urls, came } = walk(described({ later }), [
    { id: 'a/b' },
    { state: 'working' },
    { state: 'ready', found: [{ mail: 'm@q.example' }] },
    {},
  ]);
  expect(urls).toEqual([
    'POST https://api.ferrygate.example/v1/asked',
    'GET https://api.ferrygate.example/v1/asked/a%2Fb',
    'GET https://api.ferrygate.example/v1/asked/a%2Fb',
  ]);
  expect(came.map(({ kind }) => kind)).toEqual(['wait', 'wait', 'page']);
  expect(came[2]).toMatchObject({ entries: [{ mail: 'm@q.example' }], more: null });
});
test('it is given up when it says so, when its time is over, and when it gives no ticket', () => {
  expect(walk(described({ later }), [{ id: 7 }, { state: 'broken' }]).came.at(-1)).toEqual({ kind: 'failed', says: 'it says “broken”' });
  const long = walk(described({ later }), [{ id: 7 }, ...Array.from({ length: 30 }, () => ({ state: 'working' }))]);
  expect([long.came.length, long.came.at(-1)]).toEqual([13, { kind: 'failed', says: 'it had no answer after 60 s' }]);
  expect(walk(described({ later }), [{}]).came).toEqual([{ kind: 'failed', says: 'it gave no ticket to collect the answer with' }]);
});
test('without a word for ready, it is ready when something is there', () => {
  const { came } = walk(described({ later: { ...later, state: '', ready: '' } }), [
    { id: 1 },
    { found: [] },
    { found: [{ mail: 'x@y.example' }] },
  ]);
  expect(came.map(({ kind }) => kind)).toEqual(['wait', 'wait', 'page']);
});
test('a ticket may be the address itself, and leads to the same host only', () => {
  const whole = described({ later: { ...later, url: '{ticket}' } });
  expect(walk(whole, [{ id: '/v1/t/9' }, { state: 'ready', found: [] }]).urls[1]).toBe('GET https://api.ferrygate.example/v1/t/9');
  expect(walk(whole, [{ id: 'https://elsewhere.example/9' }]).came).toEqual([
    { kind: 'failed', says: 'its ticket leads to another host: it was not followed' },
  ]);
});

const page = (n: number, next: unknown): unknown => ({ found: [{ mail: `m${n}@q.example` }], next });
test.each<[string, object, readonly unknown[], readonly string[]]>([
  [
    'counted',
    { method: 'GET', body: '', url: 'https://api.ferrygate.example/f?p={page}' },
    [page(1, 0), page(2, 0), { found: [] }, page(4, 0)],
    ['?p=1', '?p=2', '?p=3'],
  ],
  [
    'by a mark',
    { method: 'GET', body: '', url: 'https://api.ferrygate.example/f?c={cursor}', next: '/next' },
    [page(1, 'a b'), page(2, null), page(3, 'c')],
    ['?c=', '?c=a%20b'],
  ],
  [
    'by an address',
    { method: 'GET', body: '', url: 'https://api.ferrygate.example/f', next: '/next' },
    [page(1, '/f?p=2'), page(2, 'https://api.ferrygate.example/f?p=3'), page(3, '')],
    ['', '?p=2', '?p=3'],
  ],
  [
    'never elsewhere',
    { method: 'GET', body: '', url: 'https://api.ferrygate.example/f', next: '/next' },
    [page(1, 'https://elsewhere.example/f?p=2'), page(2, '')],
    [''],
  ],
  [
    'never in a circle',
    { method: 'GET', body: '', url: 'https://api.ferrygate.example/f', next: '/next' },
    [page(1, '/f?p=2'), page(2, '/f?p=2'), page(3, '')],
    ['', '?p=2'],
  ],
  [
    'no more than may be',
    { method: 'GET', body: '', url: 'https://api.ferrygate.example/f?p={page}', mostPages: 2 },
    [page(1, 0), page(2, 0), page(3, 0)],
    ['?p=1', '?p=2'],
  ],
])('pages are read %s', (_, more, answers, expected) => {
  const { urls } = walk(described({ mostPages: 9, ...more }), answers);
  expect(urls).toEqual(expected.map((rest) => `GET https://api.ferrygate.example/f${rest}`));
});
