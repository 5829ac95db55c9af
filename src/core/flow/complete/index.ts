/**
 * What may stand at a place of a flow's text: verbs at the beginning of a line, names of things inside quotes, fields and
 * results inside conditions; and what stands there already, explained. Promises: every option inserted at `from` continues the text as the language wants it.
 * Refuses: judging - the checker does that.
 */
export { helpAt, type Help } from './help';
export { completeAt, type Completion, type CompletionOption } from './complete';
