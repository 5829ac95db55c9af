import { cutText } from '../../core/base';
import { printedBlocks, readHtml, textBlocks } from '../../core/formats';
import { WorldFailure, type DocumentText, type HiddenText } from '../ports';
import { checkArchive } from './archive';
import { writingOf } from './docx';
import { runsOf, type SeenRun } from './pdf';

const LIMITS = { pages: 80, text: 200_000, ms: 15_000 } as const;
/** A text that is a page, as some programs save papers and mails. */
const PAGE = /^\s*(?:<!doctype html|<html)/i;
/** Fewer letters a page than this is a picture of a text, not a text. */
const SCANNED_BELOW = 20;
/** Fewer hidden letters than this are spaces and marks of a program, not words. */
const HIDDEN_FROM = 4;
const HIDDEN_MAX = 1_000;
const HIDDEN_COUNT = 20;
const SCAN = 'a scan: the pages are pictures and hold no text';
/** A locked file is not a damaged one. */
const LOCKED = /password/i;

/** Text out of documents: PDF, Word (DOCX) and plain text. Nothing in them is run, and no address in them is fetched. */
export async function readDocument(kind: 'pdf' | 'docx' | 'text', bytes: Uint8Array): Promise<DocumentText> {
  try {
    if (kind === 'pdf') return await readPdf(bytes);
    if (kind === 'docx') return readDocx(bytes);
    const whole = new TextDecoder('utf-8').decode(bytes);
    const text = whole.slice(0, LIMITS.text);
    const says =
      whole.length > text.length
        ? `the first ${LIMITS.text.toLocaleString('en-GB')} of ${whole.length.toLocaleString('en-GB')} characters`
        : '';
    return { blocks: PAGE.test(text) ? readHtml(text).blocks : textBlocks(text), says, hidden: [] };
  } catch (error) {
    if (error instanceof WorldFailure) throw error;
    if (error instanceof Error && (LOCKED.test(error.name) || LOCKED.test(error.message)))
      throw new WorldFailure('broken', 'the file is locked with a password: ask for one that is not', false);
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
    const runs: SeenRun[] = [];
    let letters = 0;
    const pages = Math.min(document.numPages, LIMITS.pages);
    for (let no = 1; no <= pages && letters < LIMITS.text && performance.now() - began < LIMITS.ms; no++) {
      const own = await runsOf(await document.getPage(no), no, pdfjs.OPS);
      letters += own.reduce((sum, run) => sum + run.text.trim().length, 0);
      runs.push(...own);
    }
    const seen = runs.filter((run) => run.unseen === null);
    const hidden = hiddenIn(runs);
    if (seen.reduce((sum, run) => sum + run.text.trim().length, 0) < SCANNED_BELOW * pages)
      return { blocks: [], says: SCAN, isScan: true, hidden };
    return {
      blocks: printedBlocks(seen),
      says: pages < document.numPages ? `the first ${pages} of ${document.numPages} pages` : '',
      hidden,
    };
  } finally {
    await document.destroy();
  }
}

/** What nobody sees of a document, by why. */
function hiddenIn(runs: readonly SeenRun[]): readonly HiddenText[] {
  const whys = [...new Set(runs.flatMap((run) => run.unseen ?? []))];
  return whys.flatMap((why) => {
    const text = printedBlocks(runs.filter((run) => run.unseen === why))
      .map((block) => block.text)
      .join(' ');
    return text.length < HIDDEN_FROM ? [] : [{ text: cutText(text, HIDDEN_MAX), why }];
  });
}

/** The text of a Word document lies in XML parts; a page of writing takes some ten kilobytes of them. */
const DOCX_XML_MB = 8;

function readDocx(bytes: Uint8Array): DocumentText {
  const entries = checkArchive(bytes);
  const largest = Math.max(0, ...entries.filter((entry) => /\.xml(?:\.rels)?$/i.test(entry.name)).map((entry) => entry.unpacked));
  if (largest > DOCX_XML_MB * 1024 * 1024)
    throw new WorldFailure('too large', `the text of this document unpacks to more than ${DOCX_XML_MB} MB`, false);
  const { blocks, hidden } = writingOf(bytes);
  return {
    blocks,
    says: blocks.length === 0 ? 'the document holds no text' : '',
    hidden: hidden.map(({ text, why }) => ({ text: cutText(text, HIDDEN_MAX), why })).slice(0, HIDDEN_COUNT),
  };
}
