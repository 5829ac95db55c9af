import { compilePlan, type Plan } from '../flow/plan';
import { keepMarks } from '../flow/edit';
import { parseFlow, printFlow } from '../flow/syntax';
import { DEMO_FLOW, DEMO_LIBRARY } from '../../testing/demo-library';
import { compose, go, NOW, trip, VIEW } from '../../testing/trips';
import { advance, difference, replay, type Answer, type JournalEntry, type Readings, type TripEvent } from './index';

const BANDS = ['hot', 'warm', 'cold'];
const plan = (text: string): Plan => compilePlan(parseFlow(text).tree, DEMO_LIBRARY);
const live = plan(DEMO_FLOW);
const finding = (id: string, value: string | number | boolean | null) => ({
  id,
  found: value !== null,
  value,
  quote: value === null ? null : `says ${String(value)}`,
  url: 'http://oakmere-glass.example/',
  confidence: 0.8,
  says: 'found',
  source: 'site' as const,
  date: null,
  others: [],
});
/** A trip as it once went, so that its journal holds what was read. */
function once(area: number): Readings {
  const journal: JournalEntry[] = [];
  let current = trip();
  let event: TripEvent = go;
  for (let i = 0; i < 30; i++) {
    const result = advance(live, current, event, NOW, VIEW);
    journal.push(...result.journal);
    current = result.trip;
    const { request } = result;
    if (!request && !result.reload) break;
    const answer: Answer | undefined =
      request?.kind === 'read'
        ? {
            kind: 'read',
            findings: request.questions.map(({ id }) => finding(id.text, id.text === 'heated_area' ? area : null)),
            pages: 3,
            tookMs: 5,
            costMicro: 0,
            says: '',
          }
        : request?.kind === 'match'
          ? { kind: 'match', how: 'new', otherId: null, otherName: '', confidence: 0, evidence: [] }
          : request?.kind === 'compose'
            ? compose
            : undefined;
    event = answer ? { kind: 'answer', answer } : go;
  }
  return { journal, compose };
}
const run = (flow: Plan, readings: Readings) => replay(flow, trip(), VIEW, readings, NOW);
const drafted = (from: string, to: string): Plan =>
  plan(keepMarks(printFlow(parseFlow(DEMO_FLOW).tree, { marks: true }), DEMO_FLOW.replace(from, to)));

describe('replaying with what was read then', () => {
  const readings = once(4.2);

  test('asks nothing and comes to the same end, every time', () => {
    const [a, b] = [run(live, readings), run(live, readings)];
    expect(a).toEqual(b);
    expect(a.missing).toEqual([]);
    expect(a.trip.state.kind).toBe('done');
    expect(difference(a, b, BANDS)).toMatchObject({ kind: 'same', mark: null });
  });

  test('a threshold that is raised keeps a record from being written to, at the split', () => {
    const draft = drafted('when fit.points >= 75', 'when fit.points >= 101');
    const split = live.instructions.find((line) => line.step.verb === 'split');
    expect(difference(run(live, readings), run(draft, readings), BANDS)).toMatchObject({
      kind: 'not written to',
      mark: split?.mark,
      before: { written: true, band: 'hot' },
      after: { written: false, band: 'hot' },
    });
    expect(difference(run(draft, readings), run(live, readings), BANDS).kind).toBe('written to');
  });

  test('a line that changes nothing makes no difference', () => {
    const draft = drafted('score company with', 'set status = "seen"\nscore company with');
    expect(difference(run(live, readings), run(draft, readings), BANDS)).toMatchObject({ kind: 'same' });
  });

  test('another arm taken is told, though the end is the same', () => {
    const arms = (bar: number): Plan =>
      plan(
        `flow "T" #t1\nabout person\n\ntake in from hand #l1\nsplit #l2\n  when company.heated_area >= ${bar} #a1\n    note "large" #l3\n  else #a2\n    note "small" #l4\nnote "end" #l5\n`,
      );
    const way = (bar: number) => run(arms(bar), readings);
    const [large, small] = [way(0), way(1000)];
    expect(difference(large, small, BANDS)).toMatchObject({ kind: 'other lines', mark: 'l2', beforeSays: expect.any(String) });
    expect(difference(large, way(0), BANDS)).toMatchObject({ kind: 'same', mark: null });
  });

  test('a line that is left out is no difference by itself either', () => {
    const draft = drafted('score company with', 'set status = "seen"\nscore company with');
    expect(difference(run(draft, readings), run(live, readings), BANDS)).toMatchObject({ kind: 'same', mark: null });
  });

  test('what was never asked before is named, and counts as not found', () => {
    const draft = drafted('  all_year: yes/no', '  energy: text "What do they heat with?"\n  all_year: yes/no');
    const result = run(draft, readings);
    expect(result.missing).toEqual(['energy']);
    expect(difference(run(live, readings), result, BANDS).missing).toEqual(['energy']);
  });
});
