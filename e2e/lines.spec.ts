/** Lines under the hand: into arms and out, dragged, copied to another flow; what the text view explains. */
import { expect, type Locator, type Page } from '@playwright/test';
import { api, signIn, test, TOKEN } from './people';

const AGAIN = String(Date.now());
const text = (name: string): string =>
  `flow "${name} ${AGAIN}"\nabout person\n\ntake in from hand\nsplit\n  when email != null\n    note "by mail"\n  else\n    note "by telephone"\nscore company with "Grower fit" as fit\nnote fit.why\n`;

async function open(page: Page, name: string): Promise<{ readonly id: string; readonly lines: Locator }> {
  const made = await page.request.post('/api/v1/flows', { headers: { authorization: `Bearer ${TOKEN}` }, data: { text: text(name) } });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`/flows/${id}`);
  return { id, lines: page.getByRole('list', { name: 'Lines of the flow' }) };
}
const draftOf = async (page: Page, id: string): Promise<string> =>
  (await api<{ draftText: string }>(page, `/flows/${id}`)).draftText.replace(/ #\w+/g, '');
/** Chooses a row by its left edge: its words may be parts that open an editor. */
const choose = (lines: Locator, row: number): Promise<void> =>
  lines
    .locator('[data-mark]')
    .nth(row)
    .click({ position: { x: 8, y: 12 } });

test('lines go into arms and out, are dragged, deleted and brought back', async ({ page }) => {
  await signIn(page, 'Ines');
  const { id, lines } = await open(page, 'Arms');
  await choose(lines, 6);
  await page.keyboard.press('Tab');
  await expect.poll(() => draftOf(page, id)).toContain('    note "by telephone"\n    score company with "Grower fit" as fit\nnote fit.why');
  await page.keyboard.press('Shift+Tab');
  await expect.poll(() => draftOf(page, id)).toContain('    note "by telephone"\nscore company with "Grower fit" as fit\nnote fit.why');

  // Dropped on an arm it stands first in it.
  await lines.locator('[data-mark]').nth(7).locator('.number').dragTo(lines.locator('[data-mark]').nth(2));
  await expect.poll(() => draftOf(page, id)).toContain('  when email != null\n    note fit.why\n    note "by mail"');
  await page.keyboard.press('Control+z');
  await expect.poll(() => draftOf(page, id)).toContain('score company with "Grower fit" as fit\nnote fit.why');

  await choose(lines, 6);
  await page.keyboard.press('Delete');
  await expect.poll(() => draftOf(page, id)).not.toContain('score');
  await page.keyboard.press('Control+z');
  await expect.poll(() => draftOf(page, id)).toContain('score');
});

test('a line is copied to another flow, with its arms; what is no line opens in the editor', async ({ page }) => {
  await signIn(page, 'Ines');
  const first = await open(page, 'From');
  await choose(first.lines, 1);
  await page.keyboard.press('Control+c');
  const second = await open(page, 'To');
  await choose(second.lines, 6);
  await page.keyboard.press('Control+v');
  await expect
    .poll(() => draftOf(page, second.id))
    .toContain('as fit\nsplit\n  when email != null\n    note "by mail"\n  else\n    note "by telephone"\nnote fit.why');

  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/plain', 'keep companies with 2 ha or more of glass');
    document.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
  });
  await expect(page.getByRole('textbox', { name: 'New line' })).toHaveValue('keep companies with 2 ha or more of glass');
  await expect(page.getByText('understood as this: Enter writes it')).toBeVisible();
});

test('the text view explains what stands under the pointer', async ({ page }) => {
  await signIn(page, 'Ines');
  await open(page, 'Help');
  await page.getByRole('button', { name: 'Text', exact: true }).click();
  const view = page.getByRole('textbox', { name: 'Flow text' });
  await view.getByText('"Grower fit"', { exact: true }).hover();
  await expect(page.locator('.text-help')).toContainText('scorecard Grower fit');
  await expect(page.locator('.text-help')).toContainText('bands hot from 75');
});

test('a line that asks for what has no field yet makes the field on the spot', async ({ page }) => {
  await signIn(page, 'Ines');
  const { id, lines } = await open(page, 'Asks');
  await choose(lines, 5);
  await page.keyboard.press('Enter');
  const editor = page.getByPlaceholder(/^type a line/);
  const key = `loading_bays_${AGAIN.slice(-5)}`;
  await editor.fill(`read company from website\n  ${key}: number in bays "How many loading bays have they?"`);
  await expect(page.getByText(`${key} is no field of a company yet: its answer stays with the trip.`)).toBeVisible();
  await page.getByRole('button', { name: 'Make the field (number, bays)' }).click();
  await expect(page.getByText(/is a field now: answers are kept on the record/)).toBeVisible();
  await page.getByRole('button', { name: 'Take it over' }).click();
  await expect.poll(() => draftOf(page, id)).toContain(`${key}: number in bays`);
  const { fields } = await api<{ fields: { field: { key: string; label: string; unit?: string } }[] }>(page, '/fields?record=company');
  expect(fields.find(({ field }) => field.key === key)?.field).toMatchObject({ unit: 'bays' });
});
