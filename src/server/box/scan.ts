/** Scans and photographs: the letters in pictures of pages, recognised by Tesseract in the five languages documents come in. */
import { createRequire } from 'node:module';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { printedBlocks, type PrintedRun } from '../../core/formats';
import { pictureSize } from '../../core/intake';
import { WorldFailure, type DocumentText } from '../ports';

const LANGUAGES = ['eng', 'deu', 'nld', 'fra', 'spa'] as const;
/** Pages that are read, of a scan. */
const PAGES = 10;
/** A picture of more dots than this is no page that was laid on a scanner. */
const DOTS_MAX = 40_000_000;
/** Smaller than this there is nothing to read in a picture. */
const SIDE_MIN = 200;
/** Words that are less sure than this, in hundredths, are specks. */
const WORD_SURE = 30;
/** Less sure than this on the whole, the scan cannot be read. */
const SURE = 55;

/** A picture as PDF.js gives it: `kind` 1 is a bit a dot, 2 three bytes, 3 four. */
interface Picture {
  readonly width: number;
  readonly height: number;
  readonly kind: number;
  readonly data: Uint8Array | Uint8ClampedArray;
}
interface ScanPage {
  readonly view: readonly number[];
  readonly rotate: number;
  getOperatorList(): Promise<{ readonly fnArray: readonly number[]; readonly argsArray: readonly unknown[] }>;
  readonly objs: { get(name: string, then: (found: unknown) => void): void };
}

/** A grey picture, a byte a dot, row by row from the top. */
interface Grey {
  readonly width: number;
  readonly height: number;
  readonly dots: Uint8Array;
}

/** Reads the pages of a PDF that are pictures. What cannot be recognised says so; nothing is guessed at. */
export async function readScan(bytes: Uint8Array): Promise<DocumentText> {
  const pdfjs = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const document = await pdfjs.getDocument({ data: new Uint8Array(bytes), isEvalSupported: false, disableFontFace: true, verbosity: 0 })
    .promise;
  const reader = await recogniser();
  try {
    const pages = Math.min(document.numPages, PAGES);
    const runs: PrintedRun[] = [];
    const sure: number[] = [];
    for (let no = 1; no <= pages; no++) {
      const page = (await document.getPage(no)) as unknown as ScanPage;
      const picture = await largestPicture(page, pdfjs.OPS);
      if (!picture) continue;
      const grey = upright(greyOf(picture), page.rotate);
      const points = Math.abs((page.view[2] ?? 0) - (page.view[0] ?? 0)) / grey.width || 1;
      const read = await reader.recognise(portableGrey(grey), points, no);
      runs.push(...read.runs);
      if (read.runs.length > 0) sure.push(read.sure);
    }
    const mean = sure.length === 0 ? 0 : sure.reduce((sum, value) => sum + value, 0) / sure.length;
    if (mean < SURE) return { blocks: [], says: 'a scan: the pages are pictures, and their letters cannot be recognised', hidden: [] };
    const rest = pages < document.numPages ? `, the first ${pages} of ${document.numPages} pages` : '';
    return {
      blocks: printedBlocks(runs),
      says: `a scan: its letters were recognised (sure ${(mean / 100).toFixed(2)})${rest}`,
      hidden: [],
    };
  } finally {
    await Promise.all([reader.end(), document.destroy()]);
  }
}

/** Reads a page that was photographed or saved as a picture: PNG or JPEG, turned as its camera says. */
export async function readPhotograph(bytes: Uint8Array): Promise<DocumentText> {
  const size = pictureSize(bytes);
  if (!size || size.width * size.height > DOTS_MAX)
    throw new WorldFailure('too large', `the picture has more than ${DOTS_MAX / 1_000_000} million dots: send a smaller one`, false);
  const reader = await recogniser();
  try {
    const { runs, sure } = await reader.recognise(Buffer.from(bytes), 595 / size.width, 1);
    if (sure < SURE || runs.length === 0) return { blocks: [], says: 'a picture in which no letters can be recognised', hidden: [] };
    return { blocks: printedBlocks(runs), says: `a picture: its letters were recognised (sure ${(sure / 100).toFixed(2)})`, hidden: [] };
  } finally {
    await reader.end();
  }
}

/** A folder with what the letters of every language look like, as the packages of the languages have it. */
function lettersIn(folder: string): string {
  const require = createRequire(import.meta.url);
  for (const code of LANGUAGES) {
    const name = `${code}.traineddata.gz`;
    const kept = path.join(path.dirname(require.resolve(`@tesseract.js-data/${code}/package.json`)), '4.0.0_best_int', name);
    fs.symlinkSync(kept, path.join(folder, name));
  }
  return folder;
}

async function recogniser() {
  const { createWorker, OEM } = await import('tesseract.js');
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'millrace-letters-'));
  const worker = await createWorker([...LANGUAGES], OEM.LSTM_ONLY, {
    langPath: lettersIn(folder),
    cacheMethod: 'none',
    // What it cannot do is told by the promise.
    errorHandler: () => undefined,
  });
  return {
    /** `points`: how many a dot measures. */
    async recognise(
      picture: Buffer,
      points: number,
      page: number,
    ): Promise<{ readonly runs: readonly PrintedRun[]; readonly sure: number }> {
      const { data } = await worker.recognize(picture, {}, { blocks: true, text: false });
      const lines = (data.blocks ?? []).flatMap((block) => block.paragraphs.flatMap((paragraph) => paragraph.lines));
      const runs = lines.flatMap((line) =>
        line.words
          .filter((word) => word.confidence >= WORD_SURE)
          .map(({ text, bbox }) => ({
            text,
            page,
            x: bbox.x0 * points,
            // Every word of a line stands on the line's own foot: letters that hang below it are no lower line.
            y: line.bbox.y1 * points,
            width: (bbox.x1 - bbox.x0) * points,
            size: (line.bbox.y1 - line.bbox.y0) * points,
            bold: false,
          })),
      );
      return { runs, sure: data.confidence };
    },
    async end(): Promise<void> {
      await worker.terminate();
      fs.rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** The largest picture a page shows: a scan is one that fills it. */
async function largestPicture(page: ScanPage, operators: Readonly<Record<string, number>>): Promise<Picture | undefined> {
  const { fnArray, argsArray } = await page.getOperatorList();
  let largest: Picture | undefined;
  for (const [i, operator] of fnArray.entries()) {
    const first = (argsArray[i] as readonly unknown[] | null)?.[0];
    const found: unknown =
      operator === operators.paintImageXObject && typeof first === 'string'
        ? await new Promise((resolve) => {
            page.objs.get(first, resolve);
          })
        : operator === operators.paintInlineImageXObject
          ? first
          : undefined;
    if (isPicture(found) && found.width * found.height > (largest ? largest.width * largest.height : 0)) largest = found;
  }
  return largest;
}
const isPicture = (found: unknown): found is Picture =>
  typeof found === 'object' &&
  found !== null &&
  'data' in found &&
  'kind' in found &&
  'width' in found &&
  'height' in found &&
  typeof found.width === 'number' &&
  typeof found.height === 'number' &&
  Math.min(found.width, found.height) >= SIDE_MIN &&
  found.width * found.height <= DOTS_MAX &&
  ArrayBuffer.isView(found.data);

/** Luminance (ITU-R BT.601) of each dot. */
export function greyOf({ width, height, kind, data }: Picture): Grey {
  const dots = new Uint8Array(width * height);
  if (kind === 1) {
    const row = (width + 7) >> 3;
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) dots[y * width + x] = ((data[y * row + (x >> 3)] ?? 0) >> (7 - (x & 7))) & 1 ? 255 : 0;
    return { width, height, dots };
  }
  const step = kind === 2 ? 3 : 4;
  for (let i = 0, at = 0; i < dots.length; i++, at += step)
    dots[i] = Math.round(0.299 * (data[at] ?? 0) + 0.587 * (data[at + 1] ?? 0) + 0.114 * (data[at + 2] ?? 0));
  return { width, height, dots };
}

/** Turned as the page says it is to be shown: clockwise by quarters. */
export function upright(grey: Grey, degrees: number): Grey {
  const turns = (((degrees / 90) % 4) + 4) % 4;
  if (turns === 0) return grey;
  const { width, height, dots } = grey;
  const [wide, high] = turns === 2 ? [width, height] : [height, width];
  const out = new Uint8Array(dots.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [toX, toY] = turns === 1 ? [height - 1 - y, x] : turns === 2 ? [width - 1 - x, height - 1 - y] : [y, width - 1 - x];
      out[toY * wide + toX] = dots[y * width + x] ?? 0;
    }
  return { width: wide, height: high, dots: out };
}

/** A portable greymap (PGM, binary). */
export const portableGrey = ({ width, height, dots }: Grey): Buffer => Buffer.concat([Buffer.from(`P5\n${width} ${height}\n255\n`), dots]);
