/** @jsxImportSource @emotion/react */
'use client';
import './text-area.css';
import type { ChangeEvent, KeyboardEvent, Ref } from 'react';
import { placed } from './placed';

interface Props {
  /** what it is, for who cannot see it; shown above it too with `shown` */
  readonly label: string;
  readonly shown?: boolean;
  readonly value: string;
  readonly disabled?: boolean;
  readonly readOnly?: boolean;
  readonly autoFocus?: boolean;
  /** letters of one width, and no spelling looked at */
  readonly isCode?: boolean;
  readonly placeholder?: string;
  /** grows with its text from so many rows */
  readonly rows?: number;
  readonly area?: Ref<HTMLTextAreaElement>;
  /** missing where it is only read */
  readonly onChange?: (text: string) => void;
  readonly onBlur?: () => void;
  readonly onKeyDown?: (event: KeyboardEvent<HTMLTextAreaElement>) => void;
}

/** A text of several lines that is as high as its words: the browser measures, so that no style is written into the page. */
export function TextArea({
  label,
  shown = false,
  value,
  disabled = false,
  readOnly = false,
  autoFocus = false,
  isCode = false,
  placeholder,
  rows = 3,
  area,
  onChange,
  onBlur,
  onKeyDown,
}: Props) {
  return (
    <label className="text-area">
      {shown ? <span className="quiet small">{label}</span> : null}
      <textarea
        ref={area}
        className={isCode ? 'in-code' : undefined}
        // Where the browser sizes a field by its content it forgets its rows: with 7 px of padding and 1 px of border on each side.
        css={placed({ minHeight: `calc(${rows} * 1lh + 16px)` })}
        aria-label={label}
        rows={rows}
        value={value}
        disabled={disabled}
        readOnly={readOnly}
        autoFocus={autoFocus}
        spellCheck={!isCode}
        placeholder={placeholder}
        onChange={(event: ChangeEvent<HTMLTextAreaElement>) => {
          onChange?.(event.target.value);
        }}
        onBlur={onBlur}
        onKeyDown={onKeyDown}
      />
    </label>
  );
}
