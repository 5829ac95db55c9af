import { followsText, replyTone } from './replies';

test.each([
  [{ kind: 'interested', when: null, plan: 'stop' }, 'the plan stopped'],
  [{ kind: 'unsubscribe', when: null, plan: 'stop' }, 'the plan ended; nobody writes to this address again'],
  [{ kind: 'out of office', when: '2026-12-14', plan: 'pause' }, 'the plan waits until Mon 14 Dec'],
  [{ kind: 'thanks', when: null, plan: 'pause' }, 'the plan waits some days'],
  [{ kind: 'delayed', when: null, plan: 'continue' }, 'nobody has answered: the plan goes on'],
  [{ kind: 'interested', when: '2 December' }, ''],
] as const)('%j: %s', (reading, says) => {
  expect(followsText(reading, 'Europe/London')).toBe(says);
});
test('a kind of before, or none, has no colour', () => {
  expect([replyTone('objection'), replyTone('something'), replyTone('')]).toEqual(['brick', 'plain', 'plain']);
});
