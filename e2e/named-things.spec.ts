/** A field of one's own goes the whole way: asked, taught, and used in a condition, a criterion, a slot and a column; names are followed. */
import { expect, type Page } from '@playwright/test';
import { accessible, api, signIn, test } from './people';

const SITES = ['Gärtnerei Vossbruch GmbH', 'Gewächshaus Rügenthal eG', 'Hartmann Jungpflanzen'];

async function known(page: Page): Promise<void> {
  for (const name of SITES) {
    const { items } = await api<{ items: { id: string; name: string }[] }>(page, `/companies?search=${encodeURIComponent(name)}`);
    const company = items.find((item) => item.name === name);
    // As somebody signed in does: what a program sends is no key to what sites say.
    const status = await page.evaluate(
      async (id) =>
        (
          await fetch(`/api/v1/companies/${id}`, {
            method: 'PATCH',
            headers: { 'content-type': 'application/json' },
            body: JSON.stringify({ values: { founded_in: 1968 } }),
          })
        ).status,
      company?.id ?? '',
    );
    expect(status).toBe(200);
  }
}

test('a new field is asked, taught on three pages, and used in a condition, a column, a criterion and a slot', async ({ page }) => {
  test.setTimeout(240_000);
  await signIn(page, 'Ines');
  await page.goto('/settings/fields');
  const made = page.getByRole('form', { name: 'A new field' });
  await made.getByRole('textbox', { name: 'New field' }).fill('Founded in');
  await made.getByRole('combobox', { name: 'type' }).click();
  await page.getByRole('option', { name: 'year', exact: true }).click();
  await made.getByRole('textbox', { name: 'sample' }).fill('1968');
  await made.getByRole('button', { name: 'Add field' }).click();
  await expect(page.getByText('Founded in is a field now: in flows company.founded_in.')).toBeVisible();
  const panel = page.getByRole('complementary', { name: 'Field Founded in' });
  await panel.getByRole('checkbox', { name: 'a column of the list of companies' }).check();
  await panel.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('Founded in is changed.')).toBeVisible();
  await known(page);

  // Asked, with words; shown on three pages; what changes is seen before it is kept.
  await page.goto('/settings/reading');
  await page.getByRole('button', { name: 'ask one more question' }).click();
  await page.getByRole('textbox', { name: 'Name', exact: true }).last().fill('founded_in');
  await page.getByRole('textbox', { name: 'Kind of answer' }).last().fill('year');
  await page.getByRole('textbox', { name: 'Question', exact: true }).last().fill('In what year did the business begin?');
  await page.getByRole('button', { name: 'Keep changes' }).click();
  await expect(page.getByRole('button', { name: 'Kept' })).toBeVisible();
  await page.goto('/settings/questions/founded_in');
  await page.getByRole('button', { name: 'Read 3 sites whose answer is known' }).click();
  await expect(page.getByRole('heading', { name: 'On 3 sites whose answer is known' })).toBeVisible({ timeout: 90_000 });
  await page.getByRole('textbox', { name: /^Words it goes by/ }).fill('Generation');
  await page.keyboard.press('Enter');
  const right = page.getByRole('region', { name: 'Sites whose answer is known' });
  await expect(right.getByText('3 changed')).toBeVisible({ timeout: 60_000 });
  await page.keyboard.press('Escape');
  await page.getByRole('heading', { name: 'The question', exact: true }).click();
  const site = page.getByRole('region', { name: 'A site that could answer' }).getByRole('heading').first();
  for (const count of [1, 2, 3]) {
    await page.keyboard.press('y');
    await expect(page.getByText(new RegExp(`^${count} examples? on ${count} sites?, not kept$`))).toBeVisible({ timeout: 60_000 });
    await expect(page.getByRole('status')).toHaveText('', { timeout: 60_000 });
    if (count < 3) {
      const before = (await site.textContent()) ?? '';
      await page.keyboard.press('ArrowRight');
      await expect(site).not.toHaveText(before);
    }
    await expect(page.getByRole('status')).toHaveText('', { timeout: 60_000 });
  }
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Kept' })).toBeVisible({ timeout: 60_000 });

  // A condition and a column.
  await page.goto(`/records?kind=companies&where=${encodeURIComponent('founded_in <= 1970')}`);
  await expect(page.getByRole('columnheader', { name: 'Founded in' })).toBeVisible();
  for (const name of SITES) await expect(page.getByRole('row', { name: new RegExp(name) })).toContainText('1968');

  // A criterion: what it would do to all records stands there before it is kept.
  await page.getByRole('link', { name: 'Scorecards', exact: true }).click();
  // A copy: other tests go by the demo's own.
  await page.getByRole('button', { name: 'Copy Grower fit' }).click();
  await expect(page.getByRole('heading', { name: 'Grower fit, a copy', level: 1 })).toBeVisible();
  await page.getByRole('textbox', { name: 'type a criterion' }).fill('company.founded_inn <= 1970');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/founded_inn.*founded_in/).first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Keep version 2' })).toBeDisabled();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('textbox', { name: 'type a criterion' }).fill('company.founded_in <= 1970');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Name of the criterion founded in ≤ 1970' })).toBeVisible();
  await expect(page.getByRole('img', { name: /^3 hold, 0 in part, \d+ unknown, 0 not$/ })).toBeVisible();
  await page.getByRole('slider', { name: 'warm from' }).focus();
  await page.keyboard.press('PageDown');
  await expect(page.getByRole('slider', { name: 'warm from' })).toHaveAttribute('aria-valuenow', '40');
  await expect(page.getByRole('status').getByText(/would change band/)).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Keep version 2' }).click();
  await expect(page.getByText('Version 2 is kept.')).toBeVisible();

  // A slot: the readers get it at once.
  await page.goto('/messages/texts');
  await page.getByRole('button', { name: 'Copy First contact' }).click();
  await expect(page.getByRole('heading', { name: 'First contact, a copy', level: 1 })).toBeVisible();
  await page
    .getByRole('textbox', { name: 'words' })
    .fill('Hello {first_name or "there"},\n\nsince {company.founded_in or "long ago"}.\n\n{sender.name}');
  await expect(page.getByText(/the text has no \{personal line\}/)).toBeVisible();
  await page.getByRole('checkbox', { name: 'who has none is stopped' }).uncheck();
  const readers = page.getByRole('complementary', { name: 'Readers' });
  await readers.getByRole('button', { expanded: false }).first().click();
  await expect(readers.getByText(/since (?:1968|long ago)\./)).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Keep version 2' }).click();
  await expect(page.getByText(/Version 2 is kept/)).toBeVisible();
  await page.goto('/settings/fields');
  await expect(page.getByRole('row', { name: /Founded in founded_in year/ })).toContainText(/scorecard.*text|text.*scorecard/);
});

test('a new name is followed, an older version is had back, and a claim nothing stands behind is marked', async ({ page }) => {
  await signIn(page, 'Ines');
  await page.goto('/messages/statements');
  await accessible(page);
  await page.getByRole('button', { name: 'Add a statement' }).click();
  await page
    .getByRole('textbox', { name: /^What we say of ourselves, / })
    .last()
    .fill('We fit every house within nine days.');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText(/^Kept\. Texts that claim anything else/)).toBeVisible();

  await page.goto('/messages/texts');
  await page.getByRole('textbox', { name: 'Name of a new text' }).fill('Spring letter');
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByRole('heading', { name: 'Spring letter', level: 1 })).toBeVisible();
  const words = page.getByRole('textbox', { name: 'words' });
  await words.fill(
    'Hello {first_name or "there"},\n\nWe fit every house within nine days. Our fitters are the fastest in the trade.\n\n{sender.name}',
  );
  await expect(page.getByText(/“Our fitters are the fastest in the trade\.” says something of us/)).toBeVisible();
  await expect(page.getByText(/“We fit every house within nine days\.” says something/)).toBeHidden();
  await page.getByRole('button', { name: 'Keep version 2' }).click();
  await expect(page.getByText('Version 2 is kept.')).toBeVisible();

  await page.goto('/messages/plans');
  await page.getByRole('textbox', { name: 'Name of a new plan' }).fill('Spring round');
  await page.getByRole('button', { name: 'Begin' }).click();
  await page.getByRole('combobox', { name: 'Text of touch 1' }).click();
  await page.getByRole('option', { name: 'Spring letter' }).click();
  await page.getByRole('button', { name: 'Add a touch' }).click();
  // Moved by keys and by the sentence; the days are real ones.
  await expect(page.getByRole('spinbutton', { name: 'Working day of touch 2' })).toHaveValue('4');
  await page.getByRole('button', { name: /on working day 4$/ }).press('ArrowRight');
  await expect(page.getByRole('spinbutton', { name: 'Working day of touch 2' })).toHaveValue('5');
  await expect(page.getByRole('region', { name: 'For one reader' }).getByRole('row')).toHaveCount(2);
  await accessible(page);
  await page.getByRole('button', { name: 'Keep version 2' }).click();
  await expect(page.getByText('Version 2 is kept.')).toBeVisible();

  await page.goto('/messages/texts');
  await page.getByRole('link', { name: 'Spring letter', exact: true }).click();
  await expect(page.getByText('used by 1 plan')).toBeVisible();
  await page.getByRole('button', { name: 'rename' }).click();
  await page.getByRole('textbox', { name: 'New name' }).fill('April letter');
  await page.getByRole('button', { name: 'Rename', exact: true }).click();
  await expect(page.getByText('Spring letter is called April letter now; drafts and plans follow.')).toBeVisible();
  await page.getByRole('button', { name: 'have it back' }).last().click();
  await expect(words).toHaveValue(/\{personal line\}/);
  await page.getByRole('button', { name: 'Keep version 4' }).click();
  await expect(page.getByText('Version 4 is kept.')).toBeVisible();
  await page.getByRole('link', { name: 'Spring round' }).click();
  await expect(page.getByRole('combobox', { name: 'Text of touch 1' })).toHaveText('April letter');
  await page.getByRole('button', { name: 'Retire' }).click();
  await expect(page.getByText(/It is retired/)).toBeVisible();
  await page.goto('/messages/plans');
  await expect(page.getByRole('row', { name: /Spring round/ })).toContainText('retired');
  await accessible(page);
});

test('who may not change flows reads all of it and changes nothing', async ({ page }) => {
  await signIn(page, 'Yusuf');
  await page.goto('/scorecards');
  await page.getByRole('link', { name: 'Grower fit', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Grower fit' })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Keep version/ })).toHaveCount(0);
  await expect(page.getByRole('slider', { name: 'hot from' })).toBeDisabled();
});

test('a company is put on record by hand, and an address among those not written to', async ({ page }) => {
  await signIn(page, 'Ines');
  await page.goto('/records?kind=companies');
  await page.getByRole('button', { name: 'Add a company' }).click();
  const form = page.getByRole('form', { name: 'A new company' });
  await form.getByRole('textbox', { name: 'Name' }).fill('Pellow & Daughters');
  await form.getByRole('textbox', { name: 'Site' }).fill('pellow-and-daughters.example');
  await form.getByRole('textbox', { name: 'Country' }).fill('GB');
  await accessible(page);
  await form.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Pellow & Daughters', level: 1 })).toBeVisible();

  await page.goto('/settings/do-not-contact');
  const list = page.getByRole('region', { name: 'Not written to any more' });
  await list.getByRole('textbox', { name: 'Address' }).fill('someone@pellow-and-daughters.example');
  await list.getByRole('textbox', { name: 'Why' }).fill('told us on the phone');
  await list.getByRole('button', { name: 'Put here' }).click();
  await expect(list.getByText(/put here by Ines Okafor-Brandt: told us on the phone/)).toBeVisible();
  await accessible(page);
  await list.getByRole('button', { name: 'Take someone@pellow-and-daughters.example off' }).click();
  await expect(page.getByText('someone@pellow-and-daughters.example may be written to again.')).toBeVisible();
});
