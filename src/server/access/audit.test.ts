/** Who did what, found and taken along. */
import { parse } from 'csv-parse/sync';
import { demoWorld, type TestWorld } from '../../testing/world';
import type { Actor } from '../platform/world';
import { auditFile, auditPage } from './audit';
import { insertAudit } from './store/audit';

let world: TestWorld;
let ines: Actor;
beforeAll(async () => {
  ({ world, ines } = await demoWorld());
  for (const [i, what] of ['changed a mailbox', '=cmd()', 'released "Fair", 50 % more'].entries())
    await insertAudit(world.db, {
      at: world.now + i * 1_000,
      userId: ines.userId,
      what,
      detail: { name: `spindle ${i}`, line: 'one\ntwo' },
    });
});
afterAll(() => world.close());

test('the file holds what the page finds, each line whole, and no formula', async () => {
  const { content, name } = await auditFile(world, { search: 'spindle' });
  const rows: string[][] = parse(content, { bom: true });
  expect(name).toBe('audit.csv');
  expect(rows[0]).toEqual(['when, UTC', 'who', 'what', 'details']);
  expect(rows.slice(1).map(([when, who, what]) => [when, who, what])).toEqual([
    [new Date(world.now + 2_000).toISOString(), ines.name, 'released "Fair", 50 % more'],
    [new Date(world.now + 1_000).toISOString(), ines.name, "'=cmd()"],
    [new Date(world.now).toISOString(), ines.name, 'changed a mailbox'],
  ]);
  expect(JSON.parse(rows[1]?.[3] ?? '')).toEqual({ name: 'spindle 2', line: 'one\ntwo' });
});

test('a word finds by who, what and details; a sign that means something to the database is only a sign', async () => {
  expect((await auditPage(world, { search: '50 %' })).items).toHaveLength(1);
  expect((await auditPage(world, { search: 'spindle _' })).items).toHaveLength(0);
  expect((await auditPage(world, { search: 'Okafor' })).items.length).toBeGreaterThanOrEqual(3);
});
