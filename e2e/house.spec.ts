/** A workspace is set up in the browser: somebody asked in, a team with turns, a mailbox that is checked, a token; days off. */
import { expect } from '@playwright/test';
import { Secret, TOTP } from 'otpauth';
import { accessible, signIn, test } from './people';

test('somebody is asked in, takes turns in a team, and is let go again', async ({ page, browser, baseURL }) => {
  await signIn(page, 'Ruud');
  await page.goto('/settings/people');
  await accessible(page);
  const form = page.getByRole('form', { name: 'Ask somebody in' });
  await form.getByRole('textbox', { name: 'E-mail of somebody new' }).fill('piet@thornwick.example');
  await form.getByRole('textbox', { name: 'What they do' }).fill('sales, west');
  await form.getByRole('button', { name: 'Ask in' }).click();
  const link = (await page.getByRole('status').locator('code').textContent()) ?? '';
  expect(new URL(link).pathname).toMatch(/^\/join\/\S{20,}$/);

  // The one who was asked comes in by the link, on a machine of their own.
  const theirs = await browser.newContext({ baseURL: baseURL ?? '' });
  const door = await theirs.newPage();
  await door.goto(new URL(link).pathname);
  await expect(door.getByText('Ruud Vermaat-Osei asks you in as rep. You sign in with piet@thornwick.example.')).toBeVisible();
  await accessible(door);
  await door.getByRole('textbox', { name: 'your name' }).fill('Piet Bos');
  await door.getByLabel('a password').fill('password12');
  await door.getByRole('button', { name: 'Come in' }).click();
  await expect(door.getByText('one of the first passwords anybody tries')).toBeVisible();
  await door.getByLabel('a password').fill('three wet gates');
  await door.getByRole('button', { name: 'Come in' }).click();
  await expect(door.getByRole('heading', { name: 'Desk', level: 1 })).toBeVisible();

  await page.goto('/settings/teams');
  await page.getByRole('textbox', { name: 'Name of a new team' }).fill('west');
  await page.getByRole('button', { name: 'Make team' }).click();
  const west = page.getByRole('region', { name: 'west' });
  for (const name of ['Piet Bos', 'Lucía Ferrer Mas']) {
    await west.getByRole('combobox', { name: 'add to west' }).click();
    await page.getByRole('option', { name }).click();
    await expect(page.getByText(`${name} is in west now.`)).toBeVisible();
  }
  await expect(west).toContainText('next: Piet Bos');
  await west.getByRole('button', { name: 'Piet Bos later' }).click();
  await expect(west).toContainText('next: Lucía Ferrer Mas');
  await accessible(page);
  await west.getByRole('button', { name: 'Remove' }).click();
  await expect(west).toHaveCount(0);

  await page.goto('/settings/people');
  await page.getByRole('button', { name: 'Piet Bos' }).click();
  const piet = page.getByRole('complementary', { name: 'Piet Bos' });
  await piet.getByRole('textbox', { name: 'away' }).fill('2026-12-21 to 2026-12-31');
  await piet.getByRole('textbox', { name: 'away' }).blur();
  await expect(page.getByText('Turns pass them by on these days.')).toBeVisible();
  await piet.getByRole('button', { name: 'Let go' }).click();
  await expect(page.getByText('Piet Bos cannot come in any more.')).toBeVisible();
  await door.goto('/');
  await expect(door.getByRole('button', { name: 'Sign in' })).toBeVisible();
  await theirs.close();
});

test('a mailbox is made, checked step by step, and says what to do; a token does no more than it may', async ({ page, request }) => {
  await signIn(page, 'Ruud');
  await page.goto('/settings/mailboxes');
  await page.getByRole('button', { name: 'Check', exact: true }).click();
  await expect(page.getByText('it took a letter from sales@thornwick.example to sales@thornwick.example')).toBeVisible();
  await page.getByRole('button', { name: 'Add a mailbox' }).click();
  const form = page.getByRole('form', { name: 'Mailbox' });
  await form.getByRole('textbox', { name: 'name', exact: true }).fill('South mailbox');
  await form.getByRole('textbox', { name: 'writes from' }).fill('south@thornwick.example');
  await form.getByRole('textbox', { name: 'server' }).fill('127.0.0.1');
  await form.getByRole('textbox', { name: 'port' }).fill('1');
  await accessible(page);
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText('South mailbox is kept')).toBeVisible();
  await page.getByRole('button', { name: 'Check', exact: true }).click();
  await expect(page.getByText('nothing answers at that port')).toBeVisible();
  await expect(page.getByRole('navigation', { name: 'Groups of settings' })).toContainText('1 of 2 does not send');
  await form.getByRole('combobox', { name: 'mails leave by' }).click();
  await page.getByRole('option', { name: 'the relay' }).click();
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByRole('navigation', { name: 'Groups of settings' })).not.toContainText('does not send');

  await page.goto('/settings/tokens');
  const tokens = page.getByRole('form', { name: 'Make a token' });
  await tokens.getByRole('textbox', { name: 'What the token is for' }).fill('wall board');
  await tokens.getByRole('button', { name: 'Make token' }).click();
  const token = (await page.getByRole('status').locator('code').textContent()) ?? '';
  const headers = { authorization: `Bearer ${token}` };
  expect((await request.get('/api/v1/people?limit=1', { headers })).status()).toBe(200);
  expect((await request.put('/api/v1/workspace', { headers, data: {} })).status()).toBe(403);
  await accessible(page);
  await page.getByRole('button', { name: 'End wall board' }).click();
  await expect(page.getByText('wall board opens nothing any more.')).toBeVisible();
  expect((await request.get('/api/v1/people?limit=1', { headers })).status()).toBe(401);
});

test('the workspace: a day off is added and taken away; whoever may not change sees how it stands', async ({ page }) => {
  await signIn(page, 'Ines');
  await page.goto('/settings');
  await page.getByRole('textbox', { name: 'A day off, as year-month-day' }).fill('2027-04-02');
  await page.getByRole('button', { name: 'Add a day off' }).click();
  await expect(page.getByText('Fri 2 Apr 2027 is off.')).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Fri 2 Apr 2027 is a working day' }).click();
  await expect(page.getByText('Fri 2 Apr 2027 is a working day again.')).toBeVisible();
  await page.goto('/settings/mailboxes');
  await expect(page.getByText('Mailboxes and their passwords are an owner’s.')).toBeVisible();
  await page.goto('/settings/tokens');
  await expect(page.getByText('an owner makes and ends them')).toBeVisible();
});

test('a second factor is set up with a phone, asked for at the door, and switched off', async ({ page }) => {
  await signIn(page, 'Dagny');
  await page.goto('/account');
  const factor = page.getByRole('region', { name: 'Second factor' });
  await factor.getByRole('button', { name: 'Set it up' }).click();
  await expect(factor.getByAltText('Code to photograph with the phone')).toBeVisible();
  await accessible(page);
  const key = ((await factor.locator('code').textContent()) ?? '').replaceAll(' ', '');
  const codeAt = (halfMinutes: number): string =>
    new TOTP({ secret: Secret.fromBase32(key) }).generate({ timestamp: Date.now() + halfMinutes * 30_000 });
  await factor.getByRole('textbox', { name: 'The code it shows' }).fill(codeAt(-1));
  await factor.getByRole('button', { name: 'Take it into use' }).click();
  await expect(factor.getByRole('list', { name: 'Recovery codes' }).getByRole('listitem')).toHaveCount(10);
  const recovery = (await factor.getByRole('listitem').first().textContent()) ?? '';
  await factor.getByRole('button', { name: 'I have kept them' }).click();
  await expect(factor.getByText('10 recovery codes left')).toBeVisible();

  await page.getByRole('button', { name: 'Sign out everywhere' }).click();
  // A page that has just been given hears no click yet.
  await expect(async () => {
    await page.getByRole('button', { name: /Dagny/ }).click({ timeout: 5_000 });
    await expect(page.getByRole('textbox', { name: 'Code' })).toBeVisible({ timeout: 10_000 });
  }).toPass({ timeout: 90_000 });
  await page.getByRole('textbox', { name: 'Code' }).fill('000000');
  await page.getByRole('button', { name: 'Go in' }).click();
  await expect(page.getByText('the code is not right')).toBeVisible();
  await accessible(page);
  await page.getByRole('textbox', { name: 'Code' }).fill(recovery);
  await page.getByRole('button', { name: 'Go in' }).click();
  await expect(page.getByRole('heading', { name: 'Desk', level: 1 })).toBeVisible();

  await page.goto('/account');
  await expect(factor.getByText('9 recovery codes left')).toBeVisible();
  await factor.getByRole('textbox', { name: 'A code' }).fill(codeAt(0));
  await factor.getByRole('button', { name: 'Switch it off' }).click();
  await expect(factor.getByRole('button', { name: 'Set it up' })).toBeVisible();
});
