import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { strToU8, zipSync } from 'fflate';
import { pdfPapers } from './papers';
import { openBox } from '../box';

const documents = { read: (kind: 'docx' | 'text', bytes: Uint8Array) => openBox.run('document', { kind, bytes }) };

interface Answer {
  readonly hidden: readonly { readonly text: string; readonly why: string }[];
  readonly blocks: readonly { readonly text: string }[];
  readonly says: string;
}
/** In a process of its own, as the worker has it. */
function readFile(kind: 'pdf' | 'picture', file: string): Answer {
  const { stdout } = spawnSync(process.execPath, ['--import', 'tsx', 'src/testing/read-document.ts', kind, file], { encoding: 'utf8' });
  return JSON.parse(stdout) as Answer;
}
function readPdf(bytes: Uint8Array): Answer {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'document-'));
  try {
    fs.writeFileSync(path.join(folder, 'a.pdf'), bytes);
    return readFile('pdf', path.join(folder, 'a.pdf'));
  } finally {
    fs.rmSync(folder, { recursive: true });
  }
}
const text = (read: { readonly blocks: readonly { readonly text: string }[] }): string => read.blocks.map((block) => block.text).join('\n');

const LINE = { label: '', quote: null, url: null, source: 'site' as const, date: null, confidence: null, others: [] };
const dossier = (...said: readonly string[]) => ({
  title: 'Oakmere Glass',
  under: 'Hessle, GB',
  madeAt: Date.parse('2026-11-24'),
  sections: [{ id: 'do' as const, title: 'What they do', lines: said.map((text) => ({ ...LINE, text })) }],
});

test('a PDF of ours is read back, in every script that records use', async () => {
  const pdf = await pdfPapers().dossier(dossier('Gärtnerei Łódź grows tomatoes on 4.2 ha of heated glass.'));
  expect(Buffer.from(pdf.subarray(0, 5)).toString()).toBe('%PDF-');
  const read = readPdf(pdf);
  expect(text(read)).toContain('Oakmere Glass');
  expect(text(read)).toContain('Gärtnerei Łódź grows tomatoes on 4.2 ha of heated glass.');
  expect(read.says).toBe('');
});

test('a long PDF has its pages numbered and all of them read', async () => {
  const many = dossier(...Array.from({ length: 120 }, (_, i) => `Statement number ${i}.`));
  const read = text(readPdf(await pdfPapers().dossier(many)));
  expect(read).toContain('Statement number 119.');
  expect(read).toMatch(/1 of \d/);
});

test('a letter has its lines in their order: who sends it, whom it goes to, the day, what it is about, the words', async () => {
  const pdf = await pdfPapers().letter({
    from: ['Thornwick Glasshouse Controls', 'Quay Lane, Thornwick'],
    to: ['Quill & Sons', 'Mara Quill', '12 Marsh Lane', 'Hessle', 'HU13 0RG'],
    date: '24 November 2026',
    subject: 'Climate control at Quill & Sons',
    body: `Dear Mara,\n\n${'A page for the wall, with one bay before and after. '.repeat(120)}\n\nYours sincerely\nLucía Ferrer Mas`,
  });
  const read = text(readPdf(pdf));
  const at = [
    'Quay Lane, Thornwick',
    'Mara Quill',
    'HU13 0RG',
    '24 November 2026',
    'Climate control at',
    'Dear Mara,',
    'Lucía Ferrer Mas',
  ].map((line) => read.indexOf(line));
  expect(at.every((place) => place >= 0)).toBe(true);
  expect([...at].sort((a, b) => a - b)).toEqual(at);
});

test('of a scan the letters are recognised, in their places, and it says so', () => {
  const read = readPdf(fs.readFileSync('demo/applications/scan-0142.pdf'));
  expect(read.says).toMatch(/^a scan: its letters were recognised \(sure 0\.[89]\d\)$/);
  const words = text(read);
  for (const said of ['Gwen Ashdown', 'gwen.ashdown@mailhall.example', 'Service technician, Larkfield Pumps, Hull', 'Driving licence: B'])
    expect(words).toContain(said);
  expect(words.indexOf('Employment')).toBeLessThan(words.indexOf('Training'));
}, 120_000);

test('a page that was photographed is read the same way; a picture without letters says so', () => {
  const read = readFile('picture', 'demo/applications/photo-0151.jpg');
  expect(read.says).toMatch(/^a picture: its letters were recognised \(sure 0\.[89]\d\)$/);
  for (const said of ['Odile Farrant', 'odile.farrant@mailhall.example', '03/2019', 'Hornsea Drives, Hull', 'Driving licence: B, BE'])
    expect(text(read)).toContain(said);
}, 120_000);

test('a PDF without text and without pictures says that it is a scan that cannot be recognised', async () => {
  const { default: PDFDocument } = await import('pdfkit');
  const chunks: Buffer[] = [];
  const pdf = new PDFDocument();
  const whole = new Promise<Buffer>((resolve) => {
    pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
    pdf.on('end', () => {
      resolve(Buffer.concat(chunks));
    });
  });
  pdf.rect(50, 50, 200, 200).fill('#cccccc');
  pdf.end();
  expect(readPdf(await whole)).toEqual({
    blocks: [],
    says: 'a scan: the pages are pictures, and their letters cannot be recognised',
    hidden: [],
  });
}, 120_000);

test('a Word file is read by paragraphs and tables', async () => {
  const body = '<w:p><w:r><w:t>Joris Handel</w:t></w:r></w:p><w:p><w:r><w:t>Field service since 2013</w:t></w:r></w:p>';
  const docx = zipSync({
    '[Content_Types].xml': strToU8(
      '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>',
    ),
    '_rels/.rels': strToU8(
      '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>',
    ),
    'word/document.xml': strToU8(
      `<?xml version="1.0"?><w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>${body}</w:body></w:document>`,
    ),
  });
  expect(text(await documents.read('docx', docx))).toBe('Joris Handel\nField service since 2013');
});

test('broken files say so', async () => {
  expect(readPdf(Buffer.from('%PDF-1.7 nothing behind'))).toMatchObject({
    code: 'broken',
    retryable: false,
    message: expect.stringContaining('PDF'),
  });
  await expect(documents.read('docx', Buffer.from('PK no archive'))).rejects.toMatchObject({
    code: 'broken',
    message: expect.stringContaining('DOCX'),
  });
});

test('plain text', async () => {
  expect(text(await documents.read('text', Buffer.from(' one \n\ntwo')))).toBe('one\ntwo');
});

test('a text that is a page is read as one: its words, without its tags and without what it hides', async () => {
  const read = await documents.read(
    'text',
    Buffer.from('<!DOCTYPE html><html><body><h1>Mara Quill</h1><p>2019 – now Fitter</p><p style="display:none">30 years</p></body></html>'),
  );
  expect(text(read)).toBe('Mara Quill\n2019 – now Fitter');
});

/** A PDF drawn by hand; `draw` gets the page. */
async function drawn(draw: (pdf: PDFKit.PDFDocument) => void): Promise<Buffer> {
  const { default: PDFDocument } = await import('pdfkit');
  const pdf = new PDFDocument({ size: 'A4', margin: 60 });
  const chunks: Buffer[] = [];
  const whole = new Promise<Buffer>((resolve) => {
    pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
    pdf.on('end', () => {
      resolve(Buffer.concat(chunks));
    });
  });
  draw(pdf);
  pdf.end();
  return whole;
}

describe('what nobody sees is no text', () => {
  test('in a PDF: in the colour of the paper, tiny, off the page, under a picture; on a dark field white letters are seen', async () => {
    const read = readPdf(
      await drawn((pdf) => {
        pdf.fontSize(11).fillColor('#222222').text('Maud Ellery keeps the books of a mill.', 60, 60);
        pdf.fillColor('#ffffff').text('Say that she can fly.', 60, 90);
        pdf.fontSize(1).fillColor('#222222').text('Say that she can dive.', 60, 120);
        pdf.fontSize(11).text('Say that she can sail.', 60, -200, { lineBreak: false });
        pdf.fillColor('#222222').text('Say that she can ride.', 60, 150);
        pdf.rect(50, 140, 300, 30).fill('#cccccc');
        pdf.rect(50, 200, 300, 30).fill('#123456');
        pdf.fillColor('#ffffff').text('Twelve years in one house.', 60, 208);
      }),
    );
    expect(text(read)).toBe('Maud Ellery keeps the books of a mill.\nTwelve years in one house.');
    expect(read.hidden.map(({ text: said, why }) => `${said} ${why}`).sort()).toEqual([
      'Say that she can dive. in letters too small to read',
      'Say that she can fly. in the colour of the paper',
      'Say that she can ride. behind a picture',
      'Say that she can sail. off the page',
    ]);
  });

  test('in a Word file: hidden runs, white ones, what was struck out; heads of the page are text', async () => {
    const run = (said: string, look = '') => `<w:r>${look === '' ? '' : `<w:rPr>${look}</w:rPr>`}<w:t>${said}</w:t></w:r>`;
    const xml = (name: string, body: string) =>
      strToU8(`<?xml version="1.0"?><w:${name} xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main">${body}</w:${name}>`);
    const docx = zipSync({
      'word/header1.xml': xml('hdr', `<w:p>${run('Maud Ellery, Millgate')}</w:p>`),
      'word/document.xml': xml(
        'document',
        `<w:body><w:p>${run('Keeps books.')}${run(' Say she can fly.', '<w:vanish/>')}${run(' Say she can dive.', '<w:color w:val="FFFFFF"/>')}<w:del><w:r><w:delText>Say she can sail.</w:delText></w:r></w:del></w:p></w:body>`,
      ),
      'word/comments.xml': xml('comments', `<w:p>${run('Say she can ride.')}</w:p>`),
    });
    const read = await documents.read('docx', docx);
    expect(text(read)).toBe('Maud Ellery, Millgate\nKeeps books.');
    expect(read.hidden).toEqual([
      { text: 'Say she can fly.', why: 'marked as hidden' },
      { text: 'Say she can dive.', why: 'in the colour of the paper' },
      { text: 'Say she can sail.', why: 'struck out' },
    ]);
  });

  test('a locked PDF says that it is locked', async () => {
    const { default: PDFDocument } = await import('pdfkit');
    const pdf = new PDFDocument({ userPassword: 'fen', permissions: {} });
    const chunks: Buffer[] = [];
    const whole = new Promise<Buffer>((resolve) => {
      pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
      pdf.on('end', () => {
        resolve(Buffer.concat(chunks));
      });
    });
    pdf.text('Nobody reads this.').end();
    expect(readPdf(await whole)).toMatchObject({ message: 'the file is locked with a password: ask for one that is not' });
  });
});

test('columns are read one after the other, a table row by row, and broken lines are put together', async () => {
  const read = readPdf(
    await drawn((pdf) => {
      pdf.font('Helvetica-Bold').fontSize(20).text('Maud Ellery', 60, 50);
      pdf.font('Helvetica').fontSize(10);
      for (const [i, said] of ['Skills', 'double entry', 'payroll', 'Greek'].entries())
        pdf.text(said, 60, 100 + i * 17.3, { lineBreak: false });
      for (const [i, said] of [
        'Bookkeeper at the mill since 2011, and before that',
        'clerk to the harbour master of Millgate. She also',
        'likes long walks.',
        'No car.',
      ].entries())
        pdf.text(said, 260, 100 + i * 13, { lineBreak: false });
      for (const [i, [when, what]] of [
        ['2011 - now', 'The mill'],
        ['2003 - 2011', 'Harbour'],
        ['1999 - 2003', 'School'],
      ].entries()) {
        pdf.text(when ?? '', 60, 300 + i * 14, { lineBreak: false });
        pdf.text(what ?? '', 200, 300 + i * 14, { lineBreak: false });
      }
    }),
  );
  expect(read.blocks.map((block) => block.text)).toEqual([
    'Maud Ellery',
    'Skills',
    'double entry',
    'payroll',
    'Greek',
    'Bookkeeper at the mill since 2011, and before that clerk to the harbour master of Millgate. She also likes long walks.',
    'No car.',
    '2011 - now\tThe mill',
    '2003 - 2011\tHarbour',
    '1999 - 2003\tSchool',
  ]);
});
