/** A workspace made before fields were data keeps every value, every fact and every live flow. */
import fs from 'node:fs';
import path from 'node:path';
import postgres from 'postgres';
import { catalogueOf } from '../../core/fields';
import { checkFlow, librarySchema } from '../../core/flow/check';
import { parseFlow } from '../../core/flow/syntax';
import { listFields } from '../records/store/fields';
import { loadViews } from '../records/store/records';
import { connect, migrate, type Db } from '.';

const MIGRATIONS = path.resolve('src/server/db/migrations');
const admin = postgres(process.env.TEST_DATABASE_ADMIN ?? '', { max: 1, onnotice: () => undefined });
const name = `test_${process.pid}_before_fields`;
const before = path.resolve('.local/test', name);
let db: Db;

beforeAll(async () => {
  fs.mkdirSync(before, { recursive: true });
  for (const file of fs.readdirSync(MIGRATIONS).filter((entry) => entry < '019'))
    fs.copyFileSync(path.join(MIGRATIONS, file), path.join(before, file));
  await admin.unsafe(`create database "${name}"`);
  const url = new URL(process.env.TEST_DATABASE_ADMIN ?? '');
  url.pathname = `/${name}`;
  db = connect(url.href, { max: 2, name: 'before fields' });
  await migrate(db, before);
});
afterAll(async () => {
  await db.end({ timeout: 1 });
  await admin.unsafe(`drop database "${name}" with (force)`);
  await admin.end();
  fs.rmSync(before, { recursive: true, force: true });
});

const COMPANY = '11111111-1111-4111-8111-111111111111';
const PERSON = '22222222-2222-4222-8222-222222222222';
const FLOW = '33333333-3333-4333-8333-333333333333';
const TEXT =
  'flow "Large ones"\nabout person\n\ntake in from hand\nkeep when company.heated_area >= 2 ha and company.expansion = true\nnote "large"\n';

test('values, facts and live flows are what they were', async () => {
  await db`insert into company (id, name, employees, heated_area, controls, expansion, all_year, created_at)
    values (${COMPANY}, 'Oakmere Glass', 46, 4.2, 'Tessel 4', true, null, now())`;
  await db`insert into person (id, name, company_id, service_years, driving, created_at) values (${PERSON}, 'Mara', ${COMPANY}, 4.5, true, now())`;
  await db`insert into fact (record_kind, record_id, field, value, source, source_ref, confidence, observed_at)
    values ('company', ${COMPANY}, 'heated_area', '4.2', 'site', 'x.example', 0.9, now())`;
  await db`insert into flow (id, name, draft_text, created_at, updated_at) values (${FLOW}, 'Large ones', ${TEXT}, now(), now())`;
  await db`insert into flow_version (id, flow_id, no, text, library, released_at) values (${FLOW}, ${FLOW}, 1, ${TEXT}, ${db.json({
    scorecards: [],
    templates: [],
    plans: [],
    chains: [],
    teams: [],
    pipelines: [],
    intakes: [],
    connections: [],
  })}, now())`;

  expect(await migrate(db, MIGRATIONS)).toEqual(fs.readdirSync(MIGRATIONS).filter((entry) => entry >= '019'));

  const view = (await loadViews(db, [PERSON])).get(PERSON);
  expect(view?.company).toMatchObject({ employees: 46, heated_area: 4.2, controls: 'Tessel 4', expansion: true });
  expect(view?.person).toMatchObject({ service_years: 4.5, driving: true });
  const own = await listFields(db);
  expect(catalogueOf(own).of('company', 'heated_area')).toMatchObject({ type: 'number', unit: 'ha', label: 'heated area' });
  expect(await db`select field, value from fact`).toEqual([{ field: 'heated_area', value: 4.2 }]);
  const [version] = await db<{ library: unknown; text: string }[]>`select library, text from flow_version`;
  const findings = checkFlow(parseFlow(version?.text ?? ''), librarySchema.parse(version?.library));
  expect(findings.filter((finding) => finding.severity === 'error')).toEqual([]);
});

test('an empty workspace begins without any field of a trade', async () => {
  await db.unsafe('truncate company, person, flow, library_item, field cascade');
  const empty = `${name}_2`;
  await admin.unsafe(`create database "${empty}"`);
  const url = new URL(process.env.TEST_DATABASE_ADMIN ?? '');
  url.pathname = `/${empty}`;
  const fresh = connect(url.href, { max: 1, name: 'empty' });
  try {
    await migrate(fresh, MIGRATIONS);
    expect(await listFields(fresh)).toEqual([]);
  } finally {
    await fresh.end({ timeout: 1 });
    await admin.unsafe(`drop database "${empty}" with (force)`);
  }
});
