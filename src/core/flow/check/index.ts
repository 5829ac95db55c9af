/**
 * What a flow's text means against the field catalogue and the named things there are. Promises: every finding has a
 * place, a severity, one sentence, and a mend where one is certain. Refuses: changing anything.
 */
export { fieldsAskedFor } from './asked-fields';
export { checkFlow } from './check';
export { readCondition, type ReadCondition } from '../meaning/condition';
export type { Finding, Mend, TextEdit } from '../meaning/finding';
export { dealShape, ENTRY, FEEL_TYPE, nameAt, type ResultShape } from '../meaning/scope';
export { entryOf, resultOf } from '../verbs';
export { fieldAt } from '../meaning/way';
export { ASKABLE_ROLES, DOCUMENTS, EMPTY_LIBRARY } from '../meaning/known';
export {
  libraryItemSchema,
  libraryParts,
  librarySchema,
  pipelineSchema,
  type Pipeline,
  type Library,
  type LibraryItem,
} from '../meaning/library';
