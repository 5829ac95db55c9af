import fc from 'fast-check';
import { DEMO_FIELDS } from '../../testing/fields';
import { catalogueOf, checkTyped, FIELD_TYPES, printValue, readTyped, STANDARD, STANDARD_FIELDS, type FieldType } from '.';

describe('typed readings', () => {
  const GLASS = { type: 'number', unit: 'ha', most: 500, bare: { above: 100, unit: 'm²' } } as const;
  const read = (type: FieldType, raw: string, unit?: string) =>
    readTyped(unit === 'ha' ? GLASS : unit === undefined ? { type } : { type, unit }, raw);
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
    ['4.250 ha', 4.25],
    ['four', 4],
    ['two and a half', 2.5],
    ['a dozen hectares', 12],
    ['lots', '“lots” is not an amount in ha'],
    ['3 barns', 'unit “barns” is not one of area: use m², ha, ft², acre, km²'],
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
    ['two', 2],
    ['a dozen', 12],
    ['many', '“many” is not a number'],
  ])('number %j', (raw, expected) => {
    expect(value('number', raw)).toBe(expected);
  });

  test.each([
    ['38.000,50 €', 38000.5],
    ['38000 EUR', 38000.5 - 0.5],
    ['38 t', '“t” is not EUR'],
  ])('money %j', (raw, expected) => {
    expect(value('money', raw, 'EUR')).toBe(expected);
  });

  test.each([
    ['6 vans', 6],
    ['six Vans', 6],
    ['6 lorries', '“lorries” is not vans'],
  ])('things counted %j', (raw, expected) => {
    expect(value('number', raw, 'vans')).toBe(expected);
  });

  test.each([
    ['2,200 lb', 0.9979],
    ['3 t', 3],
    ['800 kg', 0.8],
    ['3 ha', 'unit “ha” is not one of mass: use kg, t, g, lb'],
  ])('mass %j', (raw, expected) => {
    expect(value('number', raw, 't')).toBe(expected);
  });

  test('a choice is one of its options, a list is tidied, a country has its code', () => {
    expect(readTyped({ type: 'choice', options: ['Kannegast', 'other'] }, 'kannegast')).toEqual({ ok: true, value: 'Kannegast' });
    expect(readTyped({ type: 'choice', options: ['a', 'b'] }, 'c')).toEqual({ ok: false, why: '“c” is none of a, b' });
    expect(value('list', 'a;b ,  c')).toBe('a, b, c');
    expect(value('country', 'Deutschland')).toBe('DE');
  });

  test('what cannot be is said with its bound', () => {
    expect(checkTyped({ type: 'number', unit: 'ha', most: 500 }, 900)).toEqual({ ok: false, why: '900 ha cannot be: not above 500 ha' });
    expect(checkTyped({ type: 'number', least: 0 }, -1)).toEqual({ ok: false, why: '-1 cannot be: not below 0' });
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
    ['date', '24.11.26', '2026-11-24'],
    ['date', 'soon', '“soon” is not a date: write 24 November 2026 or 2026-11-24'],
    ['phone', '01632 960417', '01632 960417'],
    ['phone', 'call me', '“call me” is not a phone number'],
    ['text', '  two   words ', 'two words'],
  ] as const)('%s %j', (type, raw, expected) => {
    expect(value(type, raw)).toBe(expected);
  });

  test('no text whatever makes a reading throw', () => {
    fc.assert(
      fc.property(fc.string(), fc.constantFrom<FieldType>(...FIELD_TYPES), (raw, type) => {
        expect(typeof readTyped({ type }, raw).ok).toBe('boolean');
      }),
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
    const every = [...STANDARD_FIELDS, ...DEMO_FIELDS.own.filter((field) => !STANDARD.of(field.record, field.key))];
    expect(new Set(every.map((field) => `${field.record}.${field.key}`)).size).toBe(every.length);
    for (const field of every) expect(DEMO_FIELDS.of(field.record, field.key)).toMatchObject({ type: field.type, record: field.record });
    expect(DEMO_FIELDS.of('person', 'shoe_size')).toBeUndefined();
    expect(STANDARD.all('deal').map((field) => field.key)).toEqual(['title', 'stage', 'amount', 'pipeline', 'quiet_days', 'stage_days']);
  });

  test('a standard field keeps its type and its column, whatever a business calls it', () => {
    const lent = catalogueOf([
      { record: 'company', key: 'name', label: 'mill', type: 'number', group: 'X', sample: '', words: ['weaver'], isRetired: true },
    ]);
    expect(lent.of('company', 'name')).toMatchObject({
      type: 'text',
      label: 'mill',
      isStandard: true,
      words: ['firm', 'company name', 'weaver'],
    });
    expect(lent.all('company')).toHaveLength(STANDARD.all('company').length);
  });

  test('a retired field is found and not offered', () => {
    const old = {
      record: 'company',
      key: 'vans',
      label: 'vans',
      type: 'number',
      group: 'X',
      sample: '',
      words: [],
      isRetired: true,
    } as const;
    const fields = catalogueOf([{ ...old, words: [] }]);
    expect(fields.of('company', 'vans')?.isRetired).toBe(true);
    expect(fields.all('company').some((field) => field.key === 'vans')).toBe(false);
  });

  test('every field’s sample is a value of its type', () => {
    for (const field of [...STANDARD_FIELDS, ...DEMO_FIELDS.own])
      expect({ field: field.key, ...readTyped(field, field.sample) }).toMatchObject({ field: field.key, ok: true });
  });
});
