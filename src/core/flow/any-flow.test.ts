/** What holds for every flow, whatever its shape: printing, editing, checking, saying, completing, drawing, compiling. */
import fc from 'fast-check';
import { anyFlow } from '../../testing/any-flow';
import { DEMO_LIBRARY } from '../../testing/demo-library';
import { checkFlow } from './check';
import { completeAt, helpAt } from './complete';
import { drawFlow } from './diagram';
import {
  applyEdits,
  indentLine,
  insertLineAfter,
  keepMarks,
  lineText,
  mergeTexts,
  moveLine,
  placeLine,
  removeLine,
  replaceLine,
  switchLine,
} from './edit';
import { flowJson, flowJsonSchema } from './json';
import { compilePlan, END } from './plan';
import { partText, sayArm, sayLine } from './say';
import { numberedLines, parseFlow, parseLines, printFlow, stepRows, type Line } from './syntax';

const marked = anyFlow.map((text) => printFlow(parseFlow(text).tree, { marks: true }));
const lines = (text: string): readonly Line[] => numberedLines(parseFlow(text).tree.lines).map((entry) => entry.line);
const marks = (text: string): readonly string[] => lines(text).map((line) => line.mark);
/** Marks of lines and of arms. */
const everyMark = (text: string): readonly string[] =>
  lines(text).flatMap((line) => [line.mark, ...(line.step.verb === 'split' ? line.step.arms.map((arm) => arm.mark) : [])]);
/** A line by itself, without what stands in its arms. */
const words = (line: Line): string => `${line.mark} ${String(line.off)} ${line.comments.join('|')} ${stepRows(line.step).join('\n')}`;
const inside = (line: Line): readonly string[] =>
  line.step.verb === 'split' ? line.step.arms.flatMap((arm) => numberedLines(arm.lines).map((entry) => entry.line.mark)) : [];
/** Every line but these, each as it is, in any order. */
const others = (text: string, without: readonly string[]): readonly string[] =>
  lines(text)
    .filter((line) => !without.includes(line.mark))
    .map(words)
    .sort();
/** A flow and one of its lines. */
const withLine = marked.chain((text) => fc.record({ text: fc.constant(text), mark: fc.constantFrom(...marks(text)) }));
const holds = <T>(given: fc.Arbitrary<T>, test: (value: T) => void, numRuns = 80): void => {
  fc.assert(fc.property(given, test), { numRuns });
};

describe('text', () => {
  test('is printed as it was written, with and without marks', () => {
    holds(anyFlow, (text) => {
      expect(printFlow(parseFlow(text).tree)).toBe(text);
      const once = printFlow(parseFlow(text).tree, { marks: true });
      expect(printFlow(parseFlow(once).tree, { marks: true })).toBe(once);
      expect(printFlow(parseFlow(once).tree)).toBe(text);
    });
  });

  test('has no problem but the lines that are no lines', () => {
    holds(anyFlow, (text) => {
      const unknown = lines(text).filter((line) => line.step.verb === 'unknown').length;
      expect(parseFlow(text).problems).toHaveLength(unknown);
    });
  });

  test('is the same flow as JSON, which fits the published schema', () => {
    holds(anyFlow, (text) => {
      const json = flowJson(parseFlow(text).tree);
      expect(flowJsonSchema.parse(JSON.parse(JSON.stringify(json)))).toEqual(json);
    });
  });

  test('typed without marks keeps those of the lines it was', () => {
    holds(marked, (text) => {
      expect(keepMarks(text, printFlow(parseFlow(text).tree))).toBe(text);
    });
  });

  test('typed with more lines above gives no mark twice, and those that were there keep theirs', () => {
    holds(fc.tuple(marked, anyFlow), ([text, more]) => {
      const body = more.slice(more.indexOf('take in from hand\n') + 'take in from hand\n'.length);
      const typed = printFlow(parseFlow(text).tree).replace('take in from hand\n', `take in from hand\n${body}`);
      const all = everyMark(keepMarks(text, typed));
      expect(new Set(all).size).toBe(all.length);
      expect(all).toEqual(expect.arrayContaining([...everyMark(text)]));
      // Read as typed, half with marks and half without: the same holds.
      const mixed = everyMark(text.replace(/take in from hand #\w+\n/, (row) => row + body));
      expect(new Set(mixed).size).toBe(mixed.length);
      expect(mixed).toEqual(expect.arrayContaining([...everyMark(text)]));
    });
  });
});

describe('editing one line leaves the others as they are', () => {
  test('taken out, it is gone with what stands in its arms', () => {
    holds(withLine, ({ text, mark }) => {
      const gone = [
        mark,
        ...lines(text)
          .filter((line) => line.mark === mark)
          .flatMap(inside),
      ];
      const after = removeLine(text, mark);
      expect(others(after, [])).toEqual(others(text, gone));
      expect(marks(after)).toEqual(marks(text).filter((entry) => !gone.includes(entry)));
    });
  });

  test('switched off and on again, the text is what it was', () => {
    holds(withLine, ({ text, mark }) => {
      const off = switchLine(text, mark);
      expect(others(off, [mark])).toEqual(others(text, [mark]));
      expect(switchLine(off, mark)).toBe(text);
    });
  });

  test('replaced by its own words, the text is what it was', () => {
    holds(withLine, ({ text, mark }) => {
      const line = lines(text).find((entry) => entry.mark === mark);
      if (!line || line.step.verb === 'unknown') return;
      const own = stepRows(line.step)
        .map((row, i) => (i === 0 ? row : `  ${row}`))
        .join('\n');
      expect(replaceLine(text, mark, own)).toBe(text);
    });
  });

  test('a split typed as its word alone keeps its arms; typed whole, their marks too', () => {
    holds(withLine, ({ text, mark }) => {
      const line = lines(text).find((entry) => entry.mark === mark);
      if (line?.step.verb !== 'split') return;
      expect(replaceLine(text, mark, 'split')).toBe(text);
      expect(replaceLine(text, mark, lineText(text, mark))).toBe(text);
    });
  });

  test('put in, a line is the only one that is new', () => {
    holds(withLine, ({ text, mark }) => {
      const after = insertLineAfter(text, mark, 'note "put in"');
      const fresh = lines(after).filter((line) => !marks(text).includes(line.mark));
      expect(fresh.map((line) => stepRows(line.step))).toEqual([['note "put in"']]);
      expect(
        others(
          after,
          fresh.map((line) => line.mark),
        ),
      ).toEqual(others(text, []));
    });
  });

  test('moved up or down it is moved back by the other', () => {
    holds(withLine, ({ text, mark }) => {
      for (const by of [1, -1] as const) {
        const after = moveLine(text, mark, by);
        expect(others(after, [])).toEqual(others(text, []));
        if (after !== text) expect(moveLine(after, mark, by === 1 ? -1 : 1)).toBe(text);
      }
    });
  });

  test('moved into an arm and out again it stands where it stood', () => {
    holds(withLine, ({ text, mark }) => {
      const into = indentLine(text, mark, 1);
      expect(others(into, [])).toEqual(others(text, []));
      if (into !== text) expect(indentLine(into, mark, -1)).toBe(text);
    });
  });

  test('placed anywhere it is there once, and nothing else has changed', () => {
    holds(fc.tuple(withLine, fc.nat()), ([{ text, mark }, at]) => {
      const targets = marks(text);
      const below = targets[at % targets.length] ?? '';
      const after = placeLine(text, mark, { below });
      expect(others(after, [])).toEqual(others(text, []));
      const own = [
        mark,
        ...lines(text)
          .filter((line) => line.mark === mark)
          .flatMap(inside),
      ];
      if (!own.includes(below)) expect(marks(after).indexOf(mark)).toBeGreaterThan(marks(after).indexOf(below));
    });
  });

  test('copied, it says the same elsewhere', () => {
    holds(withLine, ({ text, mark }) => {
      const line = lines(text).find((entry) => entry.mark === mark);
      const [pasted] = parseLines(lineText(text, mark)).tree.lines;
      const bare = (of: Line | undefined): string =>
        of ? printFlow({ name: undefined, about: undefined, uses: [], lines: [of], endComments: [] }) : '';
      expect(bare(pasted)).toBe(bare(line));
    });
  });
});

describe('two people', () => {
  test('what one of them changed is taken whole when the other changed nothing', () => {
    holds(withLine, ({ text, mark }) => {
      const after = removeLine(text, mark);
      expect([mergeTexts(text, after, text), mergeTexts(text, text, after)]).toEqual([after, after]);
    });
  });

  test('a line put in and another switched are both there', () => {
    holds(fc.tuple(withLine, fc.nat()), ([{ text, mark }, at]) => {
      const target = marks(text)[at % marks(text).length] ?? '';
      if (target === mark) return;
      const mine = switchLine(text, mark);
      const theirs = insertLineAfter(text, target, 'note "theirs"');
      const both = mergeTexts(text, mine, theirs);
      // A conflict is settled by a person; a text that is given is right.
      if (both === undefined) return;
      expect(parseFlow(both).problems).toHaveLength(parseFlow(theirs).problems.length);
      expect(lines(both).find((line) => line.mark === mark)?.off).toBe(lines(mine).find((line) => line.mark === mark)?.off);
      expect(both).toContain('note "theirs"');
    });
  });
});

describe('a word too few or too many in one line', () => {
  const broken = fc.tuple(withLine, fc.nat(), fc.constantFrom('', 'nonsense', '"', '7', ')', '#')).map(([{ text, mark }, n, instead]) => {
    const line = lines(text).find((entry) => entry.mark === mark);
    if (!line || line.step.verb === 'split' || line.step.verb === 'unknown') return undefined;
    const own = text.slice(line.from, line.to);
    // Words of the line, but for its mark: that is the editor's.
    const words = [...own.matchAll(/"[^"]*"|[^\s"#]+/g)].filter((word) => own[(word.index ?? 0) - 1] !== '#');
    const word = words[n % words.length];
    if (!word) return undefined;
    const at = line.from + (word.index ?? 0);
    // A first word goes with the space behind it: a row that begins with one belongs to the line above.
    const cut = instead === '' && word.index === 0 ? word[0].length + 1 : word[0].length;
    return { text, mark, line, at, after: text.slice(0, at) + instead + text.slice(at + cut) };
  });

  test('is told inside that line, and the other lines are read as before', () => {
    holds(
      broken,
      (given) => {
        if (!given) return;
        const { text, mark, line, after } = given;
        const before = parseFlow(text).problems.length;
        const { problems } = parseFlow(after);
        const grown = after.length - text.length;
        const inside = problems.filter((problem) => problem.from >= line.from && problem.to <= line.to + grown + 1);
        expect(problems.length - inside.length).toBe(before);
        for (const problem of inside) expect(problem.message.length).toBeGreaterThan(10);
        // A stray quote may swallow the line's own mark: what is compared are the lines that were there besides it.
        const there = new Set(marks(text));
        const besides = (of: string): readonly string[] => others(of, [mark, ...marks(of).filter((entry) => !there.has(entry))]);
        expect(besides(after)).toEqual(besides(text));
      },
      100,
    );
  });

  test('keeps every other finding where it was', () => {
    holds(
      broken,
      (given) => {
        if (!given) return;
        const { text, line, after } = given;
        const outside = (of: string, shift: number): readonly string[] =>
          checkFlow(parseFlow(of), DEMO_LIBRARY)
            .filter((finding) => finding.code === 'syntax' && (finding.to <= line.from || finding.from >= line.to + shift))
            .map((finding) => finding.message)
            .sort();
        expect(outside(after, after.length - text.length)).toEqual(outside(text, 0));
      },
      80,
    );
  });
});

describe('checking', () => {
  test('every mend offered can be applied, breaks no line, and takes its finding away', () => {
    holds(
      anyFlow,
      (text) => {
        const problems = parseFlow(text).problems.length;
        for (const finding of checkFlow(parseFlow(text), DEMO_LIBRARY)) {
          if (!finding.mend) continue;
          const mended = applyEdits(text, finding.mend.edits);
          expect([finding.message, parseFlow(mended).problems.length <= problems]).toEqual([finding.message, true]);
          const same = (found: { readonly message: string }) => found.message === finding.message;
          const [before, after] = [text, mended].map((source) => checkFlow(parseFlow(source), DEMO_LIBRARY).filter(same).length) as [
            number,
            number,
          ];
          // A line that is taken out may leave another behind it with the same fault.
          expect([finding.message, mended, after < before || (after === before && mended.length < text.length)]).toEqual([
            finding.message,
            mended,
            true,
          ]);
        }
      },
      25,
    );
  });
});

describe('saying', () => {
  test('every part that can be changed stands where it says, and put back it changes nothing', () => {
    holds(anyFlow, (text) => {
      for (const line of lines(text)) {
        const parts = [...sayLine(line), ...(line.step.verb === 'split' ? line.step.arms.flatMap((arm) => sayArm(arm)) : [])];
        expect(parts.length).toBeGreaterThan(0);
        for (const { edit } of parts) {
          if (!edit) continue;
          const written = text.slice(edit.from, edit.to);
          expect(partText(edit, edit.source).trim()).toBe(written.trim());
        }
      }
    });
  });
});

describe('completing', () => {
  test('at any place of any text offers what can be put in there, or nothing', () => {
    holds(
      fc.tuple(anyFlow, fc.nat()),
      ([text, n]) => {
        const at = n % (text.length + 1);
        const found = completeAt(text, at, DEMO_LIBRARY);
        if (found) {
          expect(found.from).toBeLessThanOrEqual(at);
          expect(text.slice(found.from, at)).not.toContain('\n');
          expect(new Set(found.options.map((option) => option.label)).size).toBe(found.options.length);
        }
        const help = helpAt(text, at, DEMO_LIBRARY);
        if (help) expect(help.from <= at && at <= help.to).toBe(true);
      },
      600,
    );
  });
});

describe('drawing and compiling', () => {
  test('a picture has a row for every line', () => {
    holds(anyFlow, (text) => {
      expect(drawFlow(parseFlow(text).tree).match(/text-anchor="end"/g)).toHaveLength(lines(text).length);
    });
  });

  test('a plan only ever goes forward, and every line leads on or to the end', () => {
    holds(anyFlow, (text) => {
      const { instructions } = compilePlan(parseFlow(text).tree, DEMO_LIBRARY);
      for (const line of instructions) {
        for (const next of [line.next, ...line.arms.map((arm) => arm.target)])
          expect(next === END || (next > line.at && next < instructions.length)).toBe(true);
      }
      expect(new Set(instructions.map((line) => line.mark)).size).toBe(instructions.length);
    });
  });
});
