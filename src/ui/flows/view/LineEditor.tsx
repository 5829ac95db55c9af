'use client';
import { Button } from '@mui/material';
import { useMemo, useRef, useState, type KeyboardEvent } from 'react';
import type { Library } from '../../../core/flow/check';
import { completeAt } from '../../../core/flow/complete';
import { sayLine } from '../../../core/flow/say';
import { parseLines } from '../../../core/flow/syntax';
import { Sentence } from './Sentence';

interface Props {
  readonly initial: string;
  readonly label: string;
  readonly library: Library;
  readonly onTake: (typed: string) => void;
  readonly onCancel: () => void;
}

/**
 * One line typed as flow text. Completion is offered while typing (Tab takes the first); below stands what was understood.
 * Enter takes the line over, Shift+Enter begins a clause, Escape leaves. Text that is not understood is not taken.
 */
export function LineEditor({ initial, label, library, onTake, onCancel }: Props) {
  const [typed, setTyped] = useState(initial);
  const [caret, setCaret] = useState(initial.length);
  const [at, setAt] = useState(0);
  const area = useRef<HTMLTextAreaElement>(null);
  const completion = useMemo(() => completeAt(typed, caret, library), [typed, caret, library]);
  const { tree, problems } = useMemo(() => parseLines(typed), [typed]);
  const [problem] = problems;
  const line = tree.lines[0];
  const canTake = line !== undefined && problem === undefined && line.step.verb !== 'unknown';

  const insert = (index: number): void => {
    const option = completion?.options[index];
    if (!completion || !option) return;
    const next = typed.slice(0, completion.from) + option.insert + typed.slice(caret);
    const place = completion.from + option.insert.length;
    setTyped(next);
    setCaret(place);
    setAt(0);
    requestAnimationFrame(() => {
      area.current?.setSelectionRange(place, place);
      area.current?.focus();
    });
  };

  const onKey = (event: KeyboardEvent): void => {
    event.stopPropagation();
    const count = completion?.options.length ?? 0;
    if (event.key === 'Escape') onCancel();
    else if (event.key === 'Tab' && count > 0 && !event.shiftKey) insert(at);
    else if (event.key === 'ArrowDown' && count > 0) setAt((at + 1) % count);
    else if (event.key === 'ArrowUp' && count > 0) setAt((at + count - 1) % count);
    else if (event.key === 'Enter' && !event.shiftKey && canTake) onTake(typed);
    else if (event.key === 'Enter' && event.shiftKey) {
      const next = `${typed.slice(0, caret)}\n  ${typed.slice(caret)}`;
      setTyped(next);
      setCaret(caret + 3);
    } else if (event.key !== 'Enter') return;
    event.preventDefault();
  };

  return (
    <div className="line-editor">
      <textarea
        ref={area}
        className="code"
        autoFocus
        rows={Math.max(1, typed.split('\n').length)}
        value={typed}
        aria-label={label}
        placeholder="type a line: keep, read, score, write, wait …"
        spellCheck={false}
        onChange={(event) => {
          setTyped(event.target.value);
          setCaret(event.target.selectionStart);
          setAt(0);
        }}
        onSelect={(event) => {
          setCaret(event.currentTarget.selectionStart);
        }}
        onKeyDown={onKey}
      />
      {completion && completion.options.length > 0 ? (
        <div className="options" aria-label="Completions">
          {completion.options.slice(0, 8).map((option, i) => (
            <button
              key={option.label}
              className={i === at ? 'on' : ''}
              onMouseDown={(event) => {
                event.preventDefault();
                insert(i);
              }}
            >
              <span className="code">{option.label}</span> <span className="quiet small">{option.detail}</span>
            </button>
          ))}
        </div>
      ) : null}
      <div className="understood">
        <span className="grow" role="status">
          {typed.trim() === '' ? (
            <span className="quiet">Tab completes · Shift+Enter begins a clause · Escape leaves</span>
          ) : problem ? (
            <span className="in-brick">{problem.message}</span>
          ) : line ? (
            <Sentence parts={sayLine(line)} />
          ) : null}
        </span>
        <Button
          variant="contained"
          disabled={!canTake}
          onClick={() => {
            onTake(typed);
          }}
        >
          Take it over
        </Button>
        <Button variant="text" onClick={onCancel}>
          Leave
        </Button>
      </div>
    </div>
  );
}
