'use client';
import { useState } from 'react';
import { sayProblem } from './index';

export interface Asking {
  readonly busy: boolean;
  readonly said: { readonly text: string; readonly calm: boolean } | null;
  readonly hush: () => void;
  readonly tell: (text: string) => void;
  /** Asks the server; says what came of it, or why not. Nothing else is asked meanwhile. */
  readonly ask: <T>(asked: Promise<T>, says: string | null | ((answer: T) => string), then?: (answer: T) => void) => void;
}

/** One question to the server at a time, with what came of it. */
export function useAsk(): Asking {
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState<Asking['said']>(null);
  return {
    busy,
    said,
    hush: () => {
      setSaid(null);
    },
    tell: (text) => {
      setSaid({ calm: true, text });
    },
    ask: (asked, says, then) => {
      setBusy(true);
      asked.then(
        (answer) => {
          setBusy(false);
          setSaid(says === null ? null : { calm: true, text: typeof says === 'string' ? says : says(answer) });
          then?.(answer);
        },
        (error: unknown) => {
          setBusy(false);
          setSaid({ calm: false, text: sayProblem(error) });
        },
      );
    },
  };
}
