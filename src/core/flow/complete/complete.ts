import { catalogueOf, type Field } from '../../fields';
import { FUNCTIONS } from '../../feel';
import type { Library } from '../meaning/library';
import { ENTRY } from '../meaning/scope';
import type { NamesAfter } from '../verbs/verb';
import { entryOf, resultOf, verbs } from '../verbs';
import { numberedLines, parseFlow } from '../syntax';

export interface CompletionOption {
  readonly label: string;
  /** replaces the text from `Completion.from` to the caret */
  readonly insert: string;
  /** one word or a sample value beside it */
  readonly detail: string;
}

export interface Completion {
  readonly from: number;
  readonly options: readonly CompletionOption[];
}

/** Which names fit after the words before an open quote; the first pattern that fits decides. */
const USES: NamesAfter = [/\buses connection \w+ = $/, (library) => library.connections, 'connection'];
const names = (): readonly NamesAfter[] => [...verbs().flatMap((verb) => verb.names), USES];

/** No more can be looked over. */
const MOST = 40;

/** Options at an offset of the text, at most forty, or undefined when nothing certain can be offered. */
export function completeAt(text: string, at: number, library: Library): Completion | undefined {
  const rowStart = text.lastIndexOf('\n', at - 1) + 1;
  const row = text.slice(rowStart, at).replace(/^\s*(?:off:\s*)?/, '');
  const quoteAt = openQuote(row);
  const found =
    quoteAt >= 0 ? inQuotes(row, quoteAt, at, library) : (atStart(row, at) ?? inExpression(library, text.slice(0, rowStart), row, at));
  return found && found.options.length > 0 ? { from: found.from, options: found.options.slice(0, MOST) } : undefined;
}

/** Where the quote that is still open begins, or -1. */
function openQuote(row: string): number {
  let open = -1;
  for (let i = 0; i < row.length; i++) if (row[i] === '"' && row[i - 1] !== '\\') open = open < 0 ? i : -1;
  return open;
}

function inQuotes(row: string, quoteAt: number, at: number, library: Library): Completion | undefined {
  const before = row.slice(0, quoteAt);
  const typed = row.slice(quoteAt + 1).toLowerCase();
  const rule = names().find(([pattern]) => pattern.test(before));
  if (!rule) return undefined;
  const options = rule[1](library, before).filter((name) => name.toLowerCase().includes(typed));
  return { from: at - typed.length, options: options.map((name) => ({ label: name, insert: `${name}"`, detail: rule[2] })) };
}

function atStart(row: string, at: number): Completion | undefined {
  if (!/^[a-z ]*$/i.test(row)) return undefined;
  const typed = row.toLowerCase();
  const options = verbs()
    .flatMap((verb) => verb.begins)
    .filter(([label, insert]) => label.startsWith(typed) && insert !== row);
  return options.length === 0
    ? undefined
    : { from: at - row.length, options: options.map(([label, insert, detail]) => ({ label, insert, detail })) };
}

const option = (field: Field, name: string): CompletionOption => ({
  label: name,
  insert: name,
  detail: field.sample === '' ? field.label : `${field.label}, like ${field.sample}${field.unit ? ` ${field.unit}` : ''}`,
});

/** Parts of the results that the lines above have named. */
function resultsOf(above: string, library: Library): readonly CompletionOption[] {
  return numberedLines(parseFlow(above).tree.lines).flatMap(({ line }) => {
    const entry = entryOf(line.step, library);
    const result = entry ? { name: ENTRY, shape: entry } : resultOf(line.step, library);
    return Object.keys(result?.shape ?? {}).map((part) => {
      const name = `${result?.name ?? ''}.${part}`;
      return { label: name, insert: name, detail: `of ${line.step.verb} above` };
    });
  });
}

function inExpression(library: Library, above: string, row: string, at: number): Completion | undefined {
  if (!verbs().some((verb) => verb.speaks.some((pattern) => pattern.test(row)))) return undefined;
  const about = /^about (\w+)/m.exec(above)?.[1];
  const typed = /[a-z_][a-z0-9_.]{0,200}$/i.exec(row)?.[0] ?? '';
  const fields = catalogueOf(library.fields);
  const all: CompletionOption[] = [
    ...resultsOf(above, library),
    ...(about === 'deal'
      ? [
          ...fields.all('deal').map((field) => option(field, field.key)),
          ...fields.all('person').map((field) => option(field, `person.${field.key}`)),
        ]
      : fields.all('person').map((field) => option(field, field.key))),
    ...fields.all('company').map((field) => option(field, `company.${field.key}`)),
    ...Object.keys(FUNCTIONS).map((name) => ({ label: `${name}( )`, insert: `${name}(`, detail: 'function' })),
  ];
  return { from: at - typed.length, options: all.filter(({ label }) => label.startsWith(typed) && label !== typed) };
}
