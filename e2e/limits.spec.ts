/** What may be spent in a month: seen, set, read back, and not for everybody to change. */
import { expect } from '@playwright/test';
import { accessible, api, signIn, test } from './people';

test('a month’s budget is typed, kept, refused when it cannot be read, and an owner’s', async ({ page }) => {
  await signIn(page, 'Ruud');
  await page.goto('/settings/limits');
  const all = page.getByRole('textbox', { name: 'A month at most for everything together' });
  await all.fill('plenty');
  await expect(page.getByText('an amount such as 25 or 2.50, or nothing')).toBeVisible();
  await all.fill('40,50');
  await all.press('Enter');
  await expect(page.getByText('everything together: spends 40.50 € a month at most.')).toBeVisible();
  await expect(page.getByRole('row', { name: /^everything together/ })).toContainText('% gone');
  await accessible(page);
  const kept = await api<{ items: { kind: string; limitMicro: number | null }[] }>(page, '/budgets');
  expect(kept.items.find(({ kind }) => kind === 'all')?.limitMicro).toBe(40_500_000);
  await all.fill('');
  await all.press('Enter');
  await expect(page.getByText('everything together: has no limit.')).toBeVisible();
  // What one person does by hand in a day.
  const notes = page.getByRole('textbox', { name: 'Profile notes a day' });
  await expect(notes).toHaveValue('20');
  await notes.fill('none');
  await expect(page.getByText('a number from 1 to 999, or nothing')).toBeVisible();
  await notes.fill('15');
  await notes.press('Enter');
  await expect(page.getByText('Profile notes: 15 a day for one person at most.')).toBeVisible();
  await page.request.delete('/session', { headers: { origin: new URL(page.url()).origin } });
  await signIn(page, 'Yusuf');
  await page.goto('/settings/limits');
  await expect(all).toBeDisabled();
});
