/**
 * Makes an empty database usable: first texts, and an address, shown once, by which the first owner comes in. `first.ts` reads
 * `MILLRACE_WORKSPACE`, a workspace description of the same shape as the demo's, or takes the built-in starter.
 */
import { randomBytes } from 'node:crypto';
import fs from 'node:fs';
import { readConfig } from '../config';
import { firstAddress } from '../access/people-here';
import { isSeeded, seedWorkspace, workspaceSeedSchema } from '../workspace/seed';
import starter from './starter.json';
import { makeWorld } from './world';

const config = readConfig();
const world = makeWorld(config, 'millrace-first');
if (!(await isSeeded(world))) {
  const described: unknown = config.workspaceFile === null ? starter : JSON.parse(fs.readFileSync(config.workspaceFile, 'utf8'));
  const password = randomBytes(9).toString('base64url');
  const seed = workspaceSeedSchema.parse({ startsAt: new Date().toISOString(), password, ...(described as object) });
  await seedWorkspace(world, seed, { flows: seed.flows.map((file) => fs.readFileSync(file, 'utf8')), companies: [], people: [] });
  if (seed.users[0]) process.stdout.write(`Sign in as ${seed.users[0].email} with the password ${seed.password}\n`);
}
const address = await firstAddress(world);
if (address !== null) process.stdout.write(`Nobody works here yet. Come in as the owner, once, by ${address}\n`);
await world.db.end();
