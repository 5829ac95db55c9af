import { parseFlow, parseLines, printFlow, type FlowTree, type Line } from '../syntax';

/** Rebuilds every list of lines with `change`, inside out. */
function mapLists(lines: readonly Line[], change: (list: readonly Line[]) => readonly Line[]): readonly Line[] {
  return change(
    lines.map((line) =>
      line.step.verb === 'split'
        ? { ...line, step: { ...line.step, arms: line.step.arms.map((arm) => ({ ...arm, lines: mapLists(arm.lines, change) })) } }
        : line,
    ),
  );
}

const rebuilt = (text: string, change: (list: readonly Line[]) => readonly Line[]): string => {
  const { tree } = parseFlow(text);
  const next: FlowTree = { ...tree, lines: mapLists(tree.lines, change) };
  return printFlow(next, { marks: true });
};

/** Puts a typed line below the marked one, in the same arm; at the end when there is no such mark. All take and give text with marks. */
export function insertLineAfter(text: string, mark: string | undefined, typed: string): string {
  const made = parseLines(typed).tree.lines.map((line) => ({ ...line, mark: '' }));
  let placed = false;
  const out = rebuilt(text, (list) =>
    list.flatMap((line) => {
      if (line.mark !== mark) return [line];
      placed = true;
      return [line, ...made];
    }),
  );
  return placed ? clean(out) : clean(`${out.trimEnd()}\n${typed}\n`);
}

/** Replaces one line by typed text; a split keeps its arms, the line keeps its mark and its comments. */
export function replaceLine(text: string, mark: string, typed: string): string {
  const [made] = parseLines(typed).tree.lines;
  if (!made) return text;
  return clean(
    rebuilt(text, (list) => list.map((line) => (line.mark === mark ? { ...made, mark, off: line.off, comments: line.comments } : line))),
  );
}

export function removeLine(text: string, mark: string): string {
  return clean(rebuilt(text, (list) => list.filter((line) => line.mark !== mark)));
}

/** Moves a line one place up or down among its neighbours. At the end of its list it stays. */
export function moveLine(text: string, mark: string, by: -1 | 1): string {
  return clean(
    rebuilt(text, (list) => {
      const at = list.findIndex((line) => line.mark === mark);
      const to = at + by;
      if (at < 0 || to < 0 || to >= list.length) return list;
      const out = [...list];
      const [taken] = out.splice(at, 1);
      if (taken) out.splice(to, 0, taken);
      return out;
    }),
  );
}

export function switchLine(text: string, mark: string): string {
  return clean(rebuilt(text, (list) => list.map((line) => (line.mark === mark ? { ...line, off: !line.off } : line))));
}

/** Printed once more, so that new lines get their marks. */
function clean(text: string): string {
  return printFlow(parseFlow(text.replace(/ #(?=\n|$)/g, '')).tree, { marks: true });
}
