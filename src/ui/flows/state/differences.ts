import { diffArrays } from 'diff';

export interface DiffLine {
  readonly kind: 'same' | 'gone' | 'new';
  readonly text: string;
}

const linesOf = (text: string): string[] =>
  text
    .trimEnd()
    .split('\n')
    .map((line) => line.replace(/ #\w+$/, ''));

/** Line-by-line difference of two flow texts; marks at the ends of lines are not looked at. */
export function differences(before: string, after: string): readonly DiffLine[] {
  return diffArrays(linesOf(before), linesOf(after)).flatMap((part) =>
    part.value.map((text): DiffLine => ({ kind: part.added ? 'new' : part.removed ? 'gone' : 'same', text })),
  );
}
