import { DEMO_FIELDS } from '../../testing/fields';
import fs from 'node:fs';
import fc from 'fast-check';
import type { MatchPerson } from '../match';
import {
  flatten,
  guessColumns,
  headingUnit,
  planRows,
  readRow,
  readTable,
  splitName,
  targetLabel,
  targetsOf,
  type Target,
  NOWHERE,
} from './index';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const table = (text: string) => readTable(bytes(text)).table!;
const demo = readTable(fs.readFileSync('demo/lists/bezoekers_najaar.csv')).table!;

describe('bytes to rows', () => {
  test.each([
    [',', 'name,mail\nMara Quill,m@x.example\n'],
    [';', 'name;mail\nMara Quill;m@x.example\n'],
    ['\t', 'name\tmail\nMara Quill\tm@x.example\n'],
    ['|', 'name|mail\nMara Quill|m@x.example\n'],
  ])('the delimiter %j is found', (delimiter, text) => {
    expect(table(text)).toMatchObject({ delimiter, headings: ['name', 'mail'], rows: [['Mara Quill', 'm@x.example']] });
  });

  test('a BOM, quotes, quoted line breaks and quoted delimiters', () => {
    const read = table('\ufeffname,remark\n"Quill, Mara","said ""yes""\nand left"\nTom,\n');
    expect(read.headings).toEqual(['name', 'remark']);
    expect(read.rows[0]).toEqual(['Quill, Mara', 'said "yes"\nand left']);
    expect(read.rowNumbers).toEqual([2, 4]);
  });

  test('Latin-1 and UTF-16', () => {
    expect(readTable(Buffer.from('name;ort\nReißig;Köln\n', 'latin1')).table).toMatchObject({
      encoding: 'Windows-1252',
      rows: [['Reißig', 'Köln']],
    });
    expect(readTable(Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from('name,ort\nReißig,Köln\n', 'utf16le')])).table).toMatchObject({
      encoding: 'UTF-16',
      rows: [['Reißig', 'Köln']],
    });
  });

  test('titles above the headings are passed over', () => {
    expect(table('Visitors of the autumn fair;;\nexport 13-11-2026;;\nname;mail;stand\nMara;m@x.example;B14\n')).toMatchObject({
      headings: ['name', 'mail', 'stand'],
      headingRow: 3,
    });
  });

  test('short rows are filled, long ones keep their words', () => {
    expect(table('a,b,c\n1\n1,2,3,4\n1,2,3\n').rows).toEqual([
      ['1', '', ''],
      ['1', '2', '3 4'],
      ['1', '2', '3'],
    ]);
  });

  test.each([
    ['', 'the file is empty'],
    ['only,headings\n', 'there are no rows below the headings'],
    ['PK\u0003\u0004zip', 'this is not a text file: save the list as CSV and bring that'],
    ['a,b\u0000\u0000\u0000,c', 'this is not a text file: save the list as CSV and bring that'],
  ])('%j is refused with a reason', (text, message) => {
    expect(readTable(bytes(text)).problem?.message).toBe(message);
  });

  test('no bytes make it throw', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 400 }), (raw) => {
        const { table: read, problem } = readTable(raw);
        expect((read === undefined) !== (problem === undefined)).toBe(true);
      }),
      { numRuns: 500 },
    );
  });
});

describe('columns to fields', () => {
  test('the shipped list: every column is found, by heading and by content', () => {
    const guesses = guessColumns(demo.headings, demo.rows, DEMO_FIELDS);
    expect(Object.fromEntries(guesses.map((guess) => [guess.heading, guess.target]))).toEqual({
      Bezoeker: 'person.name',
      Bedrijf: 'company.name',
      Mail: 'person.email',
      Tel: 'person.phone',
      'Opp. glas': 'company.heated_area',
      Website: 'company.website',
      Plaats: 'company.city',
      Land: 'company.country',
      Opmerking: 'note',
      Stand: 'person.met_at',
    });
  });

  const rows = [
    ['Mara Quill', 'Oakmere Glass Ltd', 'm.quill@oakmere-glass.example', '01632 960417', 'www.oakmere-glass.example', '4.2 ha', 'GB'],
    ['Jonas Reißig', 'Gärtnerei Vossbruch GmbH', 'j@vossbruch.example', '030 23125 538', 'vossbruch.example', '3,5 ha', 'DE'],
    ['Piet Aalders', 'Hoogland Paprika B.V.', 'piet@hoogland-paprika.example', '020 5550 123', 'hoogland-paprika.example', '7 ha', 'NL'],
  ];
  test('headings nobody has seen: the contents decide', () => {
    const guesses = guessColumns(['A', 'B', 'C', 'D', 'E', 'F', 'G'], rows, DEMO_FIELDS);
    expect(guesses.map((guess) => guess.target)).toEqual([
      'person.name',
      'company.name',
      'person.email',
      'person.phone',
      'company.website',
      'company.heated_area',
      'company.country',
    ]);
    expect(guesses.every((guess) => !guess.sure)).toBe(true);
  });

  test.each([
    [
      ['First name', 'Surname', 'E-mail address', 'Organisation'],
      ['person.first_name', 'person.last_name', 'person.email', 'company.name'],
    ],
    [
      ['Vorname', 'Nachname', 'E-Mail', 'Firma', 'Ort'],
      ['person.first_name', 'person.last_name', 'person.email', 'company.name', 'company.city'],
    ],
    [
      ['Nombre', 'Apellidos', 'Correo', 'Empresa', 'Ciudad'],
      ['person.first_name', 'person.last_name', 'person.email', 'company.name', 'company.city'],
    ],
    [
      ['Imię', 'Nazwisko', 'Mail', 'Firma', 'Miasto'],
      ['person.first_name', 'person.last_name', 'person.email', 'company.name', 'company.city'],
    ],
  ])('headings %j', (headings, targets) => {
    expect(guessColumns(headings, [], DEMO_FIELDS).map((guess) => guess.target)).toEqual(targets);
  });

  test('a heading that its contents contradict is not believed', () => {
    const guesses = guessColumns(
      ['e-mail', 'x'],
      [
        ['Mara', 'm@x.example'],
        ['Tom', 't@x.example'],
        ['Ewa', 'e@x.example'],
      ],
      DEMO_FIELDS,
    );
    expect(guesses[1]?.target).toBe('person.email');
  });

  test('no target but notes is given twice, and every target has a label', () => {
    const cell = fc.constantFrom(
      'Mara Quill',
      'm@x.example',
      '',
      '4.2',
      'Ltd',
      '+44 1632 960417',
      'GB',
      'x.example',
      'a long remark about a visit to the stand',
    );
    fc.assert(
      fc.property(
        fc.array(fc.array(cell, { minLength: 5, maxLength: 5 }), { maxLength: 8 }),
        fc.array(fc.constantFrom('name', 'mail', 'Firma', 'x', 'tel', 'site', 'note'), { minLength: 5, maxLength: 5 }),
        (body, headings) => {
          const targets = guessColumns(headings, body, DEMO_FIELDS)
            .map((guess) => guess.target)
            .filter((target) => target !== 'note' && target !== 'leave out');
          expect(new Set(targets).size).toBe(targets.length);
        },
      ),
    );
    for (const target of targetsOf(DEMO_FIELDS)) expect(targetLabel(target, DEMO_FIELDS)).not.toBe('');
  });
});

describe('names', () => {
  test.each([
    ['QUILL, Mara', 'Mara', 'Quill'],
    ['dhr. P. Aalders', 'P.', 'Aalders'],
    ['JONAS REISSIG', 'Jonas', 'Reissig'],
    ['Ruben van Raalte', 'Ruben', 'van Raalte'],
    ['Dr. Ewa Sobczak', 'Ewa', 'Sobczak'],
    ['Mara', 'Mara', ''],
    ["SIOBHÁN O'NEILL", 'Siobhán', "O'Neill"],
  ])('%s', (raw, first, last) => {
    expect(splitName(raw)).toMatchObject({ first, last });
  });
});

describe('one row', () => {
  const columns: { target: Target }[] = [
    'person.name',
    'person.email',
    'person.phone',
    'company.name',
    'company.website',
    'company.heated_area',
    'company.country',
    'note',
  ].map((target) => ({ target: target }));
  const read = (...cells: string[]) => readRow(cells, columns, 'GB', DEMO_FIELDS);

  test('is typed and tidied, and says what it changed', () => {
    const row = read(
      'QUILL, Mara',
      'M.Quill@X.example',
      '01632 960417',
      'Oakmere Glass',
      'www.oakmere-glass.example',
      '55000',
      'England',
      'met at\nthe stand',
    );
    expect(row.record).toEqual({
      person: { name: 'Mara Quill', first_name: 'Mara', last_name: 'Quill', email: 'm.quill@x.example', phone: '+441632960417' },
      company: { name: 'Oakmere Glass', website: 'oakmere-glass.example', heated_area: 5.5, country: 'GB' },
      note: 'met at the stand',
      standing: NOWHERE,
    });
    expect(row.remarks.map((remark) => remark.says)).toEqual(['read as m²']);
    expect(row.refused).toBeNull();
  });

  test('a national number is read in the row’s own country', () => {
    expect(read('Jonas Reißig', 'j@x.example', '030 23125 538', '', '', '', 'Deutschland', '').record.person.phone).toBe('+493023125538');
  });

  test('a value that cannot be is left out and told, the row stays', () => {
    const row = read('Mara Quill', 'mara at x', '01632 960417', '', '', 'lots', '', '');
    expect(row.refused).toBeNull();
    expect(row.record.person.email).toBeUndefined();
    expect(row.remarks.map((remark) => remark.says)).toEqual([
      '“mara at x” is not an e-mail address: left out',
      '“lots” is not an amount in ha: left out',
    ]);
    const large = read('Mara Quill', 'm@x.example', '', 'X', '', '99999 ha', '', '');
    expect([large.refused, large.record.company.heated_area]).toEqual([null, undefined]);
    expect(large.remarks.map((remark) => remark.says)).toEqual(['99,999 ha cannot be: not above 500 ha: left out']);
  });

  test('names of every script are names; signs and figures alone are none', () => {
    for (const name of ['محمد العلي', 'דוד לוי', 'Ольга Сидорова', '王小明', 'Ĝoĉjo Ŝpinĉjo'])
      expect(read(name, 'm@x.example', '', '', '', '', '', '').refused).toBeNull();
    expect(read('123 / 456', 'm@x.example', '', '', '', '', '', '').refused).toBe('test entry');
  });

  test('a heading that says a unit gives it to bare figures', () => {
    const columns = ['person.name', 'person.email', 'company.heated_area'].map((target, i) => ({
      target,
      unit: i === 2 ? headingUnit('Size (m²)') : undefined,
    }));
    expect(readRow(['Mara Quill', 'm@x.example', '49.500'], columns, 'GB', DEMO_FIELDS).record.company.heated_area).toBe(4.95);
    expect(['Hectares', 'Glasfläche (m²)', 'Size', 'L'].map(headingUnit)).toEqual(['ha', 'm²', undefined, undefined]);
  });

  test.each([
    [['', '', '01632 960417', 'X', '', '', '', ''], 'neither name nor e-mail'],
    [['Mara Quill', '', '', 'X', '', '', '', ''], 'no e-mail, phone or site: nobody could be reached'],
    [['test test', 't@x.example', '', '', '', '', '', ''], 'test entry'],
  ])('%j is refused', (cells, why) => {
    expect(read(...cells).refused).toBe(why);
  });
});

describe('what becomes of each row', () => {
  const known: MatchPerson = {
    id: 'known',
    name: 'Mara Quill',
    email: 'm.quill@oakmere-glass.example',
    otherEmail: null,
    phone: null,
    mobile: null,
    companyId: 'oak',
    companyName: 'Oakmere Glass',
  };
  const oak = { id: 'oak', name: 'Oakmere Glass', website: 'oakmere-glass.example', phone: null, city: null, country: null };
  const columns: { target: Target }[] = ['person.name', 'person.email', 'company.name'].map((target) => ({ target: target }));
  const plan = (rows: string[][]) =>
    planRows(
      rows.map((cells, i) => ({ row: i + 1, reading: readRow(cells, columns, 'GB', DEMO_FIELDS) })),
      { people: [known], companies: [oak] },
      { importId: 'i', askAbove: 0.6, sameAbove: 0.95 },
    );

  test('known, perhaps known, new, twice in the file, refused', () => {
    const plans = plan(
      [
        ['Mara Quill', 'm.quill@oakmere-glass.example', 'Oakmere Glass Ltd'],
        ['Mara Quil', '', 'Oakmere Glass'],
        ['Piet Aalders', 'piet@hoogland-paprika.example', 'Hoogland Paprika B.V.'],
        ['AALDERS, Piet', 'piet@hoogland-paprika.example', 'Hoogland Paprika'],
        ['asdf', 'asdf@x.example', ''],
      ].map((row) => row),
    );
    expect(plans.map((entry) => entry.kind)).toEqual(['known', 'refused', 'new', 'known', 'refused']);
    expect(plans[0]).toMatchObject({ personId: 'known', companyId: 'oak', why: 'joined by e-mail' });
    expect(plans[3]).toMatchObject({ personId: plans[2]?.personId, why: 'same as row 3' });
    expect([plans[2]?.newCompany, plans[3]?.newCompany]).toEqual([true, false]);
  });

  test('the same list under the same id makes the same records', () => {
    const rows = [
      ['Piet Aalders', 'piet@x.example', 'Hoogland'],
      ['Ewa Sobczak', 'ewa@x.example', 'Zielony Dach'],
    ];
    expect(plan(rows)).toEqual(plan(rows));
  });

  test('every row of the shipped list ends in one of four ways, and new people never share an e-mail', () => {
    const guesses = guessColumns(demo.headings, demo.rows, DEMO_FIELDS);
    const readings = demo.rows.map((cells, i) => ({ row: i + 1, reading: readRow(cells, guesses, 'GB', DEMO_FIELDS) }));
    const plans = planRows(readings, { people: [], companies: [] }, { importId: 'demo', askAbove: 0.6, sameAbove: 0.95 });
    expect(plans).toHaveLength(240);
    expect(plans.filter((entry) => entry.kind === 'refused')).toHaveLength(4);
    const mails = plans
      .filter((entry) => entry.kind === 'new')
      .map((entry) => readings[entry.row - 1]?.reading.record.person.email)
      .filter(Boolean);
    expect(new Set(mails).size).toBe(mails.length);
  });
});

test('a long posted text is kept whole; one that is cut says so', () => {
  const long = 'x'.repeat(20_000);
  expect(flatten({ notes: long })).toEqual({ notes: long });
  expect(flatten({ notes: 'x'.repeat(100_001) }).notes).toMatch(/x … \(cut here: 100,001 characters came\)$/);
});

describe('a list without headings', () => {
  const table = (text: string) => readTable(new TextEncoder().encode(text)).table;

  test('loses nobody: the first row is one like the others', () => {
    const read = table('Yasmin Fair,Buyer,y.fair@selby.example,0115 496 0795\nTobias Fray,Owner,,ask at gate\n');
    expect(read).toMatchObject({ headingRow: 0, headings: ['column 1', 'column 2', 'column 3', 'column 4'] });
    expect(read?.rows).toHaveLength(2);
    expect(read?.rowNumbers).toEqual([1, 2]);
    expect(table('Mara Quill;m.quill@oakmere.example\n')?.rows).toHaveLength(1);
  });

  test('titles over headings are none of either', () => {
    const read = table('Visitors of the fair;;\n;;\nName;E-mail;Phone\nMara Quill;m@x.example;0115 496 0795\n');
    expect(read).toMatchObject({ headingRow: 3, headings: ['Name', 'E-mail', 'Phone'] });
  });
});

describe('what columns hold outweighs what they are called', () => {
  test('a list whose headings mislead', () => {
    const headings = ['Name', 'Contact', 'Mail', 'Address', 'Phone', 'Ctry', 'Size'];
    const rows = [
      ['Duijvest Planten B.V.', 'DUIJVEST, Femke', '+31 348 55 01 93', 'femke@duijvest.example', '', 'NL', '59000 m2'],
      ['Perpignan SARL', 'URBAIN, Odile', '+33 4 65 71 56 59', 'odile@perpignan.example', '', 'F', '33500 m2'],
      ['Membrive S.L.', 'RUBÍ, Matías', '+34 968 55 01 17', 'matias@membrive.example', '', 'E', '9500 m2'],
    ];
    expect(guessColumns(headings, rows, DEMO_FIELDS).map((guess) => guess.target)).toEqual([
      'company.name',
      'person.name',
      'person.phone',
      'person.email',
      'company.phone',
      'company.country',
      'company.heated_area',
    ]);
  });

  test('days are no telephone numbers', () => {
    const rows = [
      ['2025-07-07', 'm@x.example'],
      ['2025-01-30', 'n@x.example'],
      ['20.08.2025', 'o@x.example'],
    ];
    expect(guessColumns(['column 1', 'column 2'], rows, DEMO_FIELDS).map((guess) => guess.target)).toEqual(['leave out', 'person.email']);
  });
});
