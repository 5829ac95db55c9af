import { clip } from '../../base';
import { rowOf, type Said } from '../said';
import type { Hit } from '../cues';
import type { Candidate } from './candidate';

const LONGEST = 160;

/** Free text: the value of a row whose label is asked for, or the sentence that speaks of it. */
export function textsIn(said: Said, hits: readonly Hit[]): readonly Candidate[] {
  const [hit] = hits;
  if (!hit || said.kind === 'heading') return [];
  const row = rowOf(said);
  if (row && said.folded.slice(0, row.label.length + 1).length >= (said.tokens[hit.from]?.to ?? 0))
    return [{ value: clip(row.value, LONGEST), said, from: hit.to, to: said.tokens.length, marks: { rowValue: 1 } }];
  return [{ value: clip(said.text, LONGEST), said, from: 0, to: said.tokens.length, marks: {} }];
}
