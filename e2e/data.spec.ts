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
  expect(strFromU8(files['people.csv'] ?? new Uint8Array())).toContain('Piotr Zawadzki-Hale');

  const [person] = (await api<Listed>(page, '/people?search=Zawadzki')).items;
  await page.goto(`/records/people/${person?.id ?? ''}`);
  await page.getByRole('link', { name: 'Their data' }).click();
  await expect(page.getByText('Erasing takes away')).toBeVisible();
  await expect(page.getByText('1 file', { exact: true })).toBeVisible();
  await accessible(page);
  const form = page.getByRole('form', { name: 'Erase them' });
  await form.getByRole('textbox').fill('Somebody Else');
  await form.getByRole('button', { name: 'Erase for good' }).click();
  await expect(page.getByText('write their name as it stands: Piotr Zawadzki-Hale')).toBeVisible();
  await form.getByRole('textbox').fill('Piotr Zawadzki-Hale');
  await form.getByRole('button', { name: 'Erase for good' }).click();
  await expect(page.getByText('This is the receipt')).toBeVisible();
  expect((await api<Listed>(page, '/people?search=Zawadzki')).items).toEqual([]);
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
  await expect(page.getByText('1 put there; row 3: neither an address nor a domain')).toBeVisible();
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

test('words nobody sees in a paper are shown to who reads it, and change nothing', async ({ page }) => {
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
