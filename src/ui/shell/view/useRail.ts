'use client';
import { useEffect, useRef, useState } from 'react';
import type { Answer } from '../../../api';
import { call, useLive } from '../../client';
import { COUNTED, COUNTS_EVERY_MS } from '../../client/asking';
import { showWaiting, waitingWords, wantsTelling } from '../../client/tell-here';

export type Around = Answer<'readRail'>;

/** What stands around every page, as the server last said: with the page, or since then by itself. */
export function useRail(given: Around): Around {
  const [heard, setHeard] = useState<{ readonly since: Around; readonly around: Around } | null>(null);
  useLive(COUNTED, COUNTS_EVERY_MS, async () => {
    const around = await call('readRail');
    setHeard({ since: given, around });
  });
  const around = heard !== null && heard.since === given ? heard.around : given;
  useTold(around.desk);
  return around;
}

/** Tells who works in another window that something new is on the desk, where they want it. */
function useTold(desk: number): void {
  const before = useRef(desk);
  useEffect(() => {
    const words = waitingWords(before.current, desk);
    before.current = desk;
    if (words !== undefined && document.hidden && wantsTelling()) showWaiting(words);
  }, [desk]);
}
