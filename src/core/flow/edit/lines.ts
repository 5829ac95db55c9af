import { armsOf, numberedLines, parseFlow, parseLines, printFlow, type FlowTree, type Line } from '../syntax';
import { keepMarks, marked } from './marks';

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

/** Puts typed lines below the marked one, in the same arm; first in an arm where the mark is the arm's; at the end when there is no such mark. All take and give text with marks. */
export function insertLineAfter(text: string, mark: string | undefined, typed: string): string {
  const made = parseLines(typed).tree.lines.map((line) => ({ ...line, mark: '' }));
  let placed = false;
  const out = rebuilt(text, (list) =>
    list.flatMap((line) => {
      if (mark !== undefined && armsOf(line).some((arm) => arm.mark === mark)) {
        placed = true;
        return [withInArm(line, mark, (lines) => [...made, ...lines])];
      }
      if (line.mark !== mark) return [line];
      placed = true;
      return [line, ...made];
    }),
  );
  return placed ? marked(out) : marked(`${out.trimEnd()}\n${typed}\n`);
}

/** Replaces one line by typed text; a split keeps its arms, the line keeps its mark and its comments. */
export function replaceLine(text: string, mark: string, typed: string): string {
  const [made] = parseLines(typed).tree.lines;
  if (!made) return text;
  const instead = (line: Line): Line => ({ ...remade(line, made, typed), mark, off: line.off, comments: line.comments });
  return marked(rebuilt(text, (list) => list.map((line) => (line.mark === mark ? instead(line) : line))));
}

/** A split typed anew: without arms it keeps those it had; with arms their lines keep the marks they had. */
function remade(line: Line, made: Line, typed: string): Line {
  if (line.step.verb !== 'split' || made.step.verb !== 'split') return made;
  if (made.step.arms.length === 0) return line;
  const before = printFlow({ ...parseLines('').tree, lines: [line] }, { marks: true });
  return parseLines(keepMarks(before, typed)).tree.lines[0] ?? made;
}

export function removeLine(text: string, mark: string): string {
  return marked(rebuilt(text, (list) => list.filter((line) => line.mark !== mark)));
}

/** Moves a line one place up or down among its neighbours. At the end of its list it stays. */
export function moveLine(text: string, mark: string, by: -1 | 1): string {
  return marked(
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

/**
 * In: the line goes to the end of the last arm of the split right above it. Out: to the place below the split whose arm it
 * stands in. Where there is no such place the text stays as it is.
 */
export function indentLine(text: string, mark: string, by: 1 | -1): string {
  // Lists are rebuilt from the inside: a line that came out of an inner arm stays in the outer one.
  let moved = false;
  return marked(
    rebuilt(text, (list) => {
      if (moved) return list;
      if (by === 1) {
        const at = list.findIndex((line) => line.mark === mark);
        const [line, above] = [list[at], list[at - 1]];
        const arm = above?.step.verb === 'split' ? above.step.arms.at(-1) : undefined;
        if (!line || !above || !arm) return list;
        moved = true;
        return [...list.slice(0, at - 1), withInArm(above, arm.mark, (inside) => [...inside, line]), ...list.slice(at + 1)];
      }
      const at = list.findIndex((line) => armsOf(line).some((arm) => arm.lines.some((inner) => inner.mark === mark)));
      const split = list[at];
      const arm = split && armsOf(split).find((entry) => entry.lines.some((inner) => inner.mark === mark));
      const line = arm?.lines.find((inner) => inner.mark === mark);
      if (!split || !arm || !line) return list;
      moved = true;
      const without = withInArm(split, arm.mark, (inside) => inside.filter((inner) => inner.mark !== mark));
      return [...list.slice(0, at), without, line, ...list.slice(at + 1)];
    }),
  );
}

/** Puts a line below another one, or first in an arm; never into itself. */
export function placeLine(text: string, mark: string, place: { readonly below: string } | { readonly inArm: string }): string {
  const moved = numberedLines(parseFlow(text).tree.lines).find(({ line }) => line.mark === mark)?.line;
  if (!moved) return text;
  const inside = numberedLines([moved]).flatMap(({ line }) => [line.mark, ...armsOf(line).map((arm) => arm.mark)]);
  const target = 'below' in place ? place.below : place.inArm;
  if (inside.includes(target)) return text;
  let placed = false;
  const out = rebuilt(text, (list) =>
    list.flatMap((line) => {
      if (line.mark === mark) return [];
      if ('below' in place && line.mark === target) {
        placed = true;
        return [line, moved];
      }
      if ('inArm' in place && armsOf(line).some((arm) => arm.mark === target)) {
        placed = true;
        return [withInArm(line, target, (lines) => [moved, ...lines])];
      }
      return [line];
    }),
  );
  return placed ? marked(out) : text;
}

/** The line as flow text by itself, with its arms and without marks: to be put into this or another flow. */
export function lineText(text: string, mark: string): string {
  const found = numberedLines(parseFlow(text).tree.lines).find(({ line }) => line.mark === mark)?.line;
  return found ? printFlow({ name: undefined, about: undefined, uses: [], lines: [found], endComments: [] }) : '';
}

const withInArm = (line: Line, armMark: string, change: (lines: readonly Line[]) => readonly Line[]): Line =>
  line.step.verb === 'split'
    ? {
        ...line,
        step: { ...line.step, arms: line.step.arms.map((arm) => (arm.mark === armMark ? { ...arm, lines: change(arm.lines) } : arm)) },
      }
    : line;

export function switchLine(text: string, mark: string): string {
  return marked(rebuilt(text, (list) => list.map((line) => (line.mark === mark ? { ...line, off: !line.off } : line))));
}
