import { fold } from '../base';

/** Folded, with one kind of apostrophe. */
export const plain = (text: string): string => fold(text).replace(/[’‘`´]/g, "'");
