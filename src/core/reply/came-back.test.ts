/** When a mailbox rests by what came back. */
import fc from 'fast-check';
import { cameBackText, standingOf } from './index';

test.each([
  [0, 0, 'good', 'nothing to count yet'],
  [100, 5, 'good', '5 of the last 100 mails came back'],
  [100, 6, 'doubtful', '6 of the last 100 mails came back'],
  [100, 10, 'doubtful', '10 of the last 100 mails came back'],
  [100, 11, 'too many', '11 of the last 100 mails came back'],
  // A few of few say little yet.
  [1, 1, 'doubtful', '1 of the last 1 mail came back'],
  [10, 4, 'doubtful', '4 of the last 10 mails came back'],
  [10, 5, 'too many', '5 of the last 10 mails came back'],
])('%d sent, %d back: %s', (sent, bounced, standing, says) => {
  expect(standingOf({ sent, bounced })).toBe(standing);
  expect(cameBackText({ sent, bounced })).toBe(says);
});

test('one more that comes back never makes it better, one more that arrives never worse', () => {
  const order = ['good', 'doubtful', 'too many'];
  fc.assert(
    fc.property(fc.nat(100), fc.nat(100), (arrived, bounced) => {
      const at = (more: number, back: number) =>
        order.indexOf(standingOf({ sent: arrived + bounced + more + back, bounced: bounced + back }));
      expect(at(0, 1)).toBeGreaterThanOrEqual(at(0, 0));
      expect(at(1, 0)).toBeLessThanOrEqual(at(0, 0));
    }),
  );
});
