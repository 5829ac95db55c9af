/**
 * Edits as values: text replacements that can be applied, reversed and joined. Script and text view both edit through
 * these, so that they cannot drift apart. Promises: apply then reverse gives the text back. Refuses: parsing.
 */
export { applyEdits, reverseEdits } from './edits';
export { insertLineAfter, moveLine, removeLine, replaceLine, switchLine } from './lines';
export { keepMarks } from './marks';
