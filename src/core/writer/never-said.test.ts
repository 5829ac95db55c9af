import { checkReply } from '../answers';
import { composeMessage, neverSaidIn, templateSchema } from './index';

test.each([
  ['We are the cheapest.', 'cheapest'],
  ['Garantiert BILLIG!', 'billig'],
  ['No risk, none at all.', 'no risk'],
  ['À l’essai gratuit', 'essai gratuit'],
])('“%s” says “%s”', (text, phrase) => {
  expect(neverSaidIn(text, ['something else', phrase])).toBe(phrase);
});
test.each([
  ['The cheapestness of it', 'cheapest'],
  ['No great risk', 'no risk'],
  ['Hello', ''],
])('“%s” does not say “%s”', (text, phrase) => {
  expect(neverSaidIn(text, [phrase])).toBeUndefined();
});

const compose = (body: string, neverSay?: readonly string[]) =>
  composeMessage({
    template: templateSchema.parse({ name: 'A', subject: 'A word', body }),
    scope: { first_name: 'Mara' },
    recipient: { name: 'Mara Quill', reach: 'm@oakmere.example' },
    facts: [],
    recentLines: [],
    doNotContact: false,
    seed: 'x',
    ...(neverSay && { neverSay }),
  });

test('a message that says it is held, in subject or words; without a list nothing is looked for', () => {
  expect(compose('Hello {first_name}, we are the cheapest.', ['cheapest']).checks.find((check) => !check.ok)).toMatchObject({
    id: 'may not say',
    says: 'it says “cheapest”, which we never say',
  });
  expect(compose('Hello {first_name}', ['a word']).passed).toBe(false);
  expect(compose('Hello {first_name}', ['cheapest']).passed).toBe(true);
  expect(compose('Hello {first_name}').checks.map(({ id }) => id)).not.toContain('may not say');
});

test('an answer that says it is held, whoever wrote it', () => {
  const checks = (neverSay: readonly string[]) =>
    checkReply({
      recipient: { name: 'Mara Quill', reach: 'm@oakmere.example' },
      doNotContact: false,
      scope: {},
      body: 'Hello Mara, we are the cheapest.',
      notSay: [],
      loose: [],
      neverSay,
    }).filter((check) => !check.ok);
  expect(checks(['cheapest'])).toMatchObject([{ id: 'may not say' }]);
  expect(checks([])).toEqual([]);
});
