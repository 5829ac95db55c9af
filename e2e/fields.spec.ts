/** What a business knows is made and changed in the browser: a field, its question, where it is used, and back again. */
import { expect } from '@playwright/test';
import { accessible, api, signIn, test, TOKEN } from './people';

test('a field is made, asked for, filled, found and listed; a change shows every value first and is had back', async ({ page }) => {
  await signIn(page, 'Ines');
  await page.goto('/settings');
  await page.getByRole('link', { name: /^Fields/ }).click();
  await expect(page.getByRole('heading', { name: 'Fields' })).toBeVisible();
  await expect(page.getByRole('row', { name: /heated area heated_area number, ha/ })).toContainText('scorecard');
  await accessible(page);

  const made = page.getByRole('form', { name: 'A new field' });
  await made.getByRole('textbox', { name: 'New field' }).fill('Delivery vans');
  await made.getByRole('combobox', { name: 'type' }).click();
  await page.getByRole('option', { name: 'number', exact: true }).click();
  await made.getByRole('textbox', { name: 'unit' }).fill('vans');
  await made.getByRole('textbox', { name: 'sample' }).fill('4');
  await expect(made).toContainText('“six” is 6 vans');
  await expect(made).toContainText('“several” is refused');
  await made.getByRole('button', { name: 'Add field' }).click();
  await expect(page.getByText('Delivery vans is a field now: in flows company.delivery_vans.')).toBeVisible();
  const panel = page.getByRole('complementary', { name: 'Field Delivery vans' });
  await panel.getByRole('checkbox', { name: 'a column of the list of companies' }).check();
  await panel.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('Delivery vans is changed.')).toBeVisible();
  await accessible(page);

  // A question fills it.
  await page.goto('/settings/reading');
  await page.getByRole('button', { name: 'ask one more question' }).click();
  await page.getByRole('textbox', { name: 'Name', exact: true }).last().fill('delivery_vans');
  await page.getByRole('textbox', { name: 'Kind of answer' }).last().fill('number');
  await page.getByRole('textbox', { name: 'Question', exact: true }).last().fill('How many delivery vans have they?');
  await page.getByRole('button', { name: 'Keep changes' }).click();
  await expect(page.getByRole('button', { name: 'Kept' })).toBeVisible();

  // A value by hand; a condition finds it; the list has its column.
  const { items } = await api<{ items: { id: string; name: string }[] }>(page, '/companies?limit=1');
  const [company] = items;
  await page.request.patch(`/api/v1/companies/${company?.id ?? ''}`, {
    headers: { authorization: `Bearer ${TOKEN}` },
    data: { values: { delivery_vans: 'a dozen' } },
  });
  await page.goto('/records?kind=companies&where=' + encodeURIComponent('delivery_vans >= 12 vans'));
  await expect(page.getByRole('columnheader', { name: 'Delivery vans' })).toBeVisible();
  await expect(page.getByRole('row', { name: new RegExp(company?.name ?? '?') })).toContainText('12 vans');

  // Another unit: what becomes of the value is shown before, and the change is taken back.
  await page.goto('/settings/fields');
  await page.getByRole('button', { name: 'Delivery vans' }).click();
  await panel.getByRole('textbox', { name: 'unit' }).fill('lorries');
  await panel.getByRole('button', { name: 'See what becomes of the values' }).click();
  const trial = page.getByRole('region', { name: 'What would happen' });
  await expect(trial).toContainText('1 does not fit and is kept aside');
  await accessible(page);
  await panel.getByRole('combobox', { name: 'figures that are there' }).click();
  await page.getByRole('option', { name: 'stay: the unit was wrong' }).click();
  await panel.getByRole('button', { name: 'See what becomes of the values' }).click();
  await expect(trial).toContainText('1 stays as it is');
  await trial.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('row', { name: /Delivery vans/ })).toContainText('number, lorries');
  await page.getByRole('button', { name: 'take it back' }).click();
  await expect(page.getByRole('row', { name: /Delivery vans/ })).toContainText('number, vans');
  await panel.getByRole('button', { name: 'Retire' }).click();
  await expect(page.getByText('Delivery vans is retired')).toBeVisible();
});
