import { compilePlan, type Plan } from '../flow/plan';
import { numberedLines, parseFlow } from '../flow/syntax';
import { DEMO_LIBRARY } from '../../testing/demo-library';
import { chance } from '../base';
import { forecast, judge, type ForecastAsk, type LineSeen } from './index';

const BODY = `flow "X"
about person

take in from hand
keep when email != null
look up email with "Work e-mail"
split
  when company.heated_area >= 2
    write email "First contact" as m
    ask "north" to approve m
    follow up with "First contact"
  when company.heated_area >= 1
    note "warm"
  else
    stop "small"
note "end"
`;
const plan: Plan = compilePlan(parseFlow(BODY).tree, DEMO_LIBRARY);
const marks = numberedLines(parseFlow(BODY).tree.lines).map((entry) => entry.line.mark);
const arms = plan.instructions[3]?.arms.map((arm) => arm.mark) ?? [];
const time = { zone: 'Europe/London', fromMinute: 540, toMinute: 1020, daysOff: new Set(['2026-11-26']) };
const seen: readonly LineSeen[] = [
  { mark: marks[1] ?? '', passed: 60, ended: 40, arms: [], costMicro: 0 },
  { mark: marks[2] ?? '', passed: 60, ended: 0, arms: [], costMicro: 60 * 20_000 },
  {
    mark: marks[3] ?? '',
    passed: 60,
    ended: 0,
    arms: [
      { mark: arms[0] ?? '', trips: 30 },
      { mark: arms[1] ?? '', trips: 18 },
      { mark: arms[2] ?? '', trips: 12 },
    ],
    costMicro: 0,
  },
];
const ask: ForecastAsk = {
  records: 1000,
  seen,
  replies: { answered: 20, silent: 80 },
  from: Date.parse('2026-11-25T08:00:00Z'),
  time,
  sendsPerDay: 60,
};
const at = (result: ReturnType<typeof forecast>, i: number) => result.lines[i]?.reach ?? { low: 0, mid: 0, high: 0 };

describe('forecast', () => {
  const result = forecast(plan, ask);

  test('survivors follow the rates that were seen, with a range as wide as they are unsure', () => {
    expect(at(result, 0)).toEqual({ low: 1000, mid: 1000, high: 1000 });
    const { low, mid, high } = at(result, 2);
    expect(mid).toBeGreaterThan(540);
    expect(mid).toBeLessThan(660);
    expect(high - low).toBeGreaterThan(60);
    expect(at(result, 4).mid / mid).toBeGreaterThan(0.4);
    expect(at(result, 4).mid / mid).toBeLessThan(0.6);
  });

  test('an arm seen in trial and in history counts once with both', () => {
    const parted = seen.map((line) => ({
      ...line,
      arms: line.arms.flatMap((arm) => [
        { ...arm, trips: 1 },
        { ...arm, trips: arm.trips - 1 },
      ]),
    }));
    expect(forecast(plan, { ...ask, seen: parted })).toEqual(result);
  });

  test('more seen makes the range narrower', () => {
    const tenfold = seen.map((line) => ({
      ...line,
      passed: line.passed * 10,
      ended: line.ended * 10,
      arms: line.arms.map((arm) => ({ ...arm, trips: arm.trips * 10 })),
    }));
    const [few, many] = [at(result, 2), at(forecast(plan, { ...ask, seen: tenfold }), 2)];
    expect(many.high - many.low).toBeLessThan(few.high - few.low);
  });

  test('no record is lost or doubled on the way', () => {
    for (const records of [0, 1, 7, 50_000]) {
      const one = forecast(plan, { ...ask, records, runs: 1 });
      const stopped = at(one, 9).mid === 0 ? 0 : at(one, 8).mid;
      const into = at(one, 2).mid;
      expect(at(one, 4).mid + at(one, 7).mid + at(one, 8).mid).toBeLessThanOrEqual(into);
      expect(one.through.mid + stopped).toBeLessThanOrEqual(records);
    }
  });

  test('cost is what was paid per record, times those who get there', () => {
    expect(result.costMicro.mid / at(result, 2).mid).toBeGreaterThan(17_000);
    expect(result.costMicro.mid / at(result, 2).mid).toBeLessThan(23_000);
  });

  test('messages keep to the mailbox’s limit and to working days; later touches go only to the silent', () => {
    for (const day of result.days) {
      expect(day.sends.high).toBeLessThanOrEqual(60);
      expect(['2026-11-26', '2026-11-28', '2026-11-29']).not.toContain(day.day);
    }
    expect(result.firstDay).toBe('2026-11-25');
    const perTrip = result.sends.mid / at(result, 6).mid;
    expect(perTrip).toBeGreaterThan(2.2);
    expect(perTrip).toBeLessThan(3);
  });

  test('beginning a few a day makes it take longer', () => {
    const slow = forecast(plan, { ...ask, beginPerDay: 50 });
    expect((slow.lastDay ?? '') > (result.lastDay ?? '')).toBe(true);
  });

  test('where nothing was seen the line is named and the range is wide', () => {
    const blind = forecast(plan, { ...ask, seen: [] });
    expect(blind.lines.filter((line) => line.guessed).map((line) => line.mark)).toEqual([1, 3, 4, 5].map((i) => marks[i]));
    expect(at(blind, 2).high - at(blind, 2).low).toBeGreaterThan(700);
  });

  test('the same seed gives the same forecast', () => {
    expect(forecast(plan, ask)).toEqual(forecast(plan, ask));
  });

  test('set against what happened, scaled to how many have come', () => {
    const reach = new Map([
      [marks[0] ?? '', 100],
      [marks[2] ?? '', 60],
      [marks[4] ?? '', 2],
    ]);
    const judged = judge(result, { records: 100, reach });
    expect(judged[2]).toMatchObject({ real: 60, held: true });
    expect(judged[4]).toMatchObject({ real: 2, held: false });
  });
});

describe('chance', () => {
  test('draws have the moments of their distributions', () => {
    const draw = chance(7);
    const mean = (make: () => number): number => Array.from({ length: 20_000 }, make).reduce((sum, x) => sum + x, 0) / 20_000;
    expect(mean(() => draw.next())).toBeCloseTo(0.5, 1);
    expect(mean(() => draw.normal())).toBeCloseTo(0, 1);
    expect(mean(() => draw.beta(3, 7))).toBeCloseTo(0.3, 2);
    expect(mean(() => draw.beta(0.4, 0.6))).toBeCloseTo(0.4, 1);
    expect(mean(() => draw.binomial(10, 0.3))).toBeCloseTo(3, 1);
    expect(mean(() => draw.binomial(1000, 0.3)) / 1000).toBeCloseTo(0.3, 2);
  });
});
