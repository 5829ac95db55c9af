#!/usr/bin/env node
// `npm run soak [MINUTES]`: forms, mails, postings and lists come in by every door at once, one in five made to do harm, with two
// workers. At the end every good one must have been taken and every bad one named, no process started anew, and web and
// workers must have stayed within 512 MiB. Prints its counts; exits non-zero when any of it does not hold.
import fs from 'node:fs';
import path from 'node:path';
import nodemailer from 'nodemailer';
import postgres from 'postgres';
import { strToU8, zipSync } from 'fflate';
import { freshWorld, ROOT, say, sleep } from './lib.mjs';

const MINUTES = Number(process.argv[2] ?? 10);
const MAX_MIB = 512;
const HOME = path.join(ROOT, '.local/soak');
const seed = () => {
  const { entries: _none, ...workspace } = JSON.parse(fs.readFileSync(path.join(ROOT, 'demo/workspace.json'), 'utf8'));
  const file = path.join(HOME, 'workspace.json');
  fs.writeFileSync(file, JSON.stringify(workspace));
  return file;
};
const world = await freshWorld(HOME, { seed, workers: 2, env: { MILLRACE_PROXIES: '127.0.0.1', MILLRACE_LOG: 'error' } });
const sql = postgres(world.env.DATABASE_URL, { max: 2, onnotice: () => undefined });
const sent = {};
const wrong = [];
let number = 0;
const count = (door, kind) => {
  sent[door] ??= { good: 0, bad: 0, named: 0 };
  sent[door][kind] += 1;
};
/** A caller of its own each time, as its proxy tells it. */
const from = (n) => ({ 'x-forwarded-for': `198.18.${(n >> 8) & 255}.${n & 255}` });

// --- what does harm ---
const RELS =
  '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>';
const TYPES =
  '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>';
const word = (body) =>
  Buffer.from(
    zipSync({
      '[Content_Types].xml': strToU8(TYPES),
      '_rels/.rels': strToU8(RELS),
      'word/document.xml': strToU8(
        `<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>${body}</w:body></w:document>`,
      ),
    }),
  );
const paragraph = (text) => `<w:p><w:r><w:t>${text}</w:t></w:r></w:p>`;
const BOMB = word(paragraph('x'.repeat(70 * 1024 * 1024)));
const SLOW = word(Array.from({ length: 120_000 }, (_, i) => paragraph(`line ${(i * 7919) % 99991}`)).join(''));
const LONG_LINE = word(paragraph('y'.repeat(120_000)));
const GOOD_CV = fs.readFileSync(path.join(ROOT, 'demo/applications/cv-handel.docx'));
const DIVS = `${'<div>'.repeat(60_000)}take me off${'</div>'.repeat(60_000)}`;

// --- doors ---
const stamp = async (slug) => /\\?"opened\\?":\\?"([^"\\]+)/.exec(await (await fetch(`${world.url}/f/${slug}`)).text())?.[1] ?? '';
async function form(isBad) {
  const n = ++number;
  const opened = await stamp('work-with-us');
  // Nobody types faster: what is sent sooner is taken for a machine's.
  await sleep(1_700);
  const data = new FormData();
  const kind = n % 5;
  const answers = { opening: 'Commissioning technician', name: `Soak Person ${n}`, email: `soak-${n}@soak.example`, agreed: 'yes' };
  if (isBad && kind === 0) answers.name = `Odd \u0000 ${'z'.repeat(9_000)}`;
  if (isBad && kind === 1) answers.email = '\ud800@x';
  for (const [id, value] of Object.entries(answers)) data.set(`a.${id}`, value);
  data.set('opened', opened);
  data.set('homepage_2', '');
  const cv = !isBad ? GOOD_CV : [GOOD_CV, GOOD_CV, BOMB, SLOW, LONG_LINE][kind];
  data.set('f.cv', new Blob([cv]), isBad ? 'bad\u0000.docx' : 'cv.docx');
  const answer = await fetch(`${world.url}/f/work-with-us/send`, { method: 'POST', headers: from(n), body: data });
  const said = await answer.json();
  if (answer.status >= 500) wrong.push(`form ${n}: ${answer.status} ${JSON.stringify(said)}`);
  if (!isBad) {
    count('forms', 'good');
    if (answer.status !== 201) wrong.push(`good form ${n}: ${answer.status} ${JSON.stringify(said)}`);
    return;
  }
  count('forms', 'bad');
  // Refused with words, or kept with what its paper says of itself.
  if (answer.status === 400 && (said.problems?.length > 0 || said.says)) count('forms', 'named');
  else if (answer.status === 201) {
    const [row] = await sql`select e.answers->>'cv' as cv from intake_entry e where e.raw->>'email' = ${answers.email.toWellFormed()}`;
    if (kind === 4 || /^\(.*docx: .+\)$/.test(row?.cv ?? '')) count('forms', 'named');
    else wrong.push(`bad form ${n} (${kind}) was taken without a word: ${String(row?.cv).slice(0, 80)}`);
  }
}

const mailer = nodemailer.createTransport({ host: '127.0.0.1', port: world.ports.inbound, ignoreTLS: true, pool: true, maxConnections: 2 });
async function mail(isBad) {
  const n = ++number;
  const head = `From: Soak ${n} <soak-${n}@soak.example>\r\nTo: sales@thornwick.example\r\nSubject: Soak ${n}\r\nMessage-ID: <soak-${n}@soak.example>\r\n`;
  const nested = (depth) => {
    let text = 'Content-Type: text/plain\r\n\r\nx\r\n';
    for (let i = 0; i < depth; i++) text = `Content-Type: multipart/mixed; boundary="b${i}"\r\n\r\n--b${i}\r\n${text}\r\n--b${i}--\r\n`;
    return text;
  };
  const bad = [
    () => `${head}Content-Type: text/html\r\n\r\n${DIVS}`,
    () => `${head}${nested(1_500)}`,
    () => `${head}\r\n${'x'.repeat(500_000)}`,
    () => `${head}X-Odd: ${'é'.repeat(2_000)}\r\nContent-Type: text/plain; charset=nonsense-7\r\n\r\nodd \u0000 \r\n`,
    () => `${head}Content-Type: text/plain\r\n\r\n${'> '.repeat(200_000)}`,
  ];
  const raw = Buffer.from(isBad ? bad[n % 5]() : `${head}\r\nYes, please send an offer.\r\n`);
  await mailer.sendMail({ envelope: { from: `soak-${n}@soak.example`, to: 'sales@thornwick.example' }, raw });
  count('mails', isBad ? 'bad' : 'good');
}

const hook = await world.api('POST', '/webhook-intakes', { name: 'Soak hook' });
const hookView = (await world.api('GET', '/webhook-intakes')).items.find((entry) => entry.id === hook.id);
const post = (n, body) =>
  fetch(`${world.url}/in/${hookView.slug}`, {
    method: 'POST',
    headers: { authorization: `Bearer ${hook.token}`, 'webhook-id': `soak-${n}`, ...from(n) },
    body,
  });
await post(0, JSON.stringify({ person: { name: 'First Example', email: 'first@soak.example' } }));
await world.api('PUT', `/webhook-intakes/${hook.id}`, {
  isOn: true,
  matching: [
    { path: 'person.name', target: 'person.name' },
    { path: 'person.email', target: 'person.email' },
  ],
});
async function posting(isBad) {
  const n = ++number;
  const bad = [
    () => '{',
    () => `${'['.repeat(20_000)}${']'.repeat(20_000)}`,
    () => JSON.stringify({ person: { name: 'x'.repeat(600_000) } }),
    () => '{"person":{"name":5,"email":"\\ud800"}}',
    () => JSON.stringify({ person: {} }),
  ];
  const answer = await post(
    n,
    isBad ? bad[n % 5]() : JSON.stringify({ person: { name: `Soak Poster ${n}`, email: `post-${n}@soak.example` } }),
  );
  const said = await answer.json();
  if (answer.status >= 500) wrong.push(`posting ${n}: ${answer.status}`);
  count('postings', isBad ? 'bad' : 'good');
  if (!isBad && answer.status !== 202) wrong.push(`good posting ${n}: ${answer.status} ${JSON.stringify(said)}`);
  if (isBad && ((answer.status >= 400 && said.detail) || (answer.status === 202 && said.taken === false && said.says)))
    count('postings', 'named');
}

async function list(isBad) {
  const n = ++number;
  const rows = Array.from({ length: 300 }, (_, i) => `Soak Row ${n} ${i},row-${n}-${i}@soak.example,Firm ${n} ${i}`).join('\n');
  const bad = [
    () => Buffer.from(`a,b\n"${'x'.repeat(2_000_000)}\n1,2`),
    () => Buffer.from(`${Array.from({ length: 400 }, (_, i) => `c${i}`).join(',')}\n${'1,'.repeat(399)}1`),
    () => BOMB,
    () => Buffer.alloc(3_000_000, ','),
    () => Buffer.from([0, 1, 2, 3, 4, 5, 6, 7, 8, 9]),
  ];
  const answer = await fetch(`${world.url}/api/v1/imports?name=soak-${n}.csv`, {
    method: 'POST',
    headers: { authorization: `Bearer ${world.token}`, 'content-type': 'text/csv' },
    body: isBad ? bad[n % 5]() : Buffer.from(`Name,E-mail,Company\n${rows}\n`),
  });
  const said = await answer.json();
  if (answer.status >= 500) wrong.push(`list ${n}: ${answer.status}`);
  count('lists', isBad ? 'bad' : 'good');
  if (isBad) {
    if (answer.status >= 400 && said.detail) count('lists', 'named');
    else wrong.push(`bad list ${n} was looked at as a list: ${JSON.stringify(said).slice(0, 120)}`);
    return;
  }
  if (!answer.ok) wrong.push(`good list ${n}: ${answer.status} ${said.detail}`);
  else await world.api('POST', `/imports/${said.import.id}/start`, {});
}

// --- watch ---
const watched = world.children.filter((child) => child.name !== 'stand-ins');
const peaks = new Map(watched.map((child) => [child.name, 0]));
const pids = new Map(watched.map((child) => [child.name, child.pid]));
const look = () => {
  for (const child of watched) {
    try {
      const resident = Number(/VmRSS:\s+(\d+)/.exec(fs.readFileSync(`/proc/${child.pid}/status`, 'utf8'))?.[1]) / 1024;
      peaks.set(child.name, Math.max(peaks.get(child.name), resident));
    } catch {
      wrong.push(`${child.name} is gone`);
    }
  }
};
const watching = setInterval(look, 500);

const end = Date.now() + MINUTES * 60_000;
const door = async (work, restMs) => {
  for (let turn = 1; Date.now() < end; turn++) {
    const isBad = turn % 5 === 0;
    await work(isBad).catch((error) => wrong.push(`${work.name}: ${error.message}`));
    await sleep(restMs);
  }
};
try {
  await Promise.all([
    door(form, 100),
    door(form, 150),
    door(form, 200),
    door(mail, 150),
    door(mail, 200),
    door(posting, 120),
    door(list, 4_000),
  ]);
  for (const until = Date.now() + 240_000; Date.now() < until; await sleep(500)) {
    const [busy] = await sql`select count(*)::int as n from import where state in ('queued', 'running')`;
    if (busy.n === 0) break;
  }
  const [found] = await sql`select
    (select count(*)::int from intake_entry e join intake i on i.id = e.intake_id where i.name = 'Work with us' and e.raw->>'email' like 'soak-%' and e.raw->>'name' like 'Soak Person%' and e.state = 'taken' and e.answers->>'cv' not like '(%') as forms,
    (select count(*)::int from message where direction = 'in' and from_address like 'soak-%') as mails,
    (select count(*)::int from set_aside where intake_id is null) as aside,
    (select count(*)::int from intake_entry e join intake i on i.id = e.intake_id where i.name = 'Soak hook' and e.raw->>'person.email' like 'post-%' and e.state = 'taken') as postings,
    (select count(*)::int from import where file_name like 'soak-%' and state = 'done' and (counts->>'new')::int + (counts->>'known')::int + (counts->>'perhaps')::int = 300) as lists`;
  const expect = (what, got, want) => {
    if (got < want) wrong.push(`${what}: ${got} taken of ${want}`);
  };
  expect('good forms', found.forms, sent.forms.good);
  expect('good postings', found.postings, sent.postings.good);
  expect('good lists', found.lists, sent.lists.good);
  expect('mails kept or set aside', found.mails + found.aside, sent.mails.good + sent.mails.bad);
  sent.mails.named = found.mails + found.aside - sent.mails.good;
  for (const [name, { bad, named }] of Object.entries(sent)) if (named < bad) wrong.push(`${name}: ${named} of ${bad} bad ones named`);
  for (const child of watched)
    if (child.pid !== pids.get(child.name) || child.process.exitCode !== null) wrong.push(`${child.name} was started anew`);
  for (const [name, peak] of peaks) if (peak > MAX_MIB) wrong.push(`${name} took ${Math.round(peak)} MiB`);
  say(`\nsoak of ${MINUTES} minutes`);
  for (const [name, { good, bad, named }] of Object.entries(sent))
    say(`${name.padEnd(9)} good ${good}, bad ${bad}, of those named ${named}`);
  say(
    `taken: forms ${found.forms}, mails ${found.mails} and ${found.aside} set aside, postings ${found.postings}, lists ${found.lists} of 300 rows`,
  );
  for (const [name, peak] of peaks) say(`${name.padEnd(9)} at most ${Math.round(peak)} MiB`);
} finally {
  clearInterval(watching);
  mailer.close();
  await sql.end();
  await world.stop();
}
for (const line of wrong.slice(0, 40)) say(`✕ ${line}`);
say(wrong.length === 0 ? 'everything held' : `${wrong.length} things did not hold`);
process.exit(wrong.length === 0 ? 0 : 1);
