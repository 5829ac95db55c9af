/** What protects: the policy of every page, a hostile paper through a public form, what is set aside, audit, sessions, two at one record. */
import { strToU8, zipSync } from 'fflate';
import { expect, test, type Page } from '@playwright/test';
import { accessible, api, signIn, TOKEN } from './people';

test('scripts, handlers and styles that were brought into a page do nothing', async ({ page }) => {
  await signIn(page, 'Ines');
  const told: string[] = [];
  page.on('console', (message) => told.push(message.text()));
  const brought =
    '<div id="brought"><img src="/nothing" onerror="window.hit=1"><a href="javascript:window.hit=2">x</a></div><style>#brought{outline:9px solid red}</style>' +
    '<script>window.hit=3</script><script src="data:text/javascript,window.hit=4"></script><base href="https://evil.example/">';
  // As if a value had been written into the page as it is.
  await page.route('**/records', async (route) => {
    const response = await route.fetch();
    await route.fulfill({ response, body: (await response.text()).replace('</body>', `${brought}</body>`) });
  });
  await page.goto('/records');
  await expect(page.getByRole('heading', { name: 'Records' })).toBeVisible();
  await page.locator('#brought a').evaluate((link: HTMLElement) => link.click());
  await page.waitForTimeout(500);
  expect(await page.evaluate(() => (window as unknown as { hit?: number }).hit)).toBeUndefined();
  expect(await page.locator('#brought').evaluate((node) => getComputedStyle(node).outlineWidth)).not.toBe('9px');
  expect(told.filter((text) => /Content Security Policy/.test(text)).length).toBeGreaterThan(3);
  // The page itself still works.
  await page.getByRole('link', { name: 'Settings' }).click();
  await expect(page.getByRole('heading', { name: 'Settings' })).toBeVisible();
});

test('nobody may frame a page, and a form only who is named', async ({ page, request }) => {
  const policy = async (path: string): Promise<string> => (await request.get(path)).headers()['content-security-policy'] ?? '';
  expect(await policy('/sign-in')).toContain("frame-ancestors 'none'");
  expect(await policy('/f/project-enquiry')).toContain("frame-ancestors 'none'");
  await signIn(page, 'Ines');
  const { items } = await api<{ items: { id: string; name: string }[] }>(page, '/forms');
  await page.goto(`/sources/forms/${items.find((form) => form.name === 'Project enquiry')?.id ?? ''}`);
  await page.getByRole('tab', { name: 'Where it stands' }).click();
  const sites = page.getByRole('textbox', { name: 'Sites that may show the form' });
  await sites.fill('www.thornwick.example/contact');
  await sites.blur();
  await expect(sites).toHaveValue('https://www.thornwick.example');
  await page.getByRole('button', { name: 'Keep changes' }).click();
  await expect(page.getByText('Kept: the public page shows it as it is now.')).toBeVisible();
  expect(await policy('/f/project-enquiry')).toContain('frame-ancestors https://www.thornwick.example;');
});

const wordFile = (body: string): Uint8Array =>
  zipSync({
    '[Content_Types].xml': strToU8('<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"/>'),
    'word/document.xml': strToU8(
      `<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>${body}</w:body></w:document>`,
    ),
  });

test('a paper that unpacks to more than is read is kept with its reason, and everything goes on', async ({ page }) => {
  await page.goto('/f/work-with-us');
  await page.waitForTimeout(2_000);
  await page.getByRole('radio', { name: 'Commissioning technician' }).check();
  await page.getByRole('textbox', { name: /Your name/ }).fill('Bertil Ullmark');
  await page.getByRole('textbox', { name: /Your e-mail/ }).fill('bertil.ullmark@courrielle.example');
  const bomb = wordFile(`<w:p><w:r><w:t>${'x'.repeat(70 * 1024 * 1024)}</w:t></w:r></w:p>`);
  expect(bomb.length).toBeLessThan(384 * 1024);
  await page.getByLabel(/Your CV/).setInputFiles({ name: 'cv.docx', mimeType: 'application/octet-stream', buffer: Buffer.from(bomb) });
  await page.getByRole('checkbox', { name: /Thornwick may keep my papers/ }).check();
  await page.getByRole('button', { name: 'Send my application' }).click();
  await expect(page.getByText(/Dagny Holm reads every application/)).toBeVisible();
  await signIn(page, 'Ines');
  const { items } = await api<{ items: { id: string; name: string }[] }>(page, '/forms');
  await page.goto(`/sources/forms/${items.find((form) => form.name === 'Work with us')?.id ?? ''}`);
  await page.getByRole('tab', { name: /What came in/ }).click();
  await expect(page.getByText('Bertil Ullmark').first()).toBeVisible();
  await expect(page.getByText('this document unpacks to more than 64 MB').first()).toBeVisible();
});

test('a mail that cannot be read is set aside with its reason; dropped, and taken back', async ({ page }) => {
  await signIn(page, 'Ines');
  const { items } = await api<{ items: { id: string; name: string }[] }>(page, '/watched');
  const box = items.find((door) => door.name === 'Office mailbox');
  await page.goto(`/sources/watched/${box?.id ?? ''}`);
  await page.getByRole('switch').click();
  await expect(async () => {
    expect((await api<{ items: unknown[] }>(page, '/set-aside')).items.length).toBeGreaterThan(0);
  }).toPass({ timeout: 60_000 });
  await page.goto('/sources');
  await page.getByRole('link', { name: /\d set aside/ }).click();
  const plans = page.getByRole('button', { name: /Plans of the three new houses.*Office mailbox/ });
  await expect(plans).toContainText('too large to be read: more than 12 MB');
  await accessible(page);
  // mail that is still being set aside moves the list: what is chosen is what is dropped
  await expect(async () => {
    await plans.click();
    await expect(page.getByRole('heading', { name: /Plans of the three new houses/ })).toBeVisible({ timeout: 1000 });
  }).toPass();
  await page.getByRole('button', { name: 'Drop it' }).click();
  await expect(page.getByText(/Dropped: .*Plans of the three new houses/)).toBeVisible();
  await expect(plans).toHaveCount(0);
  await page.getByRole('button', { name: 'take that back' }).click();
  await expect(plans).toBeVisible();
});

test('the audit is read by owner and builder, and by nobody else', async ({ page }) => {
  await signIn(page, 'Ruud');
  await page.getByRole('link', { name: 'Settings' }).click();
  await page.getByRole('link', { name: 'Audit' }).click();
  await expect(page.getByRole('row', { name: /Ruud Vermaat-Osei signed in/ }).first()).toBeVisible();
  await accessible(page);
  await page.getByRole('textbox', { name: 'Find in the audit' }).fill('Office mailbox');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row', { name: /connected a mailbox name: Office mailbox/ })).toContainText('imap.thornwick.example:993');
  await signIn(page, 'Tomasz');
  await page.goto('/audit');
  await expect(page.getByText('The audit is read by the owner and the builder.')).toBeVisible();
});

test('one’s own sessions are seen and ended', async ({ page, browser }) => {
  const elsewhere = await browser.newPage();
  await signIn(elsewhere, 'Yusuf');
  await signIn(page, 'Yusuf');
  await page.goto('/account');
  await expect(page.getByText('✓ this one')).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'End all other sessions' }).click();
  await expect(page.getByText(/sessions? ended\./)).toBeVisible();
  await elsewhere.goto('/records');
  await expect(elsewhere).toHaveURL(/sign-in/);
  await elsewhere.close();
});

/** Changes a company as somebody else would. */
const change = (page: Page, id: string, values: Record<string, string>) =>
  page.request.patch(`/api/v1/companies/${id}`, { headers: { authorization: `Bearer ${TOKEN}` }, data: { values } });

test('two people at one value: who saves second sees the first’s and decides', async ({ page }) => {
  await signIn(page, 'Ines');
  const { items } = await api<{ items: { id: string; city: string | null }[] }>(page, '/companies?limit=1');
  const id = items[0]?.id ?? '';
  await change(page, id, { city: 'Hull' });
  await page.goto(`/records/companies/${id}`);
  await page.getByRole('button', { name: 'Hull', exact: true }).click();
  const field = page.getByRole('textbox', { name: /New value of/ });
  await field.fill('York');
  await change(page, id, { city: 'Beverley' });
  await field.press('Enter');
  await expect(page.getByText(/made it “Beverley” meanwhile/)).toBeVisible();
  await page.getByRole('button', { name: 'put mine' }).click();
  await expect(page.getByRole('button', { name: 'York', exact: true })).toBeVisible();
});
