/** What columns are taken for, beyond the lists of the demo: several ways to reach somebody, and where a firm stands. */
import { DEMO_FIELDS } from '../../testing/fields';
import { guessColumns, readRow } from '.';

const targets = (headings: readonly string[], rows: readonly (readonly string[])[]) =>
  guessColumns(headings, rows, DEMO_FIELDS).map((guess) => guess.target);
const bare = (rows: readonly (readonly string[])[]) => targets(rows[0]?.map((_, i) => `Column ${i + 1}`) ?? [], rows);

describe('several addresses and numbers', () => {
  const rows = [
    ['Mara Quill', 'm.quill@oakmere.example', 'mara@home.example', '01632 960417', '07700 900417', '01632 960400'],
    ['Tom Ash', 'tom@marlpit.example', '', '01632 960111', '07700 900111', ''],
  ];
  test.each([
    ['English', ['Name', 'E-mail', 'E-mail 2', 'Phone', 'Mobile', 'Fax']],
    ['German', ['Ansprechpartner', 'E-Mail', 'E-Mail privat', 'Telefon', 'Handy', 'Telefax']],
    ['Spanish', ['Contacto', 'Correo', 'Otro correo', 'Teléfono', 'Móvil', 'Fax']],
    ['French', ['Interlocuteur', 'Courriel', 'Courriel 2', 'Téléphone', 'Portable', 'Fax']],
  ])('in %s each has its field, and a fax none', (_, headings) => {
    expect(targets(headings, rows)).toEqual([
      'person.name',
      'person.email',
      'person.other_email',
      'person.phone',
      'person.mobile',
      'leave out',
    ]);
  });
  test('without headings the first of two is the first', () => {
    expect(bare(rows.map((row) => row.slice(0, 5)))).toEqual([
      'person.name',
      'person.email',
      'person.other_email',
      'person.phone',
      'person.mobile',
    ]);
  });
  test('the only column of its kind is the first of its kind', () => {
    expect(targets(['Name', 'Reach', 'Number'], [['Mara Quill', 'm@o.example', '07700 900417']])).toEqual([
      'person.name',
      'person.email',
      'person.phone',
    ]);
  });
});

describe('where a firm stands', () => {
  test.each([
    ['with headings', ['Firma', 'Straße', 'PLZ', 'Ort', 'USt-IdNr']],
    ['without', ['', '', '', '', '']],
  ])('%s', (_, headings) => {
    const rows = [
      ['Oakmere Glas GmbH', 'Hafenstraße 12', '26122', 'Oldenburg', 'DE 123456789'],
      ['Quill KG', 'Am Markt 3, Lange Gasse', '49074', 'Osnabrück', 'DE987654321'],
    ];
    expect(targets(headings, rows)).toEqual(['company.name', 'company.street', 'company.postcode', 'company.city', 'company.vat_number']);
  });
  test('years and amounts are no postcodes, and words beside nothing no places', () => {
    const rows = [
      ['Oakmere Ltd', '2010', 'Cedar'],
      ['Quill Ltd', '1998', 'Birch'],
    ];
    expect(bare(rows)).toEqual(['company.name', 'leave out', 'leave out']);
  });
});

describe('a row with several', () => {
  const columns = ['person.name', 'person.email', 'person.other_email', 'person.phone', 'person.mobile'].map((target) => ({ target }));
  const read = (...cells: readonly string[]) => readRow(cells, columns, 'GB', DEMO_FIELDS);

  test('numbers are written the same way, each by itself', () => {
    const { record, remarks } = read('Mara Quill', 'm@o.example', 'M@home.example', 'ask Tom', '07700 900417');
    expect(record.person).toMatchObject({ email: 'm@o.example', other_email: 'm@home.example', mobile: '+447700900417' });
    expect(record.person.phone).toBeUndefined();
    expect(remarks).toContainEqual(expect.objectContaining({ target: 'person.phone', raw: 'ask Tom' }));
  });
  test('who has only a second address is written to there, and a mobile alone is enough to reach somebody', () => {
    expect(read('Mara Quill', '', 'm@home.example', '', '').record.person).toMatchObject({ email: 'm@home.example' });
    expect(read('Mara Quill', '', 'm@home.example', '', '').record.person.other_email).toBeUndefined();
    expect(read('Mara Quill', '', '', '', '07700 900417').refused).toBeNull();
    expect(read('Mara Quill', '', '', '', '').refused).toContain('nobody could be reached');
  });
});
