/**
 * A flow with the things it names, so that it can leave one workspace and enter another. Promises: what is carried is what
 * the flow and its plans name, nothing else - no secrets, no addresses, no people's data; nothing here is written over.
 * Refuses: files and zipping - a bundle is a value.
 */
export { bundleSchema, makeBundle, NAME_KINDS, namesUsed, type Bundle, type NameKind, type NameUse } from './bundle';
export { matchBundle, settleBundle, type Choice, type Match, type Settled } from './match';
