'use client';
import { useEffect, useState } from 'react';
import { call, sayProblem } from '../../client';
import type { Trial } from '../state/types';

const POLL_MS = 500;

export interface TrialAsk {
  readonly recordIds: readonly string[];
  readonly limitMicro: number;
  readonly afresh: boolean;
}

interface TrialRun {
  readonly trials: readonly Trial[];
  readonly running: boolean;
  readonly problem: string | null;
  readonly start: (ask: TrialAsk) => Promise<void>;
}

/** The newest trial and the one before it; while one runs it is looked at again and again. */
export function useTrial(flowId: string, first: readonly Trial[]): TrialRun {
  const [trials, setTrials] = useState(first);
  const [problem, setProblem] = useState<string | null>(null);
  const [starting, setStarting] = useState(false);
  const newest = trials[0];
  const running = (newest?.running ?? 0) > 0;

  useEffect(() => {
    if (!newest || !running) return;
    const timer = setTimeout(() => {
      call('getTrial', { params: { id: flowId, trialId: newest.id } }).then(
        (next) => {
          setTrials((before) => [next, ...before.slice(1)]);
        },
        (error: unknown) => {
          setProblem(sayProblem(error));
        },
      );
    }, POLL_MS);
    return () => {
      clearTimeout(timer);
    };
  }, [flowId, newest, running]);

  const start = async ({ recordIds, limitMicro, afresh }: TrialAsk): Promise<void> => {
    setStarting(true);
    setProblem(null);
    try {
      const { trialId } = await call('startTrial', {
        params: { id: flowId },
        body: { ...(recordIds.length > 0 && { recordIds: [...recordIds] }), limitMicro, afresh },
      });
      const trial = await call('getTrial', { params: { id: flowId, trialId } });
      setTrials((before) => [trial, ...before.slice(0, 1)]);
    } catch (error) {
      setProblem(sayProblem(error));
    }
    setStarting(false);
  };
  return { trials, running: running || starting, problem, start };
}
