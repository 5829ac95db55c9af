/** Messages that are written, asked for, and followed up. */
import { compilePlan, type Plan } from '../flow/plan';
import { parseFlow } from '../flow/syntax';
import { DEMO_LIBRARY } from '../../testing/demo-library';
import { NOW, VIEW, command, compose, plan, run, says, trip } from '../../testing/trips';
import { advance, type TripEvent } from './index';

describe('write, ask, follow up', () => {
  const flow = plan(
    'take in from hand\nkeep when email != null\nwrite email "First contact" as opener\nask "north" to approve opener within 2 days\n  otherwise tell owner "still waits"\nfollow up with "First contact"\nnote "after"\n',
  );
  const upToAsk = run(flow, trip(), () => compose);

  test('a message that passes its checks is kept and asked for', () => {
    const [, written] = upToAsk.results;
    expect(written && command(written, 'keep message')?.composed.passed).toBe(true);
    expect(upToAsk.trip.state).toMatchObject({ kind: 'asking', what: 'approval', until: NOW + 2 * 86_400_000 });
  });

  test('a failed check holds the trip and says why; nothing is kept', () => {
    const { trip: held, results } = run(flow, trip(), () => ({ ...compose, facts: [] }));
    expect(held.state).toMatchObject({ kind: 'stuck', held: true });
    expect(held.state.kind === 'stuck' && held.state.why).toContain('no fact is known');
    expect(results.some((result) => command(result, 'keep message'))).toBe(false);
  });

  test('somebody on the do-not-contact list is never written to', () => {
    expect(run(flow, trip(), () => ({ ...compose, doNotContact: true })).trip.state).toMatchObject({ kind: 'stuck', held: true });
  });

  const approve: TripEvent = {
    kind: 'decided',
    decision: { kind: 'approve', by: 'Tomasz', subject: 'New subject', body: 'New body', edited: true },
  };

  test('the mailbox that the flow’s head names is the one that writes, before that of the plan', () => {
    const mailboxOf = (of: Plan): string | undefined => {
      let result = advance(of, upToAsk.trip, approve, NOW, VIEW);
      while (result.request) result = advance(of, result.trip, { kind: 'answer', answer: compose }, NOW, VIEW);
      return command(result, 'plan touches')?.plan.mailbox;
    };
    expect(mailboxOf({ ...flow, mailbox: 'South mailbox' })).toBe('South mailbox');
    expect(mailboxOf({ ...flow, mailbox: null })).toBe(DEMO_LIBRARY.plans[0]?.mailbox);
    const text = 'flow "X"\nabout person\nuses connection mail = "South mailbox"\n\ntake in from hand\n';
    expect(compilePlan(parseFlow(text).tree, DEMO_LIBRARY).mailbox).toBe('South mailbox');
  });

  test('approved words are the words that go out, in a thread with the other touches', () => {
    const approved = advance(flow, upToAsk.trip, approve, NOW, VIEW);
    expect(says(approved)).toContain('ask: approved by Tomasz, with changes');
    let result = approved;
    while (result.request) result = advance(flow, result.trip, { kind: 'answer', answer: compose }, NOW, VIEW);
    const touches = command(result, 'plan touches')?.touches ?? [];
    expect(touches.map((touch) => touch.day)).toEqual([0, 3, 8]);
    expect(touches[0]).toMatchObject({ subject: 'New subject', body: 'New body', composed: null });
    expect(touches[1]?.composed?.checks.every((check) => check.ok)).toBe(true);
    expect(result.trip.state).toMatchObject({ kind: 'following' });
    expect(Object.keys(result.trip.vars)).toEqual(['opener']);
  });

  test('a refusal stops the trip', () => {
    const result = advance(flow, upToAsk.trip, { kind: 'decided', decision: { kind: 'refuse', by: 'Tomasz', why: 'not them' } }, NOW, VIEW);
    expect(result.trip.state).toEqual({ kind: 'stopped', why: 'refused by Tomasz' });
  });

  test('an overdue approval is told to somebody else and stays open', () => {
    const late = advance(flow, upToAsk.trip, { kind: 'overdue' }, NOW + 3 * 86_400_000, VIEW);
    expect(command(late, 'escalate review')).toMatchObject({ to: 'owner', text: 'still waits' });
    expect(late.trip.state).toMatchObject({ kind: 'asking', until: null });
    expect(advance(flow, upToAsk.trip, { kind: 'overdue' }, NOW + 1, VIEW).journal).toEqual([]);
  });

  test.each([
    ['all sent', 'done'],
    ['answered', 'done'],
    ['unsubscribed', 'stopped'],
    ['bounced', 'stopped'],
  ] as const)('a plan that ended because of “%s” leaves the trip %s', (how, state) => {
    const following = trip({ at: 4, state: { kind: 'following', threadId: 'th' }, vars: {} });
    expect(advance(flow, following, { kind: 'plan ended', how }, NOW, VIEW).trip.state.kind).toBe(state);
  });

  test('events that do not fit the state change nothing', () => {
    for (const event of [
      { kind: 'plan ended', how: 'answered' },
      { kind: 'choice', choice: 'end', by: 'x' },
    ] satisfies TripEvent[]) {
      const result = advance(flow, upToAsk.trip, event, NOW, VIEW);
      expect([result.trip, result.journal, result.commands]).toEqual([upToAsk.trip, [], []]);
    }
  });

  test('in a trial nothing is asked or planned: it says what would happen', () => {
    const { trip: end, results } = run(flow, trip({ trial: true }), () => compose);
    expect(end.state.kind).toBe('done');
    const kinds = new Set(results.flatMap((result) => result.commands.map((entry) => entry.kind)));
    for (const outside of ['ask approval', 'plan touches', 'assign', 'merge'] as const) expect(kinds).not.toContain(outside);
    expect(results.flatMap(says)).toEqual(
      expect.arrayContaining([
        'ask: would ask north',
        'follow up: would send 3 messages; left out: call on day 1: there is no number to call, letter: there is no street and place for a letter',
      ]),
    );
  });
});
