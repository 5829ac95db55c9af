/**
 * A flow as a picture for documents: SVG text that needs no font, script or style from outside. Promises: the same tree
 * gives the same picture; every text is escaped. Refuses: figures - a picture in a document is not live.
 */
export { drawFlow } from './diagram';
