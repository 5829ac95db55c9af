/** What stands beside the way when it has been gone: rules for answers, corrections, colleagues, records, trips; run after `way.spec.ts`, on what it left. */
import { expect } from '@playwright/test';
import { accessible, api, signIn, test } from './people';

test.describe.configure({ mode: 'serial' });

test('when answers wait is written in everyday words, tried on what came, and kept', async ({ page }) => {
  await signIn(page, 'Ines');
  await page.goto('/messages/rules');
  await expect(page.getByRole('status').filter({ hasText: 'wait for a person' })).toContainText(/\d+ wait for a person, 0 would go alone/);
  await accessible(page);
  const rule = (n: number) => page.getByRole('textbox', { name: `Rule ${n}`, exact: true });
  await rule(1).press('Enter');
  await rule(2).fill('send when sure above 0');
  await page.getByRole('button', { name: 'send when reply.sure > 0' }).click();
  await rule(2).press('Alt+ArrowUp');
  await expect(rule(1)).toHaveValue('send when reply.sure > 0');
  await expect(page.getByText('goes alone when sure > 0')).toBeVisible();
  await page.getByLabel(/a person looks all the same/).selectOption('none');
  await expect(page.getByRole('heading', { name: 'would change' })).toBeVisible();
  await expect(page.getByText('goes alone', { exact: true }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Keep these rules' }).click();
  await expect(page.getByText('version 2')).toBeVisible();
  await page.getByText('1 earlier version').click();
  await page.getByRole('button', { name: 'write it again' }).click();
  await expect(rule(1)).toHaveValue('hold the first 20');
  await page.getByRole('button', { name: 'Keep these rules' }).click();
  await expect(page.getByText('version 3')).toBeVisible();
});

test('what was understood is corrected, teaches, and is forgotten again', async ({ page }) => {
  await signIn(page, 'Ines');
  const { items } = await api<{ items: { threadId: string | null; reading: { kind: string } | null }[] }>(
    page,
    '/messages?state=received&limit=200',
  );
  const unclear = items.find((message) => message.reading?.kind === 'unclear' && message.threadId !== null);
  await page.goto(`/messages/${unclear?.threadId ?? ''}`);
  await page.getByRole('button', { name: 'not so' }).last().click();
  const form = page.getByRole('form', { name: 'What it is' });
  await form.getByLabel('it is').selectOption('not now');
  await expect(form.getByRole('status')).toContainText('of the last');
  await accessible(page);
  await form.getByRole('button', { name: 'Say it so' }).click();
  await expect(page.getByText('Corrected: the answer is drafted anew.')).toBeVisible();
  await expect(page.getByText(/Ines Okafor-Brandt says so; it was taken for unclear/)).toBeVisible();
  await page.goto('/messages/rules');
  await page.getByRole('button', { name: 'forget it' }).click();
  await expect(page.getByText('Forgotten: mails are understood without it.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'forget it' })).toHaveCount(0);
});

test('a conversation is handed to a colleague, who finds it on the desk', async ({ page }) => {
  await signIn(page, 'Ines');
  const { items } = await api<{ items: { threadId: string | null; handledAt: string | null }[] }>(
    page,
    '/messages?state=received&limit=200',
  );
  const open = items.find((message) => message.handledAt === null && message.threadId !== null);
  await page.goto(`/messages/${open?.threadId ?? ''}`);
  await expect(page.getByText('Everybody has this conversation.')).toBeVisible();
  await page.getByLabel('To whom').selectOption('Tomasz Wierzba');
  await page.getByLabel('A word with it').fill('You know their site.');
  await page.getByRole('button', { name: /^Hand over to Tomasz/ }).click();
  await expect(page.getByText('Tomasz Wierzba has this conversation: answering, you take it over.')).toBeVisible();
  await signIn(page, 'Tomasz');
  await expect(page.getByText(/handed to you ·/).first()).toBeVisible();
  await expect(page.getByText(/hands you the conversation/).first()).toBeVisible();
  await page.goto(`/messages/${open?.threadId ?? ''}`);
  await expect(page.getByText('You have this conversation.')).toBeVisible();
});

test('a record shows every value with its source, and is changed by hand without losing what was there', async ({ page }) => {
  await signIn(page, 'Ines');
  await page.getByRole('link', { name: 'Records' }).click();
  await accessible(page);
  await page.getByRole('textbox', { name: 'Search records' }).fill('oakmere');
  await expect(page).toHaveURL(/search=oakmere/);
  await page
    .getByRole('link', { name: /^Hugh|^Imogen|^Mara|^Edmund/ })
    .first()
    .click();
  await page.getByRole('button', { name: /^Source of heated area: site/ }).click();
  await expect(page.locator('.fact .quote').first()).toBeVisible();
  await page.locator('.fact').filter({ hasText: 'heated area' }).locator('.value').click();
  await page.getByRole('textbox', { name: 'New value of heated area' }).fill('lots');
  await page.keyboard.press('Enter');
  await expect(page.getByText('heated area: “lots” is not an amount in ha')).toBeVisible();
  await page.getByRole('textbox', { name: 'New value of heated area' }).fill('3,9');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^Source of heated area: by hand/ })).toBeVisible();
  await expect(page.locator('.fact').filter({ hasText: 'heated area' })).toContainText('not chosen');
  await page.getByRole('textbox', { name: 'Add a note' }).fill('Ask about the screens');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Ask about the screens')).toBeVisible();
});

test('a trip is told line by line; every other view is there and accessible', async ({ page }) => {
  await signIn(page, 'Ruud');
  await page.getByRole('link', { name: /^Flows( \d+)?$/ }).click();
  await expect(page.getByRole('columnheader', { name: 'cost in all' })).toBeVisible();
  await page.getByRole('link', { name: 'trips' }).first().click();
  await accessible(page);
  await page.getByRole('link', { name: 'following' }).click();
  await expect(page).toHaveURL(/state=following/);
  await page.locator('tbody a').first().click();
  await page.getByRole('button', { name: /of 100, hot/ }).click();
  await expect(page.getByText('of 100 points')).toBeVisible();
  await accessible(page);
  for (const [path, heading] of [
    ['/pipeline', 'Pipeline'],
    ['/duplicates', 'Duplicates'],
    ['/lookups', 'Lookups'],
    ['/messages', 'Messages'],
    ['/records?kind=companies', 'Records'],
    ['/records?where=company.heated_area%20%3E%3D%202%20ha', 'Records'],
  ] as const) {
    await page.goto(path);
    await expect(page.getByRole('heading', { name: heading, exact: true })).toBeVisible();
    await accessible(page);
  }
  await page.goto('/records/people/00000000-0000-4000-8000-000000000000');
  await expect(page.getByRole('heading', { name: 'There is nothing at this address' })).toBeVisible();
});

test('dark looks as readable as light', async ({ page }) => {
  await signIn(page, 'Ines');
  // The page may be seen a moment before it hears.
  const choice = page.getByRole('menuitem', { name: 'Dark or light' });
  await expect(async () => {
    await page.getByRole('button', { name: 'Ines Okafor-Brandt' }).click();
    await expect(choice).toBeVisible({ timeout: 1_000 });
  }).toPass();
  await choice.click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
  await expect(page.getByRole('menu')).toHaveCount(0);
  await accessible(page);
  await page.goto('/flows');
  await page.getByRole('link', { name: 'Trade-fair visitors' }).click();
  await expect(page.getByRole('list', { name: 'Lines of the flow' })).toBeVisible();
  await accessible(page);
});
