/** Fills an empty database with the demo world: `demo.ts [FILE]`, where FILE is a workspace description; the token goes to .local/demo-token. */
import fs from 'node:fs';
import { parse } from 'csv-parse/sync';
import { readConfig } from '../config';
import { isSeeded, seedWorkspace, workspaceSeedSchema, type CrmRow } from '../usecases/seed';
import { makeWorld } from './world';

const world = makeWorld(readConfig(), 'millrace-demo');
if (!(await isSeeded(world))) {
  const seed = workspaceSeedSchema.parse(JSON.parse(fs.readFileSync(process.argv[2] ?? 'demo/workspace.json', 'utf8')));
  const rows = (file: string): CrmRow[] => parse<CrmRow>(fs.readFileSync(file), { columns: true });
  const token = await seedWorkspace(world, seed, {
    flows: seed.flows.map((file) => fs.readFileSync(file, 'utf8')),
    companies: seed.crm ? rows(seed.crm.companies) : [],
    people: seed.crm ? rows(seed.crm.people) : [],
    deals: seed.crm?.deals ? rows(seed.crm.deals) : [],
  });
  const tokenFile = process.argv[3] ?? '.local/demo-token';
  fs.mkdirSync('.local', { recursive: true });
  fs.writeFileSync(tokenFile, `${token}\n`, { mode: 0o600 });
  process.stdout.write('demo world loaded\n');
}
await world.db.end();
