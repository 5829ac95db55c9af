/** A flow leaves as a file and comes in again. */
import fs from 'node:fs';
import { expect } from '@playwright/test';
import { accessible, signIn, test } from './people';

test('a flow is taken along as files, and one from elsewhere is settled on one page before anything is made', async ({ page }) => {
  await signIn(page, 'Ines');
  await page.goto('/flows');
  await page.getByRole('link', { name: 'Quiet deals', exact: true }).click();
  const save = async (label: RegExp): Promise<string> => {
    await page.getByRole('button', { name: 'As a file' }).click();
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('menuitem', { name: label }).click()]);
    return download.path();
  };
  const text = fs.readFileSync(await save(/^Flow text/), 'utf8');
  expect(text).toMatch(/^flow "Quiet deals"\nabout deal\n/);
  expect(fs.readFileSync(await save(/^Picture/), 'utf8')).toMatch(/^<svg /);
  expect(
    fs
      .readFileSync(await save(/^Bundle/))
      .subarray(0, 2)
      .toString(),
  ).toBe('PK');

  await page.goto('/flows/from-file');
  await accessible(page);
  await page.getByLabel('Flow file').setInputFiles({ name: 'photo.race', mimeType: 'text/plain', buffer: Buffer.from([0xff, 0xd8, 0x00]) });
  await expect(page.getByRole('alert').filter({ hasText: 'photo.race is neither flow text (UTF-8) nor a bundle' })).toBeVisible();

  const foreign = text.replace(/tell owner/g, 'tell "Field crew"').replace('flow "Quiet deals"', 'flow "Deals from elsewhere"');
  expect(foreign).toContain('Field crew');
  await page.getByLabel('Flow file').setInputFiles({ name: 'elsewhere.race', mimeType: 'text/plain', buffer: Buffer.from(foreign) });
  await expect(page.getByText('1 name is left open')).toBeVisible();
  await expect(page.getByRole('list').filter({ hasText: 'Field crew' })).toBeVisible();
  await accessible(page);
  await page.getByRole('combobox', { name: 'What is taken for addressee Field crew' }).click();
  await page.getByRole('option', { name: '“north”, which is here' }).click();
  await expect(page.getByText('✓ everything it names is settled')).toBeVisible();
  await expect(page.getByLabel('Its text')).toContainText('tell "north"');
  await page.getByRole('textbox', { name: 'Its name here' }).fill(`Deals from elsewhere ${Date.now()}`);
  await page.getByRole('button', { name: 'Make this flow as a draft' }).click();
  await expect(page.getByText('not live yet')).toBeVisible();
  await expect(page.getByRole('list', { name: 'Lines of the flow' })).toContainText('Tell north');
});
