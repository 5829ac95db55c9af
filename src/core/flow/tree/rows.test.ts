import { parseFlow } from '../syntax';
import fc from 'fast-check';
import { DEMO_FLOW } from '../../../testing/demo-library';
import { flowParser } from '../syntax';
import { readRows, type Row } from './rows';

const TOKENS: ReadonlySet<string> = new Set(['Word', 'String', 'Number', 'Op', 'Punct', 'Other']);

/** Tokens as the grammar that drives the editor cuts them. */
function byGrammar(text: string): string[] {
  const out: string[] = [];
  const cursor = flowParser.parse(text).cursor();
  do if (TOKENS.has(cursor.name)) out.push(`${cursor.name} ${cursor.from}-${cursor.to}`);
  while (cursor.next());
  return out;
}
function byRows(text: string): string[] {
  const out: string[] = [];
  const visit = (rows: readonly Row[]): void => {
    for (const row of rows) {
      out.push(...row.tokens.map((token) => `${token.kind} ${token.from}-${token.to}`));
      visit(row.children);
    }
  };
  visit(readRows(text));
  return out;
}

const piece = fc.constantFrom(
  'keep when ',
  '"a \\" b',
  '"',
  '\\',
  '//',
  '#k1',
  '# ',
  '..',
  '1.5',
  '1..2',
  '-',
  '**',
  '!=',
  '!',
  'ü',
  '’',
  '\u00a0',
  '\t',
  '\n',
  '\r\n',
  '🌱',
  'a.b',
  '\u2028',
  '§',
  '@',
  '€',
  ' ',
);

test('rows are cut as the editor’s grammar cuts them', () => {
  expect(byRows(DEMO_FLOW)).toEqual(byGrammar(DEMO_FLOW));
  fc.assert(
    fc.property(
      fc.oneof(
        fc.array(piece, { maxLength: 25 }).map((parts) => parts.join('')),
        fc.string({ maxLength: 80 }),
      ),
      (text) => {
        expect({ text, cut: byRows(text) }).toEqual({ text, cut: byGrammar(text) });
      },
    ),
    { numRuns: 2000, seed: 20261125 },
  );
});

test('marks have room: more lines of the same words than four digits can tell apart', () => {
  const { tree } = parseFlow(`flow "Long"\nabout person\n\ntake in from hand\n${'note "a"\n'.repeat(70_000)}`);
  expect(new Set(tree.lines.map((line) => line.mark)).size).toBe(70_001);
  // The first of them have the short marks they always had.
  expect(tree.lines.slice(0, 20).every((line) => /^k[0-9a-f]{4}$/.test(line.mark))).toBe(true);
});
