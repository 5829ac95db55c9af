import { END } from '../flow/plan';
import { NOW, VIEW, command, go, plan, run, says, trip } from '../../testing/trips';
import { advance, type Answer, type RecordView } from './index';

describe('lines that need nobody', () => {
  test('run until the end, each with its word in the journal', () => {
    const result = advance(
      plan('take in from hand\nkeep when email != null\nset status = "seen"\nnote "Hello " + first_name\n'),
      trip(),
      go,
      NOW,
      VIEW,
    );
    expect(says(result)).toEqual(['take in: taken in from hand', 'keep: kept', 'set: status is now seen', 'note: Hello Mara']);
    expect(result.trip).toMatchObject({ at: END, state: { kind: 'done' }, seq: 4 });
    // The fact is its own line's, though the trip went on to the note.
    expect(command(result, 'record facts')?.mark).toBe(result.journal[2]?.mark);
    expect(result.journal[2]?.mark).not.toBe(result.journal[3]?.mark);
    expect(command(result, 'record facts')?.facts[0]).toMatchObject({
      field: 'status',
      value: 'seen',
      source: 'flow',
      sourceRef: 'X, line 3',
    });
  });

  test('what the lines beside a reading will ask is told with its question, and changes nothing else', () => {
    const SITE = 'read company from website as site\n  heated_area: number in ha "How large is it?"\n';
    const flow = plan(`take in from hand\n${SITE}look up email with "Work e-mail"\nnote "x"\n`);
    const nobody: RecordView = { ...VIEW, person: { ...VIEW.person, email: null } };
    const asked = advance(flow, trip(), go, NOW, nobody);
    expect(asked.request?.kind).toBe('read');
    expect(asked.beside).toMatchObject([{ kind: 'look up', field: 'email' }]);
    expect(asked.trip).toMatchObject({ at: 1, state: { kind: 'ready' } });
    expect(says(asked)).toEqual(['take in: taken in from hand']);
    // Who is known already is asked about nowhere, ahead of the line or at it.
    expect(advance(flow, trip(), go, NOW, VIEW).beside).toEqual([]);
  });

  test('keep stops those for whom the condition is false, and says when it was only unknown', () => {
    const flow = plan('take in from hand\nkeep when phone > "0"\n  else set status = "no phone"\n');
    const result = advance(flow, trip(), go, NOW, VIEW);
    expect(result.trip.state).toEqual({ kind: 'stopped', why: 'unknown, so not kept' });
    expect(result.journal.at(-1)?.detail).toEqual({ unknown: true });
    expect(command(result, 'record facts')?.facts[0]?.value).toBe('no phone');
  });

  test('a line sees what the line before it set', () => {
    const result = advance(
      plan(
        'take in from hand\nset status = "x"\nkeep when status = "x"\nset company.main_crop = "tomato"\nkeep when company.main_crop = "tomato"\n',
      ),
      trip(),
      go,
      NOW,
      VIEW,
    );
    expect(result.trip.state.kind).toBe('done');
  });

  test('a split takes the first arm that holds and goes on below', () => {
    const flow = plan(
      'take in from hand\nscore company with "Grower fit" as fit\nsplit\n  when fit.points >= 99\n    note "a"\n  when fit.points >= 75\n    note "b"\n  else\n    note "c"\nnote "below"\n',
    );
    const result = advance(flow, trip(), go, NOW, VIEW);
    expect(says(result).slice(2)).toEqual(['split: when fit ≥ 99', 'note: a', 'note: below']);
    const poorer = advance(flow, trip(), go, NOW, { ...VIEW, company: VIEW.company && { ...VIEW.company, heated_area: 0.4 } });
    expect(says(poorer).slice(-2)).toEqual(['note: c', 'note: below']);
  });

  test('the score keeps its working in the journal', () => {
    const entry = advance(plan('take in from hand\nscore company with "Grower fit" as fit\nnote fit.why\n'), trip(), go, NOW, VIEW)
      .journal[1];
    expect(entry?.detail).toMatchObject({ points: 100, band: 'hot', out: false });
    expect(entry?.detail.working).toHaveLength(5);
  });

  test('a line switched off is passed over', () => {
    const result = advance(plan('take in from hand\noff: stop "x"\nnote "y"\n'), trip(), go, NOW, VIEW);
    expect(result.journal.map((line) => line.outcome)).toEqual(['passed', 'off', 'passed']);
  });

  test('wait holds until its time and then goes on', () => {
    const flow = plan('take in from hand\nwait 3 days\nnote "after"\n');
    const waiting = advance(flow, trip(), go, NOW, VIEW).trip;
    expect(waiting.state).toEqual({ kind: 'waiting', until: NOW + 3 * 86_400_000, why: 'waits 3 days' });
    expect(advance(flow, waiting, go, NOW + 1000, VIEW).journal).toEqual([]);
    expect(says(advance(flow, waiting, go, NOW + 3 * 86_400_000, VIEW))).toEqual(['note: after']);
  });

  test('a scorecard that is gone makes the trip stuck, with the reason', () => {
    const flow = plan('take in from hand\nscore company with "Nothing" as fit\n');
    expect(advance(flow, trip(), go, NOW, VIEW).trip.state).toMatchObject({ kind: 'stuck', why: 'the scorecard “Nothing” is gone' });
  });
});

describe('match', () => {
  const flow = plan('take in from hand\nmatch company, person\nnote "after"\n');
  const answer = (how: 'new' | 'same' | 'doubt' | 'none'): Answer => ({
    kind: 'match',
    how,
    otherId: how === 'new' || how === 'none' ? null : 'other',
    otherName: 'Mara Quil',
    confidence: 0.8,
    evidence: [],
  });

  test('goes target by target', () => {
    const { results, trip: end } = run(flow, trip(), () => answer('new'));
    expect(results.map((result) => result.request?.kind === 'match' && result.request.target)).toEqual(['company', 'person', false]);
    expect(end.state.kind).toBe('done');
  });

  test('surely the same: joined, and the trip goes on with the record loaded afresh', () => {
    const first = advance(flow, trip(), go, NOW, VIEW);
    const result = advance(flow, first.trip, { kind: 'answer', answer: answer('same') }, NOW, VIEW);
    expect(command(result, 'merge')).toMatchObject({ target: 'company', fromId: 'c1', intoId: 'other' });
    expect(result.reload).toBe(true);
  });

  test('doubtful: a person is asked, and their word decides', () => {
    const first = advance(flow, trip(), go, NOW, VIEW);
    const asked = advance(flow, first.trip, { kind: 'answer', answer: answer('doubt') }, NOW, VIEW);
    expect(asked.trip.state).toMatchObject({ kind: 'asking', what: 'pair' });
    expect(command(asked, 'ask about pair')).toMatchObject({ aId: 'c1', bId: 'other' });
    const same = advance(flow, asked.trip, { kind: 'decided', decision: { kind: 'same', by: 'Ines', otherId: 'other' } }, NOW, VIEW);
    expect(command(same, 'merge')).toMatchObject({ by: 'Ines' });
    const different = advance(flow, asked.trip, { kind: 'decided', decision: { kind: 'different', by: 'Ines' } }, NOW, VIEW);
    expect(command(different, 'merge')).toBeUndefined();
    expect(different.request).toMatchObject({ kind: 'match', target: 'person' });
  });

  test('a person without company has none to match', () => {
    const { results } = run(flow, trip(), () => answer('none'), { ...VIEW, company: null });
    expect(results.flatMap(says)).toEqual(expect.arrayContaining(['match: no company to match', 'note: after']));
  });
});

describe('read', () => {
  const flow = plan(
    'take in from hand\nread company from website as research\n  heated_area: number in ha "How large?"\n  mood: text "How are they?"\n  at most 3 pages, 0.20 EUR\nnote "area " + string(research.heated_area)\n',
  );
  const findings = [
    {
      id: 'heated_area',
      found: true,
      value: 5.5,
      quote: '5.5 ha under glass',
      url: 'http://oakmere-glass.example/about',
      confidence: 0.9,
      says: 'found',
      source: 'site' as const,
      date: null,
      others: [
        {
          value: 4,
          quote: 'Employees: 30. Area: 4 ha',
          url: 'http://register.example/1',
          source: 'register' as const,
          confidence: 0.6,
          date: NOW - 1000,
        },
      ],
    },
    {
      id: 'mood',
      found: false,
      value: null,
      quote: null,
      url: null,
      confidence: 0,
      says: 'not found on 3 pages',
      source: 'site' as const,
      date: null,
      others: [],
    },
  ];

  test('asks for the site within the limit, and keeps answers as facts where a field has their name', () => {
    const first = advance(flow, trip(), go, NOW, VIEW);
    expect(first.request).toMatchObject({ kind: 'read', website: 'oakmere-glass.example', maxPages: 3 });
    const result = advance(
      flow,
      first.trip,
      { kind: 'answer', answer: { kind: 'read', findings, pages: 3, tookMs: 40, costMicro: 0, says: '' } },
      NOW,
      VIEW,
    );
    expect(command(result, 'record facts')?.facts).toEqual([
      expect.objectContaining({ field: 'heated_area', value: 5.5, source: 'site', quote: '5.5 ha under glass', observedAt: NOW }),
      expect.objectContaining({
        field: 'heated_area',
        value: 4,
        source: 'register',
        url: 'http://register.example/1',
        observedAt: NOW - 1000,
      }),
    ]);
    expect(says(result)[0]).toBe('read: 1 of 2 answers from 3 pages');
    expect(result.trip.vars.research).toEqual({ heated_area: 5.5, mood: null, changes: 0, news: '' });
  });

  test('without a site nothing is asked and nothing is found', () => {
    const result = advance(flow, trip(), go, NOW, { ...VIEW, company: VIEW.company && { ...VIEW.company, website: null } });
    expect(says(result)).toContain('read: no site to read: nothing found');
  });

  test('failures are tried again with growing pauses, then the trip is stuck; a server’s own wish counts', () => {
    let current = advance(flow, trip(), go, NOW, VIEW).trip;
    let now = NOW;
    const pauses: number[] = [];
    for (let i = 0; i < 5; i++) {
      const failed = advance(
        flow,
        current,
        { kind: 'failed', why: 'the site did not answer', retryable: true, retryAfterMs: i === 1 ? 900_000 : null },
        now,
        VIEW,
      );
      if (failed.trip.state.kind === 'waiting' && failed.trip.state.until !== null) {
        pauses.push(failed.trip.state.until - now);
        now = failed.trip.state.until;
        current = advance(flow, failed.trip, go, now, VIEW).trip;
      } else current = failed.trip;
    }
    expect(pauses).toEqual([30_000, 900_000, 120_000, 240_000]);
    expect(current.state).toMatchObject({ kind: 'stuck', why: 'the site did not answer, 5 tries' });
  });

  test('in a trial a failure is shown at once', () => {
    const first = advance(flow, trip({ trial: true }), go, NOW, VIEW);
    expect(
      advance(flow, first.trip, { kind: 'failed', why: 'busy', retryable: true, retryAfterMs: null }, NOW, VIEW).trip.state,
    ).toMatchObject({ kind: 'stuck', why: 'busy' });
  });

  test('what can never work is not tried again', () => {
    const first = advance(flow, trip(), go, NOW, VIEW);
    expect(
      advance(flow, first.trip, { kind: 'failed', why: 'refused', retryable: false, retryAfterMs: null }, NOW, VIEW).trip.state.kind,
    ).toBe('stuck');
  });

  test('a stuck trip is tried again, skipped over, or ended, as a person says', () => {
    const stuck = trip({ at: 1, seq: 2, state: { kind: 'stuck', why: 'x', held: false } });
    const choose = (choice: 'try again' | 'skip the line' | 'end') =>
      advance(flow, stuck, { kind: 'choice', choice, by: 'Ines' }, NOW, VIEW);
    expect(choose('try again').request?.kind).toBe('read');
    expect(says(choose('skip the line')).at(-1)).toMatch(/^note/);
    expect(choose('end').trip.state).toEqual({ kind: 'stopped', why: 'ended by Ines' });
  });
});

describe('look up', () => {
  const flow = plan('take in from hand\nlook up email with "Work e-mail"\nkeep when email != null\n');
  const nobody: RecordView = { ...VIEW, person: { ...VIEW.person, email: null } };
  const asked = {
    provider: 'Fernpost',
    outcome: 'usable' as const,
    value: 'mara@oakmere-glass.example',
    why: '',
    costMicro: 20_000,
    tookMs: 12,
  };

  test('asks nobody for what is known', () => {
    expect(says(advance(flow, trip(), go, NOW, VIEW))).toContain('look up: known already, nobody was asked');
  });

  test('puts a usable answer on the record as a fact and counts what it cost', () => {
    const first = advance(flow, trip(), go, NOW, nobody);
    const result = advance(
      flow,
      first.trip,
      {
        kind: 'answer',
        answer: { kind: 'look up', asked: [{ ...asked, provider: 'A', outcome: 'nothing', value: null, costMicro: 0 }, asked] },
      },
      NOW,
      nobody,
    );
    expect(command(result, 'record facts')?.facts[0]).toMatchObject({
      field: 'email',
      value: 'mara@oakmere-glass.example',
      source: 'lookup',
      sourceRef: 'Fernpost',
    });
    expect(result.journal[0]).toMatchObject({ costMicro: 20_000, tookMs: 24, says: 'Fernpost had it: mara@oakmere-glass.example' });
    expect(result.trip.state.kind).toBe('done');
  });

  test('nothing usable: the trip goes on without', () => {
    const first = advance(flow, trip(), go, NOW, nobody);
    const result = advance(
      flow,
      first.trip,
      { kind: 'answer', answer: { kind: 'look up', asked: [{ ...asked, outcome: 'not usable' }] } },
      NOW,
      nobody,
    );
    expect(result.trip.state).toMatchObject({ kind: 'stopped', why: 'not kept' });
  });
});
