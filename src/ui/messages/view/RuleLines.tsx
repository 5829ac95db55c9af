'use client';
import { useRef, type KeyboardEvent } from 'react';
import type { HoldRulesView } from '../../../api';
import { lineBelow, moved, withLine, withoutLine, withRule, type RuleRow } from '../state/rules';

interface Props {
  readonly text: string;
  readonly rows: readonly RuleRow[];
  readonly means: HoldRulesView['means'];
  readonly mayChange: boolean;
  readonly onChange: (text: string) => void;
}

/** The rules line by line: typed, moved by Alt and the arrows, each with what it means or what is wrong with it. */
export function RuleLines({ text, rows, means, mayChange, onChange }: Props) {
  const list = useRef<HTMLOListElement>(null);
  const focus = (at: number): void => {
    // The line is there once React has drawn it.
    requestAnimationFrame(() => list.current?.querySelectorAll('input')[Math.max(0, at)]?.focus());
  };
  const onKey = (at: number, row: RuleRow) => (event: KeyboardEvent<HTMLInputElement>) => {
    const { key, altKey } = event;
    const by = key === 'ArrowUp' ? -1 : key === 'ArrowDown' ? 1 : 0;
    if (key === 'Enter') {
      onChange(lineBelow(text, at));
      focus(at + 1);
    } else if (key === 'Backspace' && row.text === '' && rows.length > 1) {
      onChange(withoutLine(text, at));
      focus(at - 1);
    } else if (by !== 0 && altKey) {
      onChange(moved(text, at, by));
      focus(Math.min(rows.length - 1, Math.max(0, at + by)));
    } else if (by !== 0) focus(Math.min(rows.length - 1, at + by));
    else return;
    event.preventDefault();
  };
  return (
    <>
      <ol className="rule-lines" ref={list}>
        {rows.map((row, at) => (
          <li key={at}>
            <input
              aria-label={`Rule ${at + 1}`}
              aria-invalid={row.problem !== null && row.problem.instead === undefined}
              value={row.text}
              disabled={!mayChange}
              placeholder={rows.length === 1 ? 'hold when tone is negative' : ''}
              spellCheck={false}
              onChange={(event) => {
                onChange(withLine(text, at, event.target.value));
              }}
              onKeyDown={onKey(at, row)}
            />
            {row.says ? <p className="quiet small">{row.says}</p> : null}
            {row.problem ? (
              <p className={row.problem.instead === undefined ? 'in-brick small' : 'in-brass small'} role="status">
                {row.problem.instead === undefined ? row.problem.says : 'Read as: '}
                {row.problem.instead !== undefined && mayChange ? (
                  <button
                    className="linkish"
                    onClick={() => {
                      onChange(withLine(text, at, row.problem?.instead ?? ''));
                    }}
                  >
                    {row.problem.instead}
                  </button>
                ) : null}
              </p>
            ) : null}
          </li>
        ))}
      </ol>
      {mayChange ? (
        <p className="adding">
          <button
            className="linkish"
            onClick={() => {
              onChange(text.trim() === '' ? 'hold the first 20' : withRule(text, ' ').replace(/ $/, ''));
              focus(rows.length);
            }}
          >
            Another line
          </button>{' '}
          <span className="quiet small">Enter below · Alt ↑↓ moves it · Backspace takes an empty one out</span>
        </p>
      ) : null}
      <details className="means">
        <summary>What a line can speak of</summary>
        <dl>
          {means.map(({ name, means: says }) => (
            <div key={name}>
              <dt className="code">{name}</dt>
              <dd>{says}</dd>
            </div>
          ))}
          <div>
            <dt className="code">deal.…, company.…</dt>
            <dd>their last deal and their company: every field there is; fields of the person stand alone</dd>
          </div>
        </dl>
      </details>
    </>
  );
}
