import { STANDARD } from '../../../core/fields';
import { agreementText, lineBelow, moved, ruleRows, trialSums, withLine, withoutLine, withRule, type Agreed, type Tried } from './rules';

test('each line says what it means, or what is wrong with it and how it would be understood', () => {
  const rows = ruleRows(
    '// ours\nhold the first 20\nhold when tone is negative\nsend when reply.covered and deal.amount < 5000 EUR',
    STANDARD,
  );
  expect(rows.map(({ says }) => says)).toEqual([
    null,
    'the first 20 wait until a person has decided them',
    null,
    'goes alone when covered and deal amount < 5000 EUR',
  ]);
  expect(rows[2]?.problem?.instead).toBe('hold when reply.tone = "negative"');
  expect(rows[0]?.problem).toBeNull();
});

test('lines are changed, added, taken out and moved', () => {
  expect(withLine('a\nb', 1, 'c\nd')).toBe('a\nc d');
  expect(lineBelow('a\nb', 0)).toBe('a\n\nb');
  expect(withoutLine('a\nb', 0)).toBe('b');
  expect(withoutLine('a', 0)).toBe('');
  expect(moved('a\nb\nc', 2, -1)).toBe('a\nc\nb');
  expect(moved('a\nb', 1, 1)).toBe('a\nb');
  expect(withRule('', 'x')).toBe('x');
  expect(withRule('a\n\n', 'x')).toBe('a\nx');
});

test('a trial counts what waits and what would go, and puts what changes first', () => {
  const hold = { does: 'hold' as const, line: null, says: '', lookedAt: false };
  const send = { ...hold, does: 'send' as const };
  const item = (before: Tried['before'], after: Tried['after']): Tried => ({
    messageId: '1',
    threadId: '2',
    personName: 'Mara',
    group: 'question',
    quote: null,
    at: Date.parse('2026-11-24T09:00:00Z'),
    before,
    after,
  });
  const sums = trialSums([item(hold, hold), item(hold, send), item(send, send)]);
  expect([sums.wait, sums.alone, sums.waited, sums.changed.length, sums.same.length]).toEqual([1, 2, 2, 1, 2]);
});

test('what was earned is said with its range', () => {
  const agreed: Agreed = { group: 'question', decided: 30, unchanged: 29, share: 0.97, from: 0.83, to: 0.99, state: 'earned', offer: null };
  expect(agreementText(agreed)).toContain('83 to 99 %, enough');
  expect(agreementText({ ...agreed, state: 'lost', unchanged: 3 })).toContain('only 3 of 30');
  expect(agreementText({ ...agreed, state: 'open' })).toContain('once 80 %');
});
