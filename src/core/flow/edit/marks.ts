import { numberedLines, parseFlow, printFlow, stepRows, type Line } from '../syntax';

const shape = (line: Line): string => stepRows(line.step).join('\n');

/**
 * Gives the lines of `typed` (text without marks) the marks they had in `before`: first where the words are the same,
 * then, in order, where verb and neighbourhood are. New lines get new marks. Returns canonical text with marks.
 */
export function keepMarks(before: string, typed: string): string {
  const old = numberedLines(parseFlow(before).tree.lines).map((entry) => entry.line);
  const parsed = parseFlow(typed).tree;
  const fresh = numberedLines(parsed.lines).map((entry) => entry.line);
  const given = new Map<Line, string>();
  const free = new Set(old);
  const pass = (same: (a: Line, b: Line) => boolean): void => {
    let floor = 0;
    for (const line of fresh) {
      if (given.has(line)) {
        floor = Math.max(floor, old.findIndex((entry) => entry.mark === given.get(line)) + 1);
        continue;
      }
      const found =
        old.slice(floor).find((entry) => free.has(entry) && same(entry, line)) ?? old.find((entry) => free.has(entry) && same(entry, line));
      if (!found) continue;
      given.set(line, found.mark);
      free.delete(found);
    }
  };
  pass((a, b) => shape(a) === shape(b));
  pass((a, b) => a.step.verb === b.step.verb);
  const remark = (lines: readonly Line[]): readonly Line[] =>
    lines.map((line) => ({
      ...line,
      mark: given.get(line) ?? line.mark,
      step:
        line.step.verb === 'split'
          ? { ...line.step, arms: line.step.arms.map((arm) => ({ ...arm, lines: remark(arm.lines) })) }
          : line.step,
    }));
  return printFlow({ ...parsed, lines: remark(parsed.lines) }, { marks: true });
}
