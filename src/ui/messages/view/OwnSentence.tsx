/** @jsxImportSource @emotion/react */
'use client';
import { useRef } from 'react';
import '../../kit/own-field.css';
import { useShortcuts } from '../../kit/keys';

interface Props {
  readonly value: string;
  /** where it lands, counted from 0 */
  readonly at: number;
  readonly places: number;
  readonly onChange: (value: string) => void;
  readonly onMove: (at: number) => void;
}

/** A sentence of one's own that is worked into the draft at once; Alt and the arrows move it. */
export function OwnSentence({ value, at, places, onChange, onMove }: Props) {
  const field = useRef<HTMLInputElement>(null);
  useShortcuts({ s: () => field.current?.focus() });
  return (
    <label className="own-sentence">
      <span className="small">
        <b>a sentence of mine, worked in</b>{' '}
        <span className="quiet">
          {value.trim() === ''
            ? 'S'
            : `lands as sentence ${at + 1} · Alt ↑↓ moves it · yours: checked for names and length, not against facts`}
        </span>
      </span>
      <input
        ref={field}
        className="own-field"
        value={value}
        maxLength={400}
        aria-label="A sentence of mine"
        onChange={(event) => {
          onChange(event.target.value);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Escape') field.current?.blur();
          const by = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0;
          if (by === 0 || !event.altKey) return;
          event.preventDefault();
          onMove(Math.min(places - 1, Math.max(0, at + by)));
        }}
      />
    </label>
  );
}
