/** Mailboxes, calendars and applications in the real interface, with real mail and calendar servers. */
import { expect } from '@playwright/test';
import { accessible, signIn, test } from './people';

test.describe.configure({ mode: 'serial' });

test('a mailbox is connected: looked into first, then switched on, and its mails come in', async ({ page }) => {
  await signIn(page, 'Ines');
  await page.getByRole('link', { name: 'Sources' }).click();
  await page.getByRole('link', { name: 'connect a mailbox' }).click();
  await expect(page.getByRole('button', { name: 'Switch it on' })).toBeDisabled();
  await page.getByRole('textbox', { name: 'What flows call it' }).fill('Second office');
  await page.getByRole('textbox', { name: 'Mail server (IMAP)' }).fill('imap.thornwick.example');
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('office@thornwick.example');
  await page.getByRole('textbox', { name: 'Password' }).fill('wrong');
  await page.getByRole('button', { name: 'Look without taking in' }).click();
  await expect(page.getByText('imap.thornwick.example refuses the name or the password')).toBeVisible();
  await page.getByRole('textbox', { name: 'Password' }).fill('glasshouse');
  await page.getByRole('textbox', { name: 'Only about' }).fill('offer');
  await page.getByRole('button', { name: 'Look without taking in' }).click();
  await expect(page.getByRole('row', { name: /Wilma Achterberg/ })).toContainText('stays as it lies; one like it is taken in');
  await page.getByRole('combobox', { name: 'Begin' }).click();
  await page.getByRole('option', { name: 'with what lies there' }).click();
  await page.getByRole('button', { name: 'Look without taking in' }).click();
  const seen = page.getByRole('region', { name: 'What lies there' });
  await expect(seen.getByRole('row', { name: /Wilma Achterberg: Offer for two houses/ })).toContainText('is taken in');
  await expect(seen.getByRole('row', { name: /Wilma Achterberg: Offer for two houses/ })).not.toContainText('stays');
  await expect(seen.getByRole('row', { name: /Jonna Frisk/ })).toContainText('is left alone: a machine sent it');
  await expect(seen.getByRole('row', { name: /Pim Terlouw/ })).toContainText('is left alone: it is an answer');
  await accessible(page);
  await page.getByRole('button', { name: 'Switch it on' }).click();
  await expect(page).toHaveURL(/sources\/watched\/[0-9a-f]/);
  await expect(page.getByRole('link', { name: 'Wilma Achterberg' })).toBeVisible({ timeout: 40_000 });
  await accessible(page);
  await page.getByRole('link', { name: 'Wilma Achterberg' }).click();
  await expect(page.getByText('Taken in from mailbox Second office')).toBeVisible();
});

test('a calendar shows whom of the meetings ahead it would take in, and the dossier is ready before the call', async ({ page }) => {
  await signIn(page, 'Ines');
  await page.getByRole('link', { name: 'Sources' }).click();
  await page.getByRole('link', { name: 'Sales calendar' }).click();
  await page.getByRole('button', { name: 'Look without taking in' }).click();
  const seen = page.getByRole('region', { name: 'What lies there' });
  await expect(seen.getByRole('row', { name: /palm house/ })).toContainText('Imke Saarland, Col Braithwaite');
  await expect(seen.getByRole('row', { name: /Monday round/ }).first()).toContainText('nobody from outside');
  await page.getByRole('button', { name: 'back to what came in' }).click();
  await page.getByRole('switch').click();
  await expect(page.getByRole('link', { name: 'Ruth Penhaligon' })).toBeVisible({ timeout: 40_000 });
  await accessible(page);
  await page.getByRole('link', { name: 'Ruth Penhaligon' }).click();
  await expect(page.getByText(/dossier made/)).toBeVisible({ timeout: 40_000 });
  await page.getByRole('link', { name: 'Dossier', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'What we asked' })).toBeVisible();
});

test('somebody applies with a CV, is read, and stands among the applications with what the papers say', async ({ page }) => {
  await page.goto('/f/work-with-us');
  await accessible(page);
  // Nobody types faster: what is sent sooner is taken for a machine's.
  await page.waitForTimeout(2_000);
  await page.getByRole('radio', { name: 'Commissioning technician' }).check();
  await page.getByRole('textbox', { name: /Your name/ }).fill('Solène Marchadour');
  await page.getByRole('textbox', { name: /Your e-mail/ }).fill('solene.marchadour@courrielle.example');
  await page.getByLabel(/Your CV/).setInputFiles('demo/applications/cv-marchadour.pdf');
  await page.getByLabel(/may keep my papers/).check();
  await page.getByRole('button', { name: 'Send my application' }).click();
  await expect(page.getByText('Dagny Holm reads every application')).toBeVisible();

  await signIn(page, 'Dagny');
  await page.getByRole('link', { name: 'Openings' }).click();
  const row = page.getByRole('row', { name: /Solène Marchadour/ });
  await expect(row).toContainText('BTS Électrotechnique', { timeout: 40_000 });
  await expect(row).toContainText('French (native), English (fluent), Spanish (B1)');
  await expect(row.getByRole('combobox')).toHaveText('Read', { timeout: 40_000 });
  await accessible(page);
  await row.getByRole('combobox').click();
  await page.getByRole('option', { name: 'Talk' }).click();
  await expect(row.getByRole('combobox')).toHaveText('Talk');
  await row.getByRole('link', { name: 'dossier' }).click();
  await expect(page.getByRole('heading', { name: 'What their papers say' })).toBeVisible();
  await accessible(page);
});

test('what is screened out says why, and is let through by hand', async ({ page }) => {
  await page.goto('/f/project-enquiry');
  await page.waitForTimeout(2_000);
  await page.getByLabel(/nursery called/).fill('Meadow Grow');
  await page.getByLabel(/web site/).fill('westray-gardens.example');
  await page.getByLabel('no', { exact: true }).check();
  await page.getByRole('button', { name: 'Go on' }).click();
  await page.getByLabel(/have in mind/).fill('A climate computer for one small house, before the summer.');
  await page.getByRole('button', { name: 'Go on' }).click();
  await page.getByLabel(/Your name/).fill('Jim Fastnet');
  await page.getByLabel(/Your e-mail/).fill('jim@tenminutepost.example');
  await page.getByLabel('by e-mail').check();
  await page.getByLabel(/may keep this/).check();
  await page.getByRole('button', { name: 'Send to Thornwick' }).click();
  await expect(page.getByText('Thank you')).toBeVisible();
  await signIn(page, 'Ines');
  await page.getByRole('link', { name: /^Flows( \d+)?$/ }).click();
  await page.getByRole('link', { name: 'Grower enquiries' }).click();
  await expect(page).toHaveURL(/flows\/[0-9a-f-]{36}/);
  await page.goto(`${page.url()}/trips`);
  await expect(page.getByText(/screened out: disposable mailbox/)).toBeVisible({ timeout: 40_000 });
  await page.getByRole('link', { name: 'Jim Fastnet' }).first().click();
  await page.getByRole('button', { name: 'Let through' }).click();
  await expect(page).toHaveURL(/\/trips$/);
  await expect(page.getByText('Jim Fastnet')).toHaveCount(2, { timeout: 40_000 });
});
