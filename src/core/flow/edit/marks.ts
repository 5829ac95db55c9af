import { numberedLines, parseFlow, printFlow, stepRows, type Arm, type Line } from '../syntax';

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
  /** Arms keep their marks where their words are the same, else where their place is, so that a reworded condition keeps its history. */
  const armsOf = (line: Line): readonly Arm[] => {
    const was = old.find((entry) => entry.mark === given.get(line))?.step;
    if (line.step.verb !== 'split') return [];
    if (was?.verb !== 'split') return line.step.arms;
    const { arms } = line.step;
    const words = (arm: Arm | undefined): string | undefined => arm?.when?.parsed.text.trim();
    const same = arms.map((arm) => was.arms.find((other) => words(other) === words(arm)));
    return arms.map((arm, i) => {
      const there = was.arms[i];
      const mark = same[i]?.mark ?? (there && !same.includes(there) ? there.mark : undefined);
      return mark === undefined ? arm : { ...arm, mark };
    });
  };
  const remark = (lines: readonly Line[]): readonly Line[] =>
    lines.map((line) => ({
      ...line,
      mark: given.get(line) ?? line.mark,
      step:
        line.step.verb === 'split' ? { ...line.step, arms: armsOf(line).map((arm) => ({ ...arm, lines: remark(arm.lines) })) } : line.step,
    }));
  return printFlow({ ...parsed, lines: remark(parsed.lines) }, { marks: true });
}
