import { sentencesOf } from '../../sentences';
import { evenFold, plainFold, type DocumentLine } from '../lines';

/** A sentence of a document with the line it stands in. */
export interface Sentence extends DocumentLine {
  /** the line's own number, from 0 */
  readonly line: number;
}

export const sentencesIn = (lines: readonly DocumentLine[]): readonly Sentence[] =>
  lines.flatMap((line, no) =>
    sentencesOf(line.text).map((said) => ({ ...line, text: said, folded: plainFold(said), even: evenFold(said), line: no })),
  );
