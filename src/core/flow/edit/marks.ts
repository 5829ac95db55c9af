import { numberedLines, parseFlow, printFlow, stepRows, type Arm, type Line } from '../syntax';

/** The words of a line, of a split with all that stands in its arms: two splits are told apart by nothing else. */
const words = (line: Line): string =>
  [
    ...stepRows(line.step),
    ...(line.step.verb === 'split'
      ? line.step.arms.flatMap((arm) => [`when ${conditionOf(arm) ?? ''}`, ...arm.lines.map(words), 'end'])
      : []),
  ].join('\n');
const conditionOf = (arm: Arm | undefined): string | undefined => arm?.when?.parsed.text.trim();

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
  const known = new Map([...old, ...fresh].map((line) => [line, words(line)]));
  pass((a, b) => known.get(a) === known.get(b));
  pass((a, b) => a.step.verb === b.step.verb);
  /** Arms keep their marks where their words are the same, else where their place is, so that a reworded condition keeps its history. */
  const armsOf = (line: Line): readonly Arm[] => {
    const was = old.find((entry) => entry.mark === given.get(line))?.step;
    if (line.step.verb !== 'split') return [];
    if (was?.verb !== 'split') return line.step.arms.map((arm) => ({ ...arm, mark: '' }));
    const { arms } = line.step;
    const left = new Set(was.arms);
    const kept = new Map<Arm, string>();
    const keep = (find: (arm: Arm, at: number) => Arm | undefined): void => {
      arms.forEach((arm, at) => {
        const found = kept.has(arm) ? undefined : find(arm, at);
        if (!found || !left.delete(found)) return;
        kept.set(arm, found.mark);
      });
    };
    keep((arm, at) => (conditionOf(was.arms[at]) === conditionOf(arm) ? was.arms[at] : undefined));
    keep((arm) => [...left].find((other) => conditionOf(other) === conditionOf(arm)));
    keep((_arm, at) => was.arms[at]);
    return arms.map((arm) => ({ ...arm, mark: kept.get(arm) ?? '' }));
  };
  const remark = (lines: readonly Line[]): readonly Line[] =>
    lines.map((line) => ({
      ...line,
      mark: given.get(line) ?? '',
      step:
        line.step.verb === 'split' ? { ...line.step, arms: armsOf(line).map((arm) => ({ ...arm, lines: remark(arm.lines) })) } : line.step,
    }));
  return marked(printFlow({ ...parsed, lines: remark(parsed.lines) }, { marks: true }));
}

/** Printed once more: what is new has no mark yet, and the reader gives it one that nothing else in the text has. */
export const marked = (text: string): string => printFlow(parseFlow(text).tree, { marks: true });
