/** Trips that went wrong, flows that rest, versions that follow each other: in the real interface. */
import { expect, type Page } from '@playwright/test';
import { accessible, api, signIn, test, TOKEN } from './people';

const HOOKS = process.env.E2E_HOOKS ?? '';
const AGAIN = String(Date.now());

async function post<T>(page: Page, path: string, data: unknown): Promise<T> {
  const response = await page.request.post(`/api/v1${path}`, { headers: { authorization: `Bearer ${TOKEN}` }, data });
  expect(response.ok(), await response.text()).toBe(true);
  return (await response.json()) as T;
}
/** A live flow of these lines and as many people on their way through it. */
async function liveFlow(page: Page, name: string, lines: string, count: number): Promise<string> {
  const { id } = await post<{ id: string }>(page, '/flows', {
    text: `flow "${name} ${AGAIN}"\nabout person\n\ntake in from hand\n${lines}`,
  });
  await post(page, `/flows/${id}/release`, {});
  await start(page, id, name, count);
  return id;
}
async function start(page: Page, id: string, name: string, count: number): Promise<void> {
  const recordIds: string[] = [];
  for (let i = 0; i < count; i++) {
    const person = await post<{ id: string }>(page, '/people', { values: { first_name: `N${i}`, last_name: `${name} ${AGAIN}` } });
    recordIds.push(person.id);
  }
  await post(page, `/flows/${id}/start`, { recordIds });
}

test('a stuck group is one row on the desk and on the trips page, and is tried again as one', async ({ page }) => {
  await page.request.post(`${HOOKS}/fault`, { data: { fault: 'refuse' } });
  await signIn(page, 'Ines');
  const id = await liveFlow(page, 'Handed over', 'hand over to "Yard board"\nnote "handed over"\n', 5);
  const row = page.getByText(`Handed over ${AGAIN} · line 2 hand over`);
  await expect(row).toBeVisible({ timeout: 60_000 });
  await page.goto(`/flows/${id}/trips`);
  const groups = page.getByRole('list', { name: 'Stuck trips' });
  await expect(groups).toContainText('5 trips stuck at line 2 hand over');
  await expect(groups).toContainText('and 1 more');
  await accessible(page);
  await page.request.post(`${HOOKS}/fault`, { data: { fault: 'none' } });
  await groups.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByText('5 trips: try again.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'done 5' })).toBeVisible({ timeout: 60_000 });
  await expect(groups).toHaveCount(0);
});

test('a flow rests and goes on, what is under way moves to a newer version, and an older one is live again', async ({ page }) => {
  await signIn(page, 'Ines');
  const id = await liveFlow(page, 'Waiting', 'wait 3 days\nnote "first"\n', 2);
  await page.goto(`/flows/${id}/trips`);
  await expect(page.getByRole('link', { name: 'waiting 2' })).toBeVisible({ timeout: 40_000 });
  await page.getByRole('button', { name: 'Rest the flow' }).click();
  await expect(page.getByText('The flow rests: 2 trips wait, nothing is sent.')).toBeVisible();
  await page.getByRole('button', { name: 'Let it go on' }).click();
  await expect(page.getByText('The flow goes on; 2 trips with it.')).toBeVisible();

  // A second version: two trips are on the first one still.
  await page.goto(`/flows/${id}`);
  const lines = page.getByRole('list', { name: 'Lines of the flow' });
  await lines.getByRole('button', { name: '“first”' }).click();
  await page.getByRole('textbox', { name: 'New formula' }).fill('"second"');
  await page.keyboard.press('Enter');
  await expect(lines).toContainText('“second”');
  await page.getByRole('button', { name: 'Release …' }).click();
  await expect(page.getByRole('heading', { name: 'Release as live 2' })).toBeVisible();
  await page.getByRole('textbox', { name: 'Records to begin with' }).fill('');
  await page.getByRole('button', { name: 'Make it live' }).click();
  await expect(page.getByText('live 2', { exact: false }).first()).toBeVisible();
  await page.goto(`/flows/${id}/trips`);
  await page.getByRole('button', { name: 'Move 2 to the live version' }).click();
  await expect(page.getByText('2 trips go on with the live version; 0 finish on theirs.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'to the live version' })).toHaveCount(0);

  // Back to the first text, as a version of its own.
  await page.goto(`/flows/${id}/release`);
  await page.getByRole('button', { name: 'Return to it' }).click();
  await expect(page.getByText('live 3').first()).toBeVisible();
  // The page speaks of live 3 before it is: its heading says what a release would make.
  await expect(async () => {
    expect((await api<{ liveNo: number }>(page, `/flows/${id}`)).liveNo).toBe(3);
  }).toPass();
});
