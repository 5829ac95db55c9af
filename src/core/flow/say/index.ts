/**
 * A flow read aloud: each line as a sentence whose parts know where they stand in the text, so that changing a part is a
 * text edit. Promises: every editable part's span covers exactly its source. Refuses: looks.
 */
export { sayFeel } from '../parts/feel';
export type { Part, PartSlot } from '../parts/parts';
export { sayArm, sayLine, sentenceOf, partText } from './say';
