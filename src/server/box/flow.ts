import { checkFlow, type Finding } from '../../core/flow/check';
import { keepMarks } from '../../core/flow/edit';
import { parseFlow, printFlow } from '../../core/flow/syntax';
import type { BoxWork } from '../ports';

/** More findings than anybody reads: the first so many are told. */
const MOST_FINDINGS = 2_000;

export const findingsOf = ({ text, library }: BoxWork['flow']['in']): readonly Finding[] =>
  checkFlow(parseFlow(text), library).slice(0, MOST_FINDINGS);

export function draftOf({ text, before }: BoxWork['draft']['in']): BoxWork['draft']['out'] {
  const kept = before === null ? printFlow(parseFlow(text).tree, { marks: true }) : keepMarks(before, text);
  return { name: parseFlow(kept).tree.name?.text.trim() ?? '', text: kept };
}
