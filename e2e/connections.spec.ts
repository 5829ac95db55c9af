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
  await at.getByRole('combobox').click();
  await page.getByRole('option', { name: 'the e-mail' }).click();
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

test('a service that answers later is begun with its OpenAPI document; a search service finds companies for the directory', async ({
  page,
}) => {
  await signIn(page, 'Ruud');
  await page.goto('/settings/connections');
  await page.getByRole('button', { name: 'Describe another' }).click();
  const form = page.getByRole('region', { name: 'Description' });
  await form
    .getByLabel('OpenAPI document')
    .setInputFiles({ name: 'broken.json', mimeType: 'application/json', buffer: Buffer.from('{"openapi"') });
  await expect(form.getByRole('alert')).toContainText('it is neither JSON nor YAML');
  await form.getByLabel('OpenAPI document').setInputFiles('demo/connections/ferrygate.yaml');
  await form.getByRole('button', { name: /^POST \/enrichments / }).click();
  await expect(form.getByRole('textbox', { name: 'address' })).toHaveValue('https://api.ferrygate.example/v1/enrichments');
  await expect(form.getByRole('textbox', { name: 'collected at, with {ticket}' })).toHaveValue(
    'https://api.ferrygate.example/v1/enrichments/{ticket}',
  );
  await expect(form.getByRole('textbox', { name: 'the e-mail stands at' })).toHaveValue('/address');
  await form.getByRole('textbox', { name: 'name', exact: true }).fill('Second Ferrygate');
  await form.getByLabel('key, for {secret}').fill('ferrygate-demo-key');
  await form.getByRole('spinbutton', { name: 'again after, s' }).fill('1');
  const { items } = await api<{ items: { name: string; companyName: string | null }[] }>(page, '/people');
  await form.getByRole('textbox', { name: 'try it on, by name' }).fill(items.find(({ companyName }) => companyName !== null)?.name ?? '');
  await form.getByRole('button', { name: 'Ask once' }).click();
  await expect(form.getByRole('row', { name: /\/state/ })).toContainText('how far it is', { timeout: 20_000 });
  await expect(form.getByRole('row', { name: /ready/ })).toBeVisible();
  await accessible(page);
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText('Second Ferrygate is kept.')).toBeVisible();

  await page.goto('/sources/directory');
  await page.getByRole('combobox', { name: 'Ask' }).click();
  await page.getByRole('option', { name: 'Tollgate' }).click();
  await page.getByRole('combobox', { name: 'Look for' }).click();
  await page.getByRole('option', { name: 'companies' }).click();
  await page.getByRole('textbox', { name: 'Place' }).fill('Ormskirk');
  await page.getByRole('button', { name: 'Look' }).click();
  await expect(page.getByText(/companies fit/)).toBeVisible();
  await expect(page.getByRole('cell', { name: 'Ormskirk, GB' }).first()).toBeVisible();
  await accessible(page);
  await page.getByRole('textbox', { name: 'How many to take in' }).fill('2');
  await page.getByLabel('only new ones').uncheck();
  await page.getByRole('button', { name: 'Take in' }).click();
  await expect(page.getByText(/taken in/).first()).toBeVisible();
});
