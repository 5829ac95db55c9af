/** Slow figures: kept, given at once, counted again beside. */
import { z } from 'zod';
import { testWorld, type TestWorld } from '../../testing/world';
import { figure } from './figures';

let world: TestWorld;
beforeAll(async () => {
  world = await testWorld();
});
afterAll(() => world.close());

const count = (of: { n: number }, slowMs: number) => async () => {
  of.n += 1;
  if (slowMs > 0) await world.db`select pg_sleep(${slowMs / 1000})`;
  return of.n;
};
const older = (key: string) => world.db`update figure set counted_at = clock_timestamp() - interval '1 hour' where key = ${key}`;
const whole = z.number();

test('what is quick is counted every time', async () => {
  const of = { n: 0 };
  for (const expected of [1, 2, 3]) expect(await figure(world, { key: 'quick', topic: 'records' }, whole, count(of, 0))).toBe(expected);
});

test('what is slow is kept, given at once, and counted again when it is old', async () => {
  const of = { n: 0 };
  expect(await figure(world, { key: 'slow', topic: 'records' }, whole, count(of, 90))).toBe(1);
  expect(await figure(world, { key: 'slow', topic: 'records' }, whole, count(of, 90))).toBe(1);
  expect(of.n).toBe(1);
  await older('slow');
  // The old one is given at once; the new one is there when it has been counted.
  expect(await figure(world, { key: 'slow', topic: 'records' }, whole, count(of, 90))).toBe(1);
  expect(await figure(world, { key: 'slow', topic: 'records' }, whole, count(of, 90))).toBe(1);
  for (let i = 0; i < 100; i++) {
    const [row] = await world.db<{ value: number }[]>`select value from figure where key = 'slow'`;
    if (row?.value === 2) break;
    await world.db`select pg_sleep(0.02)`;
  }
  expect(await figure(world, { key: 'slow', topic: 'records' }, whole, count(of, 90))).toBe(2);
  expect(of.n).toBe(2);
});

test('many who ask at once are answered by one count', async () => {
  const of = { n: 0 };
  expect(await Promise.all([1, 2, 3].map(() => figure(world, { key: 'many', topic: 'records' }, whole, count(of, 70))))).toEqual([1, 1, 1]);
});

test('what was kept in another shape is counted anew', async () => {
  await world.db`insert into figure (key, value, counted_at, took_ms) values ('shape', '"text"', clock_timestamp(), 500)`;
  expect(await figure(world, { key: 'shape', topic: 'records' }, whole, count({ n: 6 }, 0))).toBe(7);
});
