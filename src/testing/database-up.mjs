// One PostgreSQL cluster for a run of tests, with templates that each test database is copied from: migrated and empty, or with the demo workspace.
import path from 'node:path';
import { run, startDatabase } from '../../scripts/lib.mjs';

/** Its data lies apart from the application's own. */
export const TEST_HOME = path.resolve('.local/test');

export default function up() {
  const url = new URL(startDatabase(TEST_HOME, { forgets: true }));
  const admin = new URL(url);
  admin.pathname = '/postgres';
  const template = new URL(url);
  template.pathname = '/template_millrace';
  process.env.TEST_DATABASE_ADMIN = admin.href;
  const made = run(process.execPath, ['--import', 'tsx', 'src/testing/make-template.ts', 'demo'], {
    env: { TEST_DATABASE_ADMIN: admin.href, TEST_DATABASE_TEMPLATE: template.href },
  });
  process.env.TEST_DEMO_TOKENS = made.stdout.trim();
}
