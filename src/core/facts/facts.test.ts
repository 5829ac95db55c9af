import fc from 'fast-check';
import {
  byTrust,
  chooseCurrent,
  competing,
  FIELDS,
  fieldOf,
  fieldsOf,
  fieldUnits,
  printValue,
  readTyped,
  SOURCE_KINDS,
  type Fact,
  type FieldType,
} from './index';

const fact = (more: Partial<Fact>): Fact => ({
  id: '1',
  record: { kind: 'company', id: 'c' },
  field: 'heated_area',
  value: 4.2,
  source: 'site',
  sourceRef: 'oakmere-glass.example',
  confidence: 0.9,
  observedAt: 1000,
  ...more,
});

describe('the trust rule', () => {
  test.each([
    ['by hand beats everything', { source: 'hand', observedAt: 1 }, { source: 'confirmed', observedAt: 9 }],
    ['what was found beats what was told', { source: 'site', observedAt: 1 }, { source: 'file', observedAt: 9 }],
    ['newer beats older among sources of one rank', { source: 'file', observedAt: 9 }, { source: 'crm', observedAt: 1 }],
    ['a doubtful fact gives way to a surer one of lower rank', { source: 'file', confidence: 0.8 }, { source: 'site', confidence: 0.4 }],
    ['any value beats “not found”', { source: 'flow', value: 1 }, { source: 'hand', value: null }],
  ] as const)('%s', (_name, better, worse) => {
    const [a, b] = [fact({ id: 'a', ...better }), fact({ id: 'b', ...worse })];
    expect(chooseCurrent([b, a])).toBe(a);
    expect(chooseCurrent([a, b])).toBe(a);
  });

  test('nothing with a value: nothing is chosen', () => {
    expect(chooseCurrent([fact({ value: null })])).toBeUndefined();
    expect(chooseCurrent([])).toBeUndefined();
  });

  const anyFact = fc.record({
    id: fc.uuid(),
    value: fc.option(fc.integer({ min: 0, max: 5 })),
    source: fc.constantFrom(...SOURCE_KINDS),
    confidence: fc.double({ min: 0, max: 1, noNaN: true }),
    observedAt: fc.integer({ min: 0, max: 10 }),
  });

  test('the choice does not depend on the order of the facts', () => {
    fc.assert(
      fc.property(fc.uniqueArray(anyFact, { selector: (entry) => entry.id, maxLength: 12 }), fc.integer(), (entries, seed) => {
        const facts = entries.map((entry) => fact(entry));
        const shuffled = [...facts].sort((a, b) => ((a.id.charCodeAt(0) * 31 + seed) % 7) - ((b.id.charCodeAt(0) * 31 + seed) % 7));
        expect(chooseCurrent(shuffled)?.id).toBe(chooseCurrent(facts)?.id);
      }),
    );
  });

  test('byTrust is a strict order: the chosen fact comes first', () => {
    fc.assert(
      fc.property(fc.uniqueArray(anyFact, { selector: (entry) => entry.id, minLength: 1, maxLength: 12 }), (entries) => {
        const facts = entries.map((entry) => fact(entry));
        const [first] = [...facts].sort(byTrust);
        if (first?.value !== null) expect(chooseCurrent(facts)?.id).toBe(first?.id);
      }),
    );
  });

  test('competing values are those that say something else, never those that agree', () => {
    const facts = [
      fact({ id: 'a' }),
      fact({ id: 'b', source: 'file', value: 3.8 }),
      fact({ id: 'c', source: 'crm', value: 4.2 }),
      fact({ id: 'd', value: null }),
    ];
    expect(competing(facts).map((entry) => entry.id)).toEqual(['b']);
  });
});

describe('typed readings', () => {
  const read = (type: FieldType, raw: string, unit?: string) => readTyped(unit === undefined ? { type } : { type, unit }, raw);
  const value = (type: FieldType, raw: string, unit?: string) => {
    const reading = read(type, raw, unit);
    return reading.ok ? reading.value : reading.why;
  };

  test.each([
    ['4.2', 4.2],
    ['4,2 ha', 4.2],
    ['12 000 m²', 1.2],
    ['55000', 5.5],
    ['1.250,5', 0.1251],
    ['7 acres', 2.8328],
    ['', null],
    ['n/a', null],
    ['–', null],
    ['lots', '“lots” is not an area'],
    ['3 barns', 'unit “barns” is not an area: use ha or m²'],
  ])('area %j', (raw, expected) => {
    expect(value('number', raw, 'ha')).toBe(expected);
  });

  test('a figure that must be square metres says so', () => {
    expect(read('number', '55000', 'ha')).toEqual({ ok: true, value: 5.5, note: 'read as m²' });
  });

  test.each([
    ['1,240', 1240],
    ['1.240', 1240],
    ['0.75', 0.75],
    ['38.000,50 €', 38000.5],
    ['two', '“two” is not a number'],
  ])('number %j', (raw, expected) => {
    expect(value('number', raw)).toBe(expected);
  });

  test.each([
    ['Mara.Quill@Oakmere-Glass.example', 'mara.quill@oakmere-glass.example'],
    ['mailto:kuba@zielony-dach.example', 'kuba@zielony-dach.example'],
    ['<a@b.example>', 'a@b.example'],
    ['a@b', '“a@b” is not an e-mail address'],
    ['a..b@c.example', '“a..b@c.example” is not an e-mail address'],
    ['b@c.example\r\nBcc: evil@x.example', '“b@c.example Bcc: evil@x.example” is not an e-mail address'],
  ])('e-mail %j', (raw, expected) => {
    expect(value('e-mail', raw)).toBe(expected);
  });

  test.each([
    ['https://www.Oakmere-Glass.example/', 'oakmere-glass.example'],
    ['oakmere-glass.example/about', 'oakmere-glass.example'],
    ['gärtnerei.example', 'gärtnerei.example'],
    ['no site', '“no site” is not a site'],
  ])('site %j', (raw, expected) => {
    expect(value('site', raw)).toBe(expected);
  });

  test.each([
    ['ja', true],
    ['Sí', true],
    ['tak', true],
    ['nein', false],
    ['0', false],
    ['perhaps', '“perhaps” is neither yes nor no'],
  ])('yes/no %j', (raw, expected) => {
    expect(value('yes/no', raw)).toBe(expected);
  });

  test.each([
    ['year', 'since 2013', 2013],
    ['date', '2026-11-24', '2026-11-24'],
    ['date', '24.11.26', '“24.11.26” is not a date: write 2026-11-24'],
    ['phone', '01632 960417', '01632 960417'],
    ['phone', 'call me', '“call me” is not a phone number'],
    ['text', '  two   words ', 'two words'],
  ] as const)('%s %j', (type, raw, expected) => {
    expect(value(type, raw)).toBe(expected);
  });

  test('no text whatever makes a reading throw', () => {
    fc.assert(
      fc.property(
        fc.string(),
        fc.constantFrom<FieldType>('text', 'number', 'yes/no', 'date', 'e-mail', 'phone', 'site', 'year'),
        (raw, type) => {
          expect(typeof readTyped({ type }, raw).ok).toBe('boolean');
        },
      ),
    );
  });

  test('a printed number is read back as itself', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 99_0000 }), (n) => {
        const area = n / 10_000;
        expect(value('number', printValue(area, 'ha'), 'ha')).toBe(area);
      }),
    );
  });
});

describe('printing and the catalogue', () => {
  test.each([
    [null, undefined, '–'],
    [true, undefined, 'yes'],
    [4.2, 'ha', '4.2 ha'],
    [38000, 'EUR', '38,000 EUR'],
    [2013, undefined, '2013'],
  ] as const)('printValue(%j, %j)', (given, unit, says) => {
    expect(printValue(given, unit)).toBe(says);
  });

  test('every field is found by its record and key, and no two share them', () => {
    expect(new Set(FIELDS.map((field) => `${field.record}.${field.key}`)).size).toBe(FIELDS.length);
    for (const field of FIELDS) expect(fieldOf(field.record, field.key)).toBe(field);
    expect(fieldOf('person', 'shoe_size')).toBeUndefined();
    expect(fieldsOf('deal').map((field) => field.key)).toEqual(['title', 'stage', 'amount', 'pipeline', 'quiet_days', 'stage_days']);
    expect(fieldUnits()).toEqual(['ha', 'EUR']);
  });

  test('every field’s sample is a value of its type', () => {
    for (const field of FIELDS)
      expect({ field: field.key, ...readTyped(field, field.sample) }).toMatchObject({ field: field.key, ok: true });
  });
});
