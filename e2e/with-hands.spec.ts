/** Touches that people do: a call is written, put on the axis of a plan by dragging, laid out on the desk on its day and done by one key. */
import { expect, type Page } from '@playwright/test';
import { personaOf } from '../src/standins/personas';
import { accessible, api, signIn, test, TOKEN } from './people';

const AGAIN = String(Date.now());
/** How somebody at an address behaves hangs on the address alone: this one never answers. */
const SAID = { yes: [], price: [], away: [], unsubscribe: [], later: [], elsewhere: [] };
const SILENT =
  Array.from({ length: 100 }, (_, i) => `odile${AGAIN}.${i}@oakmere-glass.example`).find(
    (address) => personaOf(address, new Map(), SAID).kind === 'silent',
  ) ?? '';
const headers = { authorization: `Bearer ${TOKEN}` };
async function post<A>(page: Page, path: string, data: object): Promise<A> {
  const answer = await page.request.post(`/api/v1${path}`, { headers, data });
  expect(answer.ok(), await answer.text()).toBe(true);
  return (await answer.json()) as A;
}
async function daysLater(page: Page, days: number): Promise<void> {
  await post(page, '/clock', { byMs: days * 86_400_000 });
  await expect
    .poll(async () => (await api<{ target: string | null }>(page, '/clock')).target, { timeout: 100_000, intervals: [400] })
    .toBeNull();
}

test('a call is written, dragged to its day, laid out on the desk and done by a key', async ({ page }) => {
  test.setTimeout(240_000);
  await signIn(page, 'Ines');
  await page.goto('/messages/texts');
  await page.getByRole('textbox', { name: 'Name of a new text' }).fill(`Ask for the week ${AGAIN}`);
  await page.getByRole('button', { name: 'Begin' }).click();
  await page.getByRole('combobox', { name: 'written for' }).click();
  await page.getByRole('option', { name: 'Call' }).click();
  await page.getByRole('textbox', { name: 'what it is about' }).fill('Which week suits?');
  await page.getByRole('textbox', { name: 'words' }).fill('Ask {first_name or "them"} which week suits for a visit.');
  await page.getByRole('button', { name: 'Keep version 2' }).click();
  await expect(page.getByText('Version 2 is kept.')).toBeVisible();

  await page.goto('/messages/plans');
  await page.getByRole('textbox', { name: 'Name of a new plan' }).fill(`By hand ${AGAIN}`);
  await page.getByRole('button', { name: 'Begin' }).click();
  await page.getByRole('combobox', { name: 'Text of touch 1' }).click();
  await page.getByRole('option', { name: 'Second look' }).click();
  await page.getByRole('button', { name: 'Add a touch' }).click();
  await page.getByRole('combobox', { name: 'Text of touch 2' }).click();
  await page.getByRole('option', { name: `Ask for the week ${AGAIN} · call` }).click();
  const touch = page.getByRole('button', { name: new RegExp(`^Ask for the week ${AGAIN}, call on working day`) });
  await expect(touch).toHaveAccessibleName(/working day 4$/);
  await expect(page.getByRole('region', { name: 'For one reader' }).getByRole('row')).toHaveCount(2);
  // Dragged three quarters of the way back: the axis shows twelve days.
  const lane = touch.locator('..');
  const { width } = (await lane.boundingBox()) ?? { width: 0 };
  await touch.dragTo(lane, { sourcePosition: { x: 8, y: 12 }, targetPosition: { x: width / 12, y: 16 } });
  await expect(page.getByRole('spinbutton', { name: 'Working day of touch 2' })).toHaveValue('1');
  await accessible(page);
  await page.getByRole('button', { name: 'Keep version 2' }).click();
  await expect(page.getByText('Version 2 is kept.')).toBeVisible();

  const { id: flowId } = await post<{ id: string }>(page, '/flows', {
    text: `flow "Hands ${AGAIN}"\nabout person\n\ntake in from hand\nwrite email "Second look" as answer\nask "south" to approve answer\nfollow up with "By hand ${AGAIN}"\n`,
  });
  await post(page, `/flows/${flowId}/release`, {});
  const [firm] = (await api<{ items: { id: string }[] }>(page, '/companies?limit=1')).items;
  const person = await post<{ id: string }>(page, '/people', {
    values: { name: `Odile Harrow ${AGAIN}`, first_name: 'Odile', email: SILENT, phone: '+44 1632 960417' },
    companyId: firm?.id ?? null,
  });
  await post(page, `/flows/${flowId}/start`, { recordIds: [person.id] });
  const review = async () =>
    (await api<{ items: { id: string; personId: string }[] }>(page, '/reviews')).items.find((one) => one.personId === person.id);
  await expect.poll(review, { timeout: 30_000 }).toBeDefined();
  await post(page, `/reviews/${(await review())?.id ?? ''}/decision`, { does: 'approve' });
  // Time goes on only when the plan stands: a worker in haste may be slower than the clock.
  const following = async () => (await api<{ items: unknown[] }>(page, `/trips?state=following&flow=${flowId}`)).items.length;
  await expect.poll(following, { timeout: 30_000 }).toBe(1);
  await daysLater(page, 9);

  await page.goto('/');
  const row = page.locator('[data-kind=task]').filter({ hasText: `Odile Harrow ${AGAIN}` });
  const number = page.getByRole('link', { name: '+44 1632 960417' });
  // The first row stands open by itself, and a click would close it.
  await expect(row).toBeVisible();
  if (!(await number.isVisible())) await row.getByRole('button').first().click();
  await expect(number).toBeVisible();
  await expect(page.getByText('Ask Odile which week suits for a visit.')).toBeVisible();
  await accessible(page);
  await page.getByRole('textbox', { name: 'What was said' }).fill('the second week of March');
  await page.getByRole('button', { name: 'We talked' }).click();
  await expect(row).toBeHidden();

  await page.goto(`/records/people/${person.id}`);
  await expect(page.getByText('Talked on the phone, Ines Okafor-Brandt: the second week of March')).toBeVisible();
  await page.goto('/messages');
  await page
    .getByRole('link', { name: new RegExp(`Odile Harrow ${AGAIN}`) })
    .first()
    .click();
  await expect(page.getByText('We called')).toBeVisible();
  await expect(page.getByText('talked on the phone: the second week of March')).toBeVisible();
  await accessible(page);
});

test('one chooses where one is told that something waits, and it is kept', async ({ page }) => {
  await signIn(page, 'Tomasz');
  await page.goto('/account');
  const told = page.getByRole('region', { name: 'Where you are told' });
  await told.getByRole('checkbox', { name: 'by mail to tomasz@thornwick.example' }).check();
  await told.getByRole('combobox', { name: 'not before' }).click();
  await page.getByRole('option', { name: '09:00' }).click();
  await accessible(page);
  await page.reload();
  await expect(told.getByRole('checkbox', { name: /^by mail/ })).toBeChecked();
  await expect(told.getByRole('combobox', { name: 'not before' })).toHaveText('09:00');
  // Hours that end before they begin are not kept, and the page shows what is.
  await told.getByRole('combobox', { name: 'not before' }).click();
  await page.getByRole('option', { name: '20:00' }).click();
  await expect(told.getByText('the hours end before they begin')).toBeVisible();
  await expect(told.getByRole('combobox', { name: 'not before' })).toHaveText('09:00');
});
