'use client';
import { useState } from 'react';
import { call, useLive } from '../../client';
import type { RailView } from './Rail';
import type { TroubleView } from './Troubles';

export interface Around extends RailView {
  readonly troubles: readonly TroubleView[];
}

/** Counts are looked at from the side: now and then is enough. */
const EVERY_MS = 3_000;
const COUNTED = ['counts', 'desk', 'intake', 'duplicates', 'messages'] as const;

/** What stands around every page, as the server last said: with the page, or since then by itself. */
export function useRail(given: Around): Around {
  const [heard, setHeard] = useState<{ readonly since: Around; readonly around: Around } | null>(null);
  useLive(COUNTED, EVERY_MS, async () => {
    const said = await call('readRail');
    setHeard({
      since: given,
      around: { ...said, now: Date.parse(said.now), target: said.target === null ? null : Date.parse(said.target) },
    });
  });
  return heard !== null && heard.since === given ? heard.around : given;
}
