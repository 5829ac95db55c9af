'use client';
import { useEffect, useRef } from 'react';
import type { Topic } from '../../api';
import { asking } from './asking';
import { onLive } from './live';

/** Calls `ask` after something about one of the topics was told, as `asking` says when. */
export function useLive(topics: readonly Topic[], everyMs: number, ask: () => Promise<void> | void): void {
  const latest = useRef(ask);
  useEffect(() => {
    latest.current = ask;
  }, [ask]);
  const names = topics.join(' ');
  useEffect(() => {
    const { heard, stop } = asking(names.split(' ') as Topic[], everyMs, () => latest.current());
    const leave = onLive((event) => {
      if (event.kind === 'new') heard(event.topics);
    });
    return () => {
      leave();
      stop();
    };
  }, [names, everyMs]);
}
