/**
 * What a flow's text means against the field catalogue and the named things there are. Promises: every finding has a
 * place, a severity, one sentence, and a mend where one is certain. Refuses: changing anything.
 */
export { fieldsAskedFor } from './asked-fields';
export { checkFlow } from './check';
export { readCondition, type ReadCondition } from './condition';
export type { Finding, Mend, TextEdit } from './finding';
export { ENTRY, entryOf, FEEL_TYPE, resultOf } from './scope';
export { fieldAt } from './way';
export { ASKABLE_ROLES, DOCUMENTS, EMPTY_LIBRARY } from './known';
export { libraryItemSchema, libraryParts, librarySchema, pipelineSchema, type Pipeline, type Library, type LibraryItem } from './library';
