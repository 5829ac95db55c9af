'use client';
import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { onLive, openLive } from '../../client';

/** A page is asked for again at most this often, however much happens. */
const AT_MOST_EVERY_MS = 1_500;
/** What is told together is asked for together. */
const SETTLE_MS = 250;
/** For words that were lost. */
const AT_LEAST_EVERY_MS = 60_000;
const FLOW = /^\/flows\/([0-9a-f-]{36})/;

/** Keeps the page as the server has it, while it is looked at. */
export function useLiveRefresh(path: string): void {
  const router = useRouter();
  const flowId = FLOW.exec(path)?.[1];
  useEffect(() => openLive(flowId), [flowId]);
  useEffect(() => {
    let last = 0;
    let waiting: ReturnType<typeof setTimeout> | undefined;
    const refresh = (): void => {
      waiting = undefined;
      last = performance.now();
      if (document.visibilityState === 'visible') router.refresh();
    };
    const stop = onLive((event) => {
      if (event.kind !== 'work') return;
      waiting ??= setTimeout(refresh, Math.max(SETTLE_MS, last + AT_MOST_EVERY_MS - performance.now()));
    });
    const poll = setInterval(refresh, AT_LEAST_EVERY_MS);
    return () => {
      stop();
      clearInterval(poll);
      clearTimeout(waiting);
    };
  }, [router]);
}
