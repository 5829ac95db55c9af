import { z } from 'zod';
import { feel, twice } from '../meaning/way';
import { asName, deed, formula, plain, value } from '../parts/parts';
import { NAME, type Cursor } from '../tree/cursor';
import { asText, feelText, quote } from '../tree/notation';
import type { Expr, Named, Span, Word } from '../tree/tree';
import * as shapes from './shapes';
import { LETS_PASS, type VerbOf } from './verb';

/** One word a line may put on a text, with what it means. */
export interface SortLabel extends Span {
  readonly name: Word;
  readonly meaning: Named;
  readonly examples: readonly Named[];
}

export interface Sort {
  readonly verb: 'sort';
  readonly text: Expr;
  readonly labels: readonly SortLabel[];
  readonly as?: Word;
}
declare module '../tree/tree' {
  interface Steps {
    readonly sort: Sort;
  }
}

export const sort: VerbOf<Sort> = {
  verb: 'sort',
  help: 'Puts one of the labels on a text, by their meanings and examples.',
  begins: [['sort', 'sort ', 'a text by labels']],
  names: [],
  speaks: [/^sort/],
  phrases: [],
  samples: [
    'sort job_title as s%\n  head: "leads the others" like "head of works", "manager"\n  office: "works in the office" like "accountant"',
  ],

  read(row, clauses) {
    const text = row.wantFeel('the text to sort', [['as', NAME]]);
    const as = row.asName();
    const labels = clauses.map(readLabel).filter((label) => label !== undefined);
    return text && { verb: 'sort', text, labels, ...(as && { as }) };
  },
  print: ({ text, labels, as }) => [
    `sort ${feelText(text)}${asText(as)}`,
    ...labels.map(({ name, meaning, examples }) => {
      const like = examples.length > 0 ? ` like ${examples.map((example) => quote(example.text)).join(', ')}` : '';
      return `${name.text}: ${quote(meaning.text)}${like}`;
    }),
  ],
  check({ text, labels }, way, check, say, line) {
    feel(text, 'string', way, check, say);
    if (labels.length < 2)
      say(line.head, 'wrong place', 'name at least two labels below: price: "finds it too dear" like "over our budget"');
    twice(
      labels.map((label) => label.name),
      say,
    );
  },
  result: ({ as }) => ({ label: { type: 'string', label: as?.text ?? 'label' }, sure: { type: 'number' }, quote: { type: 'string' } }),
  say: ({ text, labels, as }, fields) => [
    deed('Sort'),
    formula(text, fields),
    plain('as'),
    value(labels.map((label) => label.name.text).join(', ')),
    ...asName(as),
  ],
  json: () =>
    z.strictObject({
      verb: z.literal('sort'),
      text: shapes.feel,
      labels: z.array(z.strictObject({ name: shapes.name, meaning: z.string(), examples: z.array(z.string()) })),
      as: shapes.as,
    }),
  compiles: ({ text }) => ({ own: text }),
  weighs: LETS_PASS,
  isMadeToBeUsed: true,
};

/** `price: "finds it too dear" like "over our budget", "too much for us"` */
function readLabel(row: Cursor): SortLabel | undefined {
  const name = row.wantPath('the label');
  if (!name || !row.want(':', 'price: "finds it too dear" like "over our budget"')) return undefined;
  const meaning = row.wantName('what the label means');
  const examples: Named[] = [];
  if (row.take('like'))
    do {
      const example = row.wantName('an example');
      if (example) examples.push(example);
    } while (row.take(','));
  row.end();
  return meaning && { from: name.from, to: examples.at(-1)?.to ?? meaning.to, name, meaning, examples };
}
