'use client';
import type { Part } from '../../../core/flow/say';
import type { EditablePart } from '../state/script';

const isEditable = (part: Part): part is EditablePart => part.edit !== undefined;

interface Props {
  readonly parts: readonly Part[];
  readonly off?: boolean;
  /** undefined: the sentence is only read */
  readonly onPart?: ((part: EditablePart, index: number, anchor: HTMLElement) => void) | undefined;
}

/** A line read aloud; parts that can be changed are buttons. */
export function Sentence({ parts, off = false, onPart }: Props) {
  return (
    <span className={`sentence ${off ? 'off' : ''}`}>
      {parts.map((part, i) => {
        const gap = i > 0 && !part.text.startsWith(',') ? ' ' : '';
        return (
          <span key={i}>
            {gap}
            {isEditable(part) && onPart ? (
              // A real button cannot be cut with an ellipsis in the middle of its words: a long condition would vanish whole.
              <span
                className="part"
                role="button"
                tabIndex={0}
                onClick={(event) => {
                  event.stopPropagation();
                  onPart(part, i, event.currentTarget);
                }}
                onKeyDown={(event) => {
                  if (event.key !== 'Enter' && event.key !== ' ') return;
                  event.preventDefault();
                  onPart(part, i, event.currentTarget);
                }}
              >
                {part.text}
              </span>
            ) : (
              <span className={`is-${part.role}`}>{part.text}</span>
            )}
          </span>
        );
      })}
    </span>
  );
}
