'use client';
import { useRef, useState } from 'react';

interface Props {
  /** what it is, for who hears it */
  readonly label: string;
  readonly value: string;
  /** what stands on the line while nothing does */
  readonly empty: string;
  readonly isOpen: boolean;
  readonly mayChange: boolean;
  readonly busy: boolean;
  readonly onOpen: () => void;
  readonly onLeave: () => void;
  readonly onType?: (text: string) => void;
  readonly onKeep: (text: string) => void;
}

/** A gap in a sentence: a line to write on, in place. Kept by Enter and when it is left, put back by Escape. */
export function Gap({ label, value, empty, isOpen, mayChange, busy, onOpen, onLeave, onType, onKeep }: Props) {
  if (!mayChange) return <span className={value === '' ? 'letter-gap is-empty' : 'letter-gap'}>{value === '' ? empty : value}</span>;
  if (isOpen)
    return (
      <Writing label={label} value={value} empty={empty} busy={busy} onLeave={onLeave} onKeep={onKeep} {...(onType ? { onType } : {})} />
    );
  // A line of text that breaks where text does, which no button can.
  return (
    <span
      role="button"
      tabIndex={0}
      className={value === '' ? 'letter-gap is-empty' : 'letter-gap'}
      aria-label={`${label}: ${value || 'not said'}`}
      onClick={onOpen}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        onOpen();
      }}
    >
      {value === '' ? empty : value}
    </span>
  );
}

const SHORTEST = 12;
const LONGEST = 46;

function Writing({ label, value, empty, busy, onLeave, onType, onKeep }: Omit<Props, 'isOpen' | 'mayChange' | 'onOpen'>) {
  const [text, setText] = useState(value);
  // What is kept by Enter is not kept again when the line closes.
  const isLeft = useRef(false);
  const leave = (): void => {
    if (isLeft.current) return;
    isLeft.current = true;
    const said = text.trim();
    if (said === value || said === '') onLeave();
    else onKeep(said);
  };
  return (
    <input
      className="letter-writing"
      aria-label={label}
      value={text}
      placeholder={empty}
      size={Math.min(LONGEST, Math.max(SHORTEST, text.length + 2))}
      maxLength={400}
      disabled={busy}
      // The gap was opened to be written in.
      autoFocus
      onChange={(event) => {
        isLeft.current = false;
        setText(event.target.value);
        if (event.target.value.trim() !== '') onType?.(event.target.value);
      }}
      onBlur={leave}
      onKeyDown={(event) => {
        if (event.key === 'Enter') {
          event.preventDefault();
          leave();
        }
        if (event.key === 'Escape') {
          isLeft.current = true;
          onLeave();
        }
      }}
    />
  );
}
