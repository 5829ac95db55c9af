import { stringify } from 'csv-stringify/sync';

/** In a CSV cell these characters would start a formula in a spreadsheet; an apostrophe keeps them text. */
const safeCell = (cell: string): string => (/^[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell);

/** Rows as CSV that a spreadsheet opens as text, the first row the headings. */
export const csvOf = (rows: readonly (readonly unknown[])[]): string =>
  stringify(
    rows.map((row) => row.map((cell) => safeCell(cellText(cell)))),
    { bom: true },
  );

function cellText(cell: unknown): string {
  if (cell === null || cell === undefined) return '';
  if (cell instanceof Date) return cell.toISOString();
  return typeof cell === 'string' ? cell : JSON.stringify(cell);
}
