/** What holds for every history of a trip: replay, order, ends. */
import fc from 'fast-check';
import { anyFlow } from '../../testing/any-flow';
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

describe('through any flow', () => {
  const nothing = { quote: null, url: null, source: 'site', confidence: 0, date: null } as const;
  /** Something that could come back for what a line asks: full, empty, or a failure. */
  function came(request: NonNullable<Advance['request']>, pick: number): TripEvent {
    if (pick % 7 === 6) return { kind: 'failed', why: 'x', retryable: pick % 2 === 0, retryAfterMs: pick % 3 === 0 ? 5000 : null };
    const full = pick % 2 === 0;
    switch (request.kind) {
      case 'match':
        return {
          kind: 'answer',
          answer: { kind: 'match', how: full ? 'new' : 'doubt', otherId: full ? null : 'o', otherName: 'O', confidence: 0.7, evidence: [] },
        };
      case 'read':
        return {
          kind: 'answer',
          answer: {
            kind: 'read',
            findings: request.questions.map((question) => ({
              ...nothing,
              id: question.id.text,
              value: full ? 3 : null,
              found: full,
              says: '',
              others: [],
            })),
            pages: 1,
            tookMs: 2,
            costMicro: 10,
            says: '',
          },
        };
      case 'look up':
        return { kind: 'answer', answer: { kind: 'look up', asked: [] } };
      case 'compose':
        return { kind: 'answer', answer: full ? compose : { ...compose, facts: [], doNotContact: pick % 5 === 0 } };
      case 'screen':
        return {
          kind: 'answer',
          answer: { kind: 'screen', verdicts: full ? [] : [{ screen: 'customer', says: 'a customer', about: 'c' }] },
        };
      case 'draft':
        return {
          kind: 'answer',
          answer: {
            kind: 'draft',
            subject: 'Re: x',
            body: full ? 'Hello' : '',
            language: 'en',
            covered: full,
            open: full ? [] : ['how long?'],
            questions: 1,
            answers: full ? ['Days'] : [],
            checks: [{ id: 'recipient', ok: pick % 5 !== 0, says: 'no address' }],
            uses: [],
          },
        };
      case 'prepare':
        return { kind: 'answer', answer: { kind: 'prepare', paper: request.id, address: '/x', costMicro: 0 } };
      case 'reply':
        return { kind: 'answer', answer: { kind: 'reply', came: null } };
    }
  }
  const outside = (pick: number): TripEvent => {
    const events: readonly TripEvent[] = [
      go,
      { kind: 'overdue' },
      { kind: 'signal' },
      { kind: 'choice', choice: 'skip the line', by: 'x' },
      { kind: 'choice', choice: 'end', by: 'x' },
      { kind: 'decided', decision: { kind: 'approve', by: 'x', subject: 's', body: 'b', edited: false } },
      { kind: 'decided', decision: { kind: 'refuse', by: 'x', why: '' } },
    ];
    return events[pick % events.length] ?? go;
  };
  const way = fc
    .record({
      text: anyFlow,
      steps: fc.array(fc.record({ pick: fc.nat({ max: 1000 }), hours: fc.integer({ min: 0, max: 200 }) }), { maxLength: 40 }),
    })
    .map(({ text, steps }) => ({ flow: compilePlan(parseFlow(text).tree, DEMO_LIBRARY), text, steps }));
  function walk({
    flow,
    steps,
  }: {
    readonly flow: ReturnType<typeof compilePlan>;
    readonly steps: readonly { readonly pick: number; readonly hours: number }[];
  }): readonly Advance[] {
    const results: Advance[] = [];
    let [current, now] = [trip(), NOW];
    let request: Advance['request'];
    for (const { pick, hours } of steps) {
      now += hours * 3_600_000;
      const result = advance(flow, current, request ? came(request, pick) : outside(pick), now, VIEW);
      results.push(result);
      current = result.trip;
      request = result.request;
    }
    return results;
  }

  test('a trip only goes forward, writes only of lines that are there, and asks for nothing once it has ended', () => {
    fc.assert(
      fc.property(way, (given) => {
        const results = walk(given);
        const marks = new Set(given.flow.instructions.map((line) => line.mark));
        const journal = results.flatMap((result) => result.journal);
        expect(journal.map((entry) => entry.seq)).toEqual(journal.map((_, i) => i));
        expect(journal.filter((entry) => !marks.has(entry.mark))).toEqual([]);
        const places = journal.map((entry) => given.flow.instructions.findIndex((line) => line.mark === entry.mark));
        expect(places).toEqual([...places].sort((a, b) => a - b));
        const ended = results.findIndex((result) => result.trip.state.kind === 'done' || result.trip.state.kind === 'stopped');
        if (ended >= 0)
          for (const later of results.slice(ended + 1)) expect([later.journal, later.commands, later.request]).toEqual([[], [], undefined]);
        for (const entry of journal) expect(entry.says.length).toBeGreaterThan(0);
      }),
      { numRuns: 250 },
    );
  });

  test('what a line makes has an id of its own, and nothing leaves that no person has approved', () => {
    fc.assert(
      fc.property(way, (given) => {
        const results = walk(given);
        const commands = results.flatMap((result) => result.commands);
        const made = commands.flatMap((command) =>
          command.kind === 'tell'
            ? [`tell ${command.noticeId}`]
            : command.kind === 'hand over'
              ? [`hand over ${command.effectId}`]
              : command.kind === 'open deal'
                ? [`deal ${command.dealId}`]
                : command.kind === 'keep message'
                  ? [`message ${command.messageId}`]
                  : [],
        );
        expect(made.length).toBe(new Set(made).size);
        // A person's approval is in the journal before anything leaves.
        const leaves = results.findIndex((result) => result.commands.some((command) => command.kind === 'plan touches'));
        const before = results.slice(0, leaves + 1).flatMap((result) => result.journal);
        if (leaves >= 0) expect(before.filter((entry) => entry.says.startsWith('approved by x'))).not.toEqual([]);
      }),
      { numRuns: 150 },
    );
  });

  test('the same way is the same every time', () => {
    fc.assert(
      fc.property(way, (given) => {
        expect(walk(given)).toEqual(walk(given));
      }),
      { numRuns: 60 },
    );
  });
});
