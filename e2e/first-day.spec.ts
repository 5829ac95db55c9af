/**
 * The first day of a business of its own, typed in the browser from an empty workspace to the answer that stops a plan: every click
 * is counted and printed. Mails leave by a real mail server (Exim) and lie in real mailboxes (Dovecot), the seller's and the reader's;
 * sites and the lookup service are those of the stand-ins.
 */
import { expect, type Page } from '@playwright/test';
import { ImapFlow } from 'imapflow';
import nodemailer from 'nodemailer';
import { accessible, test } from './people';

const ADDRESS = process.env.E2E_EMPTY_ADDRESS ?? '';
const PORTS = JSON.parse(process.env.E2E_EMPTY_PORTS ?? '{}') as Readonly<Record<string, number>>;
const PASSWORDS = JSON.parse(process.env.E2E_EMPTY_ACCOUNTS ?? '{}') as Readonly<Record<string, string>>;
const SELLER = 'wenna@hartsmead.example';
const READER = 'j.fern@fernley-propagators.example';
const CLICKS_MAX = 150;
test.use({ baseURL: ADDRESS === '' ? '' : new URL(ADDRESS).origin });

/** Counts clicks of the pointer, not those that a key makes, over all pages of the context. */
async function countClicks(page: Page): Promise<() => number> {
  let clicks = 0;
  await page.context().exposeFunction('countedClick', () => {
    clicks += 1;
  });
  await page.context().addInitScript(() => {
    document.addEventListener(
      'click',
      (event) => {
        if (event.isTrusted && event.detail > 0) (window as unknown as { countedClick: () => void }).countedClick();
      },
      true,
    );
  });
  return () => clicks;
}

interface Received {
  readonly messageId: string;
  readonly from: string;
  readonly subject: string;
  readonly text: string;
}
/** What lies in the reader's mailbox. */
async function readersBox(): Promise<readonly Received[]> {
  const auth = { user: READER, pass: PASSWORDS[READER] ?? '' };
  const client = new ImapFlow({ host: '127.0.0.1', port: PORTS.imap ?? 0, secure: false, auth, logger: false });
  await client.connect();
  const lock = await client.getMailboxLock('INBOX');
  try {
    const mails: Received[] = [];
    for await (const mail of client.fetch('1:*', { envelope: true, source: true }))
      mails.push({
        messageId: mail.envelope?.messageId ?? '',
        from: mail.envelope?.from?.[0]?.address ?? '',
        subject: mail.envelope?.subject ?? '',
        text: mail.source?.toString('utf8') ?? '',
      });
    return mails;
  } finally {
    lock.release();
    await client.logout();
  }
}
/** The reader answers from their mail program. */
async function answer(mail: Received, text: string): Promise<void> {
  const transport = nodemailer.createTransport({
    host: '127.0.0.1',
    port: PORTS.relay ?? 0,
    ignoreTLS: true,
    auth: { user: READER, pass: PASSWORDS[READER] ?? '' },
  });
  await transport.sendMail({
    from: READER,
    to: SELLER,
    subject: `Re: ${mail.subject}`,
    inReplyTo: mail.messageId,
    references: mail.messageId,
    text,
  });
}

/** Fills a gap of the letter by keyboard and waits until it stands there. */
async function fill(page: Page, gap: RegExp, text: string, stands: RegExp): Promise<void> {
  await page.getByRole('button', { name: gap }).click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'The letter' })).toContainText(stands);
  await expect(page.getByRole('region', { name: 'The letter' }).getByRole('textbox')).toHaveCount(0);
}

/** Types a line of a flow below the one before it. */
async function line(page: Page, text: string): Promise<void> {
  const box = page.getByRole('textbox', { name: 'New line' });
  if (!(await box.isVisible())) await page.keyboard.press('n');
  await box.fill(text);
  await page.keyboard.press('Enter');
  await expect(box).toBeHidden();
}

test('from an empty workspace to an answer that stops a plan, all of it typed', async ({ page, browser }) => {
  test.setTimeout(420_000);
  page.setDefaultTimeout(30_000);
  const clicks = await countClicks(page);

  await page.goto(ADDRESS);
  await page.getByLabel('your e-mail').fill(SELLER);
  await page.getByLabel('your name').fill('Wenna Tregarth');
  await page.getByLabel('a password').fill('a lantern by the mill pond');
  await page.keyboard.press('Enter');

  // The letter.
  await expect(page.getByText('What every flow, form and message may take as known of us')).toBeVisible();
  await accessible(page);
  await fill(page, /^our name/, 'Hartsmead Ties', /We are Hartsmead Ties/);
  await fill(page, /^our place/, 'Falmouth, United Kingdom', /in United Kingdom/);
  await fill(page, /^what we sell/, 'plant ties and stakes', /plant ties and stakes/);
  await fill(page, /^to whom/, 'growers under glass', /growers under glass/);
  await page.getByRole('button', { name: 'an address of ours' }).click();
  const box = page.getByRole('form', { name: 'Mailbox' });
  await box.getByLabel('name', { exact: true }).fill('Sales mailbox');
  await box.getByLabel('writes from').fill(SELLER);
  await box.getByLabel('server', { exact: true }).fill('mail.hartsmead.example');
  await box.getByLabel('signs in as').fill(SELLER);
  await box.getByLabel('password', { exact: true }).fill(PASSWORDS[SELLER] ?? '');
  await box.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByRole('link', { name: SELLER })).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: /^a colleague/ }).click();
  await page.keyboard.type('Ivo Castell, ivo@hartsmead.example');
  await page.keyboard.press('Enter');
  const link = page.locator('.letter-link');
  await expect(link).toBeVisible();
  const theirs = (await link.textContent()) ?? '';
  await fill(page, /^the stages of a deal/, 'Asked → Quoted → Ordered, Lost', /Asked → Quoted → Ordered → Lost/);
  await fill(page, /^what we want to know/, 'how much heated glass they have, number in ha', /heated glass/);
  await fill(page, /^what we want to know/, 'whether they plan an expansion', /plan an expansion/);
  await fill(page, /^what we want to know/, 'which controller they use', /controller/);
  await fill(page, /^what a good one has/, 'at least 2 ha of heated glass', /at least 2 ha of heated glass/);
  await expect(page.getByText(/^7 of 10/)).toBeVisible();
  await accessible(page);

  // The colleague comes in, and they take turns.
  const other = await browser.newContext();
  const door = await other.newPage();
  await door.goto(theirs);
  await door.getByLabel('a password').fill('seven grey geese');
  await door.keyboard.press('Enter');
  await expect(door.getByRole('navigation').first()).toBeVisible();
  await other.close();
  await page.goto('/settings/teams');
  await page.getByRole('textbox', { name: 'Name of a new team' }).fill('sales');
  await page.keyboard.press('Enter');
  const team = page.getByRole('region', { name: 'sales' });
  for (const name of ['Ivo Castell', 'Wenna Tregarth']) {
    await team.getByRole('combobox', { name: 'add to sales' }).click();
    await page.getByRole('option', { name }).click();
    await expect(page.getByText(`${name} is in sales now.`)).toBeVisible();
  }

  // A text of one's own; the plan that is there writes by the mailbox just made.
  await page.goto('/messages/texts');
  await page.getByRole('button', { name: 'Copy First contact' }).click();
  await expect(page.getByRole('heading', { name: 'First contact, a copy', level: 1 })).toBeVisible();
  await page
    .getByRole('textbox', { name: 'words' })
    .fill(
      'Hello {first_name or "there"},\n\nwith {company.heated_glass} ha of heated glass, would a box of ties to try suit you?\n\nKind regards\n{sender.name}',
    );
  await page.getByRole('button', { name: 'Keep version 2' }).click();
  await expect(page.getByText(/Version 2 is kept/)).toBeVisible();

  await page.goto('/messages/plans');
  await page.getByRole('button', { name: 'Copy First contact' }).click();
  await expect(page.getByRole('heading', { name: 'First contact, a copy', level: 1 })).toBeVisible();
  await page.getByRole('combobox', { name: 'Text of touch 1' }).click();
  await page.getByRole('option', { name: 'First contact, a copy' }).click();
  await page.getByRole('button', { name: 'Keep version 2' }).click();
  await expect(page.getByText(/Version 2 is kept/)).toBeVisible();

  // Answers are read where they come in.
  await page.goto('/sources');
  await page.getByRole('link', { name: 'connect a mailbox' }).click();
  await page.getByRole('textbox', { name: 'What flows call it' }).fill('Answers');
  await page.getByRole('textbox', { name: 'Mail server (IMAP)' }).fill('mail.hartsmead.example');
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill(SELLER);
  await page.getByRole('textbox', { name: 'Password' }).fill(PASSWORDS[SELLER] ?? '');
  await page.getByRole('button', { name: 'Look without taking in' }).click();
  await expect(page.getByRole('region', { name: 'What lies there' })).not.toContainText('Look before');
  await page.getByRole('button', { name: 'Switch it on' }).click();
  await expect(page).toHaveURL(/sources\/watched\/[0-9a-f]/);

  // A list as it lies.
  await page.goto('/sources');
  await page.getByLabel('List file').setInputFiles({
    name: 'growers.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      'Name,E-mail,Company,Website\nJude Fern,j.fern@fernley-propagators.example,Fernley Propagators Ltd,fernley-propagators.example\nOrla Fenwick,kit@fenwick-orchids.example,Fenwick Orchids,fenwick-orchids.example\n',
    ),
  });
  await page.getByRole('button', { name: 'Take in 2' }).click();
  await expect(page.getByText('Taken in: 2 rows')).toBeVisible({ timeout: 60_000 });

  // A lookup service that nobody here knows, described, tried on one of them, and put into a chain.
  await page.goto('/settings/connections');
  await page.getByRole('button', { name: /^Describe/ }).click();
  const form = page.getByRole('region', { name: 'Description' });
  await form.getByRole('textbox', { name: 'name', exact: true }).fill('Pennant');
  await form.getByRole('textbox', { name: 'address' }).fill('https://api.pennant-data.example/v2/contacts?name={name}&domain={host}');
  await form.getByRole('textbox', { name: 'headers, one a line' }).fill('X-Api-Key: {secret}');
  await form.getByRole('textbox', { name: 'try it on, by name' }).fill('Jude Fern');
  await form.getByLabel('key, for {secret}').fill('pennant-demo-key');
  await form.getByRole('button', { name: 'Ask once' }).click();
  await expect(form.getByRole('row', { name: /\/data\/query\/domain/ })).toBeVisible();
  await form.getByRole('textbox', { name: 'the e-mail stands at' }).fill('/data/contacts/0/address');
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText('Pennant is kept.')).toBeVisible();
  await page.goto('/lookups/chains');
  await page.getByRole('textbox', { name: 'Name of a new lookup chain' }).fill('Work e-mail');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Work e-mail', level: 1 })).toBeVisible();
  await page.getByRole('textbox', { name: 'Price of an answer of Pennant' }).fill('0,03');
  await page.getByRole('button', { name: 'Keep version 2' }).click();
  await expect(page.getByText('version 2', { exact: true })).toBeVisible();

  // The flow, typed line by line.
  await page.goto('/flows');
  await page.getByRole('button', { name: 'New flow' }).click();
  await expect(page).toHaveURL(/flows\/.+/);
  await expect(page.getByRole('list', { name: 'Lines of the flow' })).toContainText('Take in from hand');
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'Line 1' }).fill('take in from file "growers"');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Line 1' })).toBeHidden();
  await line(page, 'look up email with "Work e-mail"');
  await line(page, 'keep when email != null and company.website != null');
  await line(page, 'read company from website as research\n  heated_glass: number in ha "How much heated glass do they have?"');
  await line(page, 'score company with "A good one" as fit');
  await line(page, 'keep when fit.band = "good"');
  await line(page, 'write email "First contact, a copy" as opener');
  await line(page, 'ask "sales" to approve opener within 2 days');
  await line(page, 'follow up with "First contact, a copy"');
  await expect(page.getByText(/\d+ (?:problem|warning)/)).toBeHidden();
  await expect(page.getByText('draft · saved')).toBeVisible();

  // Tried before anybody is touched: the one with enough of it gets through, with the words of its site.
  await page.keyboard.press('t');
  await expect(page.getByRole('heading', { name: /^All \d+ at this line/ })).toBeVisible({ timeout: 60_000 });
  await accessible(page);

  // Released, with those who came before.
  await page.getByRole('button', { name: 'Release …' }).click();
  await expect(page.getByText('2 people came before')).toBeVisible({ timeout: 45_000 });
  await page.getByRole('combobox', { name: 'People who came before' }).press('Enter');
  await page.getByRole('option', { name: 'taken in too, oldest first' }).press('Enter');
  await page.getByRole('textbox', { name: 'Records to begin with' }).fill('');
  await page.getByRole('button', { name: 'Make it live', exact: true }).click();
  await expect(page.getByText(/live 1 since/)).toBeVisible();

  // The one message waits on the desk, and rests on what the site says.
  await page.getByRole('link', { name: /^Desk/ }).click();
  const review = page.locator('[data-kind=review]').first();
  await expect(review).toBeVisible({ timeout: 90_000 });
  if ((await review.getByRole('button', { expanded: true }).count()) === 0) await review.getByRole('button').first().click();
  await expect(review.getByText('What it rests on')).toBeVisible();
  await expect(review).toContainText('with 8.9 ha of heated glass');
  await accessible(page);
  await page.keyboard.press('a');
  await expect(review).toHaveCount(0);

  // It leaves within the office hours of the reader, once; the answer stops the plan.
  const opener = async (): Promise<Received | undefined> => (await readersBox()).find(({ from }) => from === SELLER);
  for (let day = 0; day < 4 && (await opener()) === undefined; day++) {
    await page.getByRole('button', { name: 'One day later' }).click();
    await expect(page.getByRole('button', { name: 'One day later' })).toBeEnabled({ timeout: 120_000 });
  }
  await expect.poll(async () => (await opener())?.text, { timeout: 60_000 }).toContain('with 8.9 ha of heated glass');
  const came = await opener();
  if (!came) throw new Error('no mail');
  await answer(came, `Thank you, yes: please send us a box to try.\n\nKind regards\nJude Fern\n\n> ${came.subject}\n`);
  for (let day = 0; day < 2; day++) {
    await page.getByRole('button', { name: 'One day later' }).click();
    await expect(page.getByRole('button', { name: 'One day later' })).toBeEnabled({ timeout: 120_000 });
  }
  await page.getByRole('link', { name: /^Messages/ }).click();
  // The page before has a link of their name too.
  await expect(page).toHaveURL(/\/messages$/);
  await expect(page.getByRole('heading', { name: 'Messages', level: 1 })).toBeVisible();
  await page.getByRole('link', { name: /Jude Fern/ }).click();
  await expect(page.getByText('answered', { exact: true }).first()).toBeVisible();
  await expect(page.getByText('the plan stopped').first()).toBeVisible();
  expect((await readersBox()).filter(({ from }) => from === SELLER)).toHaveLength(1);
  await accessible(page);
  test.info().annotations.push({ type: 'clicks', description: String(clicks()) });
  process.stdout.write(`first day: ${clicks()} clicks\n`);
  expect(clicks()).toBeLessThan(CLICKS_MAX);
});

test('an example comes beside what is one’s own, and goes in one step', async ({ page }) => {
  test.setTimeout(180_000);
  await page.goto('/sign-in');
  await page.getByLabel(/e-?mail/i).fill(SELLER);
  await page.getByLabel(/password/i).fill('a lantern by the mill pond');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Desk' })).toBeVisible({ timeout: 30_000 });
  await page.goto('/first-day');
  const good = page.getByRole('region', { name: 'The letter' });
  await expect(good).toContainText('at least 2 ha of heated glass');
  const example = page.getByRole('group', { name: 'Example' });
  await example.getByRole('button', { name: /^Begin with Sallowmere/ }).click();
  await expect(example.getByText(/ is here, beside what is yours/)).toBeVisible({ timeout: 60_000 });
  await expect(good).toContainText('at least 2 ha of heated glass');
  await accessible(page);
  await example.getByRole('link').first().click();
  await expect(page.getByRole('list', { name: 'Lines of the flow' })).toBeVisible();
  await page.goto('/settings/data');
  await example.getByRole('button', { name: 'Remove the example …' }).click();
  await expect(example.getByText(/^These go: \d+ companies/)).toBeVisible();
  await accessible(page);
  await example.getByRole('button', { name: 'Take all of it away' }).click();
  await expect(example.getByRole('button', { name: /^Begin with Sallowmere/ })).toBeVisible({ timeout: 60_000 });
  await page.goto('/flows');
  await expect(page.getByText('Open-day guests')).toHaveCount(0);
});
