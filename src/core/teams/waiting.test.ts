import { sayWaiting } from './waiting';

const none = { reviews: 0, replies: 0, tasks: 0, notices: 0 };

test.each([
  [none, undefined],
  [{ ...none, replies: 1 }, '1 answer is waiting for you'],
  [{ ...none, reviews: 2 }, '2 messages to approve are waiting for you'],
  [
    { reviews: 1, replies: 2, tasks: 3, notices: 1 },
    '2 answers, 1 message to approve, 3 calls or notes to do and 1 word from a flow are waiting for you',
  ],
])('%o is said as “%s”', (fresh, says) => {
  expect(sayWaiting(fresh)).toBe(says);
});
