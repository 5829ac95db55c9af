/**
 * Every operation with wrong values of every type in every place: what comes back says what is wrong, never that we broke. The
 * values are those that have broken something somewhere: wrong types, ends of ranges, halves of letters, NUL, other scripts.
 */
import { z } from 'zod';
import { demoWorld, type TestWorld } from '../../testing/world';
import { OPERATIONS, type Operation, type OperationId } from '../../api';
import { stableId } from '../../core/base';
import { makeToken } from '../access/access';
import { answerApi } from './answer';

let world: TestWorld;
let token: string;
let ids: Readonly<Record<string, string>>;
beforeAll(async () => {
  ({ world } = await demoWorld({ crm: true }));
  token = await makeToken(world, stableId('user', 'ruud@thornwick.example'), 'fuzz', 1);
  const first = async (table: string): Promise<string> =>
    (await world.db.unsafe<{ id: string }[]>(`select id::text from ${table} limit 1`))[0]?.id ?? '';
  ids = Object.fromEntries(
    await Promise.all(
      ['person', 'company', 'deal', 'flow', 'opening', 'intake'].map(async (table) => [table, await first(table)] as const),
    ),
  );
});
afterAll(() => world.close());

const NOBODY = '00000000-0000-4000-8000-000000000000';
const WRONG: readonly unknown[] = [
  null,
  true,
  0,
  -1,
  1.5,
  12345,
  1e308,
  Number.MAX_SAFE_INTEGER,
  2_147_483_648,
  '',
  ' ',
  'x',
  '12345',
  'a\u0000b',
  '\ud800',
  'half \udc00 letter',
  'e\u0301\u200b\u202e',
  'x'.repeat(5_000),
  "'; drop table person; --",
  '%_\\',
  '{{}}',
  '2026-02-31',
  '9999999-01-01',
  NOBODY,
  'mailto:',
  'file:///etc/passwd',
  'http://[',
  [],
  [null],
  ['\u0000'],
  {},
  { a: { b: { c: [] } } },
];

async function call(
  operation: Operation,
  path: string,
  query: string,
  body: unknown,
): Promise<{ readonly status: number; readonly text: string }> {
  const hasBody = operation.method !== 'GET';
  const response = await answerApi(
    world,
    new Request(`http://millrace.example/api/v1${path}${query}`, {
      method: operation.method,
      headers: { authorization: `Bearer ${token}` },
      ...(hasBody ? { body: operation.takesFile ? String(body) : (JSON.stringify(body) ?? '') } : {}),
    }),
    path,
  );
  return { status: response.status, text: await response.text() };
}

/** Ids that exist where the path names a kind of record we have one of; else nobody's. */
function pathsOf(operation: Operation): readonly string[] {
  const kind = Object.entries({
    people: 'person',
    companies: 'company',
    deals: 'deal',
    flows: 'flow',
    openings: 'opening',
    watched: 'intake',
    forms: 'intake',
  }).find(([word]) => operation.path.startsWith(`/${word}/`))?.[1];
  const real = operation.path.replace(/\{\w+\}/, (kind === undefined ? undefined : ids[kind]) || NOBODY).replace(/\{\w+\}/g, NOBODY);
  return [...new Set([real, operation.path.replace(/\{\w+\}/g, NOBODY)])];
}

interface Schema {
  readonly type?: string;
  readonly format?: string;
  readonly default?: unknown;
  readonly const?: unknown;
  readonly enum?: readonly unknown[];
  readonly anyOf?: readonly Schema[];
  readonly oneOf?: readonly Schema[];
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly items?: Schema;
  readonly minimum?: number;
}
/** A body of the right shape, as far as its schema says; then each place in it is put wrong. */
function example(schema: Schema): unknown {
  if (schema.default !== undefined) return schema.default;
  if (schema.const !== undefined) return schema.const;
  if (schema.enum) return schema.enum[0];
  const [choice] = schema.anyOf ?? schema.oneOf ?? [];
  if (choice) return example(choice);
  if (schema.type === 'object')
    return Object.fromEntries(Object.entries(schema.properties ?? {}).map(([key, inner]) => [key, example(inner)]));
  if (schema.type === 'array') return [example(schema.items ?? {})];
  if (schema.type === 'number' || schema.type === 'integer') return Math.max(1, schema.minimum ?? 1);
  if (schema.type === 'boolean') return true;
  if (schema.format === 'uuid') return NOBODY;
  if (schema.format === 'email') return 'a@b.example';
  if (schema.format === 'uri') return 'https://a.example/';
  return 'x';
}

/** Every place in a value, down to a few levels. */
function places(value: unknown, at: readonly (string | number)[] = []): readonly (readonly (string | number)[])[] {
  if (at.length > 4 || typeof value !== 'object' || value === null) return [at];
  return [at, ...Object.entries(value).flatMap(([key, inner]) => places(inner, [...at, Array.isArray(value) ? Number(key) : key]))];
}
function put(value: unknown, [key, ...rest]: readonly (string | number)[], wrong: unknown): unknown {
  if (key === undefined) return wrong;
  if (Array.isArray(value)) return value.map((inner: unknown, i) => (i === key ? put(inner, rest, wrong) : inner));
  const object = value as Record<string, unknown>;
  return { ...object, [key]: put(object[key], rest, wrong) };
}

const jsonSchema = (schema: z.ZodType): Schema => z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }) as Schema;
const all = (Object.entries(OPERATIONS) as [OperationId, Operation][]).filter(([id]) => id !== 'moveClock');

describe('wrong values never break us', () => {
  test.each(all)('%s', async (_id, operation) => {
    const broken: string[] = [];
    const look = async (path: string, query: string, body: unknown): Promise<void> => {
      const { status, text } = await call(operation, path, query, body);
      if (status >= 500) broken.push(`${path}${query} ${JSON.stringify(body)?.slice(0, 160) ?? ''} → ${status} ${text.slice(0, 160)}`);
    };
    const right = operation.body ? example(jsonSchema(operation.body)) : undefined;
    for (const path of pathsOf(operation)) {
      if (operation.takesFile)
        for (const body of ['', 'x', 'a,b\n1,2', '\u0000', 'PK\u0003\u0004', '"', 'BEGIN:VCARD']) await look(path, '?name=x.csv', body);
      if (operation.body) for (const place of places(right)) for (const wrong of WRONG) await look(path, '', put(right, place, wrong));
      for (const name of Object.keys(operation.query?.shape ?? {}))
        for (const wrong of WRONG)
          await look(path, `?${name}=${encodeURIComponent(typeof wrong === 'string' ? wrong.toWellFormed() : String(wrong))}`, right);
    }
    // Whatever stands where an id belongs.
    for (const wrong of ['x', "'", '%00', '\ud800', '../..', '9'.repeat(40), '1', 'x'.repeat(3_000), '1e9'])
      await look(operation.path.replace(/\{\w+\}/g, wrong), '', right);
    expect(broken).toEqual([]);
  });
});

test('values of records are what their fields are', async () => {
  const person = ids.person ?? '';
  const change = async (values: Record<string, unknown>): Promise<{ readonly status: number; readonly text: string }> =>
    call(OPERATIONS.changePerson, `/people/${person}`, '', { values });
  for (const values of [{ email: 12345 }, { email: true }, { name: 5 }, { phone: false }, { name: 'x'.repeat(3_000) }, { nothing: 'x' }])
    expect(await change(values)).toMatchObject({ status: 400 });
  expect((await change({ name: 'x'.repeat(3_000) })).text).toMatch(/at most 2,000 characters, not 3,000/);
  expect(await change({ name: 'Ann \ud800 O\u0000wen' })).toMatchObject({ status: 200 });
  const [row] = await world.db<{ name: string }[]>`select name from person where id = ${person}`;
  expect(row?.name).toBe('Ann \ufffd Owen');
});

test('who saves second sees what the first changed, and decides', async () => {
  const company = ids.company ?? '';
  const change = (values: Record<string, unknown>, was: Record<string, unknown>): ReturnType<typeof call> =>
    call(OPERATIONS.changeCompany, `/companies/${company}`, '', { values, was });
  const [before] = await world.db<{ city: string | null }[]>`select city from company where id = ${company}`;
  expect((await change({ city: 'Hull' }, { city: before?.city ?? null })).status).toBe(200);
  const second = await change({ city: 'York' }, { city: before?.city ?? null });
  expect(second.status).toBe(409);
  expect(JSON.parse(second.text)).toMatchObject({
    field: 'city',
    now: 'Hull',
    by: 'Ruud Vermaat-Osei',
    detail: expect.stringContaining('changed meanwhile'),
  });
  expect((await change({ city: 'York' }, { city: 'Hull' })).status).toBe(200);
});
