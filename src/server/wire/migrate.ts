import path from 'node:path';
import { readConfig } from '../config';
import { connect, migrate } from '../db';

const db = connect(readConfig().databaseUrl, { max: 2, name: 'millrace-migrate' });
const ran = await migrate(db, path.resolve('src/server/db/migrations'));
process.stdout.write(ran.length > 0 ? `migrated: ${ran.join(', ')}\n` : 'nothing to migrate\n');
await db.end();
