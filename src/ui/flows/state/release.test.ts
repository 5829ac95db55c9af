import { compilePlan } from '../../../core/flow/plan';
import { keepMarks } from '../../../core/flow/edit';
import { parseFlow, printFlow } from '../../../core/flow/syntax';
import { forecast } from '../../../core/forecast';
import { DEMO_FLOW, DEMO_LIBRARY } from '../../../testing/demo-library';
import { changeGroups, FIRST_LIMITS, forecastRibbon, readLimits, stations, type ChangedTrip } from './release';
import { firstNewMark, readScript } from './script';

const NOW = '2026-11-24T10:00';
const text = printFlow(parseFlow(DEMO_FLOW).tree, { marks: true });
const script = readScript(text, DEMO_LIBRARY);
const plan = compilePlan(script.parsed.tree, DEMO_LIBRARY);
const split = plan.instructions.find((line) => line.step.verb === 'split');
const made = forecast(plan, {
  records: 200,
  seen: [
    {
      mark: split?.mark ?? '',
      passed: 100,
      ended: 0,
      arms: (split?.arms ?? []).map((arm, i) => ({ mark: arm.mark, trips: i === 1 ? 70 : 10 })),
      costMicro: 0,
    },
  ],
  replies: { answered: 1, silent: 9 },
  from: Date.parse('2026-11-25T09:00:00Z'),
  time: { zone: 'Europe/London', fromMinute: 540, toMinute: 1020, daysOff: new Set() },
  sendsPerDay: 60,
});

describe('the ribbon of a forecast', () => {
  test('follows the way most records take, past lines at which nobody is lost', () => {
    expect(stations(script.rows, made).map((station) => station.label)).toEqual([
      'Take in',
      'Keep',
      'Match',
      'Read',
      'Score',
      'Look up',
      'Keep',
      'Write',
      'Ask',
      'Follow up',
    ]);
  });

  test('is as wide as records get there, and nowhere wider than its room', () => {
    const bands = forecastRibbon(
      [
        { low: 100, mid: 100, high: 100 },
        { low: 20, mid: 50, high: 80 },
      ],
      600,
      150,
    );
    expect(bands.at).toEqual([0, 600]);
    expect(bands.mid).toContain('600 112.5');
    const numbers = [...bands.high.matchAll(/ (\d+(?:\.\d+)?)(?= |$)/g)].map((found) => Number(found[1]));
    expect(Math.max(...numbers)).toBeLessThanOrEqual(600);
  });

  test('nobody at all draws no line that is not there', () => {
    expect(forecastRibbon([{ low: 0, mid: 0, high: 0 }], 600, 150).mid).not.toContain('NaN');
  });
});

describe('what would change', () => {
  const came = { written: false, band: 'warm', points: 60, end: 'done' as const, says: '' };
  const trip = (id: string, kind: ChangedTrip['kind'], mark: string | null): ChangedTrip => ({
    tripId: id,
    personId: id,
    personName: id,
    companyName: null,
    kind,
    mark,
    before: came,
    after: came,
    beforeSays: '',
    afterSays: '',
    missing: [],
  });

  test('is grouped by kind, each with the lines that made the difference, most often first', () => {
    const groups = changeGroups([
      trip('a', 'same', null),
      trip('b', 'written to', 'k1'),
      trip('c', 'written to', 'k2'),
      trip('d', 'written to', 'k2'),
    ]);
    expect(groups.map((group) => [group.kind, group.trips.length])).toEqual([
      ['written to', 3],
      ['same', 1],
    ]);
    expect(groups[0]?.reasons).toEqual([
      { mark: 'k2', trips: 2 },
      { mark: 'k1', trips: 1 },
    ]);
    expect(groups[1]?.reasons).toEqual([]);
  });
});

describe('limits as they are typed', () => {
  test('nothing typed limits nothing; ten at first is the suggestion', () => {
    expect(readLimits(FIRST_LIMITS, NOW)).toEqual({ problems: {}, ask: { firstN: 10, underWay: 'finish', cameBefore: 'leave' } });
    expect(readLimits({ ...FIRST_LIMITS, firstN: ' ' }, NOW).ask).toEqual({ underWay: 'finish', cameBefore: 'leave' });
  });

  test('all of them', () => {
    expect(
      readLimits(
        { firstN: '5', dailyLimit: '40', budget: '2,50', startAt: 'Mon 30 Nov 8:00', underWay: 'move', cameBefore: 'take in' },
        NOW,
      ),
    ).toEqual({
      problems: {},
      ask: { firstN: 5, dailyLimit: 40, dayBudgetMicro: 2_500_000, startAt: '2026-11-30T08:00', underWay: 'move', cameBefore: 'take in' },
    });
  });

  test.each([
    ['firstN', '0'],
    ['firstN', '1.5'],
    ['dailyLimit', 'many'],
    ['budget', '-3'],
    ['budget', '2.505'],
    ['startAt', 'some day'],
    ['startAt', '2026-11-20 8:00'],
  ] as const)('%s of “%s” is named and not sent', (key, value) => {
    const { problems, ask } = readLimits({ ...FIRST_LIMITS, firstN: '', [key]: value }, NOW);
    expect(Object.keys(problems)).toEqual([key]);
    expect(ask).toEqual({ underWay: 'finish', cameBefore: 'leave' });
  });
});

test('the first new mark is the line that was put in', () => {
  const next = keepMarks(text, printFlow(parseFlow(text).tree).replace('score company', 'wait 1 day\nscore company'));
  const mark = firstNewMark(text, next);
  expect(readScript(next, DEMO_LIBRARY).rows.find((row) => row.mark === mark)).toMatchObject({ line: { step: { verb: 'wait' } } });
  expect(firstNewMark(text, text)).toBeUndefined();
});
