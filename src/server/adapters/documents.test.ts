import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { strToU8, zipSync } from 'fflate';
import { pdfPapers } from './papers';
import { openBox } from '../box';

const documents = { read: (kind: 'docx' | 'text', bytes: Uint8Array) => openBox.run('document', { kind, bytes }) };

interface Answer {
  readonly blocks: readonly { readonly text: string }[];
  readonly says: string;
}
/** In a process of its own, as the worker has it. */
function readPdf(bytes: Uint8Array): Answer {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'document-'));
  try {
    fs.writeFileSync(path.join(folder, 'a.pdf'), bytes);
    const { stdout } = spawnSync(process.execPath, ['--import', 'tsx', 'src/testing/read-document.ts', 'pdf', path.join(folder, 'a.pdf')], {
      encoding: 'utf8',
    });
    return JSON.parse(stdout) as Answer;
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

test('a PDF without text says that it is a scan', async () => {
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
  expect(readPdf(await whole)).toEqual({ blocks: [], says: 'a scan: the pages are pictures and hold no text' });
});

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
