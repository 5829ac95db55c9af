/** Several people at once: one draft edited by two, and pages that follow what happens elsewhere. */
import { expect, type APIRequestContext, type Browser, type Locator, type Page } from '@playwright/test';
import { signIn, test, TOKEN } from './people';

/** Names of its own, so that the tests can be run again on the same world. */
const AGAIN = String(Date.now());
const flowText = (name: string): string =>
  `flow "${name} ${AGAIN}"\nabout person\n\ntake in from hand\nkeep when email != null\nnote "seen"\n`;

/** One new flow, open on a page of each of two people who see each other. */
async function both(name: string, browser: Browser, request: APIRequestContext): Promise<{ readonly ines: Page; readonly ruud: Page }> {
  const made = await request.post('/api/v1/flows', { headers: { authorization: `Bearer ${TOKEN}` }, data: { text: flowText(name) } });
  expect(made.status()).toBe(201);
  const { id } = (await made.json()) as { id: string };
  const open = async (who: string): Promise<Page> => {
    const page = await (await browser.newContext()).newPage();
    await signIn(page, who);
    await page.goto(`/flows/${id}`);
    return page;
  };
  const [ines, ruud] = await Promise.all([open('Ines'), open('Ruud')]);
  await expect(ines.getByText('here too')).toBeVisible();
  await expect(ruud.getByText('Ines Okafor-Brandt here too')).toBeVisible();
  return { ines, ruud };
}
/** By its label alone: while something floats above the page, the rest has no role. */
const lines = (page: Page): Locator => page.locator('[aria-label="Lines of the flow"]');
/** Chooses a row by its left edge: its words may be parts that open an editor. */
const choose = (page: Page, row: number): Promise<void> =>
  lines(page)
    .locator('[data-mark]')
    .nth(row)
    .click({ position: { x: 8, y: 12 } });

test('two people on one draft see each other’s lines at once and lose nothing', async ({ browser, request }) => {
  const { ines, ruud } = await both('Together', browser, request);

  // Ruud has an editor open on his line while Ines changes hers: her change comes in, his is not disturbed.
  await choose(ruud, 2);
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

test('what one is typing in a line that the other changes or takes out is not lost', async ({ browser, request }) => {
  const { ines, ruud } = await both('Under the hand', browser, request);
  await choose(ruud, 2);
  await ruud.getByRole('button', { name: 'Edit this line' }).click();
  const box = ruud.getByRole('textbox', { name: 'Line 3' });
  await box.fill('note "half a thought');

  await choose(ines, 2);
  await ines.getByRole('button', { name: 'Edit this line' }).click();
  await ines.getByRole('textbox', { name: 'Line 3' }).fill('note "seen by Ines"');
  await ines.keyboard.press('Enter');
  await expect(ruud.getByText('somebody changed this line meanwhile to note "seen by Ines"')).toBeVisible();
  await expect(box).toHaveValue('note "half a thought');

  await choose(ines, 2);
  await ines.keyboard.press('Delete');
  await expect(ruud.getByText('somebody took this line out meanwhile')).toBeVisible();
  const kept = ruud.getByRole('textbox', { name: 'New line' });
  await expect(kept).toHaveValue('note "half a thought');
  await kept.press('End');
  await kept.pressSequentially(' and the rest"');
  await kept.press('Enter');
  await expect(lines(ines)).toContainText('half a thought and the rest');
});

test('a part that is being changed stays with its line while the other writes above it', async ({ browser, request }) => {
  const { ines, ruud } = await both('Moved along', browser, request);
  await lines(ruud).getByRole('button', { name: 'e-mail is known' }).click();
  const box = ruud.getByRole('textbox', { name: 'New condition' });
  await box.fill('phone != null');
  await choose(ines, 0);
  await ines.keyboard.press('n');
  await ines.getByRole('textbox', { name: 'New line' }).fill('note "a line above"');
  await ines.keyboard.press('Enter');
  await expect(lines(ruud)).toContainText('a line above');
  await box.press('Enter');
  await expect(lines(ines)).toContainText('phone is known');
  await expect(lines(ines)).toContainText('a line above');
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
  await expect(page.getByRole('link', { name: `Wilhelmina Ashdown-${AGAIN}` })).toBeVisible({ timeout: 15_000 });
});
