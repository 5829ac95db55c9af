/** A lookup service nobody here wrote code for: described by the owner, tried on one person, asked by a chain. */
import { expect } from '@playwright/test';
import { accessible, api, signIn, test } from './people';

test('a connection is described, its answer pointed at, kept with its key, and put into a chain', async ({ page }) => {
  await signIn(page, 'Ruud');
  const { items } = await api<{ items: { name: string; companyName: string | null }[] }>(page, '/people');
  const person = items.find(({ companyName }) => companyName !== null)?.name ?? '';
  await page.goto('/settings/connections');
  await page.getByRole('button', { name: 'Describe another' }).click();
  const form = page.getByRole('region', { name: 'Description' });
  await form.getByRole('textbox', { name: 'name', exact: true }).fill('Second Pennant');
  await form.getByRole('textbox', { name: 'address' }).fill('https://api.pennant-data.example/v2/contacts?name={nam}&domain={host}');
  await expect(form.getByText(/“\{nam\}” is not known/)).toBeVisible();
  await form.getByRole('textbox', { name: 'address' }).fill('https://api.pennant-data.example/v2/contacts?name={name}&domain={host}');
  await form.getByRole('textbox', { name: 'headers, one a line' }).fill('X-Api-Key: {secret}');
  await form.getByRole('textbox', { name: 'try it on, by name' }).fill('Nobody Ofthisname');
  await form.getByRole('button', { name: 'Ask once' }).click();
  await expect(form.getByRole('alert')).toContainText('nobody on record is called “Nobody Ofthisname”');
  await form.getByRole('textbox', { name: 'try it on, by name' }).fill(person);

  // Without the key the service refuses, in words; with it, what came back is pointed at.
  await form.getByRole('button', { name: 'Ask once' }).click();
  await expect(form.getByRole('status')).toContainText('key');
  await form.getByLabel('key, for {secret}').fill('pennant-demo-key');
  await form.getByRole('button', { name: 'Ask once' }).click();
  const at = form.getByRole('row', { name: /\/data\/query\/domain/ });
  await expect(at).toBeVisible();
  await at.getByRole('button', { name: 'this is the e-mail' }).click();
  await expect(form.getByRole('textbox', { name: 'the e-mail stands at' })).toHaveValue('/data/query/domain');
  await form.getByRole('textbox', { name: 'the e-mail stands at' }).fill('/data/contacts/0/address');
  await accessible(page);
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText('Second Pennant is kept.')).toBeVisible();
  await expect(form.getByLabel('key (one is kept; type to change it)')).toBeVisible();

  await page.goto('/lookups/chains');
  await page
    .getByRole('link', { name: /Work e-mail/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Ask one more' }).click();
  await page.getByRole('combobox', { name: 'Connection 3' }).fill('Second Pennant');
  await page.getByRole('textbox', { name: 'Price of an answer of Second Pennant' }).fill('0,03');
  await page.getByRole('button', { name: 'Second Pennant earlier' }).click();
  await expect(page.getByRole('combobox', { name: 'Connection 2' })).toHaveValue('Second Pennant');
  await accessible(page);
  await page.getByRole('button', { name: 'Keep version 2' }).click();
  await expect(page.getByText('version 2', { exact: true })).toBeVisible();
  await page.goto('/settings/connections');
  await page.getByRole('button', { name: /^Second Pennant/ }).click();
  await expect(page.getByText('asked by Work e-mail').first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Remove' })).toBeHidden();
});
