/** Lists as spreadsheets (XLSX, ODS) and lists in a ZIP, as the text of a list: cut, matched and taken in like any other. */
import { stringify } from 'csv-stringify/sync';
import { unzipSync } from 'fflate';
import { readOds } from 'hucre/ods';
import { readXlsx } from 'hucre/xlsx';
import { archiveEntries, checkArchive } from './archive';

type Cell = string | number | boolean | Date | null;
interface Sheet {
  readonly name: string;
  readonly rows: readonly (readonly Cell[])[];
  readonly hidden?: boolean;
  readonly merges?: readonly { readonly startRow: number; readonly startCol: number; readonly endRow: number; readonly endCol: number }[];
}

export interface Unpacked {
  readonly bytes: Uint8Array;
  /** what a reader of the list should know */
  readonly says: readonly string[];
  /** names of the sheets, or of the lists in an archive, that could be read */
  readonly parts: readonly string[];
  /** the one that was */
  readonly part: string;
}

const LIST = /^[^/]{1,120}\.(?:csv|txt|tsv|vcf|xlsx|ods)$/i;
const isArchive = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 3 && bytes[3] === 4;

/**
 * The list inside a spreadsheet or an archive as text: the named part, else the first that has rows; undefined when the file is neither.
 * Throws with what is wrong, in words.
 */
export async function unpacked(bytes: Uint8Array, part?: string, depth = 0): Promise<Unpacked | undefined> {
  if (!isArchive(bytes)) return undefined;
  checkArchive(bytes);
  const names = archiveEntries(bytes).map((entry) => entry.name);
  if (names.includes('xl/workbook.xml')) return sheetText((await readXlsx(bytes)).sheets, part);
  if (names.includes('content.xml') && names.includes('mimetype')) return sheetText((await readOds(bytes)).sheets, part);
  const parts = names.filter((name) => LIST.test(name));
  const chosen = parts.find((name) => name === part) ?? parts[0];
  if (chosen === undefined || depth > 0)
    throw new Error('this archive holds no list: put a CSV, XLSX, ODS or VCF file into it, or bring that alone');
  const inner = unzipSync(bytes, { filter: ({ name }) => name === chosen })[chosen] ?? new Uint8Array();
  const deeper = await unpacked(inner, undefined, depth + 1);
  const says =
    deeper && deeper.parts.length > 1 ? [`of “${chosen}” the sheet “${deeper.part}” was read: bring it alone to choose another`] : [];
  return { bytes: deeper?.bytes ?? inner, says, parts, part: chosen };
}

/** A sheet as text, of those one sees that have rows in them: the one of that name, else the first. */
function sheetText(sheets: readonly Sheet[], part: string | undefined): Unpacked {
  const filled = sheets.filter(
    (sheet) => sheet.hidden !== true && sheet.rows.some((row) => row.some((cell) => cell !== null && cell !== '')),
  );
  const sheet = filled.find(({ name }) => name === part) ?? filled[0];
  if (!sheet) throw new Error('no sheet of this file has any rows');
  const rows = spread(sheet).map((row) => row.map(cellText));
  return { bytes: Buffer.from(stringify(rows)), says: [], parts: filled.map(({ name }) => name), part: sheet.name };
}

/** Cells put together downwards say the same of each of their rows. */
function spread({ rows, merges = [] }: Sheet): readonly (readonly Cell[])[] {
  const out = rows.map((row) => [...row]);
  for (const { startRow, startCol, endRow, endCol } of merges) {
    if (startCol !== endCol || endRow - startRow > 10_000) continue;
    const said = out[startRow]?.[startCol] ?? null;
    for (let row = startRow + 1; row <= endRow; row++) {
      const cells = out[row];
      if (cells) cells[startCol] = said;
    }
  }
  return out;
}

function cellText(cell: Cell): string {
  if (cell === null) return '';
  if (cell instanceof Date)
    return Number.isNaN(cell.getTime())
      ? ''
      : cell
          .toISOString()
          .replace(/T00:00:00\.000Z$/, '')
          .replace(/\.000Z$/, 'Z');
  if (typeof cell === 'boolean') return cell ? 'yes' : 'no';
  if (typeof cell === 'number') return Number.isInteger(cell) ? cell.toFixed(0) : String(Math.round(cell * 1e9) / 1e9);
  return cell.replace(/\r?\n/g, ' ').trim();
}
