/**
 * Flow text to tree and back. Promises: parsing is total and located, printing is canonical and idempotent, one wrong
 * line never hides another. Refuses: meaning - names, types and existence are checked in flow/check.
 */
export type * from './tree';
export { numberedLines } from './tree';
export { isScreen, SCREENS, type Screen } from './screens';
export { parseFlow, parseLines } from './parse';
export { answerTypeText, clockText, printFlow, quote, stepRows, type PrintOptions } from './print';
export { parser as flowParser } from './grammar.gen';
export { VERB_WORDS } from './verbs';
export { ITS_OWNER } from './notices';
export { DOCUMENT_KINDS, DOCUMENT_PARTS, isDocumentKind, type DocumentKind, type DocumentPart } from './documents';
