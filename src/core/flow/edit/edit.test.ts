import fs from 'node:fs';
import fc from 'fast-check';
import { numberedLines, parseFlow, printFlow } from '../syntax';
import {
  applyEdits,
  indentLine,
  insertLineAfter,
  lineText,
  placeLine,
  keepMarks,
  moveLine,
  removeLine,
  replaceLine,
  reverseEdits,
  switchLine,
} from './index';

const marked = printFlow(parseFlow(fs.readFileSync('demo/flows/trade-fair-visitors.race', 'utf8')).tree, { marks: true });
const lines = (text: string) => numberedLines(parseFlow(text).tree.lines).map((entry) => entry.line);
const markOf = (text: string, verb: string): string => lines(text).find((line) => line.step.verb === verb)?.mark ?? '';
const verbs = (text: string): string[] => lines(text).map((line) => line.step.verb);

describe('text edits', () => {
  test('reversed, they give the text back', () => {
    const edits = fc.array(fc.record({ at: fc.nat(), cut: fc.nat({ max: 5 }), insert: fc.string({ maxLength: 6 }) }), { maxLength: 5 });
    fc.assert(
      fc.property(fc.string({ minLength: 1, maxLength: 80 }), edits, (text, wanted) => {
        const apart = wanted
          .map((edit) => ({
            from: edit.at % (text.length + 1),
            to: Math.min(text.length, (edit.at % (text.length + 1)) + edit.cut),
            insert: edit.insert,
          }))
          .sort((a, b) => a.from - b.from)
          .filter((edit, i, all) => i === 0 || edit.from > (all[i - 1]?.to ?? 0));
        // An edit dropped for overlapping one that was itself dropped is no loss for the property.
        const clean = apart.filter((edit, i) => apart.slice(0, i).every((other) => other.to < edit.from));
        const after = applyEdits(text, clean);
        expect(applyEdits(after, reverseEdits(text, clean))).toBe(text);
      }),
    );
  });

  test('that overlap are a bug', () => {
    expect(() =>
      applyEdits('abcdef', [
        { from: 0, to: 3, insert: '' },
        { from: 2, to: 4, insert: '' },
      ]),
    ).toThrow('broken invariant');
  });
});

describe('lines', () => {
  test('a typed line stands below the marked one, in the same arm, with a mark of its own', () => {
    const text = insertLineAfter(marked, markOf(marked, 'open'), 'set status = "deal open"');
    const at = verbs(text).indexOf('open');
    expect(verbs(text)[at + 1]).toBe('set');
    expect(lines(text).map((line) => line.mark)).toEqual(expect.arrayContaining(lines(marked).map((line) => line.mark)));
  });

  test('below an arm’s own row it stands first in the arm', () => {
    const split = lines(marked).find((line) => line.step.verb === 'split');
    const arm = split?.step.verb === 'split' ? split.step.arms[1] : undefined;
    const text = insertLineAfter(marked, arm?.mark, 'note "first"');
    const at = lines(text).findIndex((line) => line.mark === arm?.lines[0]?.mark);
    expect(verbs(text)[at - 1]).toBe('note');
  });

  test('without a mark it stands at the end', () => {
    expect(verbs(insertLineAfter(marked, undefined, 'note "done"')).at(-1)).toBe('note');
  });

  test('a replaced line keeps its mark', () => {
    const mark = markOf(marked, 'score');
    const text = replaceLine(marked, mark, 'score company with "Other card" as fit');
    expect(markOf(text, 'score')).toBe(mark);
    expect(text).toContain('score company with "Other card" as fit');
  });

  test('moved down and up again, the text is what it was', () => {
    for (const { mark } of lines(marked)) {
      const down = moveLine(marked, mark, 1);
      if (down !== marked) expect(moveLine(down, mark, -1)).toBe(marked);
    }
  });

  test('the first line cannot move up, the last of its arm not down', () => {
    expect(moveLine(marked, lines(marked)[0]?.mark ?? '', -1)).toBe(marked);
    expect(moveLine(marked, markOf(marked, 'follow up'), 1)).toBe(marked);
  });

  test('switched off and on again, the text is what it was; removed, one line is gone', () => {
    const mark = markOf(marked, 'note');
    const off = switchLine(marked, mark);
    expect(off).toContain('off: note');
    expect(switchLine(off, mark)).toBe(marked);
    expect(verbs(removeLine(marked, mark))).toHaveLength(verbs(marked).length - 1);
  });
});

describe('lines that go in and out of arms', () => {
  const depthOf = (text: string, mark: string): number | undefined =>
    numberedLines(parseFlow(text).tree.lines).find(({ line }) => line.mark === mark)?.depth;
  const marksOf = (text: string): string[] =>
    lines(text)
      .map((line) => line.mark)
      .sort();

  test('in: to the end of the last arm above; out again: the text is what it was', () => {
    const below = insertLineAfter(marked, markOf(marked, 'split'), 'note "all"');
    const mark = lines(below).at(-1)?.mark ?? '';
    expect(depthOf(below, mark)).toBe(0);
    const inside = indentLine(below, mark, 1);
    expect(depthOf(inside, mark)).toBe(1);
    expect(lines(inside).at(-1)?.mark).toBe(mark);
    expect(indentLine(inside, mark, -1)).toBe(below);
  });

  test('a line of an inner arm comes out one arm at a time', () => {
    const nested = printFlow(
      parseFlow(
        'flow "N"\nabout person\n\ntake in from hand\nsplit\n  when email != null\n    split\n      when phone != null\n        note "x"\n',
      ).tree,
      { marks: true },
    );
    const mark = markOf(nested, 'note');
    const once = indentLine(nested, mark, -1);
    expect([depthOf(nested, mark), depthOf(once, mark), depthOf(indentLine(once, mark, -1), mark)]).toEqual([2, 1, 0]);
  });

  test('where there is no arm to go into or out of, nothing changes', () => {
    expect(indentLine(marked, markOf(marked, 'score'), 1)).toBe(marked);
    expect(indentLine(marked, markOf(marked, 'score'), -1)).toBe(marked);
    expect(indentLine(marked, 'nobody', 1)).toBe(marked);
  });

  test('a line goes to any place but into itself, and no line is lost or doubled', () => {
    const all = lines(marked);
    const arms = all.flatMap((line) => (line.step.verb === 'split' ? line.step.arms.map((arm) => arm.mark) : []));
    for (const { mark } of all) {
      for (const { mark: below } of all) expect(marksOf(placeLine(marked, mark, { below }))).toEqual(marksOf(marked));
      for (const inArm of arms) expect(marksOf(placeLine(marked, mark, { inArm }))).toEqual(marksOf(marked));
    }
    const split = markOf(marked, 'split');
    expect(placeLine(marked, split, { inArm: arms[0] ?? '' })).toBe(marked);
    expect(depthOf(placeLine(marked, markOf(marked, 'score'), { inArm: arms[1] ?? '' }), markOf(marked, 'score'))).toBe(1);
  });

  test('a line by itself is flow text that can be put elsewhere, arms and all', () => {
    const alone = lineText(marked, markOf(marked, 'split'));
    expect(alone).toMatch(/^split\n {2}when /);
    expect(alone).not.toContain('#');
    const elsewhere = insertLineAfter('flow "B"\nabout person\n\ntake in from hand #k1\n', 'k1', alone);
    expect(verbs(elsewhere)).toEqual(['take in', ...verbs(marked).slice(verbs(marked).indexOf('split'))]);
    expect(lineText(marked, 'nobody')).toBe('');
  });
});

describe('marks of a text typed without them', () => {
  const bare = printFlow(parseFlow(marked).tree);

  test('come back when nothing was changed', () => {
    expect(keepMarks(marked, bare)).toBe(marked);
  });

  test('stay with a line that is reworded, and with one that moved', () => {
    const before = new Map(lines(marked).map((line) => [line.mark, line.step.verb]));
    const reworded = keepMarks(marked, bare.replace('>= 75', '>= 80').replace('"Grower fit"', '"Other card"'));
    expect(lines(reworded).map((line) => line.mark)).toEqual([...before.keys()]);
    const moved = keepMarks(marked, printFlow(parseFlow(moveLine(marked, markOf(marked, 'assign'), 1)).tree));
    expect(markOf(moved, 'assign')).toBe(markOf(marked, 'assign'));
  });

  test('stay with an arm whose condition is reworded', () => {
    const armMarks = (text: string): string[] =>
      lines(text).flatMap((line) => (line.step.verb === 'split' ? line.step.arms.map((arm) => arm.mark) : []));
    expect(armMarks(keepMarks(marked, bare.replace('>= 75', '>= 80')))).toEqual(armMarks(marked));
  });

  test('are new for new lines only', () => {
    const old = new Set(lines(marked).map((line) => line.mark));
    const added = keepMarks(marked, bare.replace('score company', 'wait 1 day\nscore company'));
    expect(
      lines(added)
        .filter((line) => !old.has(line.mark))
        .map((line) => line.step.verb),
    ).toEqual(['wait']);
  });
});
