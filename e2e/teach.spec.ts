/** What is known of a question: words, what does not count, examples; before and after on sites whose answer is known. */
import { expect } from '@playwright/test';
import { accessible, signIn, test } from './people';

test('a question is taught on a page, its effect is seen before it is kept, and it can be had back', async ({ page }) => {
  await signIn(page, 'Ines');
  await page.goto('/settings/reading');
  await page.locator('a[href="/settings/questions/heated_area"]').click();
  await expect(page.getByRole('heading', { name: 'How large is the area under heated glass?' })).toBeVisible();
  await page.getByRole('button', { name: /^Read \d+ sites? whose answer is known$/ }).click();
  await expect(page.getByRole('heading', { name: /^On (?:[6-9]|1\d) sites whose answer is known$/ })).toBeVisible({ timeout: 90_000 });
  await accessible(page);

  // Without its words hardly anything is found; with one of them more is: the table says so before anything is kept.
  const right = page.getByRole('region', { name: 'Sites whose answer is known' });
  await page.getByRole('textbox', { name: 'Does not count: what else is not meant' }).fill('hectares, hectare, ha, Hektar');
  await page.keyboard.press('Enter');
  await expect(page.getByText('changed, not kept')).toBeVisible();
  await expect(right.getByText(/^[1-9]\d* changed$/)).toBeVisible({ timeout: 60_000 });
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(right.getByText('0 changed')).toBeVisible({ timeout: 60_000 });

  // An answer is shown on three pages, by keyboard.
  await page.getByRole('heading', { name: 'The question', exact: true }).click();
  for (const count of [1, 2, 3]) {
    await page.keyboard.press('y');
    await expect(page.getByText(new RegExp(`^${count} examples? on ${count} sites?, not kept$`))).toBeVisible({ timeout: 60_000 });
    await expect(page.getByRole('status')).toHaveText('', { timeout: 60_000 });
    await page.keyboard.press('ArrowRight');
    await expect(page.getByText(new RegExp(`^${count + 1} of \\d+$`))).toBeVisible({ timeout: 60_000 });
    await expect(page.getByRole('status')).toHaveText('', { timeout: 60_000 });
  }
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Kept' })).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Bring back how it was' }).click();
  await expect(page.getByRole('button', { name: 'Bring back how it was' })).toBeHidden({ timeout: 60_000 });
  await accessible(page);
});
