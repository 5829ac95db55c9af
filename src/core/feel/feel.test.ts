import fc from 'fast-check';
import { evaluate } from 'feelin';
import { compileFeel, feelPaths, FUNCTIONS, parseFeel, typeOfFeel, type FeelScope, type FeelValue, type NameOf } from './index';

const SCOPE: FeelScope = {
  email: 'm.quill@oakmere-glass.example',
  phone: null,
  points: 82,
  out: false,
  stage: 'Qualified',
  since: '2013-05-01',
  company: { name: 'Oakmere Glass', heated_area: 4.2, controls_since: 2013, expansion: true, all_year: null },
};

function run(text: string, scope: FeelScope = SCOPE): FeelValue {
  const { expr, problems } = parseFeel(text);
  if (!expr) throw new Error(problems.map((problem) => problem.message).join('; '));
  return compileFeel(expr)(scope);
}

describe('values', () => {
  test.each<[string, FeelValue]>([
    ['points >= 75', true],
    ['points >= 75 and email != null', true],
    ['phone = null', true],
    ['phone != null', false],
    ['company.heated_area > 2 and company.heated_area < 5', true],
    ['company.heated_area between 2 and 4', false],
    ['company.controls_since in [2010..2016]', true],
    ['company.controls_since in (2013..2016]', false],
    ['company.controls_since in (< 2000, >= 2012)', true],
    ['stage in ("Qualified", "Meeting")', true],
    ['not(out)', true],
    ['if company.expansion then "grows" else "stays"', 'grows'],
    ['"fit " + string(points)', 'fit 82'],
    ['(points - 2) / 4 * 2', 40],
    ['-points + 100', 18],
    ['2 ** 3', 8],
    ['points / 0', null],
    ['upper case(stage)', 'QUALIFIED'],
    ['contains(company.name, "Glass")', true],
    ['string length(stage) > 3', true],
    ['number("4.5")', 4.5],
    ['since < date("2016-01-01")', true],
    ['[1, 2, 3]', [1, 2, 3]],
  ])('%s', (text, value) => {
    expect(run(text)).toEqual(value);
  });
});

describe('three-valued logic', () => {
  const values: FeelValue[] = [true, false, null];
  test.each(values.flatMap((a) => values.map((b) => [a, b] as const)))('%j and/or %j', (a, b) => {
    const scope = { a, b };
    const and = a === false || b === false ? false : a === null || b === null ? null : true;
    const or = a === true || b === true ? true : a === null || b === null ? null : false;
    expect(run('a and b', scope)).toBe(and);
    expect(run('a or b', scope)).toBe(or);
  });

  test.each(['missing > 3', 'points > "75"', 'company.all_year and points > 3'])('%s is unknown, not false', (text) => {
    expect(run(text)).toBeNull();
  });
});

describe('equality with null, as the standard has it', () => {
  test.each([
    ['company.all_year = true', false],
    ['company.all_year != true', true],
    ['company.all_year = null', true],
  ])('%s', (text, value) => {
    expect(run(text)).toBe(value);
  });
});

describe('against the reference interpreter', () => {
  const number = fc.integer({ min: -20, max: 20 });
  const atom = fc.oneof(number.map(String), fc.constantFrom('a', 'b', 'c', '"x"', '"yz"', 'null', 'true', 'false', 's'));
  const numeric = fc.oneof(number.map(String), fc.constantFrom('a', 'b'));
  // Bounds in order: the reference also takes them turned round, the standard does not.
  const ordered = fc.tuple(numeric, number, number).map(([v, a, b]) => [v, Math.min(a, b), Math.max(a, b)] as const);
  const condition: fc.Arbitrary<string> = fc.letrec<{ cond: string }>((tie) => ({
    cond: fc.oneof(
      { depthSize: 'small' },
      fc.tuple(atom, fc.constantFrom('=', '!='), atom).map((parts) => parts.join(' ')),
      fc.tuple(numeric, fc.constantFrom('<', '<=', '>', '>='), numeric).map((parts) => parts.join(' ')),
      ordered.map(([v, low, high]) => `${v} between ${low} and ${high}`),
      ordered.map(([v, low, high]) => `${v} in [${low}..${high}]`),
      fc.tuple(tie('cond'), fc.constantFrom('and', 'or'), tie('cond')).map(([l, op, r]) => `(${l}) ${op} (${r})`),
      tie('cond').map((inner) => `not(${inner})`),
      fc.tuple(tie('cond'), numeric, numeric).map(([test, yes, no]) => `(if ${test} then ${yes} else ${no}) > 0`),
    ),
  })).cond;

  test('conditions over numbers, texts and nulls come out alike (3,000 made ones)', () => {
    const scope = { a: 3, b: -7, c: null, s: 'x' };
    fc.assert(
      fc.property(condition, (text) => {
        const { expr } = parseFeel(text);
        expect(expr).toBeDefined();
        if (!expr) return;
        // The reference treats comparisons of unlike types as null with a warning, as the standard says.
        expect({ text, value: compileFeel(expr)(scope) }).toEqual({ text, value: evaluate(text, scope).value });
      }),
      { numRuns: 3000, seed: 20261124 },
    );
  });
});

describe('problems', () => {
  test.each([
    ['points >', 7],
    ['points >= and 3', 10],
    ['(points > 3', 0],
    ['for x in [1,2] return x', 0],
  ])('%s is located', (text) => {
    const { expr, problems } = parseFeel(text);
    expect(expr).toBeUndefined();
    expect(problems.length).toBeGreaterThan(0);
    for (const problem of problems) {
      expect(problem.from).toBeGreaterThanOrEqual(0);
      expect(problem.to).toBeLessThanOrEqual(text.length + 1);
      expect(problem.message.length).toBeGreaterThan(5);
    }
  });

  test('no text makes the parser throw or run on', () => {
    fc.assert(
      fc.property(fc.oneof(fc.string(), fc.stringMatching(/^[a-z0-9 ()"<>=+.,[\]-]{0,40}$/)), (text) => {
        const { expr, problems } = parseFeel(text);
        expect(expr === undefined).toBe(problems.length > 0);
        if (expr) compileFeel(expr)(SCOPE);
      }),
      { numRuns: 1500 },
    );
  });
});

describe('types and units', () => {
  const NAMES: Readonly<Record<string, { type: 'number' | 'string' | 'boolean'; unit?: string; label?: string }>> = {
    points: { type: 'number' },
    email: { type: 'string' },
    out: { type: 'boolean' },
    'company.heated_area': { type: 'number', unit: 'ha', label: 'heated area' },
  };
  const nameOf: NameOf = (segments) => NAMES[segments.join('.')] ?? `“${segments.join('.')}” is not known`;
  const check = (text: string) => {
    const { expr } = parseFeel(text);
    return expr ? typeOfFeel(expr, nameOf).problems.map((problem) => problem.message) : ['not parsed'];
  };

  test.each([
    ['points > 75', []],
    ['company.heated_area >= 2 ha', []],
    ['company.heated_area >= 20 EUR', ['heated area is in ha, this is in EUR: write it in ha']],
    ['email > 3', ['the left side is a text and is compared with a number']],
    ['points > null', ['nothing is larger or smaller than null: use = null or != null']],
    ['points and out', ['this is a number: “and” joins conditions that are true or false']],
    ['nobody = 1', ['“nobody” is not known']],
    ['email + 3', ['a text and a number do not add up: wrap the number in string( )']],
    ['out - 1', ['a yes/no cannot be used with “-”']],
    ['contains(email)', ['“contains” takes 2, here are 1']],
    ['upper case(points)', ['“upper case” wants a text here, this is a number']],
  ])('%s', (text, problems) => {
    expect(check(text)).toEqual(problems);
  });

  test('an unknown function is named with those there are', () => {
    expect(check('double(points)')[0]).toMatch(/there is no function “double”: known are abs, /);
  });

  test('every function is total: any arguments give a value, never an error', () => {
    const any = fc.oneof(fc.string(), fc.integer(), fc.boolean(), fc.constant(null), fc.array(fc.integer()));
    for (const [name, known] of Object.entries(FUNCTIONS))
      fc.assert(
        fc.property(fc.array(any, { maxLength: 4 }), (args) => {
          expect({ name, value: known.run(args) }).not.toEqual({ name, value: undefined });
        }),
        { numRuns: 60 },
      );
  });

  test('paths lists every name an expression reads', () => {
    const { expr } = parseFeel('company.heated_area >= 2 and (if out then points else 3) in [1..5]');
    expect(expr && feelPaths(expr).map((path) => path.join('.'))).toEqual(['company.heated_area', 'out', 'points']);
  });
});
