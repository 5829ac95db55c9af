import type { Span } from '../tree/tree';

/** Replaces the text between two offsets. */
export interface TextEdit extends Span {
  readonly insert: string;
}

export interface Mend {
  readonly label: string;
  readonly edits: readonly TextEdit[];
}

/** One problem at its place. Errors keep a flow from being released; warnings do not. */
export interface Finding extends Span {
  readonly code:
    | 'syntax'
    | 'expression'
    | 'unknown thing'
    | 'unknown name'
    | 'wrong place'
    | 'name twice'
    | 'never reached'
    | 'not ensured'
    | 'not asked'
    | 'never leaves'
    | 'never used'
    | 'no intake'
    | 'unit'
    | 'bars'
    | 'sends together'
    | 'no limit'
    | 'not connected';
  readonly severity: 'error' | 'warning';
  readonly message: string;
  readonly mend?: Mend;
}
