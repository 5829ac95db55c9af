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
  const given = new Map<Line, Line>();
  const places = new Map(old.map((line, i) => [line, i]));
  const free = new Set(old);
  const pass = (key: (line: Line) => string): void => {
    const queues = new Map<string, Queue>();
    old.forEach((line, i) => {
      if (!free.has(line)) return;
      const queue = queues.get(key(line));
      if (queue) queue.places.push(i);
      else queues.set(key(line), { places: [i], first: 0, next: 0 });
    });
    let floor = 0;
    for (const line of fresh) {
      const has = given.get(line);
      if (has) {
        floor = Math.max(floor, (places.get(has) ?? 0) + 1);
        continue;
      }
      const at = nextPlace(queues.get(key(line)), floor, (place) => free.has(old[place] ?? line));
      const found = at === undefined ? undefined : old[at];
      if (!found) continue;
      given.set(line, found);
      free.delete(found);
    }
  };
  const known = new Map([...old, ...fresh].map((line) => [line, words(line)]));
  pass((line) => known.get(line) ?? '');
  pass((line) => line.step.verb);
  const remark = (lines: readonly Line[]): readonly Line[] =>
    lines.map((line) => ({
      ...line,
      mark: given.get(line)?.mark ?? '',
      step:
        line.step.verb === 'split'
          ? { ...line.step, arms: armsOf(line, given.get(line)).map((arm) => ({ ...arm, lines: remark(arm.lines) })) }
          : line.step,
    }));
  return marked(printFlow({ ...parsed, lines: remark(parsed.lines) }, { marks: true }));
}

/** Arms keep their marks where their words are the same, else where their place is, so that a reworded condition keeps its history. */
function armsOf(line: Line, before: Line | undefined): readonly Arm[] {
  const was = before?.step;
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
  const byCondition = new Map<string | undefined, Arm[]>();
  for (const other of [...left].reverse()) byCondition.set(conditionOf(other), [...(byCondition.get(conditionOf(other)) ?? []), other]);
  keep((arm) => byCondition.get(conditionOf(arm))?.pop());
  keep((_arm, at) => was.arms[at]);
  return arms.map((arm) => ({ ...arm, mark: kept.get(arm) ?? '' }));
}

/** Places of lines that say the same, in order: the first that may be free, and the first behind the floor. */
interface Queue {
  readonly places: number[];
  first: number;
  next: number;
}

/** The first free place behind the floor, else the first free one at all. The floor only rises, so each place is passed twice at most. */
function nextPlace(queue: Queue | undefined, floor: number, isFree: (place: number) => boolean): number | undefined {
  if (!queue) return undefined;
  const { places } = queue;
  const at = (i: number): number => places[i] ?? 0;
  while (queue.next < places.length && (at(queue.next) < floor || !isFree(at(queue.next)))) queue.next += 1;
  if (queue.next < places.length) return at(queue.next);
  while (queue.first < places.length && !isFree(at(queue.first))) queue.first += 1;
  return places[queue.first];
}

/** Printed once more: what is new has no mark yet, and the reader gives it one that nothing else in the text has. */
export const marked = (text: string): string => printFlow(parseFlow(text).tree, { marks: true });
