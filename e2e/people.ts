/** What the tests of the interface share: signing in, asking the API, axe. */
import AxeBuilder from '@axe-core/playwright';
import { test as base, expect, type Page } from '@playwright/test';

export const TOKEN = process.env.E2E_TOKEN ?? '';

/** Every test also notices what the policy of a page refused: nothing of ours may need what it forbids. */
export const test = base.extend<{ refused: string[] }>({
  refused: [
    async ({ context }, use) => {
      const refused: string[] = [];
      context.on('console', (message) => {
        if (message.text().includes('Content Security Policy')) refused.push(`${message.page()?.url() ?? ''}: ${message.text()}`);
      });
      await use(refused);
      expect(refused).toEqual([]);
    },
    { auto: true },
  ],
});

/** Signs in as one of the demo's people and waits for the desk. */
export async function signIn(page: Page, name: string): Promise<void> {
  await page.goto('/sign-in');
  const one = page.getByRole('button', { name: new RegExp(name) });
  // A page that has just been given hears no click yet.
  await expect(async () => {
    if (await one.isVisible()) await one.click({ timeout: 5_000 });
    await expect(page.getByRole('heading', { name: 'Desk' })).toBeVisible({ timeout: 15_000 });
  }).toPass({ timeout: 90_000 });
}

/** No violation of WCAG A or AA on what is shown. A page that is just being changed may be between two titles: what stays wrong is wrong. */
export async function accessible(page: Page): Promise<void> {
  await expect(page).toHaveTitle(/./);
  let found: string[] = [];
  for (let look = 1; look <= 3; look++) {
    const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa']).analyze();
    found = violations.map((violation) => `${violation.id}: ${violation.nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`);
    if (found.length === 0) return;
    await page.waitForTimeout(1_000);
  }
  expect(found).toEqual([]);
}

export async function api<T>(page: Page, path: string): Promise<T> {
  const response = await page.request.get(`/api/v1${path}`, { headers: { authorization: `Bearer ${TOKEN}` } });
  expect(response.status()).toBe(200);
  return (await response.json()) as T;
}
