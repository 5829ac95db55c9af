/**
 * How long the server takes for every main screen on a large workspace: `pages.ts [PEOPLE]`, started by scripts/bench.mjs pages,
 * which gives it a running Millrace with the demo world. Prints a table and writes bench/pages.json.
 */
import fs from 'node:fs';
import { numberedLines, parseFlow } from '../src/core/flow/syntax';
import { api, signIn, sql, url } from './demo-world';
import { BENCH_FLOW } from './engine-flow';

const PEOPLE = Number(process.argv[2] ?? 250_000);
const TRIPS = Math.min(PEOPLE, 50_000);
const [WARM, TIMES] = [3, 30];
const BAR_MS = 150;
/** People, companies, facts, timelines and deals, made by the database. As many firms as people, every fourth with four of them. */
async function fillRecords(): Promise<void> {
  await sql`insert into company (id, name, website, city, country, custom, match_keys, created_at)
    select md5('c' || i)::uuid, 'Company ' || i, 'https://firm' || i || '.example', (array['Hessle', 'Bleiswijk', 'Almería', 'Venlo'])[1 + i % 4], (array['GB', 'NL', 'ES', 'NL'])[1 + i % 4],
      jsonb_build_object('heated_area', (i % 900) / 100.0, 'all_year', i % 3 = 0, 'controls_since', 1990 + i % 36), array['site:firm' || i || '.example'], now() - i * interval '10 seconds' from generate_series(1, ${PEOPLE}) i`;
  await sql`insert into person (id, name, first_name, last_name, job_title, email, company_id, match_keys, created_at)
    select md5('p' || i)::uuid, 'Mara ' || initcap(md5('n' || i)), 'Mara', initcap(md5('n' || i)), 'Head grower', 'p' || i || '@firm' || i / 4 || '.example', md5('c' || 1 + (i - 1) / 4)::uuid,
      array['mail:p' || i || '@firm' || i / 4 || '.example'], now() - i * interval '7 seconds' from generate_series(1, ${PEOPLE}) i`;
  await sql`insert into fact (record_kind, record_id, field, value, source, source_ref, confidence, observed_at)
    select 'person', md5('p' || i)::uuid, f, case f when 'email' then to_jsonb('p' || i || '@firm' || i / 4 || '.example') else '"Head grower"' end, 'file', 'Autumn fair', 1, now() - i * interval '7 seconds'
    from generate_series(1, ${PEOPLE}) i, unnest(array['email', 'job_title']) f`;
  await sql`insert into timeline (record_kind, record_id, at, kind, says)
    select 'person', md5('p' || i)::uuid, now() - n * interval '3 days' - i * interval '1 second', 'note', 'Met at stand ' || n from generate_series(1, ${PEOPLE}) i, generate_series(1, 4) n`;
  await sql`insert into deal (id, title, pipeline, stage, amount, company_id, person_id, stage_since, created_at)
    select md5('d' || i)::uuid, 'Company ' || i, 'Glasshouse sales', (array['Qualified', 'Meeting', 'Offer', 'Won', 'Lost'])[1 + i % 5], 1000 * (i % 90), md5('c' || i)::uuid, md5('p' || 4 * i - 3)::uuid,
      now() - (i % 40) * interval '1 day', now() - i * interval '5 minutes' from generate_series(1, ${Math.ceil(PEOPLE / 25)}) i`;
}

/** A released flow through which many have gone: most are done, some wait, some are stuck. */
async function fillFlow(text: string): Promise<string> {
  const { id } = await api<{ id: string }>('POST', '/flows', { text });
  await api('POST', `/flows/${id}/release`, {});
  const [version] = await sql<{ id: string; text: string }[]>`select id, text from flow_version where flow_id = ${id}`;
  if (!version) throw new Error('the flow is not live');
  const lines = numberedLines(parseFlow(version.text).tree.lines).map(({ line }) => ({ mark: line.mark, verb: line.step.verb }));
  const marks = lines.map((line) => line.mark);
  const verbs = lines.map((line) => line.verb);
  await sql`insert into trip (id, flow_id, version_id, person_id, intake_key, state, state_detail, at, created_at, ended_at, due_at)
    select md5(${id} || i)::uuid, ${id}, ${version.id}, md5('p' || i)::uuid, i::text, s.state, jsonb_build_object('why', 'for the bench'), i % ${marks.length}, now() - i * interval '9 seconds',
      case when s.state in ('done', 'stopped') then now() - i * interval '8 seconds' end, case when s.state = 'waiting' then now() + interval '3 days' end
    from generate_series(1, ${TRIPS}) i, lateral (select case when i % 100 = 0 then 'stuck' when i % 10 = 0 then 'waiting' when i % 3 = 0 then 'stopped' else 'done' end as state) s`;
  await sql`insert into journal (trip_id, seq, mark, verb, outcome, says, detail, cost_micro, took_ms, at)
    select md5(${id} || i)::uuid, n, (${marks}::text[])[n], (${verbs}::text[])[n],
      case when n < last then 'passed' when i % 100 = 0 then 'stuck' when i % 10 = 0 then 'waiting' when i % 3 = 0 then 'stopped' else 'passed' end,
      'did what it does', '{}', 0, 3, now() - i * interval '9 seconds' + n * interval '20 ms'
    from generate_series(1, ${TRIPS}) i, lateral (select 1 + i % ${marks.length} as last) l, generate_series(1, l.last) n`;
  // As the worker would have written down meanwhile.
  await sql`insert into line_count (flow_id, mark, outcome, trips, cost_micro, took_ms)
    select ${id}, mark, outcome, count(*), sum(cost_micro), sum(took_ms) from journal where trip_id in (select id from trip where flow_id = ${id}) group by mark, outcome`;
  return id;
}

interface Figure {
  readonly page: string;
  readonly p50: number;
  readonly p95: number;
  readonly kilobytes: number;
}
async function time(page: string, at: string, cookie: string): Promise<Figure> {
  const took: number[] = [];
  let bytes = 0;
  for (let i = 0; i < WARM + TIMES; i++) {
    const began = performance.now();
    const response = await fetch(url + at, { headers: { cookie } });
    const text = await response.text();
    if (i >= WARM) took.push(performance.now() - began);
    if (response.status !== 200) throw new Error(`${at}: ${response.status}`);
    bytes = text.length;
  }
  took.sort((a, b) => a - b);
  const share = (part: number): number => took[Math.min(took.length - 1, Math.floor(took.length * part))] ?? 0;
  return { page, p50: share(0.5), p95: share(0.95), kilobytes: bytes / 1024 };
}

const sixty = `flow "Sixty lines"\nabout person\n\ntake in from hand\n${Array.from({ length: 19 }, (_, i) => `set status = "s${i}"\nkeep when email != null\nnote "line ${i}: " + name`).join('\n')}\n`;
const began = performance.now();
await fillRecords();
const eight = await fillFlow(BENCH_FLOW);
const long = await fillFlow(sixty);
await sql`vacuum analyze`;
console.error(`filled in ${Math.round((performance.now() - began) / 1000)} s`);
const cookie = await signIn();
const [person] = await sql<{ id: string }[]>`select id from person where id = md5('p1')::uuid`;
const [company] = await sql<{ id: string }[]>`select id from company where id = md5('c1')::uuid`;
const [trip] = await sql<{ id: string }[]>`select id from trip where flow_id = ${long} limit 1`;
const where = (text: string): string => encodeURIComponent(text);
const PAGES: Readonly<Record<string, string>> = {
  desk: '/',
  people: '/records',
  'people, searched': '/records?search=firm4711',
  'people, by condition': `/records?where=${where('company.heated_area >= 8 and email != null')}`,
  companies: '/records?kind=companies',
  'companies, by an own number': `/records?kind=companies&where=${where('heated_area >= 8.95 and controls_since < 1995')}`,
  'companies, by an own number few have': `/records?kind=companies&where=${where('heated_area > 8.98')}`,
  person: `/records/people/${person?.id ?? ''}`,
  company: `/records/companies/${company?.id ?? ''}`,
  pipeline: '/pipeline',
  duplicates: '/duplicates',
  flows: '/flows',
  'workbench, 8 lines': `/flows/${eight}`,
  'workbench, 58 lines': `/flows/${long}`,
  release: `/flows/${eight}/release`,
  trips: `/flows/${eight}/trips`,
  'one trip': `/trips/${trip?.id ?? ''}`,
  messages: '/messages',
  lookups: '/lookups',
  sources: '/sources',
  settings: '/settings',
  fields: '/settings/fields',
};
const figures: Figure[] = [];
console.log(
  `${PEOPLE.toLocaleString('en-GB')} people, ${(PEOPLE * 4).toLocaleString('en-GB')} timeline rows, 2 × ${TRIPS.toLocaleString('en-GB')} trips\n\n| page | p50 | p95 | size | ≤ ${BAR_MS} ms |\n| --- | --- | --- | --- | --- |`,
);
for (const [page, at] of Object.entries(PAGES)) {
  const figure = await time(page, at, cookie);
  figures.push(figure);
  console.log(
    `| ${page} | ${Math.round(figure.p50)} ms | ${Math.round(figure.p95)} ms | ${Math.round(figure.kilobytes)} KB | ${figure.p95 <= BAR_MS ? 'yes' : 'no'} |`,
  );
}
await sql.end();
fs.writeFileSync('bench/pages.json', `${JSON.stringify({ people: PEOPLE, trips: TRIPS, figures }, null, 2)}\n`);
