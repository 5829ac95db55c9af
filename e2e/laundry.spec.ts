/** The whole way in another trade, whose world is data alone: list in, research, score, message, approval, mail, answer, stop. */
import { expect } from '@playwright/test';
import { accessible, signIn, test } from './people';

const TOKEN = process.env.E2E_LAUNDRY_TOKEN ?? '';
const MAIL = process.env.E2E_LAUNDRY_MAIL ?? '';
test.use({ baseURL: process.env.E2E_LAUNDRY_URL ?? '' });
test.describe.configure({ mode: 'serial' });

test('a list comes in, sites are read, records scored, messages written, approved, sent and answered; plans stop', async ({ page }) => {
  test.setTimeout(300_000);
  const headers = { authorization: `Bearer ${TOKEN}` };
  const get = async <T>(path: string): Promise<T> => (await (await page.request.get(`/api/v1${path}`, { headers })).json()) as T;
  await signIn(page, 'Keziah');
  await page.getByRole('link', { name: 'Sources' }).click();
  await page.getByLabel('List file').setInputFiles('demo/laundry/lists/open-day-2026.csv');
  await expect(page.getByRole('combobox', { name: 'Weekly tonnage is' })).toHaveText('company · tonnes a week');
  await expect(page.getByRole('combobox', { name: 'Laundry is' })).toHaveText('company · name');
  await accessible(page);
  await page.getByRole('combobox', { name: 'Flow to start' }).click();
  await page.getByRole('option', { name: /Open-day guests/ }).click();
  await page.getByRole('button', { name: /^Take in \d+$/ }).click();
  await expect(page.getByText('Taken in: 60 rows')).toBeVisible({ timeout: 60_000 });

  // What the site says is on the record with its words.
  await expect.poll(async () => (await get<{ items: unknown[] }>('/reviews')).items.length, { timeout: 90_000 }).toBeGreaterThan(10);
  await page.goto('/records?kind=companies&where=' + encodeURIComponent('tonnes_week >= 80 t and recovered_water = true'));
  await page.getByRole('link', { name: 'Harbour Linen Services' }).click();
  await page.getByRole('button', { name: /^Source of tonnes a week: site/ }).click();
  await expect(page.locator('.fact .quote').first()).toContainText('85 tonnes of hotel linen a week');
  await accessible(page);

  // A message rests on a fact of this trade, in this firm's own words.
  await page.goto('/');
  const review = page.locator('[data-kind=review]').first();
  if ((await review.getByRole('button', { expanded: true }).count()) === 0) await review.getByRole('button').first().click();
  await expect(review.getByText('What it rests on')).toBeVisible();
  await expect(review).toContainText(/newest line|t a week|recovered water/);
  await accessible(page);
  const { items } = await get<{ items: { id: string }[] }>('/reviews');
  for (const { id } of items) await page.request.post(`/api/v1/reviews/${id}/decision`, { headers, data: { does: 'approve' } });
  await page.request.post('/api/v1/clock', { headers, data: { byMs: 4 * 86_400_000 } });
  await expect.poll(async () => (await get<{ target: string | null }>('/clock')).target, { timeout: 150_000, intervals: [500] }).toBeNull();
  const counts = (await (await page.request.get(`${MAIL}/counts`)).json()) as { taken: number; twice: number };
  expect(counts.taken).toBeGreaterThan(10);
  expect(counts.twice).toBe(0);
  await page.goto('/');
  await expect(page.locator('[data-kind=reply]').first()).toBeVisible({ timeout: 60_000 });
  await page.goto('/messages');
  await expect(page.getByText('answered', { exact: true }).first()).toBeVisible();
});
