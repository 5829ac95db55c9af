/** Records coming in through doors of one's own, and what research finds out about them. */
import { expect } from '@playwright/test';
import { accessible, api, signIn, test } from './people';

test('a visitor sends the form, becomes a record with its source, and is on the way through the flow', async ({ page }) => {
  await page.goto('/f/project-enquiry');
  await page.getByLabel(/nursery called/).fill('Bellwether Growers Ltd');
  await page.getByLabel(/web site/).fill('bellwether-growers.example');
  await page.getByLabel(/How much heated/).fill('6,8');
  await expect(page.getByLabel(/Which one/)).toHaveCount(0);
  await page.getByLabel('yes', { exact: true }).check();
  await page.getByLabel(/Which one/).fill('Tessel 3');
  await accessible(page);
  await page.getByRole('button', { name: 'Go on' }).click();
  await page.getByLabel(/have in mind/).fill('New controls for two bays before spring.');
  await page
    .getByLabel(/brief or a drawing/)
    .setInputFiles({ name: 'brief.pdf', mimeType: 'application/pdf', buffer: Buffer.from('MZ no PDF') });
  await page.getByRole('button', { name: 'Go on' }).click();
  await page.getByLabel(/Your name/).fill('Callum Haddow');
  await page.getByLabel(/Your e-mail/).fill('callum');
  await page.getByLabel('by e-mail').check();
  await page.getByLabel(/may keep this/).check();
  await page.getByRole('button', { name: 'Send to Thornwick' }).click();
  await expect(page.getByText('“callum” is not an e-mail address')).toBeVisible();
  await page.getByLabel(/Your e-mail/).fill('callum.haddow@bellwether-growers.example');
  await page.getByRole('button', { name: 'Send to Thornwick' }).click();
  // The file is told by what is in it, and its page is opened again.
  await expect(page.getByText('“brief.pdf” is no PDF, whatever its name says')).toBeVisible();
  await page
    .getByLabel(/brief or a drawing/)
    .setInputFiles({ name: 'brief.pdf', mimeType: 'application/pdf', buffer: Buffer.from('%PDF-1.4 brief') });
  await page.getByRole('button', { name: 'Go on' }).click();
  await page.getByRole('button', { name: 'Send to Thornwick' }).click();
  await expect(page.getByRole('status')).toContainText('Thank you');

  await signIn(page, 'Ines');
  await page.goto('/sources');
  await page.getByRole('link', { name: 'Project enquiry' }).click();
  await page.getByRole('tab', { name: /What came in/ }).click();
  await expect(page.getByRole('link', { name: 'brief.pdf' })).toBeVisible();
  await page.getByRole('link', { name: 'Callum Haddow' }).first().click();
  await expect(page.getByText(/Taken in from form Project enquiry/).first()).toBeVisible();
  await expect(page.getByText('Grower enquiries').first()).toBeVisible();
});

test('a form is built: a question that only some are asked, seen at once as a visitor sees it', async ({ page }) => {
  await signIn(page, 'Ines');
  await page.goto('/sources');
  await page.getByRole('button', { name: 'make a form' }).click();
  await page.getByLabel('Name of the form').fill(`Call me back ${Date.now()}`);
  await page.getByRole('button', { name: 'Make it' }).click();
  await page.getByRole('button', { name: 'Add a question below “What is it about?”' }).click();
  await page.getByLabel('Question', { exact: true }).fill('Since when is it broken?');
  await page.getByLabel('Asked only when').fill('nothing_above = "x"');
  await expect(page.getByText('the condition speaks of “nothing_above”, which no question above asks')).toBeVisible();
  await page.getByLabel('Asked only when').fill('about = "broken"');
  const preview = page.getByRole('region', { name: 'How it looks' });
  await expect(preview.getByLabel('Since when is it broken?')).toHaveCount(0);
  await preview.getByLabel('What is it about?').fill('broken');
  await expect(preview.getByLabel('Since when is it broken?')).toBeVisible();
  await page.getByRole('button', { name: 'Keep changes' }).click();
  await expect(page.getByText('Kept: the public page shows it as it is now.')).toBeVisible();
  await accessible(page);
});

test('a dossier: asked for, made while one watches, every line with what it rests on', async ({ page }) => {
  await signIn(page, 'Ines');
  const { items } = await api<{ items: { id: string }[] }>(page, '/companies?search=Vossbruch');
  await page.goto(`/records/companies/${items[0]?.id ?? ''}`);
  await page.getByRole('link', { name: 'Dossier' }).click();
  await page.getByRole('button', { name: /^Research/ }).click();
  const dossier = page.getByRole('article', { name: /Dossier of/ });
  await expect(dossier).toBeVisible({ timeout: 60_000 });
  await expect(dossier.getByText('Neue Leitung bei Vossbruch').first()).toBeVisible();
  await expect(dossier.getByText('“3,1 Hektar unter Glas, beheizt, an einem Standort bei Straelen.”').first()).toBeVisible();
  await accessible(page);
  // One value is looked for again at their site, from the record itself.
  await page.goto(`/records/companies/${items[0]?.id ?? ''}`);
  await page.getByRole('button', { name: /Source of heated area/ }).click();
  await page.getByRole('button', { name: 'check at their site now' }).click();
  await expect(page.getByText('their site says 3.1 ha')).toBeVisible();
  await page.goBack();
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'PDF' }).click()]);
  expect(file.suggestedFilename()).toMatch(/^Gärtnerei Vossbruch GmbH .*\.pdf$/);
});

test('the directory: counted and looked at before anything is taken in', async ({ page }) => {
  await signIn(page, 'Ines');
  await page.goto('/sources/directory');
  await page.getByLabel('Crop').fill('gerbera');
  await page.getByRole('button', { name: 'Look' }).click();
  await expect(page.getByText(/people fit/)).toBeVisible();
  await accessible(page);
  await page.getByLabel('How many to take in').fill('1');
  await page.getByRole('button', { name: 'Take in' }).click();
  await expect(page.getByText('1 person taken in.')).toBeVisible();
});
