import fc from 'fast-check';
import {
  companyKeys,
  companyName,
  companySite,
  compareCompanies,
  comparePeople,
  confidenceAtMost,
  jaroWinkler,
  judgeMatch,
  normalisePhone,
  personKeys,
  personName,
  readyPerson,
  type MatchCompany,
  type MatchPerson,
  reachOf,
} from './index';

const person = (more: Partial<MatchPerson>): MatchPerson => ({
  id: 'a',
  name: 'Mara Quill',
  email: null,
  otherEmail: null,
  phone: null,
  mobile: null,
  companyId: null,
  companyName: null,
  ...more,
});
const company = (more: Partial<MatchCompany>): MatchCompany => ({
  id: 'a',
  name: 'Oakmere Glass Ltd',
  website: null,
  phone: null,
  city: null,
  country: null,
  ...more,
});

describe('normalising', () => {
  test.each([
    ['QUILL, Mara', 'mara quill'],
    ['Dr. Mara Quill', 'mara quill'],
    ['dhr. P. Aalders', 'p aalders'],
    ['Ing. Jonas Reißig', 'jonas reissig'],
    ["Siobhán O'Neill", 'siobhan oneill'],
  ])('person %j', (raw, name) => {
    expect(personName(raw)).toBe(name);
  });

  test.each([
    ['Trask & Sons Ltd', 'trask sons'],
    ['Trask and Sons Limited', 'trask sons'],
    ['Gärtnerei Voßbruch GmbH', 'gartnerei vossbruch'],
    ['Zielony Dach Sp. z o.o.', 'zielony dach'],
    ['Hoogland Paprika B.V.', 'hoogland paprika'],
    ['Ltd', 'ltd'],
  ])('company %j', (raw, name) => {
    expect(companyName(raw)).toBe(name);
  });

  test.each([
    ['https://www.Oakmere-Glass.example/about?x=1', 'oakmere-glass.example'],
    ['oakmere-glass.example', 'oakmere-glass.example'],
    [null, null],
    ['', null],
  ])('site %j', (raw, site) => {
    expect(companySite(raw)).toBe(site);
  });

  test.each([
    ['01632 960417', 'GB', '+441632960417'],
    ['0044 1632 960417', 'GB', '+441632960417'],
    ['+44 (0)1632 960417', 'DE', '+441632960417'],
    ['12', 'GB', null],
    ['call me', 'GB', null],
  ])('phone %j in %s', (raw, country, number) => {
    expect(normalisePhone(raw, country)).toBe(number);
  });
});

describe('likeness', () => {
  test('is 1 for the same, 0 for nothing in common, symmetric, and between', () => {
    expect(jaroWinkler('quill', 'quill')).toBe(1);
    expect(jaroWinkler('abc', 'xyz')).toBe(0);
    fc.assert(
      fc.property(fc.string({ maxLength: 20 }), fc.string({ maxLength: 20 }), (a, b) => {
        const likeness = jaroWinkler(a, b);
        expect(likeness).toBeGreaterThanOrEqual(0);
        expect(likeness).toBeLessThanOrEqual(1.0000001);
        expect(jaroWinkler(b, a)).toBeCloseTo(likeness);
      }),
    );
  });

  test('known values of the measure (Winkler 1990)', () => {
    expect(jaroWinkler('martha', 'marhta')).toBeCloseTo(0.9611, 3);
    expect(jaroWinkler('dwayne', 'duane')).toBeCloseTo(0.84, 2);
  });
});

describe('people', () => {
  const firm = { companyId: 'c', companyName: 'Oakmere Glass' };
  test.each([
    ['same e-mail and name', { email: 'm@x.example' }, { email: 'm@x.example' }, 0.95, 1],
    ['a typo, same firm and phone', { ...firm, phone: '+441632960417' }, { ...firm, phone: '+441632960417', name: 'Mara Quil' }, 0.95, 1],
    [
      'colleagues with one mailbox',
      { ...firm, email: 'info@x.example' },
      { ...firm, email: 'info@x.example', name: 'Tom Achterberg' },
      0.5,
      0.95,
    ],
    ['same name, other firm', { companyName: 'Oakmere Glass' }, { companyName: 'Hoogland Paprika' }, 0, 0.6],
    ['an initial', { ...firm, email: null }, { ...firm, name: 'M. Quill' }, 0.6, 0.95],
    ['nobody alike', firm, { name: 'Piet Aalders' }, 0, 0.1],
  ])('%s', (_name, ours, theirs, atLeast, below) => {
    const { confidence } = comparePeople(person(ours), person({ id: 'b', ...theirs }));
    expect(confidence).toBeGreaterThanOrEqual(atLeast);
    expect(confidence).toBeLessThanOrEqual(below);
  });

  test('every piece of evidence can be shown, and the weights explain the confidence', () => {
    const { confidence, evidence } = comparePeople(person({ ...firm, phone: '+441' }), person({ ...firm, id: 'b', phone: '+442' }));
    const bits = evidence.reduce((sum, entry) => sum + entry.weight, -8);
    expect(confidence).toBeCloseTo(1 / (1 + 2 ** -bits), 3);
    expect(evidence.map((entry) => entry.field)).toEqual(['phone', 'name', 'company']);
    expect(evidence.find((entry) => entry.field === 'phone')).toMatchObject({ agrees: 'no', ours: '+441', theirs: '+442' });
  });

  test('missing fields are no evidence', () => {
    expect(comparePeople(person({}), person({ id: 'b' })).evidence.map((entry) => entry.field)).toEqual(['name']);
  });
});

describe('the bound that spares comparing', () => {
  const value = (values: readonly string[]) => fc.constantFrom<string | null>(...values, null);
  const anybody = fc.record({
    name: fc.constantFrom('Mara Quill', 'M. Quill', 'Mara Quil', 'Tom Achterberg'),
    email: value(['a@x.example', 'b@x.example']),
    phone: value(['+441', '+442']),
    companyId: value(['c', 'd']),
    companyName: value(['Oakmere Glass', 'Oakmere Glas', 'Hoogland Paprika']),
  });
  test('is never below what the comparison gives', () => {
    fc.assert(
      fc.property(anybody, anybody, (a, b) => {
        const [one, other] = [readyPerson(person(a)), readyPerson(person({ id: 'b', ...b }))];
        expect(confidenceAtMost(one, other)).toBeGreaterThanOrEqual(comparePeople(one, other).confidence - 1e-4);
      }),
      { numRuns: 500 },
    );
  });
});

describe('companies', () => {
  test.each([
    ['same site', { website: 'www.oakmere-glass.example' }, { website: 'https://oakmere-glass.example', name: 'Oakmere Glass' }, 0.95, 1],
    ['spelled otherwise, same place', { name: 'Trask & Sons', city: 'Hessle' }, { name: 'Trask and Sons Ltd', city: 'Hessle' }, 0.9, 1],
    ['like names, other sites', { website: 'a.example' }, { website: 'b.example', name: 'Oakmere Glas' }, 0, 0.6],
  ])('%s', (_name, ours, theirs, atLeast, below) => {
    const { confidence } = compareCompanies(company(ours), company({ id: 'b', ...theirs }));
    expect(confidence).toBeGreaterThanOrEqual(atLeast);
    expect(confidence).toBeLessThanOrEqual(below);
  });
});

describe('judging', () => {
  const candidate = (otherId: string, confidence: number) => ({ otherId, confidence, evidence: [] });
  test.each([
    [[], 'new', null],
    [[candidate('x', 0.3)], 'new', null],
    [[candidate('x', 0.7), candidate('y', 0.8)], 'doubt', 'y'],
    [[candidate('x', 0.99), candidate('y', 0.8)], 'same', 'x'],
    [[candidate('y', 0.99), candidate('x', 0.99)], 'same', 'x'],
  ])('%j is %s', (candidates, how, otherId) => {
    expect(judgeMatch(candidates, 0.6, 0.95)).toMatchObject({ how, otherId });
  });
});

describe('blocking keys', () => {
  const name = fc.constantFrom(
    'Mara Quill',
    'Jonas Reißig',
    'Piet Aalders',
    'Nuria Peralta',
    'Ewa Sobczak',
    'Tamsin Stokoe',
    'Ruben van Raalte',
  );
  /** One letter doubled, dropped or swapped inside a word: what people mistype. */
  const mistyped = fc.tuple(name, fc.nat(), fc.constantFrom('drop', 'double', 'swap')).map(([text, seed, how]) => {
    const vowels = [...text].flatMap((letter, i) => (i > 1 && /[aeiou]/.test(letter) ? [i] : []));
    const at = vowels[seed % vowels.length] ?? 2;
    const [head, letter, tail] = [text.slice(0, at), text[at] ?? '', text.slice(at + 1)];
    return { text, typo: how === 'drop' ? head + tail : how === 'double' ? head + letter + letter + tail : `${head}e${tail}` };
  });

  test('a mistyped vowel never hides a person from the original', () => {
    fc.assert(
      fc.property(mistyped, ({ text, typo }) => {
        const keys = new Set(personKeys({ ...reachOf({}), name: text }));
        expect(personKeys({ ...reachOf({}), name: typo }).some((key) => keys.has(key))).toBe(true);
      }),
    );
  });

  test('agreeing on e-mail, phone or site is always found', () => {
    expect(personKeys({ ...reachOf({ email: 'a@b.example', phone: '+44' }), name: 'A' })).toEqual(
      expect.arrayContaining(['e:a@b.example', 'p:+44']),
    );
    expect(companyKeys({ name: 'X', website: 'https://www.x.example', phone: null })).toContain('s:x.example');
    expect(companyKeys({ name: 'Trask & Sons', website: null, phone: null })).toEqual(
      companyKeys({ name: 'Trask and Sons Ltd', website: null, phone: null }),
    );
  });
});
