/** What is kept and how it leaves; lists of many kinds; papers with words nobody sees. */
import { expect } from '@playwright/test';
import { strFromU8, unzipSync } from 'fflate';
import fs from 'node:fs';
import { accessible, api, signIn, test } from './people';

interface Listed {
  readonly items: readonly { readonly id: string; readonly name: string }[];
}

test('an owner takes everything out, sets how long things are kept, and erases somebody for good', async ({ page }) => {
  await signIn(page, 'Ruud');
  await page.goto('/settings/data');
  await accessible(page);
  const pages = page.getByRole('textbox', { name: 'Days that pages that were read are kept' });
  await pages.fill('120');
  await pages.blur();
  await expect(page.getByText('Kept for 120 days: pages that were read.')).toBeVisible();
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Take everything out' }).click()]);
  const files = unzipSync(new Uint8Array(fs.readFileSync(await download.path())));
  expect(Object.keys(files)).toEqual(
    expect.arrayContaining(['people.csv', 'companies.csv', 'facts.csv', 'library.json', 'flows/Grower enquiries.race']),
  );
  expect(strFromU8(files['people.csv'] ?? new Uint8Array())).toContain('Álvaro Montoro');

  const [person] = (await api<Listed>(page, '/people?search=Montoro')).items;
  await page.goto(`/records/people/${person?.id ?? ''}`);
  await page.getByRole('link', { name: 'Their data' }).click();
  await expect(page.getByText('Erasing takes away')).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: /^\d+ facts$/ })).toBeVisible();
  await accessible(page);
  const form = page.getByRole('form', { name: 'Erase them' });
  await form.getByRole('textbox').fill('Somebody Else');
  await form.getByRole('button', { name: 'Erase for good' }).click();
  await expect(page.getByText('write their name as it stands: Álvaro Montoro')).toBeVisible();
  await form.getByRole('textbox').fill('Álvaro Montoro');
  await form.getByRole('button', { name: 'Erase for good' }).click();
  await expect(page.getByText('This is the receipt')).toBeVisible();
  expect((await api<Listed>(page, '/people?search=Montoro')).items).toEqual([]);
});

test('who builds here erases nobody, and puts a domain and a list among those not written to', async ({ page }) => {
  await signIn(page, 'Ines');
  await page.goto('/settings/data');
  await expect(page.getByText('An owner makes copies and erases.')).toBeVisible();
  await page.goto('/settings/do-not-contact');
  await page.getByRole('textbox', { name: 'Address or domain' }).fill('@quiet-firm.example');
  await page.getByRole('button', { name: 'Put here' }).click();
  await expect(page.getByText('@quiet-firm.example', { exact: true })).toBeVisible();
  await page
    .getByLabel('List of addresses or domains')
    .setInputFiles({ name: 'asked.csv', mimeType: 'text/csv', buffer: Buffer.from('Mail,Why\nann@b-firm.example,asked\nnobody,x\n') });
  await expect(page.getByText('1 put there; row 3: no address, domain or number')).toBeVisible();
  await accessible(page);
});

test('a spreadsheet is taken in like any list: its days, its cells put together, its units', async ({ page }) => {
  await signIn(page, 'Ines');
  await page.goto('/sources');
  await page.getByLabel('List file').setInputFiles('demo/lists/kwekersdag.xlsx');
  await expect(page.getByRole('heading', { name: 'Take in a file' })).toBeVisible();
  await expect(page.getByText('4 rows · commas · UTF-8 · heading in row 3')).toBeVisible();
  await expect(page.getByText('1.85 ha')).toBeVisible();
  await accessible(page);
});

test('a list of companies alone becomes companies: counted before, taken in, found in the records', async ({ page }) => {
  await signIn(page, 'Ines');
  await page.goto('/sources');
  await page.getByLabel('List file').setInputFiles('demo/lists/mitglieder-verband.csv');
  await expect(page.getByText('new companies')).toBeVisible();
  await expect(page.getByText('neither the company’s name nor its site 1')).toBeVisible();
  await expect(page.getByLabel('Flow to start')).toHaveCount(0);
  await accessible(page);
  await page.getByRole('button', { name: /^Take in 1\d$/ }).click();
  await expect(page.getByText('Taken in: 13 rows')).toBeVisible({ timeout: 60_000 });
  await page.getByRole('link', { name: 'See the companies' }).click();
  await expect(page.getByRole('row', { name: /Kräuter Altmühl/ })).toBeVisible();
});

test('words nobody sees in a paper are shown to who reads it, and change nothing', async ({ page }) => {
  await page.goto('/f/work-with-us');
  // Nobody types faster: what is sent sooner is taken for a machine's.
  await page.waitForTimeout(2_000);
  await page.getByRole('radio', { name: 'Commissioning technician' }).check();
  await page.getByRole('textbox', { name: /Your name/ }).fill('Nora Brightwater-Adeyemi');
  await page.getByRole('textbox', { name: /Your e-mail/ }).fill('nora.ba@mailhall.example');
  await page.getByRole('textbox', { name: /When could you begin/ }).fill('1 March 2027');
  await expect(page.getByText(/Monday,? 1 March 2027/)).toBeVisible();
  await page.getByLabel(/Your CV/).setInputFiles('demo/applications/cv-brightwater.pdf');
  await page.getByLabel(/may keep my papers/).check();
  await page.getByRole('button', { name: 'Send my application' }).click();
  await expect(page.getByText('Dagny Holm reads every application')).toBeVisible();

  await signIn(page, 'Dagny');
  await page.goto('/sources');
  await page.getByRole('link', { name: 'Work with us' }).click();
  await page
    .getByRole('button', { name: /What came in/ })
    .or(page.getByRole('tab', { name: /What came in/ }))
    .click();
  await expect(page.getByText('hidden text, not read (in the colour of the paper)')).toBeVisible();
  const [nora] = (await api<Listed>(page, '/people?search=Brightwater')).items;
  const { known } = await api<{ readonly known: readonly { readonly field?: { readonly key: string }; readonly value?: unknown }[] }>(
    page,
    `/people/${nora?.id ?? ''}`,
  );
  expect(JSON.stringify(known)).not.toContain('twenty years');
  await accessible(page);
});
