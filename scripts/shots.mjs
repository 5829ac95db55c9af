#!/usr/bin/env node
// `npm run shots`: pictures of the main views for docs/screenshots, from a fresh demo world that has lived for two days.
import fs from 'node:fs';
import path from 'node:path';
import { ensureDebian, ensurePackages, freshWorld, ROOT, say, sleep } from './lib.mjs';

const HOME = path.join(ROOT, '.local/shots');
const OUT = path.join(ROOT, 'docs/screenshots');
ensurePackages();
ensureDebian(['chromium']);
fs.mkdirSync(OUT, { recursive: true });
const world = await freshWorld(HOME);
const { api } = world;
let browser;
let empty;
try {
  const until = async (test) => {
    while (!(await test())) await sleep(300);
  };
  const daysLater = async (days) => {
    await api('POST', '/clock', { byMs: days * 86_400_000 });
    await until(async () => (await api('GET', '/clock')).target === null);
  };

  const { chromium } = await import('@playwright/test');
  browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: JSON.parse(fs.readFileSync(path.join(ROOT, 'scripts/chromium.json'), 'utf8')),
  });
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'Europe/London',
    baseURL: world.url,
  });
  const page = await context.newPage();
  const shot = async (name) => {
    await page.waitForLoadState('load');
    await sleep(1000);
    await page.screenshot({ path: path.join(OUT, `${name}.png`) });
    say(`docs/screenshots/${name}.png`);
  };
  await page.goto('/sign-in');
  await page.getByRole('button', { name: /Ines/ }).click();
  await page.waitForURL('**/');

  const list = fs.readFileSync(path.join(ROOT, 'demo/lists/bezoekers_najaar.csv'));
  const flow = (await api('GET', '/flows')).items.find((entry) => entry.name === 'Trade-fair visitors');
  await page.goto('/sources');
  await page.getByLabel('List file').setInputFiles('demo/lists/bezoekers_najaar.csv');
  await page.waitForURL(/sources\/.+/);
  await shot('intake');

  const made = (await api('GET', '/forms')).items.find((form) => form.name === 'Project enquiry');
  await page.goto('/f/project-enquiry');
  // Nobody types faster: what is sent sooner is taken for a machine's.
  await sleep(2_000);
  for (const [label, value] of [
    [/nursery called/, 'Bellwether Growers Ltd'],
    [/web site/, 'bellwether-growers.example'],
    [/How much heated/, '6,8'],
  ])
    await page.getByLabel(label).fill(value);
  await page.getByLabel('yes', { exact: true }).check();
  await page.getByRole('button', { name: 'Go on' }).click();
  await page.getByLabel(/have in mind/).fill('New controls for two bays before spring.');
  await page.getByRole('button', { name: 'Go on' }).click();
  await page.getByLabel(/Your name/).fill('Callum Haddow');
  await page.getByLabel(/Your e-mail/).fill('callum.haddow@bellwether-growers.example');
  await page.getByLabel('by e-mail').check();
  await page.getByLabel(/may keep this/).check();
  await page.getByRole('button', { name: 'Send to Thornwick' }).click();
  await page.getByText('Thank you').waitFor();
  await page.goto(`/sources/forms/${made.id}`);
  await page
    .getByRole('button', { name: /^Which one/ })
    .first()
    .click();
  await shot('form');
  await page.goto('/openings');
  await page.getByText('French (native)').waitFor();
  await shot('openings');
  const firm = (await api('GET', '/companies?limit=200')).items.find((entry) => entry.name.startsWith('Fernley'));
  await page.goto(`/records/companies/${firm.id}/dossier`);
  await page.getByRole('button', { name: /^Research/ }).click();
  await page.locator('.dossier').waitFor();
  await shot('dossier');

  const uploaded = await api('POST', `/imports?name=autumn-fair.csv&flow=${flow.id}`, list);
  await api('POST', `/imports/${uploaded.import.id}/start`, {});
  await until(async () => (await api('GET', `/imports/${uploaded.import.id}`)).state === 'done');
  await until(async () => (await api('GET', '/trips?state=ready&limit=1')).items.length === 0);
  const reviews = (await api('GET', '/reviews')).items;
  for (const review of reviews.slice(0, 70)) await api('POST', `/reviews/${review.id}/decision`, { does: 'approve' });
  await daysLater(1);

  await page.goto('/sources');
  await shot('sources');
  await page.goto(`/flows/${flow.id}`);
  await page.getByRole('button', { name: /specimens/ }).click();
  await page.getByRole('button', { name: /Pick others/ }).click();
  await sleep(800);
  await page.getByRole('button', { name: 'Done' }).click();
  const tryOut = async () => {
    await page.getByRole('button', { name: /^Try/ }).click();
    await sleep(1000);
    await page.getByRole('button', { name: /^Try(?!ing)/ }).waitFor();
    await sleep(800);
  };
  await tryOut();
  // The best scored specimen stands first in the table.
  await page.locator('section[aria-label="All specimens at this line"] tbody tr').first().click();
  await shot('workbench');

  await page.goto('/');
  await shot('desk');
  await page.goto('/messages/plans');
  await page.getByRole('link', { name: 'First contact', exact: true }).click();
  await page.getByRole('region', { name: 'For one reader' }).getByRole('row').first().waitFor();
  await page.getByRole('button', { name: /^Ring once/ }).click();
  await shot('plan');

  const answers = (await api('GET', '/messages?state=received&limit=100')).items.filter((message) => message.reading.kind === 'interested');
  await page.goto(`/messages/${answers[0].threadId}`);
  await shot('thread');
  // Some drafts decided, so that there is something to count.
  for (const { threadId } of answers.slice(1)) {
    const draft = await api('GET', `/conversations/${threadId}/answer`);
    const taken = draft.taken.flatMap(({ by, candidates }) => candidates.filter(({ name }) => by?.name === name).map(({ id }) => id));
    if (draft.inReplyTo !== null)
      await api('POST', `/conversations/${threadId}/answer`, { body: draft.body, inReplyTo: draft.inReplyTo, answers: taken });
  }
  await page.goto('/messages/rules');
  await page.getByRole('textbox', { name: 'Rule 1', exact: true }).press('Enter');
  await page.getByRole('textbox', { name: 'Rule 2', exact: true }).fill('send when kind is interested and covered');
  await page.getByRole('status').filter({ hasText: 'would go alone' }).waitFor();
  await shot('rules');
  // Of those who answered, one about whom sources disagree.
  let shown = answers[0].personId;
  for (const { personId } of [...answers].reverse())
    if ((await api('GET', `/people/${personId}`)).known.some((field) => field.others.length > 0)) shown = personId;
  await page.goto(`/records/people/${shown}`);
  await shot('record');
  const trips = (await api('GET', '/trips?state=following&limit=20')).items;
  await page.goto(`/trips/${trips[0].id}`);
  await page.getByRole('button', { name: /of 100, hot/ }).click();
  await shot('trip');
  // A question whose answers people know, read on their sites, with one answer shown.
  await page.goto('/settings/questions/heated_area');
  const unread = page.getByRole('button', { name: /^Read \d+ sites? whose/ });
  if (await unread.isVisible()) await unread.click();
  await page.getByRole('heading', { name: /^On \d+ sites? whose/ }).waitFor();
  await until(async () => (await page.getByRole('status').textContent()) === '');
  await page.keyboard.press('y');
  await sleep(3_000);
  await shot('question');
  await page.goto(`/records?where=${encodeURIComponent('company.heated_area >= 2 ha and email != null')}`);
  await shot('records');
  await page.goto('/settings/fields');
  await shot('fields');
  await page.goto('/scorecards');
  await page.locator('td a').first().click();
  await page.getByRole('slider', { name: 'warm from' }).press('PageDown');
  await page
    .getByText(/would change band/)
    .first()
    .waitFor();
  await shot('scorecard');
  await page.goto('/messages/texts');
  await page.getByRole('link', { name: 'First contact', exact: true }).click();
  await page.getByText(/pass every check/).waitFor();
  await shot('letter');
  // A lower bar in the draft, so that there is something that would change.
  const { draftText, draftNo } = await api('GET', `/flows/${flow.id}`);
  await api('PUT', `/flows/${flow.id}/draft`, { text: draftText.replace('fit.points >= 75', 'fit.points >= 60'), base: draftNo });
  await page.goto(`/flows/${flow.id}/release`);
  await shot('release');

  // The letter of the first day, half filled, in a workspace of its own.
  empty = await freshWorld(`${HOME}-empty`, { isEmpty: true });
  await page.goto(empty.firstAddress);
  await page.getByLabel('your e-mail').fill('wenna@hartsmead.example');
  await page.getByLabel('your name').fill('Wenna Tregarth');
  await page.getByLabel('a password').fill('a lantern by the mill pond');
  await page.getByRole('button', { name: 'Come in' }).click();
  const open = async (gap, text) => {
    await page.getByRole('button', { name: gap }).click();
    await page.keyboard.press('Control+a');
    await page.keyboard.type(text);
  };
  for (const [gap, text] of [
    [/^our name/, 'Hartsmead Feed & Bedding'],
    [/^what we sell/, 'bedding, feed and barn mats, by the pallet or the season'],
    [/^to whom/, 'riding schools and livery yards'],
    [/^a colleague/, 'Ivo Castell, ivo@hartsmead.example'],
    [/^the stages of a deal/, 'Asked → Quoted → Sampled → Ordered, or it is Lost'],
    [/^what we want to know/, 'how many horses they keep'],
    [/^what we want to know/, 'whether they buy bedding in bulk'],
  ]) {
    await open(gap, text);
    await page.keyboard.press('Enter');
    await sleep(1_000);
  }
  await open(/^what a good one has/, 'keeps between 5 and 40 horses');
  await page.getByText('understood as').waitFor();
  await shot('first-day');
} finally {
  await browser?.close();
  await empty?.stop();
  await world.stop();
}
