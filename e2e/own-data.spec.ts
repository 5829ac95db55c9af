/** Another list and another folder of sites, given by file, API and MILLRACE_WEB_DIRS without touching code. */
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { expect } from '@playwright/test';
import { startWeb } from '../src/standins/web';
import { test } from './people';

test('a folder of other company sites is served beside the demo’s, by host name', async ({ request }) => {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'sites-'));
  fs.mkdirSync(path.join(folder, 'other-grower.example'));
  fs.writeFileSync(path.join(folder, 'other-grower.example', 'index.html'), '<p>We have 2.5 ha of heated glass.</p>');
  const web = await startWeb(['demo/web', folder]);
  const page = async (host: string): Promise<number> =>
    (await request.get(`http://127.0.0.1:${web.port}/`, { headers: { host } })).status();
  expect(await page('other-grower.example')).toBe(200);
  expect(await page('oakmere-glass.example')).toBe(200);
  expect(await page('nobody.example')).toBe(404);
  await web.close();
  fs.rmSync(folder, { recursive: true });
});

test('a list of 3,000 rows with other headings is taken in by the API', async ({ request }) => {
  const headers = { authorization: `Bearer ${process.env.E2E_TOKEN ?? ''}` };
  const rows = Array.from(
    { length: 3000 },
    (_, i) => `Person${i % 60}\tLast${i}\tp${i}@list${i % 700}.example\tFirm ${i % 700} Ltd\t${(i % 40) / 10} ha`,
  );
  const uploaded = await request.post('/api/v1/imports?name=other.tsv', {
    headers: { ...headers, 'content-type': 'text/csv' },
    data: ['Given\tSurname\tContact address\tEmployer\tGlass', ...rows].join('\n'),
  });
  expect(uploaded.status()).toBe(201);
  const preview = (await uploaded.json()) as { import: { id: string }; columns: { target: string }[]; counts: Record<string, number> };
  expect(preview.columns.map((column) => column.target)).toEqual([
    'person.first_name',
    'person.last_name',
    'person.email',
    'company.name',
    'company.heated_area',
  ]);
  await request.post(`/api/v1/imports/${preview.import.id}/start`, { headers, data: {} });
  await expect
    .poll(
      async () => ((await (await request.get(`/api/v1/imports/${preview.import.id}`, { headers })).json()) as { state: string }).state,
      { timeout: 90_000 },
    )
    .toBe('done');
  const done = (await (await request.get(`/api/v1/imports/${preview.import.id}`, { headers })).json()) as {
    counts: Record<string, number>;
    doneRows: number;
  };
  expect(done.doneRows).toBe(3000);
  expect((done.counts.new ?? 0) + (done.counts.known ?? 0) + (done.counts.perhaps ?? 0)).toBe(3000);
});
