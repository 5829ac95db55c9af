import fc from 'fast-check';
import { compileScorecard, scorecardSchema, type Scorecard } from './index';

const CARD: Scorecard = scorecardSchema.parse({
  name: 'Grower fit',
  target: 'company',
  criteria: [
    {
      id: 'area',
      text: 'heated area ≥ 2 ha',
      levels: [
        { when: 'company.heated_area >= 2', points: 30 },
        { when: 'company.heated_area >= 1', points: 12 },
      ],
    },
    { id: 'all-year', text: 'grows all year', levels: [{ when: 'company.all_year = true', points: 25 }], whenUnknown: 5 },
    { id: 'old', text: 'old controls', levels: [{ when: 'company.controls_since <= 2013', points: 20 }], whenUnknown: 5 },
  ],
  disqualifiers: [{ text: 'service contract', when: 'company.service_contract = true' }],
  bands: [
    { name: 'cold', from: 0 },
    { name: 'hot', from: 70 },
    { name: 'warm', from: 40 },
  ],
});
const score = compileScorecard(CARD);
const of = (company: Record<string, string | number | boolean | null>) => score({ company });

describe('a scorecard', () => {
  test('adds the points of the first level that holds', () => {
    const result = of({ heated_area: 4.2, all_year: true, controls_since: 2010, service_contract: false });
    expect(result).toMatchObject({ points: 75, of: 75, band: 'hot', out: false, weakest: '–' });
    expect(result.working.map((entry) => entry.state)).toEqual(['holds', 'holds', 'holds']);
  });

  test('a lower level is only a part', () => {
    expect(of({ heated_area: 1.1, all_year: true, controls_since: 2010 }).working[0]).toMatchObject({ points: 12, of: 30, state: 'part' });
  });

  test('what is missing is unknown, not no, and earns what the criterion grants for it', () => {
    const result = of({ heated_area: 4.2, all_year: null, controls_since: null });
    expect(result.working.map((entry) => [entry.state, entry.points])).toEqual([
      ['holds', 30],
      ['unknown', 5],
      ['unknown', 5],
    ]);
    expect(result.why).toBe('heated area ≥ 2 ha; unknown: grows all year, old controls');
    expect(result.weakest).toBe('grows all year ?');
  });

  test('a plain no fails', () => {
    expect(of({ heated_area: 0.4, all_year: false, controls_since: 2020 })).toMatchObject({
      points: 0,
      band: 'cold',
      weakest: 'heated area ≥ 2 ha',
    });
  });

  test('a disqualifier puts a record out whatever its points, and says so', () => {
    const result = of({ heated_area: 9, all_year: true, controls_since: 2001, service_contract: true });
    expect(result).toMatchObject({
      points: 75,
      band: 'out',
      out: true,
      disqualifiedBy: ['service contract'],
      why: 'out: service contract',
    });
  });

  test('an unknown disqualifier does not disqualify', () => {
    expect(of({ heated_area: 9, service_contract: null }).out).toBe(false);
  });

  test('bands are lower bounds, whatever order they are written in', () => {
    expect([
      of({ heated_area: 4, all_year: true, controls_since: 2020 }).band,
      of({ heated_area: 4, all_year: false, controls_since: 2020 }).band,
    ]).toEqual(['warm', 'cold']);
  });

  test('says which names each criterion reads', () => {
    expect(of({}).working.map((entry) => entry.reads)).toEqual([['company.heated_area'], ['company.all_year'], ['company.controls_since']]);
  });

  const company = fc.record({
    heated_area: fc.option(fc.double({ min: 0, max: 50, noNaN: true })),
    all_year: fc.option(fc.boolean()),
    controls_since: fc.option(fc.integer({ min: 1980, max: 2026 })),
    service_contract: fc.option(fc.boolean()),
  });

  test('points are the sum of the working and lie between nothing and all', () => {
    fc.assert(
      fc.property(company, (values) => {
        const result = of(values);
        expect(result.points).toBeCloseTo(result.working.reduce((sum, entry) => sum + entry.points, 0));
        expect(result.points).toBeGreaterThanOrEqual(0);
        expect(result.points).toBeLessThanOrEqual(result.of);
      }),
    );
  });

  test('more glass never costs points', () => {
    fc.assert(
      fc.property(company, fc.double({ min: 0, max: 10, noNaN: true }), (values, more) => {
        if (values.heated_area === null) return;
        expect(of({ ...values, heated_area: values.heated_area + more }).points).toBeGreaterThanOrEqual(of(values).points);
      }),
    );
  });

  test('a condition that cannot be understood earns nothing and breaks nothing', () => {
    const broken = compileScorecard({
      ...CARD,
      criteria: [{ id: 'x', text: 'x', levels: [{ when: 'company. >=', points: 10 }], whenUnknown: 0 }],
    });
    expect(broken({ company: {} })).toMatchObject({ points: 0 });
  });

  test('the schema refuses a card without criteria or bands', () => {
    expect(scorecardSchema.safeParse({ ...CARD, criteria: [] }).success).toBe(false);
    expect(scorecardSchema.safeParse({ ...CARD, bands: [] }).success).toBe(false);
  });
});
