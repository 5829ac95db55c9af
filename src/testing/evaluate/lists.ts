/** Lists as people send them, against a key: `npm run evaluate -- lists FOLDER KEY [--answers FILE]`. */
import fs from 'node:fs';
import path from 'node:path';
import { z } from 'zod';
import { fold } from '../../core/base';
import type { Catalogue } from '../../core/fields';
import { guessColumns, headingUnit, readRow, readTable, type RowReading } from '../../core/intake';
import { unitOf } from '../../core/units';
import { DEMO_FIELDS } from '../fields';

const fileSchema = z.looseObject({
  file: z.string(),
  default_country: z.string().nullable().default(null),
  header_row: z.number().nullable(),
  columns: z.array(z.looseObject({ index: z.number().optional(), field: z.string(), why: z.string().optional() })),
  rows_unusable: z.array(z.looseObject({ row: z.number() })),
  sample: z.array(z.looseObject({ row: z.number(), values: z.record(z.string(), z.unknown()) })).default([]),
});
type KeyFile = z.output<typeof fileSchema>;

/** What the key's fields may be taken as here; those that are missing have no field of their own: leaving them open is right. */
const TARGETS: Readonly<Record<string, readonly string[]>> = {
  given_name: ['person.first_name'],
  family_name: ['person.last_name'],
  full_name: ['person.name'],
  company: ['company.name'],
  email: ['person.email'],
  other_email: ['person.other_email'],
  phone: ['person.phone', 'company.phone'],
  mobile: ['person.mobile'],
  street: ['company.street'],
  postcode: ['company.postcode'],
  vat_number: ['company.vat_number'],
  title: ['person.job_title'],
  city: ['company.city', 'person.place'],
  country: ['company.country'],
  language: ['person.language'],
  site: ['company.website'],
  notes: ['note'],
};
/** Fields that a list brings and that are asked for when they are left open. */
const WANTED = new Set([
  'given_name',
  'family_name',
  'full_name',
  'company',
  'email',
  'phone',
  'mobile',
  'title',
  'street',
  'postcode',
  'city',
  'country',
  'language',
  'site',
  'notes',
]);

/** A field of the workspace's own that measures areas stands for the key's areas. */
const areaTargets = (fields: Catalogue): readonly string[] =>
  fields
    .all('company')
    .filter((field) => field.type === 'number' && unitOf(field.unit ?? '')?.kind === unitOf('ha')?.kind)
    .map((field) => `company.${field.key}`);
const isArea = (field: string): boolean => field === 'area_ha' || field === 'area_m2';

interface Given {
  readonly file: string;
  readonly header_row: number | null;
  readonly columns: readonly { readonly index: number; readonly target: string }[];
  readonly refused: readonly { readonly row: number; readonly why: string }[];
  readonly rows: readonly { readonly row: number; readonly person: object; readonly company: object; readonly note: string | null }[];
}

function given(folder: string, key: KeyFile): Given | undefined {
  const { table } = readTable(fs.readFileSync(path.join(folder, key.file)));
  if (!table) return undefined;
  const guesses = guessColumns(table.headings, table.rows, DEMO_FIELDS);
  const columns = guesses.map((guess, i) => ({
    target: guess.target,
    unit: areaTargets(DEMO_FIELDS).includes(guess.target) ? headingUnit(table.headings[i] ?? '') : undefined,
  }));
  const readings = table.rows.map((row): RowReading => readRow(row, columns, key.default_country ?? 'GB', DEMO_FIELDS));
  return {
    file: key.file,
    header_row: table.headingRow === 0 ? null : table.headingRow - 1,
    columns: guesses.map((guess, index) => ({ index, target: guess.target })),
    refused: readings.flatMap((reading, i) => (reading.refused === null ? [] : [{ row: i + 1, why: reading.refused }])),
    rows: readings.map(({ record: { person, company, note } }, i) => ({ row: i + 1, person, company, note })),
  };
}

const valueOf = (row: Given['rows'][number] | undefined, field: string): unknown => {
  const values: Readonly<Record<string, unknown>> = {
    ...Object.fromEntries(Object.entries(row?.person ?? {}).map(([name, value]) => [`person.${name}`, value])),
    ...Object.fromEntries(Object.entries(row?.company ?? {}).map(([name, value]) => [`company.${name}`, value])),
    note: row?.note,
  };
  const targets = isArea(field) ? areaTargets(DEMO_FIELDS) : (TARGETS[field] ?? []);
  const value = targets.map((target) => values[target]).find((each) => each !== undefined && each !== null) ?? null;
  return field === 'area_m2' && typeof value === 'number' ? value * 10_000 : value;
};
function same(field: string, expected: unknown, is: unknown): boolean {
  if (expected === null || expected === undefined) return is === null;
  if (isArea(field)) return typeof is === 'number' && Math.abs(is - Number(expected)) <= Number(expected) * 0.0005 + 0.0001;
  const plain = (value: unknown): string =>
    fold(String(value))
      .replace(/^https?:\/\/|^www\.|\/$/g, '')
      .replace(/\s+/g, ' ')
      .trim();
  return plain(expected) === plain(is);
}

/** Prints what is right, asked and wrong, and names each fault. */
export function evaluateLists(folder: string, keyFile: string, answersFile: string | undefined): readonly string[] {
  const keys = z.object({ files: z.array(fileSchema) }).parse(JSON.parse(fs.readFileSync(keyFile, 'utf8'))).files;
  const say: string[] = [];
  const sum = { columns: 0, right: 0, asked: 0, wrong: 0, rows: 0, lost: 0, let: 0, values: 0, valuesRight: 0, headings: 0 };
  const all: Given[] = [];
  for (const key of keys) {
    const is = given(folder, key);
    if (!is) {
      say.push(`${key.file}: cannot be read`);
      continue;
    }
    all.push(is);
    if (is.header_row === key.header_row || key.columns.every((column) => column.index === undefined)) sum.headings += 1;
    else say.push(`headings ${key.file}: ${String(key.header_row)} expected, ${String(is.header_row)} given`);
    for (const column of key.columns) {
      if (column.index === undefined) continue;
      const target = is.columns[column.index]?.target ?? 'leave out';
      const accept = isArea(column.field) ? areaTargets(DEMO_FIELDS) : (TARGETS[column.field] ?? []);
      const isEmpty = /empty/.test(column.why ?? '');
      sum.columns += 1;
      if (accept.includes(target) || isEmpty || (target === 'leave out' && !WANTED.has(column.field) && !isArea(column.field)))
        sum.right += 1;
      else if (target === 'leave out') {
        sum.asked += 1;
        say.push(`asked    ${key.file}: column ${column.index} (${column.field})`);
      } else {
        sum.wrong += 1;
        say.push(`wrong    ${key.file}: column ${column.index} is ${column.field}, taken as ${target}`);
      }
    }
    const unusable = new Set(key.rows_unusable.map((entry) => entry.row));
    const refused = new Map(is.refused.map((entry) => [entry.row, entry.why]));
    sum.rows += is.rows.length;
    for (const [row, why] of refused)
      if (!unusable.has(row)) {
        sum.lost += 1;
        say.push(`lost     ${key.file}: row ${row} (${why})`);
      }
    for (const row of unusable)
      if (!refused.has(row)) {
        sum.let += 1;
        say.push(`let in   ${key.file}: row ${row}`);
      }
    for (const { row, values } of key.sample)
      for (const [field, expected] of Object.entries(values)) {
        if (!(field in TARGETS) && !isArea(field)) continue;
        const got = valueOf(is.rows[row - 1], field);
        sum.values += 1;
        if (same(field, expected, got)) sum.valuesRight += 1;
        else say.push(`value    ${key.file}: row ${row} ${field}: ${JSON.stringify(expected)} expected, ${JSON.stringify(got)} given`);
      }
  }
  const share = (part: number, of: number): string => `${part} of ${of}  ${((part / Math.max(1, of)) * 100).toFixed(1)} %`;
  say.push(
    `lists whose headings are right    ${share(sum.headings, keys.length)}`,
    `columns right                     ${share(sum.right, sum.columns)}`,
    `columns asked                     ${share(sum.asked, sum.columns)}`,
    `columns wrong                     ${share(sum.wrong, sum.columns)}`,
    `good rows lost                    ${sum.lost} of ${sum.rows} rows`,
    `unusable rows let in              ${sum.let}`,
    `values of the samples right       ${share(sum.valuesRight, sum.values)}`,
  );
  if (answersFile !== undefined) fs.writeFileSync(answersFile, `${JSON.stringify(all, null, 2)}\n`);
  return say;
}
