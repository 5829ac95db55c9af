/** What comes from outside, read in processes of their own: limits of memory, time and output, and nothing else harmed by them. */
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { deflateRawSync, deflateSync } from 'node:zlib';
import { strToU8, zipSync } from 'fflate';
import { writeOds } from 'hucre/ods';
import { writeXlsx } from 'hucre/xlsx';
import { boxPool } from '../adapters/box';
import type { Box, WorldFailure } from '../ports';
import { archiveEntries, checkArchive } from './archive';
import { BOX_LIMITS, openBox } from './index';

const log = { info: () => undefined, warn: () => undefined, error: () => undefined };
const failure = (work: Promise<unknown>): Promise<WorldFailure> =>
  work.then(
    () => Promise.reject(new Error('it should have failed')),
    (error: unknown) => error as WorldFailure,
  );

const TYPES =
  '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>';
const RELATIONS =
  '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>';
const word = (body: string): Uint8Array =>
  zipSync({
    '[Content_Types].xml': strToU8(TYPES),
    '_rels/.rels': strToU8(RELATIONS),
    'word/document.xml': strToU8(
      `<?xml version="1.0"?><w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>${body}</w:body></w:document>`,
    ),
  });
const paragraph = (text: string): string => `<w:p><w:r><w:t>${text}</w:t></w:r></w:p>`;

/** An archive with one entry whose directory says another size than is unpacked. */
function lying(content: Buffer, says: number): Uint8Array {
  const packed = deflateRawSync(content);
  const name = Buffer.from('word/document.xml');
  const local = Buffer.alloc(30);
  local.writeUInt32LE(0x04034b50, 0);
  local.writeUInt16LE(8, 8);
  local.writeUInt32LE(packed.length, 18);
  local.writeUInt32LE(says, 22);
  local.writeUInt16LE(name.length, 26);
  const entry = Buffer.alloc(46);
  entry.writeUInt32LE(0x02014b50, 0);
  entry.writeUInt16LE(8, 10);
  entry.writeUInt32LE(packed.length, 20);
  entry.writeUInt32LE(says, 24);
  entry.writeUInt16LE(name.length, 28);
  const end = Buffer.alloc(22);
  end.writeUInt32LE(0x06054b50, 0);
  end.writeUInt16LE(1, 8);
  end.writeUInt16LE(1, 10);
  end.writeUInt32LE(46 + name.length, 12);
  end.writeUInt32LE(30 + name.length + packed.length, 16);
  return Buffer.concat([local, name, packed, entry, name, end]);
}

/** A PDF whose only page is drawn by so many bytes of blanks. */
function swelling(bytes: number): Uint8Array {
  const drawn = deflateSync(Buffer.alloc(bytes, ' '));
  const parts = [
    '1 0 obj <</Type/Catalog/Pages 2 0 R>> endobj\n',
    '2 0 obj <</Type/Pages/Kids[3 0 R]/Count 1>> endobj\n',
    '3 0 obj <</Type/Page/Parent 2 0 R/MediaBox[0 0 200 200]/Contents 4 0 R>> endobj\n',
  ];
  const head = Buffer.from(`%PDF-1.4\n${parts.join('')}4 0 obj <</Length ${drawn.length}/Filter/FlateDecode>> stream\n`);
  return Buffer.concat([head, drawn, Buffer.from('\nendstream endobj\ntrailer <</Root 1 0 R>>\n')]);
}

describe('archives are measured before anything is unpacked', () => {
  test('a document of little size that unpacks to much is refused by what its directory says', async () => {
    const bomb = word(paragraph('x'.repeat(70 * 1024 * 1024)));
    expect(bomb.length).toBeLessThan(384 * 1024);
    expect(() => checkArchive(bomb)).toThrow('this document unpacks to more than 64 MB');
    expect(await failure(openBox.run('document', { kind: 'docx', bytes: bomb }))).toMatchObject({ code: 'too large', retryable: false });
  });

  test('so are many files, files packed too tightly, and more text than a document has', async () => {
    const many = zipSync(Object.fromEntries(Array.from({ length: 2_001 }, (_, i) => [`${i}`, new Uint8Array(1)])));
    expect(() => checkArchive(many)).toThrow('this document holds 2,001 files: at most 2,000 are read');
    expect(() => checkArchive(zipSync({ a: new Uint8Array(20 * 1024 * 1024) }))).toThrow('unpacks to more than 200 times its size');
    const long = word(Array.from({ length: 300_000 }, (_, i) => paragraph(`line ${(i * 7919) % 1_000_003} ${(i * i) % 9973}`)).join(''));
    expect((await failure(openBox.run('document', { kind: 'docx', bytes: long }))).message).toMatch(/unpacks to more than 8 MB/);
  });

  test('an ordinary archive is what it is; a damaged one says so', () => {
    expect(archiveEntries(word(paragraph('a'))).map((entry) => entry.name)).toEqual([
      '[Content_Types].xml',
      '_rels/.rels',
      'word/document.xml',
    ]);
    expect(() => checkArchive(Buffer.from('PK\u0003\u0004 nothing of the kind, but long enough'))).toThrow(/damaged/);
  });
});

describe('reading processes', () => {
  let pool: Box;
  beforeAll(() => {
    pool = boxPool({ file: path.resolve('src/server/wire/box.ts'), options: ['--import', 'tsx'] }, log, 2);
  });
  afterAll(() => pool.close());

  test('what they read is what is read here', async () => {
    const page = { url: 'http://a.example/', status: 200, type: 'text/html', bytes: Buffer.from('<p>Gärtnerei <a href="/b">b</a></p>') };
    expect(await pool.run('page', page)).toEqual(await openBox.run('page', page));
    const bytes = Buffer.from('From: Ann <ann@a.example>\r\nSubject: Hi\r\n\r\nYes, please.\r\n');
    expect(await pool.run('mail', { bytes })).toEqual(await openBox.run('mail', { bytes }));
    expect(await pool.run('document', { kind: 'docx', bytes: word(paragraph('Joris')) })).toMatchObject({ blocks: [{ text: 'Joris' }] });
  });

  test('what cannot be read fails alone, and is not worth trying again', async () => {
    const [bad, good] = await Promise.allSettled([
      pool.run('document', { kind: 'docx', bytes: Buffer.from('PK no archive') }),
      pool.run('document', { kind: 'text', bytes: Buffer.from('one\ntwo') }),
    ]);
    expect(bad).toMatchObject({ status: 'rejected', reason: { code: 'broken', retryable: false } });
    expect(good).toMatchObject({ status: 'fulfilled', value: { blocks: [{ text: 'one' }, { text: 'two' }] } });
  });

  test('one that takes too much memory is ended, says so, and the next is read by a fresh one', async () => {
    const failed = await failure(pool.run('document', { kind: 'pdf', bytes: swelling(700 * 1024 * 1024) }));
    expect(failed).toMatchObject({ retryable: false });
    expect(failed.message).toMatch(/more memory|longer to read|cannot be read/);
    expect(await pool.run('document', { kind: 'text', bytes: Buffer.from('after it') })).toMatchObject({ blocks: [{ text: 'after it' }] });
  }, 60_000);

  test('an archive that lies about its size gives no more than it says', async () => {
    const liar = lying(Buffer.from(`<w:document><w:body>${paragraph('x'.repeat(5_000_000))}</w:body></w:document>`), 1_000);
    const read = await pool.run('document', { kind: 'docx', bytes: liar });
    expect(read.blocks.reduce((sum, block) => sum + block.text.length, 0)).toBeLessThanOrEqual(1_000);
  });

  test('what would give back more than may come back is refused', async () => {
    const files = Object.fromEntries(Array.from({ length: 30 }, (_, i) => [`things/${i}.json`, Buffer.alloc(500_000, `${i}`)]));
    expect((await failure(pool.run('bundle', { bytes: zipSync(files) }))).message).toBe(
      `this bundle holds more than can be read (${BOX_LIMITS.bundle.outBytes / 1024 / 1024} MB)`,
    );
  });

  test('a calendar with one event that is none gives the others', async () => {
    const event = (uid: string, start: string): string =>
      `BEGIN:VEVENT\r\nUID:${uid}\r\nDTSTART:${start}\r\nDTEND:20261125T110000Z\r\nSUMMARY:${uid}\r\nORGANIZER:mailto:a@b.example\r\nEND:VEVENT\r\n`;
    const text = `BEGIN:VCALENDAR\r\nVERSION:2.0\r\n${event('good', '20261125T100000Z')}${event('bad', 'never')}${event('fine', '20261126T100000Z')}END:VCALENDAR\r\n`;
    const read = await pool.run('calendar', {
      texts: [text],
      from: Date.parse('2026-11-24'),
      until: Date.parse('2026-12-24'),
      zone: 'UTC',
    });
    expect(read.meetings.map((meeting) => meeting.uid)).toEqual(['good', 'fine']);
    expect(read.refused).toMatchObject([{ raw: expect.stringContaining('UID:bad') }]);
  });
});

describe('mails', () => {
  const html = (body: string): string =>
    [
      'From: Ann <ann@a.example>',
      'Subject: Re: your mail',
      'Content-Type: multipart/related; boundary=b',
      '',
      '--b',
      'Content-Type: text/html; charset=utf-8',
      '',
      body,
      '--b',
      'Content-Type: image/png; name=logo.png',
      'Content-ID: <logo>',
      'Content-Transfer-Encoding: base64',
      '',
      'iVBORw0KGgo=',
      '--b--',
      '',
    ].join('\r\n');

  test('what is written in HTML with a picture in it is read, and what is quoted stays quoted', async () => {
    const bytes = Buffer.from(
      html('<div>Please unsubscribe me.<br><img src="cid:logo"></div><blockquote><p>Are you interested?</p><p>Yes or no</p></blockquote>'),
    );
    expect((await openBox.run('mail', { bytes })).text).toBe('Please unsubscribe me.\n> Are you interested?\n> Yes or no');
  });

  test('every text of it is clean: no NUL, no halves of letters', async () => {
    const bytes = Buffer.from(
      'From: =?utf-8?B?QQBC?= <ann@a.example>\r\nSubject: a\u0000b\r\nContent-Type: text/plain; charset=utf-16le\r\n\r\n',
    );
    const mail = await openBox.run('mail', { bytes: Buffer.concat([bytes, Buffer.from([0x61, 0, 0x3d, 0xd8, 0, 0])]) });
    for (const text of [mail.fromName, mail.subject, mail.text]) {
      expect(text).not.toContain('\u0000');
      expect(text.isWellFormed()).toBe(true);
    }
  });
});

describe('lists', () => {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'lists-'));
  afterAll(() => {
    fs.rmSync(folder, { recursive: true });
  });
  const cut = async (content: string | Uint8Array, part?: string) => {
    const file = path.join(folder, 'list');
    fs.writeFileSync(file, content);
    return openBox.run('list', { path: file, rows: path.join(folder, 'rows'), ...(part !== undefined && { part }) });
  };
  const rows = (): [number, string[]][] =>
    fs
      .readFileSync(path.join(folder, 'rows'), 'utf8')
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as [number, string[]]);

  test('spreadsheets: the first sheet one sees, days as days, merged cells said for each row, numbers as they are', async () => {
    const sheets = [
      { name: 'Hidden', hidden: true, rows: [['Name'], ['Nobody']] },
      {
        name: 'Guests',
        rows: [
          ['Company', 'Name', 'Seen', 'Area', 'Phone', 'Comes'],
          ['Oakmere', 'Ann Bell', new Date('2026-11-24T00:00:00Z'), 4.25, 4_401_632_960_111, true],
          [null, 'Ben Hall', null, 1_000_000, '01632 960112', false],
        ],
        merges: [{ startRow: 1, startCol: 0, endRow: 2, endCol: 0 }],
      },
      { name: 'Old', rows: [['x'], ['y']] },
    ];
    const expected = [
      ['Oakmere', 'Ann Bell', '2026-11-24', '4.25', '4401632960111', 'yes'],
      ['Oakmere', 'Ben Hall', '', '1000000', '01632 960112', 'no'],
    ];
    for (const bytes of [await writeXlsx({ sheets }), await writeOds({ sheets: sheets.slice(1) })]) {
      const { list } = await cut(bytes);
      expect(list).toMatchObject({ headings: ['Company', 'Name', 'Seen', 'Area', 'Phone', 'Comes'], total: 2 });
      expect(list).toMatchObject({ parts: ['Guests', 'Old'], part: 'Guests', says: [] });
      expect(rows().map(([, cells]) => cells)).toEqual(expected);
      expect((await cut(bytes, 'Old')).list).toMatchObject({ part: 'Old', total: 1 });
      expect(rows().map(([, cells]) => cells)).toEqual([['y']]);
    }
  });

  test('a list in an archive is read; an archive without one, and a damaged file, say so', async () => {
    const zip = zipSync({ 'guests.csv': strToU8('Name;Mail\nAnn;a@b.example\n'), 'readme.md': strToU8('x') });
    expect((await cut(zip)).list).toMatchObject({ headings: ['Name', 'Mail'], total: 1, says: [] });
    const two = zipSync({ 'a.csv': strToU8('Name,Mail\nAnn,a@b.example\n'), 'b.csv': strToU8('Who,Reach\nBen,b@b.example\n') });
    expect((await cut(two)).list).toMatchObject({ parts: ['a.csv', 'b.csv'], part: 'a.csv', headings: ['Name', 'Mail'] });
    expect((await cut(two, 'b.csv')).list).toMatchObject({ part: 'b.csv', headings: ['Who', 'Reach'] });
    expect(await cut(zipSync({ 'readme.md': strToU8('x') }))).toMatchObject({ problem: expect.stringContaining('holds no list') });
    expect(await cut(Buffer.from('PK\u0003\u0004 and then nothing'))).toMatchObject({
      problem: 'the file is damaged: save it anew and bring it again',
    });
  });

  test('which number of a day comes first is told by the whole column', async () => {
    const many = Array.from({ length: 300 }, (_, i) => `Ann ${i},03/0${(i % 9) + 1}/2026,0${(i % 9) + 1}.03.2026\n`).join('');
    const { list } = await cut(`Name,Seen,Born\n${many}Zoe,03/25/2026,25.03.2026\n`);
    expect(list?.dayOrders).toEqual([null, 'month first', 'day first']);
  });

  test('rows go to a file as they come, with the lines they begin at; cells too many are said', async () => {
    const { list } = await cut('Visitors\nName;E-mail\n"Ann\nO";a@b.example\nBo;b@c.example;more;still\n');
    expect(list).toMatchObject({ headings: ['Name', 'E-mail'], headingRow: 2, delimiter: ';', encoding: 'UTF-8', total: 2 });
    expect(list?.says).toEqual(['1 row has more cells than there are headings: they stand in the last column']);
    expect(rows()).toEqual([
      [3, ['Ann\nO', 'a@b.example']],
      [5, ['Bo', 'b@c.example more still']],
    ]);
  });

  test('a letter of another charset far behind the first part is read rightly', async () => {
    const { list } = await cut(
      Buffer.concat([Buffer.from(`Name,City\n${'Ann,Hull\n'.repeat(40_000)}`), Buffer.from('J\u00fcrgen,K\u00f6ln\n', 'latin1')]),
    );
    expect(list).toMatchObject({ encoding: 'Windows-1252', total: 40_001 });
    expect(rows().at(-1)?.[1]).toEqual(['J\u00fcrgen', 'K\u00f6ln']);
  });

  test('nothing is dropped in silence: too many rows, too many columns, a row without end', async () => {
    expect(await cut(`a,b\n${'1,2\n'.repeat(500_010)}`)).toEqual({
      problem: 'the list has more than 500,000 rows: bring it in parts, so that none is lost',
    });
    const wide = Array.from({ length: 201 }, (_, i) => `column ${i}`).join(',');
    expect((await cut(`${wide}\n${wide}\n`)).problem).toMatch(/^the list has 201 columns: at most 200 are read/);
    expect((await cut(`a,b\n"${'x\n'.repeat(900_000)}`)).problem).toMatch(/a quotation mark is/);
    expect((await cut(`a,b\n${'1,2\n'.repeat(70_000)}"${'x\n'.repeat(900_000)}`)).problem).toMatch(/a row is longer than 1 MB.*not closed/);
    // A cell that only spans the end of the part that is looked at first is a cell.
    expect((await cut(`a,b\n${'1,2\n'.repeat(65_530)}1,"${'x\n'.repeat(2_000)}"\n3,4\n`)).list?.total).toBe(65_532);
  }, 60_000);
});
