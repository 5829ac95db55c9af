/** Several people at once: one draft edited by two, and pages that follow what happens elsewhere. */
import { expect, test } from '@playwright/test';
import { signIn, TOKEN } from './people';

/** Names of its own, so that the tests can be run again on the same world. */
const AGAIN = String(Date.now());
const NEW = `flow "Together ${AGAIN}"\nabout person\n\ntake in from hand\nkeep when email != null\nnote "seen"\n`;

test('two people on one draft see each other’s lines at once and lose nothing', async ({ browser, request }) => {
  const made = await request.post('/api/v1/flows', { headers: { authorization: `Bearer ${TOKEN}` }, data: { text: NEW } });
  const { id } = (await made.json()) as { id: string };
  const pages = await Promise.all(
    ['Ines', 'Ruud'].map(async (name) => {
      const page = await (await browser.newContext()).newPage();
      await signIn(page, name);
      await page.goto(`/flows/${id}`);
      return page;
    }),
  );
  const [ines, ruud] = pages;
  if (!ines || !ruud) throw new Error('two pages');
  await expect(ruud.getByText('Ines Okafor-Brandt here too')).toBeVisible();
  const lines = (page: typeof ines) => page.getByRole('list', { name: 'Lines of the flow' });

  // Ruud has an editor open on his line while Ines changes hers: her change comes in, his is not disturbed.
  await lines(ruud)
    .locator('[data-mark]')
    .nth(2)
    .click({ position: { x: 8, y: 12 } });
  await ruud.getByRole('button', { name: 'Edit this line' }).click();
  const box = ruud.getByRole('textbox', { name: 'Line 3' });
  await box.fill('note "seen by Ruud"');
  await lines(ines).getByRole('button', { name: 'e-mail is known' }).click();
  await ines.getByRole('textbox', { name: 'New condition' }).fill('phone != null');
  await ines.keyboard.press('Enter');
  await expect(lines(ruud)).toContainText('phone is known');
  await expect(ruud.getByText('Ines Okafor-Brandt changed 1 line just now')).toBeVisible();
  await expect(box).toHaveValue('note "seen by Ruud"');
  await box.press('Enter');
  await expect(lines(ines)).toContainText('seen by Ruud');
  await expect(lines(ines)).toContainText('phone is known');

  // Undo takes back one's own step and leaves the other's.
  await ruud.keyboard.press('Control+z');
  await expect(lines(ines)).not.toContainText('seen by Ruud');
  await expect(lines(ines)).toContainText('phone is known');

  // Redo and undo go on where the last visit left them.
  await expect(ines.getByText('draft · saved')).toBeVisible();
  await ines.reload();
  await expect(lines(ines)).toContainText('phone is known');
  await ines.keyboard.press('Control+y');
  await expect(lines(ruud)).toContainText('seen by Ruud');
  await ines.keyboard.press('Control+z');
  await ines.keyboard.press('Control+z');
  await expect(lines(ruud)).toContainText('e-mail is known');
});

test('a page follows what happens elsewhere', async ({ page, request }) => {
  await signIn(page, 'Ines');
  await page.goto('/records');
  await expect(page.getByRole('link', { name: `Wilhelmina Ashdown-${AGAIN}` })).toHaveCount(0);
  const made = await request.post('/api/v1/people', {
    headers: { authorization: `Bearer ${TOKEN}` },
    data: { values: { first_name: 'Wilhelmina', last_name: `Ashdown-${AGAIN}`, email: `w${AGAIN}@ashdown.example` } },
  });
  expect(made.status()).toBe(201);
  await expect(page.getByRole('link', { name: `Wilhelmina Ashdown-${AGAIN}` })).toBeVisible({ timeout: 8_000 });
});
