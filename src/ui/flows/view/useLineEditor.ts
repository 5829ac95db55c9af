import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import type { Library } from '../../../core/flow/check';
import { completeAt } from '../../../core/flow/complete';
import { readPhrase } from '../../../core/flow/phrase';
import { parseLines } from '../../../core/flow/syntax';

export interface LineEditorProps {
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

/** A line that is being typed: what stands in it, what is offered, and what was understood. */
export function useLineEditor({ initial, library, above, onTyped, onTake, onCancel }: LineEditorProps) {
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

  return {
    typed,
    area,
    at,
    completion,
    problem,
    line,
    canTake,
    phrase,
    readings,
    insert,
    read,
    onKey,
    /** somebody changed the line meanwhile */
    isBehind: initial !== begunOn,
    type: (text: string, place: number): void => {
      setTyped(text);
      setCaret(place);
      setAt(0);
    },
    setCaret,
    goOnWithTheirs: (): void => {
      setBegunOn(initial);
      setTyped(initial);
      area.current?.focus();
    },
  };
}
export type TypedLine = ReturnType<typeof useLineEditor>;
