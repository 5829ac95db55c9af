import { DEMO_FIELDS } from '../../../testing/fields';
import { optionsAt, readTyped, takeOption } from './condition';

describe('a condition over a list', () => {
  test.each([
    ['', { kind: 'nothing' }],
    ['email != null', { kind: 'means', says: 'e-mail is known' }],
    ['company.heated_area >= 2 ha', { kind: 'means', says: 'company heated area ≥ 2 ha' }],
    ['emial != null', { kind: 'wrong', part: 'emial' }],
    ['company.heated_area >= 2 EUR', { kind: 'wrong', part: '2 EUR' }],
    ['email !=', { kind: 'wrong' }],
  ])('%s', (text, expected) => {
    expect(readTyped(text, 'person', DEMO_FIELDS)).toMatchObject(expected);
  });

  test('company fields stand alone in a list of companies', () => {
    expect(readTyped('heated_area >= 2 ha', 'company', DEMO_FIELDS)).toMatchObject({ kind: 'means' });
    expect(readTyped('heated_area >= 2 ha', 'person', DEMO_FIELDS)).toMatchObject({ kind: 'wrong' });
  });

  test('fields are offered by name and by label, with a sample', () => {
    expect(optionsAt('em', 2, 'person', DEMO_FIELDS)[0]).toEqual({
      name: 'email',
      label: 'e-mail',
      sample: 'm.quill@firm.example',
    });
    expect(optionsAt('email != null and company.hea', 29, 'person', DEMO_FIELDS)).toEqual([
      { name: 'company.heated_area', label: 'heated area', sample: '4.2 ha' },
    ]);
    expect(optionsAt('place', 5, 'company', DEMO_FIELDS).map((option) => option.name)).toEqual(['city']);
    expect(optionsAt('city = "Hes', 11, 'company', DEMO_FIELDS)).toEqual([]);
    expect(optionsAt('email ', 6, 'person', DEMO_FIELDS)).toEqual([]);
    expect(optionsAt('', 0, 'person', DEMO_FIELDS)).toHaveLength(8);
  });

  test('an option takes the place of the word before the caret', () => {
    expect(takeOption('email != null and comp = 2', 22, 'company.city')).toEqual({ text: 'email != null and company.city = 2', caret: 31 });
  });
});
