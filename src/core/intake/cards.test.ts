/** Lists that are files of contact cards (vCard 2.1 to 4.0). */
import { DEMO_FIELDS } from '../../testing/fields';
import { guessColumns, readTable } from '.';

describe('older vCards', () => {
  test('quoted-printable is decoded over its soft breaks; a picture that ends in = is none; a bare word is a type', () => {
    const text = [
      'BEGIN:VCARD',
      'VERSION:2.1',
      'N;ENCODING=QUOTED-PRINTABLE;CHARSET=UTF-8:R=C3=B6ttgermann;K=C3=A4=',
      'the;;;',
      'FN;CHARSET=ISO-8859-1;QUOTED-PRINTABLE:K=E4the R=F6ttgermann',
      'TEL;WORK:0115 496 0795',
      'EMAIL;INTERNET:kaethe@roettgermann.example',
      'NOTE;ENCODING=QUOTED-PRINTABLE:Two houses, both; heated.=0D=0AA sign =3D here.',
      'PHOTO;ENCODING=b;TYPE=PNG:iVBORw0KGgo=',
      'END:VCARD',
      '',
    ].join('\r\n');
    const row = readTable(new TextEncoder().encode(text)).table?.rows[0];
    expect([row?.[0], row?.[1], row?.[2]]).toEqual(['Käthe Röttgermann', 'kaethe@roettgermann.example', '0115 496 0795']);
    expect(row?.[8]).toBe('Two houses, both; heated.\nA sign = here.');
  });
});

describe('vCards', () => {
  const card = (...lines: readonly string[]): string => ['BEGIN:VCARD', 'VERSION:4.0', ...lines, 'END:VCARD', ''].join('\r\n');
  const table = (text: string) => readTable(new TextEncoder().encode(text)).table;

  test('each card is a row, known by its headings and by where it stands in the file', () => {
    const read = table(
      card(
        'FN:Mara Quill',
        'EMAIL:m.quill@oakmere-glass.example',
        'TEL;VALUE=uri:tel:+44-1632-960417',
        'ORG:Oakmere Glass;Growing',
        'TITLE:head grower',
        'ADR:;;1 Lane;Hessle;;HU13;GB',
        'NOTE:met at the fair\\, hall 4',
      ) + card('N:Dijkgraaf;Ruben;;;', 'FN:', 'EMAIL:ruben@polder-orchids.example'),
    );
    expect(read?.rows[0]).toEqual([
      'Mara Quill',
      'm.quill@oakmere-glass.example',
      '+44-1632-960417',
      'Oakmere Glass',
      'head grower',
      '',
      'Hessle',
      'GB',
      'met at the fair, hall 4',
      '',
      '',
      '',
      '1 Lane',
      'HU13',
    ]);
    expect(read?.rows[1]?.slice(0, 2)).toEqual(['Ruben Dijkgraaf', 'ruben@polder-orchids.example']);
    expect(read?.rowNumbers).toEqual([1, 11]);
    expect(
      guessColumns(read?.headings ?? [], read?.rows ?? [], DEMO_FIELDS)
        .slice(0, 4)
        .map((guess) => guess.target),
    ).toEqual(['person.name', 'person.email', 'person.phone', 'company.name']);
  });

  test('of several addresses and numbers each has its place: preferred first, mobile by itself, fax nowhere; the address of the work', () => {
    const read = table(
      card(
        'FN:Mara Quill',
        'EMAIL;TYPE=home:mara@home.example',
        'EMAIL;TYPE=work;PREF=1:m.quill@oakmere-glass.example',
        'TEL;TYPE=work,fax:+44 1632 960400',
        'TEL;TYPE=cell:+44 7700 900417',
        'TEL;TYPE=work,voice:+44 1632 960417',
        'ADR;TYPE=home:;;9 Mere Row;Beverley;;HU17;GB',
        'ADR;TYPE=work:;;1 Lane;Hessle;;HU13;GB',
      ),
    );
    const guesses = guessColumns(read?.headings ?? [], read?.rows ?? [], DEMO_FIELDS);
    const values = Object.fromEntries(guesses.map((guess, i) => [guess.target, read?.rows[0]?.[i]]));
    expect(values).toMatchObject({
      'person.email': 'm.quill@oakmere-glass.example',
      'person.other_email': 'mara@home.example',
      'person.phone': '+44 1632 960417',
      'person.mobile': '+44 7700 900417',
      'company.street': '1 Lane',
      'company.postcode': 'HU13',
      'company.city': 'Hessle',
    });
  });

  test('a broken card is a row of its own that is refused; the others are read', () => {
    const read = table(
      card('FN:Mara Quill', 'EMAIL:m@o.example') +
        'BEGIN:VCARD\r\n;;;\u0001\r\nEND:VCARD\r\n' +
        card('FN:Jonas Reissig', 'EMAIL:j@o.example'),
    );
    expect(read?.rows.map((row) => row[0])).toEqual(['Mara Quill', '', 'Jonas Reissig']);
    expect(readTable(new TextEncoder().encode('BEGIN:VCARD\nFN:x')).problem?.message).toContain('no card in it ends');
  });
});
