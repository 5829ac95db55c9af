import { cleanText, pieces, type Instant } from '../base';

/** A piece of a page or document as its author set it apart. */
export interface Block {
  /** `row`: cells of one table row or term and description, “label: value”; `data`: what the page says to machines (JSON-LD, microdata) */
  readonly kind: 'heading' | 'text' | 'item' | 'row' | 'data';
  readonly text: string;
  /** the heading it stands under; empty for none */
  readonly under: string;
  /** the day it is marked with, if it is */
  readonly date: Instant | null;
}

/** What a page or a document says, as text. */
export interface PageText {
  readonly title: string;
  /** as declared, in lower case: `de`; empty when not declared */
  readonly language: string;
  /** the day the page says it is of */
  readonly published: Instant | null;
  readonly blocks: readonly Block[];
}

/** Plain text as blocks, one a line; a line without end is several. What stands apart by more than two blanks is parted by a tab. */
export function textBlocks(text: string): readonly Block[] {
  return cleanText(text)
    .split(/\n+/)
    .flatMap((line) =>
      pieces(
        line
          .trim()
          .replace(/[^\S\t]{3,}|\t+/g, '\t')
          .replace(/[^\S\t]+/g, ' '),
      ),
    )
    .filter((line) => line !== '')
    .map((line) => ({ kind: 'text' as const, text: line, under: '', date: null }));
}
