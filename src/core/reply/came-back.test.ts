/** When a mailbox rests by what came back. */
import fc from 'fast-check';
import { cameBackText, parseComplaint, standingOf } from './index';

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
  expect(standingOf({ sent, bounced, complained: 0 })).toBe(standing);
  expect(cameBackText({ sent, bounced, complained: 0 })).toBe(says);
});

test('one more that comes back never makes it better, one more that arrives never worse', () => {
  const order = ['good', 'doubtful', 'too many'];
  fc.assert(
    fc.property(fc.nat(100), fc.nat(100), (arrived, bounced) => {
      const at = (more: number, back: number) =>
        order.indexOf(standingOf({ sent: arrived + bounced + more + back, bounced: bounced + back, complained: 0 }));
      expect(at(0, 1)).toBeGreaterThanOrEqual(at(0, 0));
      expect(at(1, 0)).toBeLessThanOrEqual(at(0, 0));
    }),
  );
});

test('one complaint is said, two stop the mailbox, however much was sent', () => {
  const of = (complained: number) => ({ sent: 100, bounced: 0, complained });
  expect([0, 1, 2].map((count) => standingOf(of(count)))).toEqual(['good', 'doubtful', 'too many']);
  expect([1, 2].map((count) => cameBackText(of(count)))).toEqual([
    '0 of the last 100 mails came back, 1 was reported as unwanted',
    '0 of the last 100 mails came back, 2 were reported as unwanted',
  ]);
});

describe('a report of a provider', () => {
  const ORIGINAL =
    'From: us@firm.example\r\nTo: Mara <M.Quill@oakmere.example>\r\nMessage-ID: <a@b>\r\nSubject: Hello\r\n\r\nTo: nobody@else.example\r\n';
  test('names who complained and about which mail', () => {
    expect(parseComplaint('Feedback-Type: abuse\r\nOriginal-Rcpt-To: <m.quill@oakmere.example>\r\n', ORIGINAL)).toEqual({
      type: 'abuse',
      recipient: 'm.quill@oakmere.example',
      originalMessageId: '<a@b>',
    });
  });
  test('without a recipient the mail’s own head says it, never its words', () => {
    expect(parseComplaint('Feedback-Type: fraud\r\n', ORIGINAL)?.recipient).toBe('m.quill@oakmere.example');
    expect(parseComplaint('Feedback-Type: abuse\r\n', 'Message-ID: <a@b>\r\n\r\nTo: nobody@else.example')?.recipient).toBeNull();
  });
  test('one that takes a complaint back, or says nothing, is none', () => {
    expect(parseComplaint('Feedback-Type: not-spam\r\n', ORIGINAL)).toBeUndefined();
    expect(parseComplaint('User-Agent: x\r\n', ORIGINAL)).toBeUndefined();
  });
});
