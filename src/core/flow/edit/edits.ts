import { assert } from '../../base';
import type { TextEdit } from '../check';

/** Applies edits given in offsets of the text before any of them. They may not overlap. */
export function applyEdits(text: string, edits: readonly TextEdit[]): string {
  let out = '';
  let at = 0;
  for (const edit of [...edits].sort((a, b) => a.from - b.from)) {
    assert(edit.from >= at && edit.to >= edit.from && edit.to <= text.length, 'edits lie inside the text and do not overlap');
    out += text.slice(at, edit.from) + edit.insert;
    at = edit.to;
  }
  return out + text.slice(at);
}

/** The edits that turn the changed text back into `text`. */
export function reverseEdits(text: string, edits: readonly TextEdit[]): readonly TextEdit[] {
  let shift = 0;
  return [...edits]
    .sort((a, b) => a.from - b.from)
    .map((edit) => {
      const from = edit.from + shift;
      shift += edit.insert.length - (edit.to - edit.from);
      return { from, to: from + edit.insert.length, insert: text.slice(edit.from, edit.to) };
    });
}
