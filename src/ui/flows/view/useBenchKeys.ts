import { insertLineAfter, lineText } from '../../../core/flow/edit';
import { parseLines } from '../../../core/flow/syntax';
import { useShortcuts } from '../../kit/keys';
import { useLineClipboard } from './useLineClipboard';
import type { Bench } from './useWorkbench';

/** The keyboard of the workbench: lines are walked through, moved, copied and typed without a mouse. */
export function useBenchKeys(bench: Bench, mayEdit: boolean): void {
  const { draft, view, line, row, deeds, change, setEditing, step, specimen, setSpecimen, trial, tryOut } = bench;
  const { send } = bench.drafting;
  /** A key that would change nothing keeps its usual meaning: Tab goes on to the next control. */
  const to = (text: string | undefined): (() => void) | undefined =>
    text === undefined || view !== 'script' ? undefined : () => change(text);
  useLineClipboard({
    copied: () => (view === 'script' && line !== undefined ? lineText(draft.text, line) : ''),
    onCut: to(deeds.remove),
    onPaste:
      mayEdit && view === 'script'
        ? (raw) => {
            const pasted = raw.replace(/\r\n?/g, '\n');
            const { tree, problems } = parseLines(pasted);
            if (problems.length === 0 && tree.lines.length > 0 && tree.lines.every((entry) => entry.step.verb !== 'unknown'))
              change(insertLineAfter(draft.text, row?.mark, pasted));
            else setEditing({ kind: 'below', mark: row?.mark, typed: pasted.trim() });
          }
        : undefined,
  });
  useShortcuts({
    ArrowDown: () => step(1),
    ArrowUp: () => step(-1),
    '[': () => setSpecimen(Math.max(0, specimen - 1)),
    ']': () => setSpecimen(Math.min((trial?.trips.length ?? 1) - 1, specimen + 1)),
    'Alt+ArrowDown': to(deeds.down),
    'Alt+ArrowUp': to(deeds.up),
    o: to(deeds.flip),
    'Ctrl+z': mayEdit && (() => send({ kind: 'undo' })),
    'Ctrl+y': mayEdit && (() => send({ kind: 'redo' })),
    t: mayEdit && (() => void tryOut()),
    T: mayEdit && (() => void tryOut(true)),
    n: mayEdit && view === 'script' && (() => setEditing({ kind: 'below', mark: row?.mark })),
    Tab: to(deeds.into),
    'Shift+Tab': to(deeds.out),
    Delete: to(deeds.remove),
    Enter: view === 'script' && mayEdit && line !== undefined && (() => setEditing({ kind: 'line', mark: line })),
  });
}
