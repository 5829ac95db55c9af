/** What holds for every history of a trip: replay, order, ends. */
import fc from 'fast-check';
import { DEMO_FLOW, DEMO_LIBRARY } from '../../testing/demo-library';
import { compose, go, NOW, trip, VIEW } from '../../testing/trips';
import { compilePlan } from '../flow/plan';
import { parseFlow } from '../flow/syntax';
import { advance, type Advance, type Answer, type TripEvent } from './index';

describe('whatever happens to it', () => {
  const flow = compilePlan(parseFlow(DEMO_FLOW).tree, DEMO_LIBRARY);
  const failures: TripEvent[] = [
    { kind: 'failed', why: 'x', retryable: true, retryAfterMs: null },
    { kind: 'failed', why: 'x', retryable: false, retryAfterMs: null },
  ];
  const others: TripEvent[] = [
    go,
    { kind: 'overdue' },
    { kind: 'plan ended', how: 'answered' },
    { kind: 'choice', choice: 'skip the line', by: 'x' },
    { kind: 'choice', choice: 'try again', by: 'x' },
    { kind: 'decided', decision: { kind: 'approve', by: 'x', subject: 's', body: 'b', edited: false } },
    { kind: 'decided', decision: { kind: 'different', by: 'x' } },
    { kind: 'decided', decision: { kind: 'refuse', by: 'x', why: '' } },
  ];
  const answers: Readonly<Record<string, readonly Answer[]>> = {
    match: [
      { kind: 'match', how: 'new', otherId: null, otherName: '', confidence: 0, evidence: [] },
      { kind: 'match', how: 'doubt', otherId: 'o', otherName: 'O', confidence: 0.7, evidence: [] },
    ],
    read: [{ kind: 'read', findings: [], pages: 0, tookMs: 0, costMicro: 0, says: '' }],
    'look up': [{ kind: 'look up', asked: [] }],
    compose: [compose, { ...compose, facts: [] }],
  };
  /** A seeded history: at every step an answer, a failure, or any other event. */
  const history = fc.array(
    fc.record({ pick: fc.nat(), outside: fc.boolean(), fail: fc.boolean(), hours: fc.integer({ min: 0, max: 60 }) }),
    { maxLength: 40 },
  );

  function play(steps: readonly { pick: number; outside: boolean; fail: boolean; hours: number }[]): Advance[] {
    const results: Advance[] = [];
    let current = trip();
    let now = NOW;
    let request: Advance['request'];
    for (const step of steps) {
      now += step.hours * 3_600_000;
      const fitting = request ? (answers[request.kind] ?? []) : [];
      const event: TripEvent = request
        ? step.fail
          ? failures[step.pick % 2]!
          : { kind: 'answer', answer: fitting[step.pick % fitting.length]! }
        : step.outside
          ? others[step.pick % others.length]!
          : go;
      const result = advance(flow, current, event, now, VIEW);
      results.push(result);
      current = result.trip;
      request = result.request;
    }
    return results;
  }

  test('replaying the same events gives the same trip, journal and commands', () => {
    fc.assert(
      fc.property(history, (steps) => {
        expect(play(steps)).toEqual(play(steps));
      }),
      { numRuns: 150 },
    );
  });

  test('nothing runs after the end, the journal has no gaps, and ids of commands are never used for two things', () => {
    fc.assert(
      fc.property(history, (steps) => {
        const results = play(steps);
        const ended = results.findIndex((result) => result.trip.state.kind === 'done' || result.trip.state.kind === 'stopped');
        if (ended >= 0)
          for (const later of results.slice(ended + 1)) expect([later.journal, later.commands, later.request]).toEqual([[], [], undefined]);
        expect(results.flatMap((result) => result.journal.map((entry) => entry.seq))).toEqual(
          results.flatMap((result) => result.journal).map((_, i) => i),
        );
        const planned = results.flatMap((result) => result.commands).filter((entry) => entry.kind === 'plan touches');
        expect(new Set(planned.map((entry) => entry.threadId)).size).toBe(planned.length);
      }),
      { numRuns: 300 },
    );
  });

  test('the input is never changed', () => {
    const frozen = Object.freeze({ ...trip(), vars: Object.freeze({}) });
    expect(() => advance(flow, frozen, go, NOW, Object.freeze({ ...VIEW }))).not.toThrow();
  });
});
