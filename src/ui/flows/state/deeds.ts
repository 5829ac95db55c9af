import { indentLine, moveLine, removeLine, switchLine } from '../../../core/flow/edit';

/** What can be done with a line by a button or a key: the text there would be then; undefined where it would change nothing. */
export interface Deeds {
  readonly up: string | undefined;
  readonly down: string | undefined;
  readonly into: string | undefined;
  readonly out: string | undefined;
  readonly flip: string | undefined;
  readonly remove: string | undefined;
}

const NONE: Deeds = { up: undefined, down: undefined, into: undefined, out: undefined, flip: undefined, remove: undefined };

export function deedsFor(text: string, mark: string | undefined): Deeds {
  if (mark === undefined) return NONE;
  const changed = (next: string): string | undefined => (next === text ? undefined : next);
  return {
    up: changed(moveLine(text, mark, -1)),
    down: changed(moveLine(text, mark, 1)),
    into: changed(indentLine(text, mark, 1)),
    out: changed(indentLine(text, mark, -1)),
    flip: changed(switchLine(text, mark)),
    remove: changed(removeLine(text, mark)),
  };
}
