/** What is open in the script while somebody else changes the flow under it: nothing typed is lost, nothing is written elsewhere. */
import type { EditablePart, Editing, ScriptRow } from './script';

/** The editor of a line that is gone stays open, with what is typed in it, below the nearest line above that is still there. */
export function keepOpen(editing: Editing, before: readonly ScriptRow[], after: readonly ScriptRow[], typed: string): Editing {
  if (editing?.mark === undefined || after.some((row) => row.mark === editing.mark)) return editing;
  const at = before.findIndex((row) => row.mark === editing.mark);
  const above = before.slice(0, Math.max(0, at)).findLast((row) => after.some((other) => other.mark === row.mark));
  return { kind: 'below', mark: above?.mark, typed, gone: true };
}

/** A part of a line that is being changed, by its place in the line and as it stood then. */
export interface OpenPart {
  readonly mark: string;
  readonly index: number;
  readonly was: EditablePart;
}

/** Where an open part stands now: unchanged or not, moved along with what others wrote above it; undefined when it is no longer there. */
export function partNow(open: OpenPart, rows: readonly ScriptRow[]): EditablePart | undefined {
  const part = rows.find((row) => row.mark === open.mark)?.parts[open.index];
  return part?.edit?.slot === open.was.edit.slot ? { ...part, edit: part.edit } : undefined;
}
