/**
 * Makes the template databases and drops what earlier runs of tests have left: one migrated and empty; with the argument
 * `demo` also those with the demo workspace, whose tokens are printed as JSON.
 */
import path from 'node:path';
import postgres from 'postgres';
import { connect, migrate } from '../server/db';
import { DEMO_TEMPLATES, demoWorkspace, testWorld } from './world';

const admin = postgres(process.env.TEST_DATABASE_ADMIN ?? '', { max: 1, onnotice: () => undefined });
const left = await admin<
  { datname: string }[]
>`select datname from pg_database where datname like 'test\\_%' or datname like 'template\\_millrace%' or datname like 'template\\_demo%'`;
for (const { datname } of left) await admin.unsafe(`drop database "${datname}" with (force)`);
await admin.unsafe('create database template_millrace');
const db = connect(process.env.TEST_DATABASE_TEMPLATE ?? '', { max: 1, name: 'test template' });
await migrate(db, path.resolve('src/server/db/migrations'));
await db.end();

async function demoTemplate(kind: keyof typeof DEMO_TEMPLATES): Promise<string> {
  const world = await testWorld();
  const { token } = await demoWorkspace(world, { crm: kind === 'crm' });
  await world.db.end();
  await admin.unsafe(`alter database "${new URL(world.url).pathname.slice(1)}" rename to ${DEMO_TEMPLATES[kind]}`);
  return token;
}
if (process.argv[2] === 'demo') {
  const tokens = { plain: await demoTemplate('plain'), crm: await demoTemplate('crm') };
  process.stdout.write(JSON.stringify(tokens));
}
await admin.end();
