/** A backup of a workspace that others work in, and back from it while they are connected. */
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import postgres from 'postgres';
import { demoWorld, type TestWorld } from '../../testing/world';

let world: TestWorld;
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'backup-'));
const file = path.join(folder, 'whole');
beforeEach(async () => {
  ({ world } = await demoWorld());
});
afterAll(() => {
  fs.rmSync(folder, { recursive: true, force: true });
});

const script = (body: string): ReturnType<typeof spawnSync> =>
  spawnSync(process.execPath, ['--input-type=module', '-e', `import { dump, bringBack } from './scripts/backup-lib.mjs'; ${body}`], {
    encoding: 'utf8',
  });

test('comes back as it was, for those who are connected too, and what was there stays beside it', async () => {
  const other = postgres(world.url, { max: 1, onnotice: () => undefined });
  const names = async (): Promise<string[]> =>
    (await other<{ name: string }[]>`select name from flow order by name`).map(({ name }) => name);
  const before = await names();
  expect(script(`dump('${world.url}', '${file}')`).status).toBe(0);
  expect(fs.statSync(file).mode & 0o777).toBe(0o600);
  await other`update app_user set name = 'Nobody'`;
  const back = script(`console.log(await bringBack('${world.url}', '${file}'))`);
  expect(back.stderr).toBe('');
  // A connection that was ended tells it once, and the next one is to the new database.
  let after: readonly string[] | undefined;
  for (let tries = 0; after === undefined && tries < 5; tries++) after = await names().catch(() => undefined);
  expect(after).toEqual(before);
  expect([...(await other`select 1 from app_user where name = 'Nobody'`)]).toEqual([]);
  const [old] = await other<{ datname: string }[]>`select datname from pg_database where datname = ${String(back.stdout).trim()}`;
  await other.unsafe(`drop database "${old?.datname ?? ''}"`);
  await other.end({ timeout: 1 });
  await world.db.end({ timeout: 1 }).catch(() => undefined);
}, 60_000);

test('a file that is no backup changes nothing, and says so', async () => {
  fs.writeFileSync(file, 'no backup');
  const back = script(`await bringBack('${world.url}', '${file}')`);
  expect(back.status).not.toBe(0);
  expect(String(back.stderr)).toContain('could not be brought back; what was there is as it was');
  expect(await world.db`select 1 from app_user limit 1`).toHaveLength(1);
  await world.close();
}, 60_000);
