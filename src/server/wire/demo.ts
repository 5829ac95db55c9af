/** Fills an empty database with the demo world: `demo.ts [FILE]`, where FILE is a workspace description; the token goes to .local/demo-token. */
import fs from 'node:fs';
import path from 'node:path';
import { parse } from 'csv-parse/sync';
import { readConfig } from '../config';
import { bringEntry } from '../intake/forms';
import { isSeeded, seedEntriesSchema, seedWorkspace, type CrmRow } from '../workspace/seed';
import { readSeed } from './seed-file';
import { makeWorld } from './world';

const world = makeWorld(readConfig(), 'millrace-demo');
if (!(await isSeeded(world))) {
  const seed = readSeed(process.argv[2] ?? 'demo/workspace.json');
  const rows = (file: string): CrmRow[] => parse<CrmRow>(fs.readFileSync(file), { columns: true });
  const token = await seedWorkspace(world, seed, {
    flows: seed.flows.map((file) => fs.readFileSync(file, 'utf8')),
    companies: seed.crm ? rows(seed.crm.companies) : [],
    people: seed.crm ? rows(seed.crm.people) : [],
    deals: seed.crm?.deals ? rows(seed.crm.deals) : [],
    confirmed: seed.crm?.confirmed ? rows(seed.crm.confirmed) : [],
  });
  for (const entry of seed.entries ? seedEntriesSchema.parse(JSON.parse(fs.readFileSync(seed.entries, 'utf8'))) : []) {
    const files = Object.entries(entry.files).map(([question, file]) => ({
      question,
      name: path.basename(file),
      bytes: new Uint8Array(fs.readFileSync(file)),
    }));
    const answer = await bringEntry(world, entry.form, { raw: entry.raw, files });
    if (!answer.ok) throw new Error(`an entry of ${entry.form} is not right: ${JSON.stringify(answer.problems)}`);
  }
  const tokenFile = process.argv[3] ?? '.local/demo-token';
  fs.mkdirSync('.local', { recursive: true });
  fs.writeFileSync(tokenFile, `${token}\n`, { mode: 0o600 });
  process.stdout.write('demo world loaded\n');
}
await world.db.end();
