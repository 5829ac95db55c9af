/**
 * Flow text to tree and back. Promises: parsing is total and located, printing is canonical and idempotent, one wrong
 * line never hides another. Refuses: meaning - names, types and existence are checked in flow/check.
 */
export type * from '../tree/tree';
export { armsOf, numberedLines } from '../tree/tree';
export { isScreen, SCREENS, type Screen } from '../tree/screens';
export { parseFlow, parseLines } from './parse';
export { answerTypeText, clockText, quote } from '../tree/notation';
export { printFlow, stepRows, type PrintOptions } from './print';
export { parser as flowParser } from '../tree/grammar.gen';
export {
  addVerb,
  ITS_OWNER,
  LETS_PASS,
  verbOf,
  verbs,
  type Addressee,
  type AnswerPart,
  type ChangeIntake,
  type ClockIntake,
  type Shape,
  type SortLabel,
  type VerbOf,
  type WaitFor,
} from '../verbs';
export { DOCUMENT_KINDS, DOCUMENT_PARTS, isDocumentKind, type DocumentKind, type DocumentPart } from '../tree/documents';
