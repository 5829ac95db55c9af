/** A sign-in service: people come in by it, and a mailbox is opened by it once and then writes without a password. */
import { expect } from '@playwright/test';
import { accessible, signIn, test } from './people';

test('a mailbox is signed in at a service and sends; a wrong description is told before it is kept', async ({ page }) => {
  test.setTimeout(180_000);
  await signIn(page, 'Ruud');
  await page.goto('/settings/sign-in');
  await page.getByRole('button', { name: 'Describe another' }).click();
  const form = page.getByRole('form', { name: 'Sign-in service' });
  await form.getByRole('textbox', { name: 'name', exact: true }).fill('Elsewhere');
  await form.getByRole('textbox', { name: 'its address' }).fill('http://accounts.elsewhere.example');
  await expect(form.getByText(/without https anybody on the way/)).toBeVisible();
  await form.getByRole('textbox', { name: 'its address' }).fill('https://accounts.elsewhere.example');
  await form.getByRole('textbox', { name: 'what it calls Millrace' }).fill('nobody');
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText(/accounts\.elsewhere\.example does not answer as OpenID Connect has it/)).toBeVisible();
  await accessible(page);

  await page.goto('/settings/mailboxes');
  await page.getByRole('button', { name: 'Add a mailbox' }).click();
  const box = page.getByRole('form', { name: 'Mailbox' });
  await box.getByRole('textbox', { name: 'name', exact: true }).fill('Office');
  await box.getByRole('textbox', { name: 'writes from' }).fill('office@thornwick.example');
  await box.getByRole('textbox', { name: 'server' }).fill('smtp.quayside.example');
  await box.getByRole('textbox', { name: 'signs in as' }).fill('office@thornwick.example');
  await box.getByRole('combobox', { name: 'opens by' }).click();
  await page.getByRole('option', { name: 'Quayside' }).click();
  await expect(box.getByLabel('password', { exact: true })).toHaveCount(0);
  await box.getByRole('button', { name: 'Keep' }).click();
  await expect(box.getByText('office@thornwick.example has not been signed in at Quayside yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Check' }).click();
  await expect(page.getByText(/nobody has signed in as office@thornwick\.example at Quayside yet/)).toBeVisible();
  await accessible(page);

  // The service's own page; another account than the mailbox's is said to be another.
  await box.getByRole('link', { name: 'Sign it in' }).click();
  await expect(page.getByText('Asked for: openid email mail.read mail.send')).toBeVisible();
  await page.getByRole('link', { name: /Lucía/ }).click();
  await expect(page.getByText(/was signed in there, not the account of the mailbox/)).toBeVisible();
  await page.goto('/settings/mailboxes');
  await page.getByRole('button', { name: 'Office' }).click();
  await box.getByRole('link', { name: 'Sign it in' }).click();
  await page.getByRole('link', { name: /The office mailbox/ }).click();
  await expect(page.getByText('office@thornwick.example is signed in. Check the mailbox that opens by it.')).toBeVisible();
  await expect(page.getByRole('row', { name: /office@thornwick\.example .* opens/ })).toBeVisible();
  await accessible(page);

  await page.goto('/settings/mailboxes');
  await page.getByRole('button', { name: 'Office' }).click();
  await page.getByRole('button', { name: 'Check' }).click();
  await expect(page.getByText('signed in as office@thornwick.example')).toBeVisible();
  await expect(page.getByText('smtp.quayside.example:465 answers, encrypted')).toHaveCount(0);
  await expect(page.getByText('smtp.quayside.example:465 answers')).toBeVisible();
  await expect(page.getByRole('row', { name: /Office/ }).getByText('sends', { exact: true })).toBeVisible();
  // What the domain says of it, and a key that it does not know yet.
  await expect(page.getByText('smtp.quayside.example (192.0.2.7) may send for thornwick.example.')).toBeVisible();
  await page.getByRole('button', { name: 'Make a key to sign with' }).click();
  await expect(page.getByText(/^mr\w{6}\._domainkey\.thornwick\.example$/)).toBeVisible();
  await page.getByRole('button', { name: 'Check' }).click();
  await expect(page.getByText(/thornwick\.example does not know the key mr\w{6} yet, so nothing is signed with it/)).toBeVisible();
  await accessible(page);

  // Signed out here it opens nothing any more.
  await page.goto('/settings/sign-in');
  await page
    .getByRole('row', { name: /office@thornwick/ })
    .getByRole('button', { name: 'Sign out' })
    .click();
  await expect(page.getByText('office@thornwick.example is signed out here.')).toBeVisible();
});

test('people come in by a service; who goes back there stays at the door', async ({ page }) => {
  await page.goto('/sign-in');
  await page.getByRole('link', { name: 'Come in by Quayside' }).click();
  await page.getByRole('link', { name: 'Nobody: go back' }).click();
  await expect(page.getByText(/did not let you in, or you left it/)).toBeVisible();
  await accessible(page);
  await page.getByRole('link', { name: 'Come in by Quayside' }).click();
  await page.getByRole('link', { name: /Tomasz/ }).click();
  await expect(page.getByRole('heading', { name: 'Desk' })).toBeVisible();
  await expect(page.getByText('Tomasz Wierzba', { exact: true }).first()).toBeVisible();
});
