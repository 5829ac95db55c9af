'use client';
import './text-area.css';
import type { ChangeEvent, KeyboardEvent, Ref } from 'react';

interface Props {
  /** what it is, for who cannot see it; shown above it too with `shown` */
  readonly label: string;
  readonly shown?: boolean;
  readonly value: string;
  readonly disabled?: boolean;
  readonly placeholder?: string;
  /** grows with its text from so many rows */
  readonly rows?: number;
  readonly area?: Ref<HTMLTextAreaElement>;
  readonly onChange: (text: string) => void;
  readonly onKeyDown?: (event: KeyboardEvent<HTMLTextAreaElement>) => void;
}

/** A text of several lines that is as high as its words: the browser measures, so that no style is written into the page. */
export function TextArea({ label, shown = false, value, disabled = false, placeholder, rows = 3, area, onChange, onKeyDown }: Props) {
  return (
    <label className="text-area">
      {shown ? <span className="quiet small">{label}</span> : null}
      <textarea
        ref={area}
        aria-label={label}
        rows={rows}
        value={value}
        disabled={disabled}
        placeholder={placeholder}
        onChange={(event: ChangeEvent<HTMLTextAreaElement>) => {
          onChange(event.target.value);
        }}
        onKeyDown={onKeyDown}
      />
    </label>
  );
}
