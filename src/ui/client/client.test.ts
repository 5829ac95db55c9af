import { ApiProblem, call, sayProblem } from './index';

interface Asked {
  readonly url: string;
  readonly init: RequestInit;
}
let asked: Asked[] = [];
const answer = (body: unknown, status = 200, type = 'application/json'): void => {
  global.fetch = (async (url: string, init: RequestInit) => {
    asked.push({ url, init });
    return new Response(typeof body === 'string' ? body : JSON.stringify(body), { status, headers: { 'content-type': type } });
  }) as typeof fetch;
};
beforeEach(() => {
  asked = [];
});

test('an operation is called by its id: path, query and body as its table says', async () => {
  answer({ items: [] });
  await call('listPeople', { query: { search: 'Mara & co', limit: 5, cursor: undefined } });
  await call('decideReview', { params: { id: 'a/b' }, body: { does: 'later' } });
  expect(asked.map(({ url, init }) => [init.method, url, init.body])).toEqual([
    ['GET', '/api/v1/people?search=Mara+%26+co&limit=5', undefined],
    ['POST', '/api/v1/reviews/a%2Fb/decision', '{"does":"later"}'],
  ]);
});

test('a file goes as it is', async () => {
  answer({ import: { id: 'x' } });
  const file = new Blob(['a,b']);
  await call('uploadList', { query: { name: 'x.csv' }, file });
  expect(asked[0]?.init.body).toBe(file);
  expect((asked[0]?.init.headers as Record<string, string>)['content-type']).toBe('text/csv');
});

test('a refusal is thrown with the server’s own sentence', async () => {
  answer({ title: 'conflict', status: 409, detail: 'somebody saved this draft meanwhile', draftNo: 9 }, 409, 'application/problem+json');
  const problem = await call('getFlow', { params: { id: 'x' } }).catch((error: unknown) => error);
  expect(problem).toBeInstanceOf(ApiProblem);
  expect(problem).toMatchObject({ status: 409, message: 'somebody saved this draft meanwhile', detail: { draftNo: 9 } });
  expect(sayProblem(problem)).toBe('somebody saved this draft meanwhile');
});

test('an answer that is no problem document still gives a sentence; so does no answer', async () => {
  answer('<html>bad gateway</html>', 502, 'text/html');
  const problem = await call('listFlows', {}).catch((error: unknown) => error);
  expect(sayProblem(problem)).toBe('the server answered 502');
  expect(sayProblem(new TypeError('fetch failed'))).toBe('Millrace could not be reached: nothing was lost, try again in a moment.');
});
