/** Makes the migrated template database, and drops what earlier runs of tests have left. */
import path from 'node:path';
import postgres from 'postgres';
import { connect, migrate } from '../server/db';

const admin = postgres(process.env.TEST_DATABASE_ADMIN ?? '', { max: 1, onnotice: () => undefined });
const left = await admin<
  { datname: string }[]
>`select datname from pg_database where datname like 'test\\_%' or datname = 'template_millrace'`;
for (const { datname } of left) await admin.unsafe(`drop database "${datname}" with (force)`);
await admin.unsafe('create database template_millrace');
await admin.end();
const db = connect(process.env.TEST_DATABASE_TEMPLATE ?? '', { max: 1, name: 'test template' });
await migrate(db, path.resolve('src/server/db/migrations'));
await db.end();
