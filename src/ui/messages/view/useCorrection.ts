'use client';
import { useEffect, useState } from 'react';
import type { CorrectionTrialView } from '../../../api';
import { call, sayProblem } from '../../client';
import type { Correction } from '../state/correct';

export interface Correcting {
  readonly correction: Correction;
  readonly setCorrection: (next: Correction) => void;
  /** the sentences that can show it; null: not there yet */
  readonly sentences: readonly string[] | null;
  /** what the correction would do; null: not there yet */
  readonly trial: CorrectionTrialView | null;
  readonly problem: string | null;
}

/** A correction of a mail as it is chosen, tried with every change. */
export function useCorrection(messageId: string, quote: string | null): Correcting {
  const [correction, setCorrection] = useState<Correction>({ kind: 'interested', objection: null, words: null });
  const [sentences, setSentences] = useState<readonly string[] | null>(null);
  const [trial, setTrial] = useState<CorrectionTrialView | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    let isCurrent = true;
    call('sentencesToTeach', { params: { id: messageId } }).then(
      ({ items }) => {
        if (!isCurrent) return;
        setSentences(items);
        setCorrection((before) => ({ ...before, words: items.find((item) => item === quote?.trim()) ?? items[0] ?? null }));
      },
      (error: unknown) => {
        if (isCurrent) setProblem(sayProblem(error));
      },
    );
    return () => {
      isCurrent = false;
    };
  }, [messageId, quote]);
  useEffect(() => {
    let isCurrent = true;
    call('tryCorrection', { params: { id: messageId }, body: correction }).then(
      (next) => {
        if (!isCurrent) return;
        setTrial(next);
        setProblem(null);
      },
      (error: unknown) => {
        if (isCurrent) setProblem(sayProblem(error));
      },
    );
    return () => {
      isCurrent = false;
    };
  }, [messageId, correction]);
  return { correction, setCorrection, sentences, trial, problem };
}
