/**
 * Makes an empty database usable: an owner with a password that is shown once, a team, a mailbox, first texts. `first.ts`
 * reads `MILLRACE_WORKSPACE`, a workspace description of the same shape as the demo's, or takes the built-in starter.
 */
import { randomBytes } from 'node:crypto';
import fs from 'node:fs';
import { readConfig } from '../config';
import { isSeeded, seedWorkspace, workspaceSeedSchema } from '../usecases/seed';
import starter from './starter.json';
import { makeWorld } from './world';

const config = readConfig();
const world = makeWorld(config, 'millrace-first');
if (!(await isSeeded(world))) {
  const described: unknown = config.workspaceFile === null ? starter : JSON.parse(fs.readFileSync(config.workspaceFile, 'utf8'));
  const password = randomBytes(9).toString('base64url');
  const seed = workspaceSeedSchema.parse({ startsAt: new Date().toISOString(), password, ...(described as object) });
  await seedWorkspace(world, seed, { flows: seed.flows.map((file) => fs.readFileSync(file, 'utf8')), companies: [], people: [] });
  process.stdout.write(`Sign in as ${seed.users[0]?.email ?? 'nobody'} with the password ${seed.password}\n`);
}
await world.db.end();
