/**
 * Edits as values: text replacements that can be applied, reversed and joined (also with what
 * somebody else changed meanwhile). Script and text view both edit through
 * these, so that they cannot drift apart. Promises: apply then reverse gives the text back. Refuses: parsing.
 */
export { applyEdits, reverseEdits } from './edits';
export { indentLine, insertLineAfter, lineText, moveLine, placeLine, removeLine, replaceLine, switchLine } from './lines';
export { keepMarks, marked } from './marks';
export { mergeTexts } from './merge';
