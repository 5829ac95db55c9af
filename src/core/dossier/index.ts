/**
 * What research found about a record, put in order for somebody who is about to talk to them. Promises: every line rests on
 * a fact or a document and carries its words, place and day; nothing is invented; what is not known is said. Refuses: advice
 * that no fact supports.
 */
export { makeDossier, type DossierInput, type DossierDocument } from './make';
export type { Candidate } from './candidate';
export { dossierMarkdown } from './markdown';
export { dossierSchema, publicUrl, type Dossier, type DossierLine, type DossierSection } from './dossier';
