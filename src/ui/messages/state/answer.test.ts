import type { AnswerDraftView } from '../../../api';
import { catalogueOf } from '../../../core/fields';
import { checksText, fitText, ledOn, lettered, lettersOf, otherAnswer, takenIds, placesIn, workedIn } from './answer';

const statement = { kind: 'statement' as const, says: 'Later bays join without new wiring.', proof: 'service sheet 3' };
const fact = { kind: 'fact' as const, label: 'vans', value: '6 vans', source: 'site', url: null };
const draft = (by: string | null): AnswerDraftView => ({
  inReplyTo: null,
  mailbox: 'Sales',
  language: 'en',
  fallback: false,
  body: '',
  sentences: [
    { text: 'Hello', rests: [], of: null, loose: null },
    { text: 'One', rests: [fact, statement], of: 'A', loose: null },
    { text: 'Two', rests: [statement], of: 'A', loose: null },
  ],
  taken: [
    {
      said: { kind: 'objection', about: 'price', words: 'too dear' },
      by: by === null ? null : { kind: 'agreed', name: by },
      candidates: [
        { id: '1', name: 'A', fits: true, when: '', isKnown: true, used: 34, led: 13 },
        { id: '2', name: 'B', fits: false, when: 'company.employees >= 20', isKnown: false, used: 3, led: 2 },
      ],
    },
  ],
  leftOut: [],
  checks: [
    { id: 'recipient', ok: true, says: '' },
    { id: 'wrong name', ok: false, says: 'it greets “Peter”' },
  ],
  dueAt: null,
  held: null,
  drops: 0,
});

test('what sentences rest on is lettered once, in their order', () => {
  const all = lettered(draft('A'));
  expect(all.map(({ letter, rest }) => [letter, rest.kind])).toEqual([
    ['a', 'fact'],
    ['b', 'statement'],
  ]);
  expect(draft('A').sentences.map(({ rests }) => lettersOf(rests, all))).toEqual(['', 'ab', 'b']);
});

test('the answers taken, and the next one round', () => {
  expect(takenIds(draft('A'))).toEqual(['1']);
  expect(takenIds(draft(null))).toEqual([]);
  expect([otherAnswer(draft('A')), otherAnswer(draft('B')), otherAnswer(draft(null))]).toEqual(['B', 'A', 'A']);
  expect(otherAnswer({ ...draft('A'), taken: [] })).toBeUndefined();
});

test('why an answer fits is said in the words of the business', () => {
  const fields = catalogueOf([]);
  const said = (more: object) => fitText({ when: 'company.employees >= 20', fits: false, isKnown: true, ...more }, fields);
  expect([said({ fits: true }), said({}), said({ isKnown: false }), said({ when: '', fits: true })]).toEqual([
    'company employees ≥ 20: fits',
    'only when company employees ≥ 20',
    'not known whether company employees ≥ 20',
    'fits always',
  ]);
});

test('a share has its range, and says when there were few', () => {
  const { share, from, to, few } = ledOn({ used: 34, led: 13 });
  expect([share.toFixed(2), from.toFixed(2), to.toFixed(2), few]).toEqual(['0.38', '0.24', '0.55', false]);
  expect(ledOn({ used: 0, led: 0 })).toEqual({ share: 0, from: 0, to: 1, few: true });
});

test('checks are said in a line, those that failed in their own words', () => {
  expect(checksText(draft('A').checks)).toEqual({ line: '1 of 2 checks: address', failed: ['it greets “Peter”'] });
});

test('a sentence of one’s own lands where it is put, and nothing changes without one', () => {
  const text = (sentence: string) => ({ text: sentence, rests: [], of: null, loose: null });
  const two = { body: 'Hello\n\nOne. Two.\n\nBye', sentences: ['Hello', 'One.', 'Two.', 'Bye'].map(text) };
  expect(placesIn(two)).toBe(3);
  expect(workedIn(two, ' ', 1)).toBe(two.body);
  expect(workedIn(two, 'Mine.', 1)).toBe('Hello\n\nOne. Mine. Two.\n\nBye');
  expect(workedIn(two, 'Mine.', 9)).toBe('Hello\n\nOne. Two. Mine.\n\nBye');
  expect(workedIn(two, 'Mine.', -1)).toBe('Hello\n\nMine. One. Two.\n\nBye');
});
