import fc from 'fast-check';
import { alikeAs, correctedReading, taughtBy, understandReply, type ReplyExample } from './index';

const at = Date.parse('2026-11-24T09:00:00Z');
const read = (text: string, examples: readonly ReplyExample[] = []) =>
  understandReply({ subject: '', text, at, autoSubmitted: false, examples });
const NEXT_YEAR: ReplyExample = { id: 'a', words: 'Perhaps under another moon.', kind: 'not now', objection: null };
const DEAR: ReplyExample = {
  id: 'b',
  words: 'The board looked at the last page and swallowed hard.',
  kind: 'objection',
  objection: 'price',
};

test('what a person has shown is understood the next time, and says by what', () => {
  expect(read('Perhaps under another moon.').kind).toBe('unclear');
  expect(read('Perhaps under another moon!', [NEXT_YEAR])).toMatchObject({
    kind: 'not now',
    plan: 'stop',
    taughtBy: 'a',
    quote: 'Perhaps under another moon!',
  });
  expect(read('Hello, the board looked at the last page and swallowed very hard.', [DEAR])).toMatchObject({
    kind: 'objection',
    objection: 'price',
  });
});

test('it does not reach beyond sentences that are alike', () => {
  expect(read('The board looked at the weather.', [DEAR]).taughtBy).toBeUndefined();
  expect(read('Next year we build a third house.', [NEXT_YEAR]).taughtBy).toBeUndefined();
  expect(taughtBy('', [NEXT_YEAR])).toBeUndefined();
});

test('who says stop is heard, whatever was shown', () => {
  expect(read('Perhaps under another moon. Until then please take me off your list.', [NEXT_YEAR]).kind).toBe('unsubscribe');
});

test('days and figures are told apart from what is said of them', () => {
  expect(alikeAs('Please ring again in the first week of March 2027.', 'Please ring again in the first week of June 2028.')).toBe(1);
  expect(alikeAs('Ring in March', 'Ring in June')).toBe(1);
  expect(alikeAs('Yes please', 'No please')).toBe(0);
});

test('of two that are alike the more alike one counts, and of equals the first', () => {
  const other: ReplyExample = { ...NEXT_YEAR, id: 'c', kind: 'decline' };
  expect(read('Perhaps under another moon.', [other, NEXT_YEAR])).toMatchObject({ kind: 'decline', taughtBy: 'c' });
});

test('a sentence is as alike to itself as can be, and to others no more from one side than from the other', () => {
  const words = fc.array(fc.constantFrom('we', 'buy', 'later', 'glass', 'winter', 'not', 'soon', '7'), { minLength: 1, maxLength: 9 });
  fc.assert(
    fc.property(words, words, (a, b) => {
      expect(alikeAs(a.join(' '), a.join(' '))).toBe(1);
      expect(alikeAs(a.join(' '), b.join(' '))).toBe(alikeAs(b.join(' '), a.join(' ')));
    }),
  );
});

test('corrected, it does what the right kind does; what it was first taken for stays known', () => {
  const text = 'We could talk in the week from 15 February.';
  const reading = read(text);
  const once = correctedReading(reading, { kind: 'not now', objection: null, by: 'Ines' }, { text, at });
  expect(once).toMatchObject({
    kind: 'not now',
    when: '2027-02-15',
    plan: 'pause',
    confidence: 1,
    corrected: { by: 'Ines', kind: reading.kind },
  });
  const twice = correctedReading(once, { kind: 'interested', objection: null, by: 'Tomasz' }, { text, at });
  expect(twice).toMatchObject({ kind: 'interested', when: null, plan: 'stop', corrected: { by: 'Tomasz', kind: reading.kind } });
});
