import fc from 'fast-check';
import { applyEdits, placeLine, replaceLine } from '../../../core/flow/edit';
import { partText } from '../../../core/flow/say';
import { parseFlow, printFlow } from '../../../core/flow/syntax';
import { DEMO_FLOW, DEMO_LIBRARY } from '../../../testing/demo-library';
import { keepOpen, partNow, type OpenPart } from './meanwhile';
import { readScript, type ScriptRow } from './script';

const text = printFlow(parseFlow(DEMO_FLOW).tree, { marks: true });
const rowsOf = (flow: string): readonly ScriptRow[] => readScript(flow, DEMO_LIBRARY).rows;
const before = rowsOf(text);
const without = (...marks: readonly string[]): readonly ScriptRow[] => before.filter((row) => !marks.includes(row.mark));
const mark = (at: number): string => before[at]?.mark ?? 'none';

describe('an editor whose line somebody takes out', () => {
  test('stays as it is while its line is there', () => {
    const editing = { kind: 'line', mark: mark(3) } as const;
    expect(keepOpen(editing, before, without(mark(2)), 'typed')).toBe(editing);
    expect(keepOpen(null, before, without(mark(2)), '')).toBeNull();
    const last = { kind: 'below', mark: undefined } as const;
    expect(keepOpen(last, before, without(mark(2)), 'typed')).toBe(last);
  });

  test('goes on below the line above, with what was typed', () => {
    expect(keepOpen({ kind: 'line', mark: mark(3) }, before, without(mark(3)), 'keep when x')).toEqual({
      kind: 'below',
      mark: mark(2),
      typed: 'keep when x',
      gone: true,
    });
  });

  test('goes further up when the lines above are gone too, and to the end when none is left', () => {
    const editing = { kind: 'below', mark: mark(3) } as const;
    expect(keepOpen(editing, before, without(mark(3), mark(2)), 't')).toMatchObject({ mark: mark(1) });
    expect(keepOpen(editing, before, [], 't')).toEqual({ kind: 'below', mark: undefined, typed: 't', gone: true });
  });
});

describe('a part that is open while others write', () => {
  const parts = before.flatMap((row) =>
    row.parts.flatMap((part, index): OpenPart[] => (part.edit ? [{ mark: row.mark, index, was: { ...part, edit: part.edit } }] : [])),
  );
  const open = parts.find((part) => part.was.edit.slot === 'condition') as OpenPart;
  const take = (flow: string, value: string): string => {
    const now = partNow(open, rowsOf(flow));
    return now ? applyEdits(flow, [{ from: now.edit.from, to: now.edit.to, insert: partText(now.edit, value) }]) : flow;
  };

  test('moves along with what is written above it', () => {
    const moved = text.replace('take in', '// a long comment that somebody writes\ntake in');
    expect(partNow(open, rowsOf(moved))?.edit.from).toBeGreaterThan(open.was.edit.from);
    expect(take(moved, 'email = null')).toContain('keep when email = null');
    expect(take(moved, 'email = null')).toContain('// a long comment that somebody writes');
  });

  test('is not there any more when its line is, or when the line says something else now', () => {
    expect(
      partNow(
        open,
        before.filter((row) => row.mark !== open.mark),
      ),
    ).toBeUndefined();
    expect(partNow(open, rowsOf(replaceLine(text, open.mark, 'stop')))).toBeUndefined();
  });

  test('is found again wherever its line is moved to', () => {
    fc.assert(
      fc.property(fc.constantFrom(...parts), fc.constantFrom(...before), (part, target) => {
        const moved = placeLine(text, part.mark, target.kind === 'arm' ? { inArm: target.mark } : { below: target.mark });
        const now = partNow(part, rowsOf(moved));
        expect(now?.edit.source).toBe(part.was.edit.source);
        expect(now && moved.slice(now.edit.from, now.edit.to)).toBe(text.slice(part.was.edit.from, part.was.edit.to));
      }),
    );
  });
});
