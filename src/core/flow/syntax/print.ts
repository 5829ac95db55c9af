import { feelText, quote } from '../tree/notation';
import { armsOf, type FlowTree, type Line, type Step } from '../tree/tree';
import { verbOf } from '../verbs';

export interface PrintOptions {
  /** write the stable mark at the end of every line, as files that leave the house do */
  readonly marks: boolean;
}

/** The canonical text of a tree: parsing it gives the same tree, printing that gives the same text. */
export function printFlow(tree: FlowTree, options: PrintOptions = { marks: false }): string {
  const out: string[] = [];
  if (tree.name) out.push(`flow ${quote(tree.name.text)}`);
  if (tree.about) out.push(`about ${tree.about.text}`);
  for (const use of tree.uses) out.push(`uses ${use.what.text} ${use.name.text} = ${quote(use.value.text)}`);
  if (out.length > 0 && tree.lines.length > 0) out.push('');
  printLines(tree.lines, 0, options, out);
  for (const comment of tree.endComments) out.push(`// ${comment}`.trimEnd());
  return out.length === 0 ? '' : `${out.join('\n')}\n`;
}

function printLines(lines: readonly Line[], depth: number, options: PrintOptions, out: string[]): void {
  const pad = '  '.repeat(depth);
  const end = (mark: string): string => (options.marks && mark !== '' ? ` #${mark}` : '');
  for (const line of lines) {
    for (const comment of line.comments) out.push(`${pad}// ${comment}`.trimEnd());
    const [first = '', ...clauses] = stepRows(line.step);
    out.push(`${pad}${line.off && line.step.verb !== 'unknown' ? 'off: ' : ''}${first}${end(line.mark)}`);
    for (const clause of clauses) out.push(`${pad}${line.step.verb === 'unknown' ? '' : '  '}${clause}`);
    for (const arm of armsOf(line)) {
      for (const comment of arm.comments) out.push(`${pad}  // ${comment}`.trimEnd());
      out.push(`${pad}  ${arm.when ? `when ${feelText(arm.when)}` : 'else'}${end(arm.mark)}`);
      printLines(arm.lines, depth + 2, options, out);
    }
  }
}

/** The rows of one step: its line, then its clauses without indentation. */
export const stepRows = (step: Step): readonly string[] => verbOf(step).print(step);
