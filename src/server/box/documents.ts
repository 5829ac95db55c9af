import mammoth from 'mammoth';
import { readHtml, textBlocks, type Block } from '../../core/formats';
import { checkArchive } from './archive';
import { WorldFailure, type DocumentText } from '../ports';

const LIMITS = { pages: 80, text: 200_000, ms: 15_000 } as const;
/** A text that is a page, as some programs save papers and mails. */
const PAGE = /^\s*(?:<!doctype html|<html)/i;
/** Fewer letters a page than this is a picture of a text, not a text. */
const SCANNED_BELOW = 20;

/** Text out of documents: PDF, Word (DOCX) and plain text. Nothing in them is run, and no address in them is fetched. */
export async function readDocument(kind: 'pdf' | 'docx' | 'text', bytes: Uint8Array): Promise<DocumentText> {
  try {
    if (kind === 'pdf') return await readPdf(bytes);
    if (kind === 'docx') return await readDocx(bytes);
    const whole = new TextDecoder('utf-8').decode(bytes);
    const text = whole.slice(0, LIMITS.text);
    const says =
      whole.length > text.length
        ? `the first ${LIMITS.text.toLocaleString('en-GB')} of ${whole.length.toLocaleString('en-GB')} characters`
        : '';
    return { blocks: PAGE.test(text) ? readHtml(text).blocks : textBlocks(text), says };
  } catch (error) {
    if (error instanceof WorldFailure) throw error;
    throw new WorldFailure('broken', `the file cannot be read as ${kind.toUpperCase()}: it may be damaged or locked`, false);
  }
}

async function readPdf(bytes: Uint8Array): Promise<DocumentText> {
  const pdfjs = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const began = performance.now();
  const document = await pdfjs.getDocument({
    data: new Uint8Array(bytes),
    isEvalSupported: false,
    useSystemFonts: false,
    disableFontFace: true,
    verbosity: 0,
  }).promise;
  try {
    const blocks: Block[] = [];
    let letters = 0;
    const pages = Math.min(document.numPages, LIMITS.pages);
    for (let no = 1; no <= pages && letters < LIMITS.text && performance.now() - began < LIMITS.ms; no++) {
      const { items } = await (await document.getPage(no)).getTextContent();
      const text = linesOf(
        items.flatMap((item) => ('str' in item ? [{ text: item.str, y: Number(item.transform[5] ?? 0), ends: item.hasEOL }] : [])),
      );
      letters += text.replace(/\s/g, '').length;
      blocks.push(...textBlocks(text));
    }
    if (letters < SCANNED_BELOW * pages) return { blocks: [], says: 'a scan: the pages are pictures and hold no text' };
    return { blocks, says: pages < document.numPages ? `the first ${pages} of ${document.numPages} pages` : '' };
  } finally {
    await document.destroy();
  }
}

/** Pieces of text as lines: a new line where the height on the page changes. */
function linesOf(items: readonly { readonly text: string; readonly y: number; readonly ends: boolean }[]): string {
  let out = '';
  let y: number | undefined;
  for (const item of items) {
    if (y !== undefined && Math.abs(item.y - y) > 2 && !out.endsWith('\n')) out += '\n';
    out += item.text;
    if (item.ends && !out.endsWith('\n')) out += '\n';
    if (item.text.trim() !== '') ({ y } = item);
  }
  return out;
}

/** The text of a Word document lies in XML parts; a page of writing takes some ten kilobytes of them. */
const DOCX_XML_MB = 8;

async function readDocx(bytes: Uint8Array): Promise<DocumentText> {
  const entries = checkArchive(bytes);
  const largest = Math.max(0, ...entries.filter((entry) => /\.xml(?:\.rels)?$/i.test(entry.name)).map((entry) => entry.unpacked));
  if (largest > DOCX_XML_MB * 1024 * 1024)
    throw new WorldFailure('too large', `the text of this document unpacks to more than ${DOCX_XML_MB} MB`, false);
  const { value } = await mammoth.convertToHtml(
    { buffer: Buffer.from(bytes) },
    { externalFileAccess: false, convertImage: mammoth.images.imgElement(() => Promise.resolve({ src: '' })) },
  );
  const { blocks } = readHtml(value);
  return { blocks, says: blocks.length === 0 ? 'the document holds no text' : '' };
}
