import { templateSchema } from '../../../core/writer';
import { addWording, dropWording, placeOf, putWords, wordingName, wordsAt } from './wordings';

const text = templateSchema.parse({
  name: 'A',
  subject: 'Hello',
  body: 'Hello {first_name}',
  personal: { fields: ['vans'], required: false, lines: [{ field: 'vans', says: 'You run {value} vans.' }] },
});

test('a wording more begins with the words there are, without sentences of another language', () => {
  const both = addWording(text, 'de');
  expect(wordsAt(both, 0)).toEqual({ language: 'de', when: '', subject: 'Hello', body: 'Hello {first_name}', lines: [] });
  expect(wordsAt(addWording(text, 'en'), 0).lines).toHaveLength(1);
});

test('what is changed in one wording stays there', () => {
  const both = putWords(addWording(text, 'de'), 0, {
    body: 'Guten Tag',
    lines: [{ field: 'vans', says: 'Sie fahren {value}.', when: '' }],
  });
  expect([wordsAt(both, null).body, wordsAt(both, 0).body]).toEqual(['Hello {first_name}', 'Guten Tag']);
  const main = putWords(both, null, { subject: 'Good day', lines: [] });
  expect([main.subject, main.personal?.lines, wordsAt(main, 0).lines.length]).toEqual(['Good day', [], 1]);
});

test('the last one taken out leaves the text as it was', () => {
  expect(dropWording(addWording(text, 'de'), 0)).toEqual(text);
  expect(wordsAt(text, 3).body).toBe(text.body);
});

test('places of problems and names', () => {
  expect([placeOf(null, 'body'), placeOf(null, 'lines.2'), placeOf(1, 'body'), placeOf(1, 'lines.0')]).toEqual([
    'body',
    'personal.lines.2',
    'wordings.1.body',
    'wordings.1.lines.0',
  ]);
  expect([wordingName({ language: 'de', when: ' ' }), wordingName({ language: 'en', when: 'employees > 50' })]).toEqual([
    'German',
    'English, employees > 50',
  ]);
});
