import path from 'node:path';
import PDFDocument from 'pdfkit';
import { publicUrl, type Dossier, type DossierLine } from '../../core/dossier';
import { SOURCE_LABELS } from '../../core/facts';
import type { Letter, Papers } from '../ports';

const FONTS = path.resolve('node_modules/dejavu-fonts-ttf/ttf');
const PAPER = { size: 'A4', margins: { top: 56, bottom: 56, left: 56, right: 56 }, width: 483 } as const;
const INK = '#1B2624';
const QUIET = '#5C6B67';
const RIVER = '#1F5F6B';
const HAIRLINE = '#D9DEDA';

const day = (at: number): string => new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeZone: 'UTC' }).format(at);

/** Documents on A4, with fonts that hold every script our records use. */
export function pdfPapers(): Papers {
  return {
    dossier: (dossier) =>
      made({ Title: dossier.title, CreationDate: new Date(dossier.madeAt) }, (pdf) => {
        write(pdf, dossier);
      }),
    letter: (letter) =>
      made({ Title: letter.subject }, (pdf) => {
        writeLetter(pdf, letter);
      }),
  };
}

const made = (info: PDFKit.DocumentInfo, fill: (pdf: PDFKit.PDFDocument) => void): Promise<Uint8Array> =>
  new Promise((resolve, reject) => {
    const pdf = new PDFDocument({ size: PAPER.size, margins: PAPER.margins, bufferPages: true, info: { ...info, Creator: 'Millrace' } });
    const chunks: Uint8Array[] = [];
    pdf.on('data', (chunk: Uint8Array) => chunks.push(chunk));
    pdf.on('error', reject);
    pdf.on('end', () => {
      resolve(Buffer.concat(chunks));
    });
    pdf.registerFont('text', path.join(FONTS, 'DejaVuSansCondensed.ttf'));
    pdf.registerFont('bold', path.join(FONTS, 'DejaVuSansCondensed-Bold.ttf'));
    fill(pdf);
    pdf.end();
  });

const MM = 72 / 25.4;
/** DIN 5008 form B: the window of a DL envelope, and where the text begins. */
const WINDOW = { left: 25 * MM, top: 62.7 * MM, width: 75 * MM } as const;
const TEXT_TOP = 103 * MM;

function writeLetter(pdf: PDFKit.PDFDocument, { from, to, date, subject, body }: Letter): void {
  const { left } = WINDOW;
  const width = pdf.page.width - left - 20 * MM;
  pdf
    .font('text')
    .fontSize(9)
    .fillColor(QUIET)
    .text(from.join('\n'), left, 20 * MM, { width, align: 'right' });
  pdf.fontSize(10.5).fillColor(INK).text(to.join('\n'), left, WINDOW.top, { width: WINDOW.width });
  pdf.text(date, left, TEXT_TOP - 18, { width, align: 'right' });
  pdf.font('bold').text(subject, left, TEXT_TOP + 8, { width });
  pdf.font('text').moveDown(1).text(body, left, pdf.y, { width, lineGap: 2 });
}

function write(pdf: PDFKit.PDFDocument, dossier: Dossier): void {
  pdf.font('bold').fontSize(18).fillColor(INK).text(dossier.title);
  pdf
    .font('text')
    .fontSize(9)
    .fillColor(QUIET)
    .text([dossier.under, `made ${day(dossier.madeAt)}`].filter(Boolean).join(' · '));
  for (const section of dossier.sections) {
    if (pdf.y > pdf.page.height - 140) pdf.addPage();
    pdf.moveDown(1).font('bold').fontSize(11).fillColor(RIVER).text(section.title);
    pdf
      .moveTo(PAPER.margins.left, pdf.y + 2)
      .lineTo(PAPER.margins.left + PAPER.width, pdf.y + 2)
      .lineWidth(0.5)
      .strokeColor(HAIRLINE)
      .stroke();
    pdf.y += 6;
    for (const entry of section.lines) writeLine(pdf, entry);
  }
  const { start, count } = pdf.bufferedPageRange();
  for (let page = start; page < start + count; page++) {
    pdf.switchToPage(page);
    // Below the margin, where text would otherwise begin a new page.
    pdf.page.margins.bottom = 0;
    pdf
      .font('text')
      .fontSize(8)
      .fillColor(QUIET)
      .text(`${dossier.title} · ${page - start + 1} of ${count}`, PAPER.margins.left, pdf.page.height - 36, { lineBreak: false });
  }
}

function writeLine(pdf: PDFKit.PDFDocument, entry: DossierLine): void {
  pdf.fontSize(9.5).fillColor(INK);
  if (entry.label !== '') pdf.font('text').fillColor(QUIET).text(`${entry.label}: `, { continued: true });
  pdf.font('bold').fillColor(INK).text(entry.text);
  pdf.font('text').fontSize(8.5).fillColor(QUIET);
  if (entry.quote !== null) pdf.text(`“${entry.quote}”`);
  const url = publicUrl(entry);
  const from = [
    entry.source === null ? '' : SOURCE_LABELS[entry.source],
    url ?? '',
    entry.date === null ? '' : day(entry.date),
    entry.confidence === null ? '' : `${Math.round(entry.confidence * 100)} % sure`,
  ].filter((part) => part !== '');
  if (from.length > 0) pdf.text(from.join(' · '), url === null ? {} : { link: url });
  if (entry.others.length > 0) pdf.text(`Also said: ${entry.others.join('; ')}`);
  pdf.moveDown(0.35);
}
