/**
 * Open formats read into plain values. Promises: values in, values out, never a network and never a script run; what a
 * visitor could not see on a page is no text of it. Refuses: deciding what a text means.
 */
export { textBlocks, type Block, type PageText } from './block';
export { boundHtml } from './bounded';
export { readHtml, readPage, type Link } from './html';
export { printedBlocks, type PrintedRun } from './layout';
