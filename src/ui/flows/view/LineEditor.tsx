/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { fieldsAskedFor, type Library } from '../../../core/flow/check';
import { completeAt } from '../../../core/flow/complete';
import { readPhrase } from '../../../core/flow/phrase';
import { catalogueOf } from '../../../core/fields';
import { sayLine } from '../../../core/flow/say';
import { parseLines } from '../../../core/flow/syntax';
import { FieldsAskedFor } from './FieldsAskedFor';
import { Sentence } from './Sentence';
import { placed } from '../../kit/placed';

interface Props {
  readonly initial: string;
  readonly label: string;
  readonly library: Library;
  /** the flow’s text above the line: what a phrase may speak of */
  readonly above: string;
  /** the line it was open on was taken out by somebody else */
  readonly gone: boolean;
  /** told what stands in it, so that it can be opened again elsewhere */
  readonly onTyped: (typed: string) => void;
  readonly onTake: (typed: string) => void;
  readonly onCancel: () => void;
}

/**
 * One line typed as flow text. Completion is offered while typing (Tab takes the first); below stands what was understood.
 * Enter takes the line over, Shift+Enter begins a clause, Escape leaves. Text that is not understood is not taken.
 */
export function LineEditor({ initial, label, library, above, gone, onTyped, onTake, onCancel }: Props) {
  const [typed, setTyped] = useState(initial);
  const [begunOn, setBegunOn] = useState(initial);
  useEffect(() => {
    onTyped(typed);
  });
  const [caret, setCaret] = useState(initial.length);
  const [at, setAt] = useState(0);
  const area = useRef<HTMLTextAreaElement>(null);
  const completion = useMemo(() => completeAt(typed, caret, library), [typed, caret, library]);
  const { tree, problems } = useMemo(() => parseLines(typed), [typed]);
  const [problem] = problems;
  const line = tree.lines[0];
  const canTake = line !== undefined && problem === undefined && line.step.verb !== 'unknown';
  const phrase = useMemo(
    () => (canTake || typed.trim() === '' || (completion?.options.length ?? 0) > 0 ? undefined : readPhrase(typed, above, library)),
    [canTake, typed, completion, above, library],
  );
  const readings = phrase?.ok ? phrase.lines : [];

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

  /** A reading takes the place of the phrase; it is taken over only when it has been seen as the line it is. */
  const read = (index: number): void => {
    const next = readings[index];
    if (next === undefined) return;
    setTyped(next);
    setCaret(next.length);
    setAt(0);
  };

  const onKey = (event: KeyboardEvent): void => {
    event.stopPropagation();
    const count = completion?.options.length ?? readings.length;
    if (event.key === 'Escape') onCancel();
    else if (event.key === 'Tab' && count > 0 && !event.shiftKey) (readings.length > 0 ? read : insert)(at);
    else if (event.key === 'ArrowDown' && count > 0) setAt((at + 1) % count);
    else if (event.key === 'ArrowUp' && count > 0) setAt((at + count - 1) % count);
    else if (event.key === 'Enter' && !event.shiftKey && canTake) onTake(typed);
    else if (event.key === 'Enter' && !event.shiftKey && readings.length > 0) read(at);
    else if (event.key === 'Enter' && event.shiftKey) {
      const next = `${typed.slice(0, caret)}\n  ${typed.slice(caret)}`;
      setTyped(next);
      setCaret(caret + 3);
    } else if (event.key !== 'Enter') return;
    event.preventDefault();
  };

  return (
    <div className="line-editor">
      {gone ? (
        <p className="meanwhile" role="status">
          ◆ somebody took this line out meanwhile: taken over, it stands here as a new one
        </p>
      ) : initial !== begunOn ? (
        <p className="meanwhile" role="status">
          ◆ somebody changed this line meanwhile to <span className="code">{initial}</span>{' '}
          <button
            className="linkish"
            onClick={() => {
              setBegunOn(initial);
              setTyped(initial);
              area.current?.focus();
            }}
          >
            go on with theirs
          </button>
        </p>
      ) : null}
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
      {readings.length > 0 ? (
        <div className="options" aria-label="Understood as">
          {readings.map((entry, i) => (
            <button
              key={entry}
              className={i === at ? 'on' : ''}
              onMouseDown={(event) => {
                event.preventDefault();
                read(i);
              }}
            >
              <span className="code" css={placed({ whiteSpace: 'pre' })}>
                {entry}
              </span>
            </button>
          ))}
        </div>
      ) : null}
      <div className="understood">
        <span className="grow" role="status">
          {typed.trim() === '' ? (
            <span className="quiet">Tab completes · Shift+Enter begins a clause · Escape leaves</span>
          ) : readings.length > 0 ? (
            <span className="in-river">
              {readings.length === 1
                ? 'understood as this: Enter writes it'
                : `may mean ${readings.length} things: choose with ↑ ↓, Enter writes it`}
            </span>
          ) : phrase && !phrase.ok && line?.step.verb === 'unknown' ? (
            <span className="in-brick">{phrase.why}</span>
          ) : problem ? (
            <span className="in-brick">{problem.message}</span>
          ) : line ? (
            <Sentence parts={sayLine(line, catalogueOf(library.fields))} />
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
      {canTake ? <FieldsAskedFor fields={fieldsAskedFor(line, library)} /> : null}
    </div>
  );
}
