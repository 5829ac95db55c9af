/** What every question answers travels as its schema says, and comes to a page as the server had it. */
import { z } from 'zod';
import { OPERATIONS, ROUTES, withInstants, type Operation, type OperationId } from '../../api';
import { stableId } from '../../core/base';
import { demoWorld, goodSite, replyTo, slotsDue, testWorker, type TestWorld } from '../../testing/world';
import { makeToken } from '../access/access';
import { receiveMail } from '../messages/receive-mail';
import { answerApi } from './answer';

let world: TestWorld;
let token: string;
const ids: Record<string, string> = {};
/** The table that an address names with `{id}`. */
const TABLES: Readonly<Record<string, string>> = {
  imports: 'import',
  people: 'person',
  companies: 'company',
  deals: 'deal',
  conversations: 'thread',
  messages: `message where direction = 'in'`,
  answers: `library_item where kind = 'answer'`,
  things: `library_item where kind in ('scorecard', 'template', 'plan', 'pipeline', 'chain', 'answer')`,
  openings: 'opening',
  flows: 'flow',
  trips: 'trip where trial_id is null',
  forms: `intake where kind = 'form'`,
  watched: `intake where kind in ('mailbox', 'calendar')`,
  'webhook-intakes': `intake where kind = 'webhook'`,
};

async function call(method: string, path: string, body?: BodyInit): Promise<{ readonly status: number; readonly body: any }> {
  const request = new Request(`http://millrace.example/api/v1${path}`, {
    method,
    headers: { authorization: `Bearer ${token}` },
    ...(body === undefined ? {} : { body }),
  });
  const response = await answerApi(world, request, path.split('?')[0] ?? '');
  const text = await response.text();
  return { status: response.status, body: response.headers.get('content-type')?.includes('json') ? JSON.parse(text) : text };
}

beforeAll(async () => {
  ({ world } = await demoWorld({ crm: true }));
  token = await makeToken(world, stableId('user', 'ruud@thornwick.example'), 'answers', 1);
  goodSite(world.outside, 'oakmere-glass.example');
  const list =
    'who;where to write;works at;page\nMara Quill;m.quill@oakmere-glass.example;Oakmere Glass Ltd;oakmere-glass.example\n;;;\nTom Achterberg;tom at home;Achterberg Pots;\n';
  const uploaded = await call('POST', '/imports?name=odd.csv', list);
  const flow = (await call('GET', '/flows')).body.items[0].id as string;
  await call('POST', `/imports/${uploaded.body.import.id}/start`, JSON.stringify({ flowId: flow }));
  await testWorker(world).drain();
  const person = (await call('GET', '/people?search=Quill')).body.items[0].id as string;
  await call('POST', `/flows/${flow}/trials`, JSON.stringify({ recordIds: [person] }));
  await testWorker(world).drain();
  const [review] = (await call('GET', '/reviews')).body.items;
  await call('POST', `/reviews/${review.id}/decision`, JSON.stringify({ does: 'approve' }));
  await testWorker(world).drain();
  await slotsDue(world);
  await testWorker(world).drain();
  const sent = world.outside.mails.at(-1);
  if (!sent) throw new Error('nothing was sent');
  await receiveMail(world, replyTo(sent, 'Too dear for us this year. Please write again in March.'));
  await call('POST', '/webhook-intakes', JSON.stringify({ name: 'Yard board' }));
  for (const [segment, table] of Object.entries(TABLES))
    ids[segment] = (await world.db.unsafe<{ id: string }[]>(`select id::text as id from ${table} order by id limit 1`))[0]?.id ?? '';
  const [trial] = await world.db<{ id: string; flowId: string }[]>`select id, flow_id as "flowId" from trial limit 1`;
  ids.trialId = trial?.id ?? '';
  ids.flows = trial?.flowId ?? ids.flows ?? '';
});
afterAll(() => world.close());

const ASKED = (Object.entries(OPERATIONS) as [OperationId, Operation][]).filter(
  ([, { method, givesFile, path }]) => method === 'GET' && givesFile === undefined && !/^\/(?:dossiers|files|set-aside)\/\{id\}/.test(path),
);

const QUERIES: Partial<Record<OperationId, string>> = {
  listThings: '?kind=scorecard',
  listFields: '?record=company',
  forecastDraft: '?records=20',
};

test.each(ASKED)('%s', async (id, operation) => {
  const segment = operation.path.split('/')[1] ?? '';
  const path = operation.path.replace(/\{(\w+)\}/g, (_all, name: string) => (name === 'id' ? ids[segment] : ids[name]) ?? '');
  const { status, body } = await call('GET', path + (QUERIES[id] ?? ''));
  expect([path, status, body.detail]).toEqual([path, 200, undefined]);
  const route = ROUTES[id];
  const seen = withInstants(body, 'instants' in route ? route.instants : []);
  expect(JSON.parse(JSON.stringify(z.encode(operation.answer, seen)))).toEqual(body);
  expect(operation.answer.safeParse(body).success).toBe(true);
});

test('an answer that is not as described is our fault, and says that the deed is done', async () => {
  const broken = { ...world, clock: { ...world.clock, now: () => Promise.resolve('soon' as unknown as number) } };
  const request = new Request('http://millrace.example/api/v1/clock', { headers: { authorization: `Bearer ${token}` } });
  const response = await answerApi(broken, request, '/clock');
  expect([response.status, (await response.json()).detail]).toEqual([500, expect.stringContaining('was done')]);
});

test('what is kept beside the named things is none of them', async () => {
  const [door] = await world.db<{ id: string }[]>`select id from library_item where kind = 'intake' limit 1`;
  expect((await call('GET', `/things/${door?.id ?? ''}`)).status).toBe(404);
});
