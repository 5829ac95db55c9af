/** @jsxImportSource @emotion/react */
'use client';
import { useEffect, useId, useRef, useState } from 'react';
import './records.css';
import { optionsAt, readTyped, takeOption, type About } from '../state/condition';
import { useFields } from '../../client/fields';
import { placed } from '../../kit/placed';

interface Props {
  readonly about: About;
  readonly condition: string;
  readonly found: number | null;
  readonly onAsk: (condition: string) => void;
}

const ASK_AFTER_MS = 500;

/** A condition typed as in flows: completed while typing, said in words before it is asked, refused with its place. */
export function ConditionField({ about, condition, found, onAsk }: Props) {
  const fields = useFields();
  const [typed, setTyped] = useState(condition);
  const [caret, setCaret] = useState(0);
  const [near, setNear] = useState(-1);
  const [open, setOpen] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const list = useId();
  const reading = readTyped(typed, about, fields);
  const options = open ? optionsAt(typed, caret, about, fields) : [];
  /** A name half typed is no mistake yet. */
  const halfway = options.length > 0;
  useEffect(() => {
    if (typed.trim() === condition.trim() || reading.kind === 'wrong') return;
    const timer = setTimeout(() => {
      onAsk(typed.trim());
    }, ASK_AFTER_MS);
    return () => {
      clearTimeout(timer);
    };
  });
  const take = (name: string): void => {
    const next = takeOption(typed, caret, name);
    setTyped(next.text);
    setCaret(next.caret);
    setNear(-1);
    requestAnimationFrame(() => {
      input.current?.focus();
      input.current?.setSelectionRange(next.caret, next.caret);
    });
  };
  return (
    <div className="condition" role="search">
      <label htmlFor={`${list}-in`} className="quiet small">
        where
      </label>
      <div css={placed({ position: 'relative', flex: 1, minWidth: 0 })}>
        <input
          id={`${list}-in`}
          ref={input}
          className="mono"
          role="combobox"
          aria-expanded={options.length > 0}
          aria-controls={list}
          aria-invalid={reading.kind === 'wrong' && !halfway}
          aria-describedby={`${list}-says`}
          autoComplete="off"
          spellCheck={false}
          placeholder={about === 'person' ? 'company.employees >= 20 and email != null' : 'employees >= 20 and country = "NL"'}
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
            setCaret(event.target.selectionStart ?? event.target.value.length);
            setNear(-1);
            setOpen(true);
          }}
          onSelect={(event) => {
            setCaret(event.currentTarget.selectionStart ?? 0);
          }}
          onFocus={() => {
            setOpen(true);
          }}
          onBlur={() => {
            setOpen(false);
          }}
          onKeyDown={(event) => {
            if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
              event.preventDefault();
              setNear((at) => Math.max(-1, Math.min(options.length - 1, at + (event.key === 'ArrowDown' ? 1 : -1))));
            } else if ((event.key === 'Enter' || event.key === 'Tab') && options[near]) {
              event.preventDefault();
              take(options[near].name);
            } else if (event.key === 'Enter' && reading.kind !== 'wrong') onAsk(typed.trim());
            else if (event.key === 'Escape') setOpen(false);
          }}
        />
        {options.length > 0 ? (
          <ul id={list} role="listbox" aria-label="Fields" className="offers">
            {options.map((option, i) => (
              <li
                key={option.name}
                role="option"
                aria-selected={i === near}
                className={i === near ? 'on' : ''}
                onMouseDown={(event) => {
                  event.preventDefault();
                  take(option.name);
                }}
              >
                <span className="mono">{option.name}</span>
                <span className="quiet small">
                  {option.label}, like {option.sample}
                </span>
              </li>
            ))}
          </ul>
        ) : null}
      </div>
      <span id={`${list}-says`} className={`small says ${reading.kind === 'wrong' && !halfway ? 'in-brick' : 'quiet'}`} role="status">
        {halfway && reading.kind === 'wrong'
          ? 'go on typing, or choose a field'
          : reading.kind === 'wrong'
            ? `■ ${reading.says}`
            : reading.kind === 'means'
              ? `${reading.says}${found !== null && typed.trim() === condition.trim() ? ` · ${found.toLocaleString('en-GB')}` : ''}`
              : 'type a condition as in flows'}
      </span>
    </div>
  );
}
